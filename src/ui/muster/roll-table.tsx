'use client'
import { useEffect, useRef } from 'react'
import { stepsFor } from '../../core/muster/procedure'
import { nextMove } from '../../words/en/next-move'
import { stepTitles } from '../../words/en/steps'
import { useJob } from '../live/job-provider'
import sheet from '../theme/sheet.module.css'
import classes from './muster.module.css'
import { NextMoveWords } from './next-move-words'
import { shownSteps } from './shown-steps'
import { StepCell } from './step-cell'

/** One row a unit, one cell a step. */
export function RollTable({ now }: { now: number }) {
  const { units, cards, plans, roll, selected, select } = useJob()
  const body = useRef<HTMLTableSectionElement>(null)
  const pace = roll.laptop?.pace ?? 1
  const columns = shownSteps(units.map((unit) => cards.get(unit.model)))

  // biome-ignore lint/correctness/useExhaustiveDependencies: another selection is what calls for scrolling
  useEffect(() => {
    body.current?.querySelector('tr[data-selected="true"]')?.scrollIntoView({ block: 'nearest' })
  }, [selected])

  return (
    <table
      className={`${sheet.table} ${classes.roll}`}
      data-columns={columns.length > 16 ? 'all' : columns.length > 14 ? 'many' : 'few'}
    >
      <caption className="visually-hidden">The roll: units by steps</caption>
      <thead>
        <tr>
          <th scope="col">Unit</th>
          <th scope="col">Your next move</th>
          {columns.map((step) => (
            <th key={step} scope="col" className={classes.slant}>
              <span>{stepTitles[step]}</span>
            </th>
          ))}
          <th scope="col">Port</th>
        </tr>
      </thead>
      <tbody ref={body}>
        {units.map((unit) => {
          const row = roll.rows.get(unit.id)
          const card = cards.get(unit.model)
          const own = card ? stepsFor(card) : columns
          const pick = () => select(unit.id)
          return (
            <tr
              key={unit.id}
              tabIndex={0}
              data-unit={unit.id}
              data-selected={selected === unit.id}
              aria-selected={selected === unit.id}
              onClick={pick}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return
                pick()
                document.getElementById('slip')?.focus()
              }}
            >
              <th scope="row" className={classes.unit}>
                <b>{unit.name}</b> <span className="soft">{unit.location}</span>
              </th>
              <td className={classes.moveCell}>
                <NextMoveWords
                  move={nextMove(unit, row, roll, {
                    address: plans.get(unit.id)?.address,
                    card: cards.get(unit.model),
                    now,
                  })}
                  now={now}
                  pace={pace}
                />
              </td>
              {columns.map((step) => (
                <td key={step} className={classes.stepCell} data-step={step}>
                  {own.includes(step) ? (
                    <StepCell title={stepTitles[step]} state={row?.steps[step]} now={now} pace={pace} />
                  ) : (
                    <span className="soft">–</span>
                  )}
                </td>
              ))}
              <td className="mono">{unit.port ?? ''}</td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}
