'use client'
import { policyWidths } from '../../core/brief/policies'
import { bands } from '../../core/regulatory/blocks'
import { useJob } from '../live/job-provider'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { Faults } from './faults'
import { Choice, dayOptions, TextField, YesNo } from './fields'
import { SecretField } from './secret-field'

/** The radio policy. */
export function RadioText() {
  const { brief, change } = useBrief()
  const { radio } = brief
  const used = radio.bands.map(({ band }) => band)
  return (
    <>
      <p>
        Units hang{' '}
        <Choice
          path="radio.place"
          label="Where units hang"
          options={[
            { value: 'indoor', words: 'indoors' },
            { value: 'outdoor', words: 'outdoors' },
          ]}
        />
        , unless a floor of the plan says otherwise. They use{' '}
        {radio.bands.map(({ band }, index) => (
          <span key={band}>
            {index > 0 && ', '}
            {band} GHz at{' '}
            <Choice
              path={`radio.bands.${index}.width`}
              label={`Width at ${band} GHz`}
              read={Number}
              options={policyWidths.map((width) => ({ value: String(width), words: `${width} MHz` }))}
            />
            {radio.bands.length > 1 && (
              <button
                type="button"
                className={classes.remove}
                aria-label={`Leave ${band} GHz out`}
                onClick={() =>
                  change(
                    'radio.bands',
                    radio.bands.filter((each) => each.band !== band),
                  )
                }
              >
                leave out
              </button>
            )}
          </span>
        ))}
        .{' '}
        {bands
          .filter((band) => !used.includes(band))
          .map((band) => (
            <button
              key={band}
              type="button"
              className={classes.add}
              onClick={() =>
                change(
                  'radio.bands',
                  [...radio.bands, { band, width: band === '2.4' ? 20 : 40 }].sort((a, b) => bands.indexOf(a.band) - bands.indexOf(b.band)),
                )
              }
            >
              Use {band} GHz too
            </button>
          ))}
      </p>
      <Faults under={['radio.bands', 'radio.place']} />
      <p>
        Channels that must listen for radar are{' '}
        <Choice
          path="radio.radar"
          label="Radar channels"
          options={[
            { value: 'avoid', words: 'avoided' },
            { value: 'welcome', words: 'welcome' },
          ]}
        />
        . A radio that is disturbed{' '}
        <Choice
          path="radio.narrower"
          label="Narrower channels"
          options={[
            { value: 'allowed', words: 'may be made narrower' },
            { value: 'never', words: 'keeps its width' },
          ]}
        />
        . Low data rates are{' '}
        <Choice
          path="radio.lowRates"
          label="Low data rates"
          options={[
            { value: 'kept', words: 'kept for reach' },
            { value: 'dropped', words: 'dropped for airtime' },
          ]}
        />
        .{' '}
        {used.includes('2.4') && (
          <>
            At 2.4 GHz the channels are{' '}
            <Choice
              path="radio.raster24"
              label="Channels at 2.4 GHz"
              options={[
                { value: '1-6-11', words: '1, 6, 11' },
                { value: '1-5-9-13', words: '1, 5, 9, 13' },
              ]}
            />
            .{' '}
          </>
        )}
        {used.includes('6') && (
          <>
            At 6 GHz units use{' '}
            <Choice
              path="radio.scanning6"
              label="Channels at 6 GHz"
              options={[
                { value: 'preferred', words: 'preferred scanning channels' },
                { value: 'any', words: 'any channel' },
              ]}
            />
            .
          </>
        )}
      </p>
      <p>
        The weakest device speaks at <TextField path="radio.power.clientDbm" label="Power of the weakest device, dBm" kind="number" face="mono" /> dBm, and units match it; 2.4 GHz
        is <TextField path="radio.power.lowerAt24Db" label="How much quieter 2.4 GHz is, dB" kind="number" face="mono" /> dB quieter.
      </p>
      <Faults under={['radio']} except={['radio.bands', 'radio.place']} />
    </>
  )
}

/** How units are signed in to. */
export function AdminText() {
  const { units } = useJob()
  const { brief } = useBrief()
  return (
    <>
      <p>
        There is{' '}
        <Choice
          path="admin.passwords"
          label="Admin passwords"
          options={[
            { value: 'one-per-job', words: 'one admin password for every unit' },
            { value: 'one-per-unit', words: 'an admin password for each unit' },
          ]}
        />
        .{' '}
        {brief.admin.passwords === 'one-per-job' ? (
          <SecretField name="admin/password" label="Admin password" />
        ) : (
          <span className="soft">{units.length === 0 ? 'They are made as units come to the kit list.' : `${units.length} are made and sealed.`}</span>
        )}
      </p>
      <p>
        A controller signs in to its units with{' '}
        <Choice
          path="admin.pushedLogin"
          label="Login that a controller sets"
          options={[
            { value: 'own', words: 'a password of their own' },
            { value: 'same', words: 'the same password' },
          ]}
        />
        . {brief.admin.pushedLogin === 'own' && <SecretField name="admin/pushed-password" label="Password that it sets" />} Indicator lights are{' '}
        <Choice
          path="admin.lights"
          label="Indicator lights"
          options={[
            { value: 'on', words: 'on' },
            { value: 'off', words: 'off' },
          ]}
        />
        .
      </p>
      <Faults under={['admin']} />
    </>
  )
}

/** What keeps watch when the installer has left. */
export function AftercareText() {
  const { brief } = useBrief()
  const { aftercare } = brief
  return (
    <>
      <p>
        Units are managed over <YesNo path="aftercare.httpsOnly" label="HTTPS only" yes="HTTPS only" no="HTTPS and plain HTTP" />, SSH is{' '}
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
            as <TextField path="aftercare.snmp.user" label="SNMP user" face="mono" /> <SecretField name="snmp/authentication" label="Authentication key" />{' '}
            <SecretField name="snmp/privacy" label="Privacy key" />
          </>
        )}
        . Syslog goes to <TextField path="aftercare.syslog" label="Syslog server" kind="optional" face="mono" placeholder="nobody" />.
      </p>
      <Faults under={['aftercare.httpsOnly', 'aftercare.ssh', 'aftercare.snmp', 'aftercare.syslog', 'aftercare.telnet']} />
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
        . Firmware is <TextField path="aftercare.firmware" label="Oldest firmware" face="mono" placeholder="whatever they bring" />
        {aftercare.firmware !== '' && ' or newer'}.
      </p>
      <Faults under={['aftercare.mail', 'aftercare.restart', 'aftercare.firmware']} />
    </>
  )
}
