'use client'
import type { WirelessNetwork } from '../../core/brief/wireless-network'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { Faults } from './faults'
import { Choice, dayOptions, Several, TextField, YesNo } from './fields'
import { PlainFields, plainDefaults, plainPaths } from './plain-fields'

const others = { section: 'network', kinds: ['choice', 'number'] } as const

/** Limits, hours and roaming of a network: folded away until somebody wants them. */
export function NetworkLimits({ path, network }: { path: string; network: WirelessNetwork }) {
  const { change, faults } = useBrief()
  const plain = plainPaths({ ...others, path })
  const fields = ['limits', 'hours', 'steeringAboveDbm', 'fastRoaming', 'macList', 'pmf']
    .map((field) => `${path}.${field}`)
    .concat(plain)
  const used =
    network.hours !== null ||
    Object.entries(plainDefaults(others)).some(([key, value]) => (network as Record<string, unknown>)[key] !== value) ||
    network.fastRoaming ||
    network.macList.rule !== 'none' ||
    network.pmf !== 'by-security' ||
    Object.values(network.limits).some((limit) => limit !== null)
  const faulty = faults.some((fault) => fields.some((field) => fault.field.startsWith(field)))
  return (
    <details className={classes.more} open={used || faulty || undefined}>
      <summary>Limits, hours and roaming</summary>
      <p>
        One client may take{' '}
        <TextField
          path={`${path}.limits.perClientKbps`}
          label="Most for one client, kbit/s"
          kind="number"
          face="mono"
          placeholder="any"
        />{' '}
        kbit/s, all of them together{' '}
        <TextField
          path={`${path}.limits.sharedKbps`}
          label="Most for all clients together, kbit/s"
          kind="number"
          face="mono"
          placeholder="any"
        />{' '}
        kbit/s; at most{' '}
        <TextField
          path={`${path}.limits.mostClients`}
          label="Most clients"
          kind="number"
          face="mono"
          placeholder="any number of"
        />{' '}
        clients.
      </p>
      <Faults under={[`${path}.limits`]} />
      <p>
        It is on air{' '}
        <Choice
          path={`${path}.hours`}
          label="Hours on air"
          options={[
            { value: 'always', words: 'always' },
            { value: 'hours', words: 'at these hours' },
          ]}
          read={(value) =>
            value === 'always' ? null : { days: ['mon', 'tue', 'wed', 'thu', 'fri'], from: '07:00', to: '19:00' }
          }
          write={(value) => (value ? 'hours' : 'always')}
        />
        {network.hours && (
          <>
            {' '}
            <Several path={`${path}.hours.days`} label="Days on air" options={dayOptions} /> from{' '}
            <TextField path={`${path}.hours.from`} label="On air from" face="mono" /> to{' '}
            <TextField path={`${path}.hours.to`} label="On air to" face="mono" />
          </>
        )}
        .
      </p>
      <Faults under={[`${path}.hours`]} />
      <p>
        <PlainFields {...others} path={path} />
        {network.steering !== 'client-decides' && (
          <>
            Clients are steered only above{' '}
            <TextField
              path={`${path}.steeringAboveDbm`}
              label="Steer only above, dBm"
              kind="number"
              face="mono"
              placeholder="any"
            />{' '}
            dBm.{' '}
          </>
        )}
        Fast roaming (802.11r) is <YesNo path={`${path}.fastRoaming`} label="Fast roaming" yes="on" no="off" />.
      </p>
      <Faults under={[...plain, `${path}.steeringAboveDbm`, `${path}.fastRoaming`]} />
      <p>
        <Choice
          path={`${path}.macList.rule`}
          label="Who is let in by MAC"
          options={[
            { value: 'none', words: 'Every device' },
            { value: 'allow', words: 'Only these devices' },
            { value: 'deny', words: 'All but these devices' },
          ]}
        />{' '}
        may join
        {network.macList.rule !== 'none' && (
          <>
            :{' '}
            <TextField
              path={`${path}.macList.macs`}
              label="MACs on the list"
              kind="list"
              face="mono"
              placeholder="MACs, with commas"
            />
          </>
        )}
        .{' '}
        {used && (
          <button
            type="button"
            className={classes.remove}
            onClick={() =>
              change(path, {
                ...network,
                limits: { perClientKbps: null, sharedKbps: null, mostClients: null },
                hours: null,
                ...plainDefaults(others),
                steeringAboveDbm: null,
                fastRoaming: false,
                macList: { rule: 'none', macs: [] },
                pmf: 'by-security',
              })
            }
          >
            None of these
          </button>
        )}
      </p>
      <Faults under={[`${path}.macList`]} />
      <p>
        Protected management frames (802.11w) are{' '}
        <Choice
          path={`${path}.pmf`}
          label="Protected management frames"
          options={[
            { value: 'by-security', words: 'as the security goes with' },
            { value: 'off', words: 'off' },
            { value: 'optional', words: 'for clients that can' },
            { value: 'required', words: 'required' },
          ]}
        />
        .
      </p>
      <Faults under={[`${path}.pmf`]} />
    </details>
  )
}
