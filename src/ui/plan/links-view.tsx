'use client'
import type { Link } from '../../core/radio/floor'
import { linkBudget, linkRemarks } from '../../core/radio/link'
import { conductedOf } from '../../core/radio/power'
import { listenWords } from '../../core/regulatory/radar-listening'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'
import { LinkFields } from './link-fields'
import { LinkProfile } from './link-profile'
import classes from './plan.module.css'
import { usePlan } from './plan-context'

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
  const radio = plans.get(link.b)?.radios[0]
  const budget =
    radio &&
    linkBudget(link, {
      centreMhz: radio.lowMhz + radio.width / 2,
      width: radio.width,
      powerDbm: conductedOf(radio.power),
      gain: radio.power.gain,
    })
  const far = units.find((unit) => unit.id === link.b)
  const lines: readonly (readonly [string, string])[] =
    radio && budget
      ? [
          ['set at the far end', `${radio.power.set.toFixed(1)} dBm`],
          ['two antennas', `+${(2 * radio.power.gain).toFixed(1)} dB`],
          ['free space (ITU-R P.525)', `-${budget.lossDb.toFixed(1)} dB`],
          ['arrives', `${budget.receivedDbm.toFixed(1)} dBm`],
          ['to spare', `${budget.marginDb.toFixed(1)} dB`],
          ['least clear, from the access end', `${budget.worst.fromA.toFixed(0)} m`],
          ['first Fresnel zone there', `${budget.worst.fresnelM.toFixed(1)} m`],
          ['stands free there', `${budget.worst.clearM.toFixed(1)} m`],
        ]
      : []
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
      {radio && (
        <p>
          All ends: channel <b className="mono">{radio.channel}</b>, {radio.width} MHz, {radio.power.set} dBm
          {radio.radar ? `, listens ${listenWords(radio.listenSeconds)} for radar first` : ''}. {nameOf(link.a)} gives
          access; {nameOf(link.b)} is the station{far && <> and locks to {nameOf(link.a)}</>} (
          <span className="mono">{units.find((unit) => unit.id === link.a)?.mac}</span>), and to any with the same name
          and passphrase where that one is gone.
        </p>
      )}
      {radio && (
        <LinkProfile path={link} mhz={radio.lowMhz + radio.width / 2} nameA={nameOf(link.a)} nameB={nameOf(link.b)} />
      )}
      <div className={classes.linkColumns}>
        <table className={classes.sum}>
          <tbody>
            {lines.map(([words, value]) => (
              <tr key={words}>
                <td>{words}</td>
                <td className="mono">{words === 'arrives' ? <b>{value}</b> : value}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <ul className={classes.remarks}>
          {budget &&
            linkRemarks(budget).map(({ weight, sentence }) => (
              <li key={sentence} data-weight={weight}>
                {sentence}
              </li>
            ))}
        </ul>
      </div>
    </section>
  )
}
