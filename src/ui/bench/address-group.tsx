'use client'
import type { Sighting } from '../../core/muster/events'
import { whereaboutsOf } from '../../core/muster/whereabouts'
import { modelWords } from '../../words/en/recognised'
import { type WhereWords, whereWords } from '../../words/en/whereabouts'
import { useJob } from '../live/job-provider'
import { useNow } from '../live/use-now'
import sheet from '../theme/sheet.module.css'
import classes from './bench.module.css'

const places: Readonly<Record<Sighting['seen'], string>> = {
  'at-factory-address': 'at its factory address',
  'at-its-address': 'at its planned address',
  'by-dhcp': 'at an address that DHCP gave',
  elsewhere: 'at another address than its planned one',
}

/** What it says that it is, and where; or what stands in the way of it. */
function seenAs({ answers, seen, ...sighting }: Sighting, where: WhereWords | undefined): string {
  const at = `${modelWords(sighting) ?? 'unknown'}, ${places[seen]}`
  if (answers === 'service') return where?.tone === 'hands' ? `${at}. ${where.move}.` : at
  return where
    ? `${where.is}. ${where.tone === 'hands' ? `${where.move}.` : ''}`
    : 'on the wire, and not set by this job'
}

/** Everybody who answers at one address. */
export function AddressGroup({ address, sightings }: { address: string; sightings: readonly Sighting[] }) {
  const { units, cards, roll, selected, select } = useJob()
  const now = useNow('counting')
  const factory = sightings.some((sighting) => sighting.seen === 'at-factory-address')
  const shared = sightings.length > 1
  const words = shared
    ? `${sightings.length} units share this ${factory ? 'factory ' : ''}address. Each has a lane of its own, ` +
      `so all ${sightings.length} go at once.`
    : factory
      ? 'One unit at this factory address.'
      : sightings.some(({ seen }) => seen === 'by-dhcp')
        ? 'A unit that asked DHCP first.'
        : sightings.some(({ seen }) => seen === 'elsewhere')
          ? 'A unit at an address of its own.'
          : 'A unit at its new address.'
  return (
    <section className={classes.group}>
      <h2>
        <span className="mono">{address}</span> <span className={classes.words}>{words}</span>
      </h2>
      <table className={`${sheet.table} ${classes.seen}`}>
        <colgroup>
          <col className={classes.macs} />
          <col className={classes.units} />
          <col />
          <col className={classes.ports} />
        </colgroup>
        <thead className={shared ? '' : 'visually-hidden'}>
          <tr>
            <th scope="col">MAC</th>
            <th scope="col">Unit</th>
            <th scope="col">Seen as</th>
            <th scope="col">Port</th>
          </tr>
        </thead>
        <tbody>
          {sightings.map((sighting) => {
            const unit = units.find((each) => each.id === sighting.unit)
            const card = unit && cards.get(unit.model)
            const where = unit && whereWords(whereaboutsOf({ unit, card, roll, now }), { unit, card })
            return (
              <tr
                key={sighting.mac}
                tabIndex={0}
                data-mac={sighting.mac}
                data-selected={unit !== undefined && unit.id === selected}
                onClick={() => select(unit?.id)}
                onKeyDown={(event) => event.key === 'Enter' && select(unit?.id)}
              >
                <td className={`mono ${classes.mac}`}>{sighting.mac}</td>
                <td>
                  {unit ? (
                    <>
                      <b>{unit.name}</b> <span className="soft">{unit.location}</span>
                    </>
                  ) : (
                    <b className={classes.stray}>not on the kit list</b>
                  )}
                </td>
                <td>{seenAs(sighting, where)}</td>
                <td className="mono">{unit?.port ?? ''}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </section>
  )
}
