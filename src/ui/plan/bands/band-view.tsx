'use client'
import type { Crowded } from '../../../core/plan/live-plan'
import { loudDbm } from '../../../core/radio/channels/crowded'
import type { RadioReason } from '../../../core/radio/channels/explain'
import { radioId } from '../../../core/radio/channels/radio-request'
import { wantedDbm } from '../../../core/radio/coverage/coverage'
import type { Band } from '../../../core/regulatory/blocks'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import { PlanSlip } from '../slip/plan-slip'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'
import { BandRow } from './band-row'
import { HeardNetworks } from './heard-networks'
import { MeasuredLevels } from './measured-levels'

/** Each band as a row of its legal channels, and who uses them. */
export function BandView() {
  const { job, units, country, selected } = useJob()
  const unit = units.find((each) => each.id === selected)
  return (
    <div className={sheet.columns}>
      <div className={`${sheet.sheet} ${sheet.pad}`}>
        {country && job.brief.radio.bands.map(({ band, width }) => <BandPart key={band} band={band} width={width} />)}
        <HeardNetworks />
        <MeasuredLevels />
      </div>
      {unit ? (
        <PlanSlip key={unit.id} unit={unit} />
      ) : (
        <aside className={`${sheet.sheet} ${sheet.pad}`}>
          <p className="soft">
            Select a unit to see what it hears worst, what the next best channel would cost, and how its power is worked
            out.
          </p>
          <p className="soft">
            A tall bar is a channel with a unit on it, one box for each. Pale ground must listen for radar first;
            striped ground is for indoors only.
          </p>
        </aside>
      )}
    </div>
  )
}

function BandPart({ band, width }: { band: Band; width: number }) {
  const { units, selected, select } = useJob()
  const { plans, live } = usePlan()
  const names = new Map(units.map((each) => [radioId(each.id, band), each.name]))
  const rows = units.flatMap((unit) => {
    const radio = plans.get(unit.id)?.radios.find((each) => each.band === band)
    return radio ? [{ unit, radio, reason: live?.reasons.get(radioId(unit.id, band)) }] : []
  })
  return (
    <section className={classes.bandPart}>
      <h2>
        {band} GHz air, {width} MHz wide <span className="soft">{rows.length} radios</span>
      </h2>
      <BandRow
        band={band}
        users={rows.map(({ unit, radio }) => ({
          unit: unit.id,
          name: unit.name,
          lowMhz: radio.lowMhz,
          width: radio.width,
        }))}
      />
      {band === '2.4' && live?.crowded && <CrowdedNote crowded={live.crowded} />}
      <table className={sheet.table}>
        <thead>
          <tr>
            <th scope="col">Unit</th>
            <th scope="col">Channel</th>
            <th scope="col">Power</th>
            <th scope="col">Hears worst on it</th>
            <th scope="col">Airtime</th>
            <th scope="col">Next best</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ unit, radio, reason }) => (
            <tr
              key={unit.id}
              tabIndex={0}
              data-unit={unit.id}
              data-selected={unit.id === selected}
              onClick={() => select(unit.id)}
              onKeyDown={(event) => event.key === 'Enter' && select(unit.id)}
            >
              <td>
                <b>{unit.name}</b> <span className="soft">{unit.location}</span>
              </td>
              <td className={sheet.whole}>
                <span className="mono">{radio.channel}</span>, {radio.width} MHz
                {radio.radar && ', radar'}
                {radio.locked && ', locked'}
                {radio.narrowedFrom !== null && ', narrowed'}
              </td>
              <td className={`mono ${sheet.whole}`}>{radio.power.set} dBm</td>
              <td className={sheet.whole}>
                {reason?.worst ? (
                  <>
                    <span className="mono">{Math.round(reason.worst.dbm)}</span>{' '}
                    {reason.worst.radio === undefined ? "a neighbour's" : (names.get(reason.worst.radio) ?? '')}
                  </>
                ) : (
                  <span className="soft">nobody</span>
                )}
              </td>
              <td className={`mono ${sheet.whole}`}>{reason ? `${Math.round(100 / reason.sharing)} %` : ''}</td>
              <td className={`${sheet.whole} soft`}>
                {reason?.next ? `${reason.next.option.channel}: ${heardThere(reason.next)}` : 'no other'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

/** Radios that take more air than they give, and what is lost without them. */
function CrowdedNote({ crowded }: { crowded: Crowded }) {
  const { units } = useJob()
  const names = crowded.units.map((id) => units.find((unit) => unit.id === id)?.name ?? id)
  const share = (of: number): string => `${Math.round(100 * of)} %`
  return (
    <p>
      {names.length === 1 ? 'One radio hears' : `${names.length} radios hear`} three others or more on{' '}
      {names.length === 1 ? 'its' : 'their'} channel, each louder than {loudDbm} dBm: {names.join(', ')}. Without{' '}
      {names.length === 1 ? 'it' : 'them'} {share(crowded.coveredWithout)} of the floors would hear {wantedDbm} dBm or
      more; {share(crowded.coveredNow)} do now. The brief says whether such radios stay on.
    </p>
  )
}

/** What a radio would hear on its next best channel, and its share of the air there. */
function heardThere({ worst, sharing }: NonNullable<RadioReason['next']>): string {
  return worst ? `${Math.round(worst.dbm)} dBm, ${Math.round(100 / sharing)} %` : 'nobody heard'
}
