'use client'
import { Button } from '@mantine/core'
import { useState } from 'react'
import type { Floor } from '../../../core/radio/propagation/floor'
import { aligned, type Point, situated } from '../../../core/radio/propagation/situation'
import { sentence } from '../../../words/en/sentence'
import { usePlan } from '../state/plan-context'
import classes from './floor-map.module.css'
import type { Tool } from './floor-tools'

interface Props {
  /** The drawing that two points were clicked on. */
  readonly floor: Floor
  readonly tool: Extract<Tool, { kind: 'align' }>
  readonly from: Point
  readonly to: Point
  readonly onTool: (tool: Tool) => void
  readonly onFloor: (floor: string) => void
  readonly onDone: () => void
}

/** Two points were clicked that another drawing shows too: where are they there? Then it is known how both lie. */
export function AlignQuestion({ floor, tool, from, to, onTool, onFloor, onDone }: Props) {
  const { site, change } = usePlan()
  const [fault, setFault] = useState<string>()
  const there = site.floors.find((each) => each.id === tool.with)
  const onward = () => {
    onTool({ ...tool, here: [from, to] })
    onFloor(tool.with)
  }
  const apply = () => {
    const other = situated(site.floors).get(tool.with)
    if (!tool.here || !other) return
    const found = aligned({ here: tool.here, there: [from, to] }, other)
    if (!found.ok) return setFault(sentence(found.fault))
    change((before) => ({
      ...before,
      floors: before.floors.map((each) =>
        each.id === tool.floor
          ? { ...each, origin: found.origin }
          : // What it was aligned with stays where it was taken to lie.
            each.id === tool.with
            ? { ...each, origin: other.at }
            : each,
      ),
    }))
    onTool({ kind: 'move' })
    onFloor(tool.floor)
    onDone()
  }
  const isSecond = floor.id === tool.with
  return (
    <div className={classes.question}>
      <span>
        {isSecond ? 'These are the same two points.' : `Now the same two on ${there?.name ?? 'the other drawing'}.`}
      </span>
      <Button size="compact-sm" onClick={isSecond ? apply : onward}>
        {isSecond ? 'Align' : 'Go there'}
      </Button>
      <Button size="compact-sm" variant="default" onClick={onDone}>
        Click them again
      </Button>
      {fault && <span role="alert">{fault}</span>}
    </div>
  )
}
