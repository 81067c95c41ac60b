'use client'
import { asText } from '../../../core/message/message'
import { conductedOf } from '../../../core/radio/channels/power'
import type { RadioPlan } from '../../../core/radio/channels/radio-plan'
import { type Arrival, fadeDb, type LinkBudget, linkBudget, linkRemarks } from '../../../core/radio/links/link'
import { rateOf } from '../../../core/radio/propagation/data-rate'
import type { Link } from '../../../core/radio/propagation/floor'
import { listenWords } from '../../../words/en/duration'
import { sentence } from '../../../words/en/sentence'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'
import { LinkFields } from './link-fields'
import { LinkProfile } from './link-profile'

/** Radio links: the two ends, the way between them, and what will arrive. */
export function LinksView() {
  const { units, cards } = useJob()
  const { site, change } = usePlan()
  const ends = units.filter((unit) => cards.get(unit.model)?.role === 'link-end')
  const used = new Set(site.links.flatMap((link) => [link.a, link.b]))
  const [one, two] = ends.filter((unit) => !used.has(unit.id))
  // One that is left over is a further station of the access end that is there.
  const hub = ends.find((unit) => unit.id === site.links.at(-1)?.a)
  const [a, b] = two ? [one, two] : [hub, one]
  const fresh: Link | undefined = a &&
    b && { a: a.id, b: b.id, distanceM: 500, heightA: 8, heightB: 8, obstacle: null, width: 40, channel: null }
  return (
    <div className={`${sheet.sheet} ${sheet.pad} ${classes.whole}`}>
      {ends.length < 2 && site.links.length === 0 && (
        <p>A link needs two units of one link model on the kit list, such as a pair of Windrow W5.</p>
      )}
      {site.links.map((link, index) => (
        <LinkPart key={`${link.a} ${link.b}`} link={link} index={index} />
      ))}
      {fresh && (
        <button
          type="button"
          className={classes.quiet}
          onClick={() => change((before) => ({ ...before, links: [...before.links, fresh] }))}
        >
          Add a link between {a?.name} and {b?.name}
        </button>
      )}
    </div>
  )
}

function LinkPart({ link, index }: { link: Link; index: number }) {
  const { units } = useJob()
  const { plans, change } = usePlan()
  const nameOf = (id: string): string => units.find((unit) => unit.id === id)?.name ?? id
  const [access, station] = [plans.get(link.a)?.radios[0], plans.get(link.b)?.radios[0]]
  return (
    <section className={classes.reach}>
      <h2>
        {nameOf(link.a)} to {nameOf(link.b)}{' '}
        <button
          type="button"
          className={classes.quiet}
          onClick={() => change((before) => ({ ...before, links: before.links.filter((_, at) => at !== index) }))}
        >
          Take it off
        </button>
      </h2>
      <LinkFields
        link={link}
        onChange={(part) =>
          change((before) => ({
            ...before,
            links: before.links.map((each, at) => (at === index ? { ...each, ...part } : each)),
          }))
        }
      />
      {access && station && <LinkFigures link={link} access={access} station={station} />}
    </section>
  )
}

/** What both ends are to be, the way from the side, and what arrives in either direction. */
function LinkFigures({ link, access, station }: { link: Link; access: RadioPlan; station: RadioPlan }) {
  const { units } = useJob()
  const unitOf = (id: string) => units.find((unit) => unit.id === id)
  const [nameA, nameB] = [unitOf(link.a)?.name ?? link.a, unitOf(link.b)?.name ?? link.b]
  const centreMhz = access.lowMhz + access.width / 2
  const end = ({ power }: RadioPlan) => ({ powerDbm: conductedOf(power), gain: power.gain })
  const budget = linkBudget(link, { centreMhz, width: access.width, access: end(access), station: end(station) })
  const names = { access: nameA, station: nameB }
  const powers = { access, station }
  return (
    <>
      <p>
        Both ends: channel <b className="mono">{access.channel}</b>, {access.width} MHz
        {access.radar ? `, listens ${listenWords(access.listenSeconds)} for radar first` : ''}. To be set by hand: the
        same network name and passphrase at both, {nameA} as the access end, and {nameB} as its station, locked to{' '}
        <span className="mono">{unitOf(link.a)?.mac}</span>.
      </p>
      <LinkProfile path={link} mhz={centreMhz} nameA={nameA} nameB={nameB} />
      <div className={classes.linkColumns}>
        <table className={classes.directions}>
          <thead>
            <tr>
              <th scope="col">Direction</th>
              {budget.arrivals.map(({ at }) => (
                <th key={at} scope="col">
                  to {names[at]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {directionRows.map(([words, value]) => (
              <tr key={words}>
                <th scope="row">{words}</th>
                {budget.arrivals.map((arrival) => (
                  <td key={arrival.at} className="mono">
                    {value({
                      arrival,
                      sent: powers[arrival.at === 'access' ? 'station' : 'access'],
                      gains: access.power.gain + station.power.gain,
                      budget,
                    })}
                  </td>
                ))}
              </tr>
            ))}
            {wayRows(budget).map(([words, value]) => (
              <tr key={words}>
                <th scope="row">{words}</th>
                <td colSpan={2} className="mono">
                  {value}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <ul className={classes.remarks}>
          {linkRemarks(budget).map((remark) => (
            <li key={asText(remark)} data-weight={remark.weight}>
              {sentence(remark)}
            </li>
          ))}
        </ul>
      </div>
    </>
  )
}

interface Direction {
  readonly arrival: Arrival
  /** Of the end that sends. */
  readonly sent: RadioPlan
  readonly gains: number
  readonly budget: LinkBudget
}

const mcsWords = (mcs: number, width: number): string => (mcs < 0 ? 'none' : `MCS ${mcs}, ${rateOf(mcs, width)} Mbit/s`)

const directionRows: readonly (readonly [string, (direction: Direction) => string])[] = [
  ['set', ({ sent }) => `${sent.power.set.toFixed(1)} dBm`],
  ['both antennas', ({ gains }) => `+${gains.toFixed(1)} dB`],
  ['free space (ITU-R P.525)', ({ budget }) => `-${budget.lossDb.toFixed(1)} dB`],
  ['the highest thing (ITU-R P.526)', ({ budget }) => `${(-budget.edgeDb || 0).toFixed(1)} dB`],
  ['arrives', ({ arrival }) => `${arrival.receivedDbm.toFixed(1)} dBm`],
  ['rate of a stream', ({ arrival, sent }) => mcsWords(arrival.mcs, sent.width)],
  [`with ${fadeDb} dB of weather`, ({ arrival, sent }) => mcsWords(arrival.mcsFaded, sent.width)],
]

const wayRows = ({ worst }: LinkBudget): readonly (readonly [string, string])[] => [
  ['least clear, from the access end', `${worst.fromA.toFixed(0)} m`],
  ['first Fresnel zone there', `${worst.fresnelM.toFixed(1)} m`],
  ['stands free there', `${worst.clearM.toFixed(1)} m`],
]
