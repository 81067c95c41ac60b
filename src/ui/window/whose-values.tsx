'use client'
import { isManaged } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import { itself, throughIt, whoseValues } from '../../words/en/showing'
import { useJob } from '../live/job-provider'
import classes from './window.module.css'

interface WhoseValuesProps {
  readonly unit: Unit
  readonly joined: Unit | undefined
  readonly choose: ((unit: string | null) => void) | undefined
}

/** Whose values are put in: those of the unit itself, or of an access point that is set through its pages. */
export function WhoseValues({ unit, joined, choose }: WhoseValuesProps) {
  const { units, cards } = useJob()
  const others = units.filter(({ model }) => {
    if (model === unit.model) return false
    const card = cards.get(model)
    if (!card || card.isBare) return true
    return isManaged(card) && card.dialect.by.includes(unit.model)
  })
  if (others.length === 0) return null
  return (
    <label className={classes.whose}>
      {whoseValues}{' '}
      <select
        value={joined?.id ?? ''}
        disabled={!choose}
        onChange={(event) => choose?.(event.currentTarget.value === '' ? null : event.currentTarget.value)}
      >
        <option value="">{itself(unit.name)}</option>
        {others.map(({ id, name }) => (
          <option key={id} value={id}>
            {throughIt(name)}
          </option>
        ))}
      </select>
    </label>
  )
}
