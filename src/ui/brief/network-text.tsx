'use client'
import { secretName } from '../../core/brief/brief'
import { ssidBytes } from '../../core/brief/ssid'
import { asksRadius, securityModes, securityNames, takesPassphrase } from '../../core/catalogue/security-mode'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { Faults } from './faults'
import { Choice, Several, TextField } from './fields'
import { NetworkLimits } from './network-limits'
import { PlainFields, plainPaths } from './plain-fields'
import { RadiusServers } from './radius-servers'
import { SecretField } from './secret-field'

const purposes = [
  { value: 'staff', words: 'staff' },
  { value: 'guests', words: 'guests' },
  { value: 'voice', words: 'voice' },
  { value: 'things', words: 'things' },
]
const bandOptions = [
  { value: '2.4', words: '2.4 GHz' },
  { value: '5', words: '5 GHz' },
  { value: '6', words: '6 GHz' },
]

const flags = { section: 'network', kinds: ['flag'] } as const

/** One wireless network, in sentences. */
export function NetworkText({ index }: { index: number }) {
  const { brief, change } = useBrief()
  const network = brief.networks[index]
  if (!network) return null
  const path = `networks.${index}`
  return (
    <article className={classes.network} aria-label={`Network ${network.ssid}`}>
      <p>
        <TextField path={`${path}.ssid`} label="Name of the network (SSID)" placeholder="name" />{' '}
        <span className={classes.count}>{ssidBytes(network.ssid)} of 32 bytes</span> is for{' '}
        <Choice path={`${path}.purpose`} label="What the network is for" options={purposes} />, at{' '}
        <Several path={`${path}.bands`} label="Bands" options={bandOptions} />.
        <button
          type="button"
          className={classes.remove}
          onClick={() =>
            change(
              'networks',
              brief.networks.filter((_, at) => at !== index),
            )
          }
        >
          Take it off
        </button>
      </p>
      <Faults under={[`${path}.ssid`, `${path}.bands`, `${path}.purpose`, `${path}.id`]} />
      <p>
        Who joins needs{' '}
        <Choice
          path={`${path}.security`}
          label="Security"
          options={securityModes.map((mode) => ({
            value: mode,
            words: mode === 'open' ? 'nothing: it is open' : securityNames[mode],
          }))}
        />
        {network.security !== 'open' && ', encrypted with AES-CCMP'}.{' '}
        {takesPassphrase(network.security) && (
          <SecretField name={secretName.passphrase(network)} label="Passphrase" network={network.id} />
        )}
        {network.security === 'open' && (
          <>
            Type its name again to confirm that it is open:{' '}
            <TextField
              path={`${path}.openConfirmation`}
              label="The name of the open network, again"
              placeholder="name again"
            />
          </>
        )}
        {asksRadius(network.security) && <RadiusServers path={path} network={network} />}
      </p>
      <Faults
        under={[
          `${path}.security`,
          `${path}.passphrase`,
          `${path}.openConfirmation`,
          `${path}.radius`,
          `${path}.cipher`,
        ]}
      />
      <p>
        Clients land on VLAN{' '}
        <TextField path={`${path}.vlan`} label="VLAN of the network" kind="number" face="mono" placeholder="none" />
        {'. '}
        <PlainFields {...flags} path={path} />
      </p>
      <Faults under={[`${path}.vlan`, ...plainPaths({ ...flags, path })]} />
      <NetworkLimits path={path} network={network} />
    </article>
  )
}
