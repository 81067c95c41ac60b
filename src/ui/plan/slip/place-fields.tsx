'use client'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'

const axes = [
  { axis: 'x', words: 'Metres from the left' },
  { axis: 'y', words: 'Metres from the top' },
] as const

/** Where a unit hangs, in figures. */
export function PlaceFields({ unit }: { unit: string }) {
  const { site, change } = usePlan()
  const placement = site.placements.find((each) => each.unit === unit)
  if (site.floors.length === 0) return null
  const set = (part: Partial<{ floor: string; x: number; y: number }>) =>
    change((before) => {
      const floor = before.floors[0]
      const now = before.placements.find((each) => each.unit === unit) ?? {
        unit,
        floor: floor?.id ?? '',
        x: (floor?.widthM ?? 0) / 2,
        y: (floor?.depthM ?? 0) / 2,
      }
      return { ...before, placements: [...before.placements.filter((each) => each.unit !== unit), { ...now, ...part }] }
    })
  return (
    <div className={classes.place}>
      <label>
        Floor{' '}
        <select
          value={placement?.floor ?? ''}
          onChange={(event) => {
            const floor = event.currentTarget.value
            if (floor === '')
              change((before) => ({ ...before, placements: before.placements.filter((each) => each.unit !== unit) }))
            else set({ floor })
          }}
        >
          <option value="">not placed</option>
          {site.floors.map((floor) => (
            <option key={floor.id} value={floor.id}>
              {floor.name}
            </option>
          ))}
        </select>
      </label>
      {placement &&
        axes.map(({ axis, words }) => (
          <label key={axis}>
            {axis}{' '}
            <input
              key={placement[axis]}
              className="mono"
              aria-label={words}
              inputMode="decimal"
              defaultValue={placement[axis].toFixed(1)}
              onBlur={(event) => {
                const typed = Number(event.currentTarget.value.replace(',', '.'))
                if (
                  event.currentTarget.value.trim() !== '' &&
                  Number.isFinite(typed) &&
                  typed !== Number(placement[axis].toFixed(1))
                )
                  set({ [axis]: typed })
                else event.currentTarget.value = placement[axis].toFixed(1)
              }}
            />{' '}
            m
          </label>
        ))}
    </div>
  )
}
