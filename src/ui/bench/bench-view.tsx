'use client'
import { Button } from '@mantine/core'
import { musterUnits, sweepNow } from '../../actions/muster-actions'
import type { Unit } from '../../core/kit/unit'
import type { Sighting } from '../../core/muster/events'
import { answers } from '../../core/muster/roll'
import { allUnits, theseUnits } from '../../core/muster/selection'
import { whereaboutsOf } from '../../core/muster/whereabouts'
import { benchForHands, onWireForHands } from '../../words/en/by-hand'
import { duration } from '../../words/en/duration'
import { sentence } from '../../words/en/sentence'
import { useJob, usePulse } from '../live/job-provider'
import { useNow } from '../live/use-now'
import { useOrder } from '../live/use-order'
import { Slip } from '../slip/slip'
import sheet from '../theme/sheet.module.css'
import { AddressGroup } from './address-group'
import classes from './bench.module.css'
import { BenchSide } from './bench-side'

/** Who is on the wire: units by the address that they answer at, who is awaited, who does not belong here. */
export function BenchView() {
  const { job, units, cards, roll, selected } = useJob()
  const pulse = usePulse()
  const { order, pending, fault } = useOrder()
  const now = useNow('counting')
  const groups = groupByAddress(roll.sightings)
  const present = new Set(roll.sightings.map((sighting) => sighting.mac))
  const whereIs = (unit: Unit) => whereaboutsOf({ unit, card: cards.get(unit.model), roll, now }).kind
  const matching = units.filter((unit) => present.has(unit.mac) || whereIs(unit) === 'by-link')
  const forHands = units.filter((unit) => whereIs(unit) === 'for-hands').length
  const onWire = present.size + matching.filter(({ mac }) => !present.has(mac)).length
  const sweptMsAgo = pulse?.sweptMsAgo
  const sweptSeconds =
    pulse && typeof sweptMsAgo === 'number' && now > 0
      ? Math.max(0, (sweptMsAgo + now - pulse.heardAt) / 1000)
      : undefined
  // One that is back at its factory address was reset since it answered.
  const boxed = new Set(roll.sightings.flatMap(({ mac, seen }) => (seen === 'at-factory-address' ? [mac] : [])))
  const isHome = (unit: Unit): boolean => answers(roll.rows.get(unit.id)) && !boxed.has(unit.mac)
  const resting = roll.muster === 'idle' || roll.muster === 'paused'
  return (
    <div className={sheet.page}>
      <div className={sheet.head}>
        <h1>
          {onWire === 0
            ? forHands > 0
              ? onWireForHands(forHands)
              : 'Nothing on the wire yet'
            : `${onWire} ${onWire === 1 ? 'unit' : 'units'} on the wire`}
        </h1>
        {sweptSeconds !== undefined && (
          <span className="soft">swept {sweptSeconds < 2 ? 'just now' : `${duration(sweptSeconds)} ago`}</span>
        )}
        <div className={sheet.headRight}>
          <Button variant="default" disabled={pending} onClick={() => order(() => sweepNow(job.slug))}>
            Sweep now
          </Button>
          <Button
            disabled={pending || matching.length === 0 || !resting}
            onClick={() =>
              order(() =>
                musterUnits(
                  job.slug,
                  matching.length === units.length ? allUnits : theseUnits(...matching.map((unit) => unit.id)),
                ),
              )
            }
          >
            {!resting
              ? 'Mustering'
              : matching.length === 0
                ? 'Nothing to muster yet'
                : matching.every(isHome)
                  ? `Call the roll of all ${matching.length}`
                  : `Muster the ${matching.length} that match`}
          </Button>
        </div>
      </div>
      {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
      <div className={sheet.columns}>
        <div className={`${sheet.sheet} ${groups.length === 0 ? classes.short : ''}`}>
          {groups.length === 0 && forHands > 0 && <p className={sheet.pad}>{benchForHands}</p>}
          {groups.length === 0 && forHands === 0 && (
            <p className={sheet.pad}>
              Plug the units of the kit list into the switch, one cable each, and let them start. They appear here by
              their MAC, all of them at once, even where they share one factory address.
            </p>
          )}
          {groups.map((group) => (
            <AddressGroup key={group.address} {...group} />
          ))}
        </div>
        {selected ? <Slip /> : <BenchSide />}
      </div>
    </div>
  )
}

function groupByAddress(sightings: readonly Sighting[]): { address: string; sightings: Sighting[] }[] {
  const groups = new Map<string, Sighting[]>()
  for (const sighting of sightings) groups.set(sighting.address, [...(groups.get(sighting.address) ?? []), sighting])
  return [...groups]
    .map(([address, of]) => ({ address, sightings: of }))
    .sort((a, b) => b.sightings.length - a.sightings.length)
}
