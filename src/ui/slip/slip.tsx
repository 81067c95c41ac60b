'use client'
import { Button } from '@mantine/core'
import { musterUnits } from '../../actions/muster-actions'
import { whyNotMustered } from '../../core/kit/kit-card'
import { heldStep } from '../../core/muster/roll'
import { theseUnits } from '../../core/muster/selection'
import { whereaboutsOf } from '../../core/muster/whereabouts'
import { callAgain, lookAtIt, openItsPages } from '../../words/en/by-hand'
import { checkNames } from '../../words/en/checks'
import { listenWords } from '../../words/en/duration'
import { nextMove } from '../../words/en/next-move'
import { evidenceText } from '../../words/en/recognised'
import { sentence } from '../../words/en/sentence'
import { whereSentences } from '../../words/en/whereabouts'
import { PageLink } from '../frame/page-link'
import { useJob } from '../live/job-provider'
import { useNow } from '../live/use-now'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import { ByHandNote } from './by-hand-note'
import { ChangedNote } from './changed-note'
import { Copies } from './copies'
import { HeldNote } from './held-note'
import { OldNote } from './old-note'
import { Outcomes } from './outcomes'
import { RadarNote } from './radar-note'
import classes from './slip.module.css'

/** Everything about the selected unit: what is wrong, what the hands should do, its log. It never covers the list. */
export function Slip() {
  const { job, units, plans, cards, roll, selected } = useJob()
  const now = useNow('still')
  const { order, pending, fault } = useOrder()
  const unit = units.find((each) => each.id === selected)
  if (!unit) {
    return (
      <aside id="slip" tabIndex={-1} className={`${sheet.sheet} ${classes.slip}`} aria-label="Slip">
        <p className="soft">Select a unit to see what is wrong with it, what to do, and its log.</p>
      </aside>
    )
  }
  const row = roll.rows.get(unit.id)
  const seen = roll.sightings.find(({ mac }) => mac === unit.mac)
  const plan = plans.get(unit.id)
  const card = cards.get(unit.model)
  const byHand = card && whyNotMustered(card)
  return (
    <aside id="slip" tabIndex={-1} className={`${sheet.sheet} ${classes.slip}`} aria-label={`Slip of ${unit.name}`}>
      <div>
        <b className={classes.name}>{unit.name}</b> <span className="soft">{unit.location}</span>
        <div className="soft">
          {unit.model}
          {unit.port === null ? '' : `, port ${unit.port}`}
        </div>
        <div className="mono">{unit.mac}</div>
        {seen?.model && seen.by.length > 0 && (
          <div className="soft">
            Seen as {seen.model}, {evidenceText(seen.by)}.
          </div>
        )}
      </div>
      <PageLink href={`/jobs/${job.slug}/bench/${unit.id}`}>{openItsPages}</PageLink>
      <HeldNote unit={unit.id} />
      {heldStep(row) === undefined && <OldNote unit={unit.id} />}
      <ChangedNote unit={unit.id} />
      {(row?.radar.length ?? 0) > 0 && <RadarNote unit={unit.id} />}
      {byHand !== undefined && <ByHandNote model={unit.model} why={sentence(byHand)} isBare={card?.isBare === true} />}
      {byHand === undefined && !row?.steps.reach && (
        <p className={classes.quiet}>
          {roll.muster === 'idle'
            ? whereSentences(whereaboutsOf({ unit, card, roll, now }), { unit, card })
            : nextMove(unit, row, roll, { address: plan?.address, card, now }).words}
        </p>
      )}
      <div>
        <Button
          disabled={pending || roll.muster !== 'idle'}
          onClick={() => order(() => musterUnits(job.slug, theseUnits(unit.id)))}
        >
          {byHand !== undefined
            ? row?.steps.reach
              ? callAgain
              : lookAtIt
            : row && Object.keys(row.steps).length > 0
              ? 'Call this unit again'
              : 'Muster this unit'}
        </Button>
        {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
      </div>
      {plan && (
        <dl className={classes.facts}>
          <dt>Address</dt>
          <dd className="mono">{plan.address}</dd>
          {plan.radios.map((radio) => (
            <div key={radio.band} style={{ display: 'contents' }}>
              <dt>{radio.band} GHz</dt>
              <dd>
                channel <span className="mono">{radio.channel}</span>, {radio.width} MHz, {radio.power.set} dBm
                {radio.radar ? `, listens ${listenWords(radio.listenSeconds)} for radar` : ''}
              </dd>
            </div>
          ))}
        </dl>
      )}
      <Outcomes unit={unit} />
      {row && row.checks.length > 0 && (
        <div>
          <b>
            {row.steps.proof?.kind === 'done' || row.steps.proof?.kind === 'held' ? 'Proof' : 'Its proof the last time'}
          </b>
          <ul className={classes.checks}>
            {row.checks.map((check) => (
              <li key={check.code} data-verdict={check.verdict}>
                {checkNames[check.code]}: {sentence(check.observed)}
                {check.verdict === 'good' ? '' : `, expected ${sentence(check.expected)}`}
                {check.verdict === 'remark' && byHand === undefined && '; this model cannot be set to it'}
              </li>
            ))}
          </ul>
        </div>
      )}
      {row && <Copies key={unit.id} unit={unit} copies={row.copies} />}
      {row && row.log.length > 0 && (
        <div>
          <b>Log</b>
          <ol className={classes.log}>
            {row.log.toReversed().map((line, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines are only added, counted from the oldest
              <li key={row.log.length - index}>
                <time className="mono" dateTime={new Date(line.at).toISOString()} suppressHydrationWarning>
                  {new Date(line.at).toLocaleTimeString('en-GB')}
                </time>{' '}
                <span>{sentence(line)}</span>
              </li>
            ))}
          </ol>
        </div>
      )}
    </aside>
  )
}
