'use client'
import { useBrief } from './brief-draft'
import { Faults } from './faults'
import { Choice, dayOptions, TextField } from './fields'
import { FirmwareImages } from './firmware-images'
import { PlainFields, plainPaths } from './plain-fields'
import { SecretField } from './secret-field'

const flags = { section: 'aftercare', kinds: ['flag'] } as const

/** What keeps watch when the installer has left. */
export function AftercareText() {
  const { brief } = useBrief()
  const { aftercare } = brief
  return (
    <>
      <p>
        <PlainFields {...flags} path="aftercare" />
        SSH is{' '}
        <Choice
          path="aftercare.ssh"
          label="SSH"
          options={[
            { value: 'off', words: 'off' },
            { value: 'on', words: 'on' },
          ]}
        />
        . They are watched by{' '}
        <Choice
          path="aftercare.snmp"
          label="SNMP"
          options={[
            { value: 'none', words: 'nobody' },
            { value: 'v3', words: 'SNMPv3' },
          ]}
          read={(value) => (value === 'v3' ? { user: 'watch' } : null)}
          write={(value) => (value ? 'v3' : 'none')}
        />
        {aftercare.snmp && (
          <>
            {' '}
            as <TextField path="aftercare.snmp.user" label="SNMP user" face="mono" />{' '}
            <SecretField name="snmp/authentication" label="Authentication key" />{' '}
            <SecretField name="snmp/privacy" label="Privacy key" />
          </>
        )}
        . Syslog goes to{' '}
        <TextField path="aftercare.syslog" label="Syslog server" kind="optional" face="mono" placeholder="nobody" />.
      </p>
      <Faults
        under={[
          ...plainPaths({ ...flags, path: 'aftercare' }),
          'aftercare.ssh',
          'aftercare.snmp',
          'aftercare.syslog',
          'aftercare.telnet',
        ]}
      />
      <p>
        Alerts are{' '}
        <Choice
          path="aftercare.mail"
          label="Mail alerts"
          options={[
            { value: 'none', words: 'not mailed' },
            { value: 'mail', words: 'mailed' },
          ]}
          read={(value) => (value === 'mail' ? { server: '', to: '' } : null)}
          write={(value) => (value ? 'mail' : 'none')}
        />
        {aftercare.mail && (
          <>
            {' '}
            to <TextField path="aftercare.mail.to" label="Alerts go to" placeholder="address" /> through{' '}
            <TextField path="aftercare.mail.server" label="Mail server" face="mono" placeholder="server" />
          </>
        )}
        . Units restart{' '}
        <Choice
          path="aftercare.restart"
          label="Planned restart"
          options={[
            { value: 'none', words: 'never by themselves' },
            { value: 'weekly', words: 'every week' },
          ]}
          read={(value) => (value === 'weekly' ? { day: 'sun', at: '03:30' } : null)}
          write={(value) => (value ? 'weekly' : 'none')}
        />
        {aftercare.restart && (
          <>
            {' '}
            on <Choice path="aftercare.restart.day" label="Day of the restart" options={dayOptions} /> at{' '}
            <TextField path="aftercare.restart.at" label="Time of the restart" face="mono" />
          </>
        )}
        . Firmware is{' '}
        <TextField path="aftercare.firmware" label="Oldest firmware" face="mono" placeholder="whatever they bring" />
        {aftercare.firmware !== '' && ' or newer'}.
      </p>
      <FirmwareImages />
      <Faults under={['aftercare.mail', 'aftercare.restart', 'aftercare.firmware', 'aftercare.images']} />
    </>
  )
}
