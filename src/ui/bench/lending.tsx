'use client'
import { Button } from '@mantine/core'
import { lendAddressesAction } from '../../actions/muster-actions'
import { anotherServes, lentUntil, lendingWords as words } from '../../words/en/lending'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { useNow } from '../live/use-now'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import classes from './bench.module.css'

/** Whether this laptop lends addresses to boxes that wait for one, and to whom it has. */
export function Lending() {
  const { job, units, roll } = useJob()
  const { order, pending, fault } = useOrder()
  const now = useNow('still')
  const { state, leases } = roll.heard.lending
  const isOn = roll.lending.state === 'on'
  const live = leases.filter(({ until }) => until > now)
  const nameOf = (mac: string): string => units.find((unit) => unit.mac === mac)?.name ?? mac
  const servers = roll.heard.servers
    .filter(({ vlan }) => vlan === null)
    .map(({ mac, address }) => (units.some((unit) => unit.mac === mac) ? nameOf(mac) : `${address}, ${mac}`))
  const said = (): string => {
    if (state === 'cannot') return words.cannot
    if (job.brief.addressing === 'dhcp') return words.siteGives
    if (!isOn) return words.off
    if (state === 'another-serves') return anotherServes(servers)
    return state === 'serving' ? words.serving : words.starting
  }
  const mayLend = state !== 'cannot' && job.brief.addressing !== 'dhcp'
  return (
    <section className={classes.lending} aria-label={words.title} data-lending={isOn ? state : 'off'}>
      <b>{words.title}</b>
      {(live.length === 0 || state === 'another-serves') && <p className="soft">{said()}</p>}
      {live.length > 0 && (
        <ul className={classes.awaited}>
          {live.map(({ mac, address, until }) => (
            <li key={address}>
              {nameOf(mac)} <span className="mono">{address}</span>{' '}
              <span className="soft">{lentUntil(new Date(until).toLocaleTimeString('en-GB', clock))}</span>
            </li>
          ))}
        </ul>
      )}
      {mayLend && (
        <Button
          variant="default"
          size="compact-sm"
          disabled={pending}
          onClick={() => order(() => lendAddressesAction(job.slug, isOn ? 'off' : 'on'))}
        >
          {isOn ? words.stop : words.lend}
        </Button>
      )}
      {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
    </section>
  )
}

const clock = { hour: '2-digit', minute: '2-digit' } as const
