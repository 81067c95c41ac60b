'use client'
import { Button } from '@mantine/core'
import { stepsFor } from '../../core/muster/procedure'
import { nextMove } from '../../words/en/next-move'
import { stepTitles } from '../../words/en/steps'
import { useJob } from '../live/job-provider'
import { ChangedNote } from '../slip/changed-note'
import { HeldNote } from '../slip/held-note'
import { NextMoveWords } from './next-move-words'
import classes from './phone-roll.module.css'
import { StepCell } from './step-cell'

/** For the person on the ladder: one unit at a time, large. */
export function PhoneRoll({ now }: { now: number }) {
  const { units, cards, plans, roll, selected, select } = useJob()
  const at = Math.max(
    0,
    units.findIndex((unit) => unit.id === selected),
  )
  const unit = units[at]
  if (!unit) return null
  const row = roll.rows.get(unit.id)
  const card = cards.get(unit.model)
  const pace = roll.laptop?.pace ?? 1
  const go = (by: number) => select(units[at + by]?.id ?? unit.id)
  return (
    <section className={classes.card} aria-label={unit.name}>
      <div className={classes.turn}>
        <Button variant="default" size="md" disabled={at === 0} onClick={() => go(-1)}>
          Previous
        </Button>
        <span className="soft">
          {at + 1} of {units.length}
        </span>
        <Button variant="default" size="md" disabled={at === units.length - 1} onClick={() => go(1)}>
          Next
        </Button>
      </div>
      <h2>{unit.name}</h2>
      <p className={classes.place}>{unit.location}</p>
      <dl className={classes.facts}>
        <dt>Label ends in</dt>
        <dd className="mono">{unit.mac.slice(-5)}</dd>
        <dt>Port</dt>
        <dd className="mono">{unit.port ?? 'any'}</dd>
      </dl>
      <p className={classes.next}>
        <NextMoveWords
          move={nextMove(unit, row, roll, { address: plans.get(unit.id)?.address, card: cards.get(unit.model), now })}
          now={now}
          pace={pace}
        />
      </p>
      <HeldNote unit={unit.id} />
      <ChangedNote unit={unit.id} />
      <ul className={classes.ticks}>
        {(card ? stepsFor(card) : []).map((step) => (
          <li key={step} data-step={step}>
            <StepCell title={stepTitles[step]} state={row?.steps[step]} now={now} pace={pace} />
            {stepTitles[step]}
          </li>
        ))}
      </ul>
    </section>
  )
}
