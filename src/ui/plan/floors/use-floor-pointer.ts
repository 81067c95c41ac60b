'use client'
import { useHotkeys } from '@mantine/hooks'
import { type PointerEvent, type RefObject, useRef, useState } from 'react'
import type { Floor, Material, Placement } from '../../../core/radio/propagation/floor'
import { useJob } from '../../live/job-provider'
import { usePlan } from '../state/plan-context'
import type { Tool } from './floor-tools'

export interface Point {
  readonly x: number
  readonly y: number
}

export interface Ground {
  /** Pixels for one metre, and where the floor begins on the drawing board. */
  readonly scale: number
  readonly left: number
  readonly top: number
}

/** What the pointer does on a floor, in metres: places, drags, draws, measures. */
export function useFloorPointer(
  board: RefObject<SVGSVGElement | null>,
  floor: Floor,
  ground: Ground,
  tool: Tool,
  material: Material,
  onTool: (tool: Tool) => void,
) {
  const { select } = useJob()
  const { change } = usePlan()
  const [begun, setBegun] = useState<Point>()
  const [pointer, setPointer] = useState<Point>()
  const [measured, setMeasured] = useState<{ from: Point; to: Point }>()
  const drag = useRef<{ unit: string; dx: number; dy: number; moved: boolean }>(undefined)

  const letGo = (): void => {
    setBegun(undefined)
    setMeasured(undefined)
  }
  useHotkeys([['Escape', letGo, { preventDefault: false }]])

  const metresAt = (event: PointerEvent): Point => {
    const box = board.current?.getBoundingClientRect()
    return {
      x: (event.clientX - (box?.left ?? 0) - ground.left) / ground.scale,
      y: (event.clientY - (box?.top ?? 0) - ground.top) / ground.scale,
    }
  }
  const within = ({ x, y }: Point): Point => ({
    x: tenth(Math.min(Math.max(x, 0), floor.widthM)),
    y: tenth(Math.min(Math.max(y, 0), floor.depthM)),
  })
  const put = (unit: string, at: Point, part: 'whole' | 'step') =>
    change(
      (before) => ({
        ...before,
        placements: [
          ...before.placements.filter((each) => each.unit !== unit),
          { unit, floor: floor.id, ...within(at) },
        ],
      }),
      part,
    )
  const setWalls = (edit: (walls: Floor['walls']) => Floor['walls']) =>
    change((before) => ({
      ...before,
      floors: before.floors.map((each) => (each.id === floor.id ? { ...each, walls: edit(each.walls) } : each)),
    }))

  return {
    begun,
    pointer,
    measured,
    /** Where the wall that is being drawn would end. */
    end: begun && pointer && straightened(begun, pointer),
    letGo: () => setMeasured(undefined),
    leave: () => setPointer(undefined),
    put,
    erase: (index: number) => setWalls((walls) => walls.filter((_, at) => at !== index)),
    down: (event: PointerEvent) => {
      const at = within(metresAt(event))
      if (tool.kind === 'place') {
        put(tool.unit, at, 'whole')
        onTool({ kind: 'move' })
        select(tool.unit)
      } else if (tool.kind === 'move') select(undefined)
      else if (tool.kind === 'erase') return
      else if (!begun) setBegun(at)
      else if (tool.kind === 'wall') {
        const end = straightened(begun, at)
        setWalls((walls) => [...walls, { material, x1: begun.x, y1: begun.y, x2: end.x, y2: end.y }])
        // The next wall goes on from here.
        setBegun(end)
      } else {
        setMeasured({ from: begun, to: at })
        setBegun(undefined)
      }
    },
    move: (event: PointerEvent) => {
      const at = metresAt(event)
      setPointer(at)
      const held = drag.current
      if (!held) return
      put(held.unit, { x: at.x - held.dx, y: at.y - held.dy }, held.moved ? 'step' : 'whole')
      held.moved = true
    },
    take: (event: PointerEvent<SVGGElement>, { unit, x, y }: Placement) => {
      if (tool.kind !== 'move') return
      event.stopPropagation()
      event.currentTarget.setPointerCapture(event.pointerId)
      const at = metresAt(event)
      drag.current = { unit, dx: at.x - x, dy: at.y - y, moved: false }
      select(unit)
    },
    drop: () => {
      drag.current = undefined
    },
  }
}

function tenth(value: number): number {
  return Math.round(value * 10) / 10
}

/** A wall that is nearly straight is meant straight. */
function straightened(from: Point, to: Point): Point {
  const [wide, high] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
  return high < wide * 0.06 ? { x: to.x, y: from.y } : wide < high * 0.06 ? { x: from.x, y: to.y } : to
}
