'use client'
import { Button } from '@mantine/core'
import { useState } from 'react'
import type { Floor } from '../../../core/radio/propagation/floor'
import { usePlan } from '../state/plan-context'
import classes from './floor-map.module.css'

interface Props {
  readonly floor: Floor
  readonly from: { readonly x: number; readonly y: number }
  readonly to: { readonly x: number; readonly y: number }
  readonly onDone: () => void
}

/** Two points were clicked: how far are they from each other? Everything on the floor grows or shrinks with it. */
export function ScaleQuestion({ floor, from, to, onDone }: Props) {
  const { change } = usePlan()
  const [typed, setTyped] = useState('')
  const now = Math.hypot(to.x - from.x, to.y - from.y)
  const metres = Number(typed.replace(',', '.'))
  const factor = metres / now
  const right =
    typed.trim() !== '' &&
    metres > 0 &&
    now > 0 &&
    floor.widthM * factor <= 5000 &&
    floor.widthM * factor >= 1 &&
    floor.depthM * factor >= 1
  const apply = () => {
    const times = (value: number): number => Math.round(value * factor * 100) / 100
    change((before) => ({
      ...before,
      floors: before.floors.map((each) =>
        each.id === floor.id
          ? {
              ...each,
              widthM: times(each.widthM),
              depthM: times(each.depthM),
              drawing: each.drawing && { ...each.drawing, metresPerPx: each.drawing.metresPerPx * factor },
              walls: each.walls.map((wall) => ({
                ...wall,
                x1: times(wall.x1),
                y1: times(wall.y1),
                x2: times(wall.x2),
                y2: times(wall.y2),
              })),
            }
          : each,
      ),
      placements: before.placements.map((each) =>
        each.floor === floor.id ? { ...each, x: times(each.x), y: times(each.y) } : each,
      ),
    }))
    onDone()
  }
  return (
    <form
      className={classes.question}
      onSubmit={(event) => {
        event.preventDefault()
        if (right) apply()
      }}
    >
      <label>
        These two are{' '}
        <input
          className="mono"
          // biome-ignore lint/a11y/noAutofocus: the person has just asked for this question
          autoFocus
          inputMode="decimal"
          aria-label="Metres between the two points"
          value={typed}
          onChange={(event) => setTyped(event.currentTarget.value)}
        />{' '}
        m apart
      </label>
      <span className="soft">now {now.toFixed(1)} m</span>
      <Button type="submit" size="compact-sm" disabled={!right}>
        Set the scale
      </Button>
      <Button size="compact-sm" variant="default" onClick={onDone}>
        Leave it
      </Button>
    </form>
  )
}
