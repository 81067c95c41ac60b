'use client'
import classes from './plan.module.css'
import { usePlan } from './plan-context'

/** Where a unit hangs, in figures. */
export function PlaceFields({ unit }: { unit: string }) {
  const { site, change } = usePlan()
  const placement = site.placements.find((each) => each.unit === unit)
  if (site.floors.length === 0) return null
  const set = (part: Partial<{ floor: string; x: number; y: number }>) =>
    change((before) => {
      const floor = before.floors[0]
      const now = before.placements.find((each) => each.unit === unit) ?? { unit, floor: floor?.id ?? '', x: (floor?.widthM ?? 0) / 2, y: (floor?.depthM ?? 0) / 2 }
      return { ...before, placements: [...before.placements.filter((each) => each.unit !== unit), { ...now, ...part }] }
    })
  const number = (text: string, otherwise: number): number => (Number.isFinite(Number(text)) && text.trim() !== '' ? Number(text) : otherwise)
  return (
    <div className={classes.place}>
      <label>
        Floor{' '}
        <select
          value={placement?.floor ?? ''}
          onChange={(event) => {
            const floor = event.currentTarget.value
            if (floor === '') change((before) => ({ ...before, placements: before.placements.filter((each) => each.unit !== unit) }))
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
      {placement && (
        <>
          <label>
            x{' '}
            <input
              key={`x ${placement.x}`}
              className="mono"
              aria-label="Metres from the left"
              inputMode="decimal"
              defaultValue={placement.x.toFixed(1)}
              onBlur={(event) => number(event.currentTarget.value, placement.x) !== Number(placement.x.toFixed(1)) && set({ x: number(event.currentTarget.value, placement.x) })}
            />{' '}
            m
          </label>
          <label>
            y{' '}
            <input
              key={`y ${placement.y}`}
              className="mono"
              aria-label="Metres from the top"
              inputMode="decimal"
              defaultValue={placement.y.toFixed(1)}
              onBlur={(event) => number(event.currentTarget.value, placement.y) !== Number(placement.y.toFixed(1)) && set({ y: number(event.currentTarget.value, placement.y) })}
            />{' '}
            m
          </label>
        </>
      )}
    </div>
  )
}
