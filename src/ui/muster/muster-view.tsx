'use client'
import { Button } from '@mantine/core'
import { musterUnits, pauseMuster } from '../../actions/muster-actions'
import { leftToHands } from '../../core/muster/called'
import { secondsLeft } from '../../core/muster/estimate'
import { answers, heldStep, isChanged, waitsForHands } from '../../core/muster/roll'
import { allUnits } from '../../core/muster/selection'
import { duration } from '../../words/en/duration'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { useNow } from '../live/use-now'
import { useOrder } from '../live/use-order'
import { Slip } from '../slip/slip'
import sheet from '../theme/sheet.module.css'
import classes from './muster.module.css'
import { PhoneRoll } from './phone-roll'
import { RollTable } from './roll-table'
import { RollVoice } from './roll-voice'

/** The roll: every unit is called, and answers. */
export function MusterView() {
  const { job, units, cards, plans, roll } = useJob()
  const { order, pending, fault } = useOrder()
  const working = roll.muster !== 'idle' && roll.muster !== 'paused'
  const now = useNow(working ? 'counting' : 'still')
  const rows = units.map((unit) => roll.rows.get(unit.id))
  const answering = rows.filter(answers).length
  const held = rows.filter((row) => heldStep(row) && !waitsForHands(row)).length
  const byHand = leftToHands(units, cards, roll)
  const changed = rows.filter(isChanged).length
  const begun = rows.filter((row) => row && Object.keys(row.steps).length > 0).length
  const waiting = rows.filter(waitsForHands).length
  const underWay = working ? begun - answering - held - changed - waiting : 0
  const left = secondsLeft(
    units.flatMap((unit, index) => {
      const card = cards.get(unit.model)
      return card
        ? [
            {
              row: rows[index],
              card,
              listenSeconds: Math.max(0, ...(plans.get(unit.id)?.radios.map((radio) => radio.listenSeconds) ?? [])),
            },
          ]
        : []
    }),
    now,
    roll.laptop?.pace ?? 1,
  )
  if (units.length === 0) return <p>There is nothing to muster yet: put units on the kit list first.</p>
  const share = (count: number): string => `${(100 * count) / Math.max(1, units.length)}%`
  return (
    <div className={sheet.page}>
      <div className={sheet.head}>
        <h1>
          {answering} of {units.length} answer
        </h1>
        {byHand > 0 && <span className="soft">{byHand} by hand</span>}
        <div
          className={classes.bar}
          role="img"
          aria-label={`${answering} answer, ${underWay} under way, ${changed} changed since, ${held} held`}
        >
          <span style={{ width: share(answering), background: 'var(--leaf)' }} />
          <span style={{ width: share(underWay + changed), background: 'var(--brass)' }} />
          <span style={{ width: share(held), background: 'var(--flare)' }} />
        </div>
        {working && (
          <span className="soft">{now === 0 || left === 0 ? 'nearly done' : `about ${duration(left)} left`}</span>
        )}
        {roll.muster === 'paused' && <span className="soft">paused</span>}
        <div className={sheet.headRight}>
          {working && (
            <Button
              variant="default"
              disabled={pending || roll.muster === 'pausing'}
              onClick={() => order(() => pauseMuster(job.slug))}
            >
              {roll.muster === 'pausing' ? 'Pausing after this step' : 'Pause after this step'}
            </Button>
          )}
          {!working && (
            <Button disabled={pending} onClick={() => order(() => musterUnits(job.slug, allUnits))}>
              {roll.muster === 'paused' ? 'Go on' : begun > 0 ? 'Call the roll again' : `Muster all ${units.length}`}
            </Button>
          )}
        </div>
      </div>
      {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
      <div className={`${sheet.columns} ${classes.wide}`}>
        <div className={sheet.sheet}>
          <RollTable now={now} />
        </div>
        <Slip />
      </div>
      <PhoneRoll now={now} />
      <RollVoice />
    </div>
  )
}
