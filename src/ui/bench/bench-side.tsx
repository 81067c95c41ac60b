'use client'
import { rivalServers } from '../../core/muster/rival-servers'
import { whereaboutsOf } from '../../core/muster/whereabouts'
import { openItsPages } from '../../words/en/by-hand'
import { modelWords } from '../../words/en/recognised'
import { whereSentences, whereWords } from '../../words/en/whereabouts'
import { PageLink } from '../frame/page-link'
import { useJob } from '../live/job-provider'
import { useNow } from '../live/use-now'
import sheet from '../theme/sheet.module.css'
import classes from './bench.module.css'
import { Lending } from './lending'

/** Beside the bench while no unit is selected: who is still awaited, and who does not belong here. */
export function BenchSide() {
  const { job, units, cards, roll, select } = useJob()
  const now = useNow('still')
  const present = new Set(roll.sightings.map((sighting) => sighting.mac))
  const awaited = units.filter((unit) => !present.has(unit.mac))
  const servers = rivalServers(roll.heard.servers)
  const strays = roll.sightings.filter((sighting) => sighting.unit === null)
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and is reached by keys
    <aside className={`${sheet.sheet} ${sheet.pad}`} aria-label="Labels and strays" tabIndex={0}>
      <b>
        {awaited.length === 0
          ? 'Every unit of the list is on the wire.'
          : `Waiting for ${awaited.length} of ${units.length}`}
      </b>
      {awaited.length > 0 && (
        <ul className={classes.awaited}>
          {awaited.map((unit) => {
            const card = cards.get(unit.model)
            const where = whereaboutsOf({ unit, card, roll, now })
            return (
              <li key={unit.id} data-awaited={unit.id} data-where={where.kind}>
                <button type="button" className={classes.awaitedName} onClick={() => select(unit.id)}>
                  {unit.name}
                </button>{' '}
                <span className="soft">
                  {unit.model}, label ends in <span className="mono">{unit.mac.slice(-5)}</span>
                </span>
                {/* Of one that nobody has plugged in yet nothing is the matter. */}
                {where.kind === 'silent' ? (
                  <div>{whereWords(where, { unit, card }).move}</div>
                ) : (
                  <div className={classes.heard}>{whereSentences(where, { unit, card })}</div>
                )}
                {where.kind === 'for-hands' && (
                  <PageLink href={`/jobs/${job.slug}/bench/${unit.id}`}>{openItsPages}</PageLink>
                )}
              </li>
            )
          })}
        </ul>
      )}
      {awaited.length === 0 && (
        <p className="soft">They match the kit list by the MAC on their labels. Select one to see its slip.</p>
      )}
      {servers.length > 1 && (
        <div className={classes.warning}>
          <b>{servers.length} servers give addresses here</b>
          {servers.map(({ mac, vlan, address, controllers }) => (
            <div key={`${mac} ${vlan}`}>
              <span className="mono">{address}</span>, <span className="mono">{mac}</span>
              {vlan === null ? '' : `, VLAN ${vlan}`}
              {controllers.length > 0 ? `, sends access points to ${controllers.join(', ')}` : ''}
            </div>
          ))}
          <div>
            A unit that asks may be given either&apos;s. One server to a subnet: find the other by its MAC, and take its
            cable out.
          </div>
        </div>
      )}
      {strays.map((stray) => (
        <div key={stray.mac} className={classes.warning}>
          <b>Not on the kit list</b>
          <div>
            <span className="mono">{stray.mac}</span> answers at <span className="mono">{stray.address}</span>
            {modelWords(stray) ? ` (${modelWords(stray)})` : ''}. Read the labels: put it on the list, or take its cable
            out.
          </div>
        </div>
      ))}
      <Lending />
    </aside>
  )
}
