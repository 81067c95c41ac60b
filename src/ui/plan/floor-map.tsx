'use client'
import { useElementSize } from '@mantine/hooks'
import { type PointerEvent, useEffect, useMemo, useRef, useState } from 'react'
import { overlapOf } from '../../core/radio/channel-problem'
import type { Coverage } from '../../core/radio/coverage'
import type { Floor, Material } from '../../core/radio/floor'
import type { Band } from '../../core/regulatory/blocks'
import { useJob } from '../live/job-provider'
import { CoverageLayer, CoverageLegend } from './coverage-layer'
import classes from './floor-map.module.css'
import type { Tool } from './floor-tools'
import { usePlan } from './plan-context'
import { ScaleQuestion } from './scale-question'
import { UnitMark } from './unit-mark'

interface Props {
  readonly floor: Floor
  readonly band: Band
  readonly tool: Tool
  readonly onTool: (tool: Tool) => void
  readonly material: Material
  readonly picture: 'shown' | 'hidden'
}

interface Point {
  readonly x: number
  readonly y: number
}

const marginPx = 34

/** The drawing with walls, units and lines between those that hear each other on one channel. */
export function FloorMap({ floor, band, tool, onTool, material, picture }: Props) {
  const { job, units, selected, select } = useJob()
  const { site, plans, live, change } = usePlan()
  const { ref, width, height } = useElementSize()
  const svg = useRef<SVGSVGElement>(null)
  const [begun, setBegun] = useState<Point>()
  const [pointer, setPointer] = useState<Point>()
  const [measured, setMeasured] = useState<{ from: Point; to: Point }>()
  const [coverage, setCoverage] = useState<Coverage>()
  const drag = useRef<{ unit: string; dx: number; dy: number; moved: boolean }>(undefined)
  const scale = Math.max(1, Math.min((width - 2 * marginPx) / floor.widthM, (height - 2 * marginPx) / floor.depthM))
  const left = Math.max(marginPx, (width - floor.widthM * scale) / 2)
  const px = (metres: number): number => metres * scale
  const here = useMemo(() => site.placements.filter((placement) => placement.floor === floor.id), [site.placements, floor.id])

  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return
      setBegun(undefined)
      setMeasured(undefined)
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [])

  const metresAt = (event: PointerEvent): Point => {
    const box = svg.current?.getBoundingClientRect()
    return { x: (event.clientX - (box?.left ?? 0) - left) / scale, y: (event.clientY - (box?.top ?? 0) - marginPx) / scale }
  }
  const within = ({ x, y }: Point): Point => ({ x: Math.round(Math.min(Math.max(x, 0), floor.widthM) * 10) / 10, y: Math.round(Math.min(Math.max(y, 0), floor.depthM) * 10) / 10 })
  /** A wall that is nearly straight is meant straight. */
  const straightened = (from: Point, to: Point): Point => {
    const [wide, high] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)]
    return high < wide * 0.06 ? { x: to.x, y: from.y } : wide < high * 0.06 ? { x: from.x, y: to.y } : to
  }
  const put = (unit: string, at: Point, part: 'whole' | 'step') =>
    change((before) => ({ ...before, placements: [...before.placements.filter((each) => each.unit !== unit), { unit, floor: floor.id, ...within(at) }] }), part)

  const down = (event: PointerEvent) => {
    const at = within(metresAt(event))
    if (tool.kind === 'place') {
      put(tool.unit, at, 'whole')
      onTool({ kind: 'move' })
      select(tool.unit)
    } else if (tool.kind === 'wall') {
      if (!begun) setBegun(at)
      else {
        const end = straightened(begun, at)
        change((before) => ({
          ...before,
          floors: before.floors.map((each) => (each.id === floor.id ? { ...each, walls: [...each.walls, { material, x1: begun.x, y1: begun.y, x2: end.x, y2: end.y }] } : each)),
        }))
        // The next wall goes on from here.
        setBegun(end)
      }
    } else if (tool.kind === 'scale') {
      if (!begun) setBegun(at)
      else {
        setMeasured({ from: begun, to: at })
        setBegun(undefined)
      }
    } else if (tool.kind === 'move') select(undefined)
  }
  const move = (event: PointerEvent) => {
    const at = metresAt(event)
    setPointer(at)
    const held = drag.current
    if (!held) return
    put(held.unit, { x: at.x - held.dx, y: at.y - held.dy }, held.moved ? 'step' : 'whole')
    held.moved = true
  }
  const erase = (index: number) =>
    change((before) => ({ ...before, floors: before.floors.map((each) => (each.id === floor.id ? { ...each, walls: each.walls.filter((_, at) => at !== index) } : each)) }))

  const places = new Map(here.map((placement) => [placement.unit, placement]))
  const lines = (live?.hears ?? []).flatMap(({ a, b, dbm }) => {
    const [one, other] = [a, b].map((id) => (id.endsWith(` ${band}`) ? id.slice(0, -band.length - 1) : ''))
    const [from, to] = [places.get(one ?? ''), places.get(other ?? '')]
    const [first, second] = [one, other].map((id) => plans.get(id ?? '')?.radios.find((radio) => radio.band === band))
    if (!from || !to || !first || !second) return []
    const shared = overlapOf({ lowMhz: first.lowMhz, highMhz: first.lowMhz + first.width }, { lowMhz: second.lowMhz, highMhz: second.lowMhz + second.width })
    return shared > 0 ? [{ from, to, dbm, shared, channel: first.channel === second.channel ? `both on ${first.channel}` : `${first.channel} and ${second.channel}` }] : []
  })
  const loudest = lines.toSorted((a, b) => b.dbm * b.shared - a.dbm * a.shared).filter((line) => line.from.unit === selected || line.to.unit === selected)
  const told = new Set((selected ? loudest : lines.toSorted((a, b) => b.dbm - a.dbm)).slice(0, selected ? 4 : 1))
  const pointed = pointer && coverage && picture === 'shown' ? levelAt(coverage, pointer) : undefined
  const onAir = here.filter((placement) => plans.get(placement.unit)?.radios.some((radio) => radio.band === band))

  return (
    <div ref={ref} className={classes.map} data-tool={tool.kind}>
      {width > 0 && (
        <svg
          ref={svg}
          width={width}
          height={Math.max(height, 200)}
          role="img"
          aria-label={`${floor.name}, ${here.length} units`}
          onPointerDown={down}
          onPointerMove={move}
          onPointerLeave={() => setPointer(undefined)}
        >
          <title>{floor.name}</title>
          <g transform={`translate(${left} ${marginPx})`}>
            <rect className={classes.ground} width={px(floor.widthM)} height={px(floor.depthM)} />
            {floor.drawing && (
              <image
                href={`/api/jobs/${job.slug}/drawing/${floor.id}`}
                width={floor.drawing.widthPx * floor.drawing.metresPerPx * scale}
                height={floor.drawing.heightPx * floor.drawing.metresPerPx * scale}
                opacity={0.75}
                preserveAspectRatio="none"
              />
            )}
            {picture === 'shown' && <CoverageLayer floor={floor} band={band} scale={scale} onPainted={setCoverage} />}
            {floor.walls.map((wall, index) => (
              <line
                // biome-ignore lint/suspicious/noArrayIndexKey: a wall has no name but its place in the list
                key={index}
                className={classes.wall}
                data-material={wall.material}
                x1={px(wall.x1)}
                y1={px(wall.y1)}
                x2={px(wall.x2)}
                y2={px(wall.y2)}
                onPointerDown={(event) => {
                  if (tool.kind !== 'erase') return
                  event.stopPropagation()
                  erase(index)
                }}
              >
                <title>{wall.material}</title>
              </line>
            ))}
            {lines.map((line) => (
              <line
                key={`${line.from.unit} ${line.to.unit}`}
                className={classes.hears}
                data-loud={line.dbm > -80}
                x1={px(line.from.x)}
                y1={px(line.from.y)}
                x2={px(line.to.x)}
                y2={px(line.to.y)}
              />
            ))}
            {begun && pointer && (
              <line className={classes.drawn} x1={px(begun.x)} y1={px(begun.y)} x2={px(straightened(begun, pointer).x)} y2={px(straightened(begun, pointer).y)} />
            )}
            {measured && <line className={classes.drawn} x1={px(measured.from.x)} y1={px(measured.from.y)} x2={px(measured.to.x)} y2={px(measured.to.y)} />}
            {here.map((placement) => {
              const unit = units.find((each) => each.id === placement.unit)
              if (!unit) return null
              return (
                <UnitMark
                  key={unit.id}
                  name={unit.name}
                  x={px(placement.x)}
                  y={px(placement.y)}
                  plan={plans.get(unit.id)}
                  band={band}
                  size={scale < 8 ? 'small' : 'full'}
                  state={unit.id === selected ? 'selected' : 'plain'}
                  onDown={(event) => {
                    if (tool.kind !== 'move') return
                    event.stopPropagation()
                    event.currentTarget.setPointerCapture(event.pointerId)
                    const at = metresAt(event)
                    drag.current = { unit: unit.id, dx: at.x - placement.x, dy: at.y - placement.y, moved: false }
                    select(unit.id)
                  }}
                  onUp={() => {
                    drag.current = undefined
                  }}
                  onKey={(dx, dy) => put(unit.id, { x: placement.x + dx, y: placement.y + dy }, 'whole')}
                  onPick={() => select(unit.id)}
                />
              )
            })}
            {[...told].map((line) => (
              <text
                key={`${line.from.unit} ${line.to.unit}`}
                className={classes.told}
                data-loud={line.dbm > -80}
                x={px((line.from.x + line.to.x) / 2)}
                y={px((line.from.y + line.to.y) / 2) - 5}
              >
                {Math.round(line.dbm)} dBm, {line.channel}
              </text>
            ))}
            {/* How long ten metres are. */}
            <path className={classes.ruler} d={`M0 ${px(floor.depthM) + 12}v5h${px(Math.min(10, floor.widthM))}v-5`} />
            <text className={classes.rulerText} x={px(Math.min(10, floor.widthM)) + 6} y={px(floor.depthM) + 18}>
              {Math.min(10, floor.widthM)} m
            </text>
          </g>
        </svg>
      )}
      {picture === 'shown' && <CoverageLegend band={band} />}
      {pointed && (
        <span className={classes.pointed} role="status">
          <b className="mono">{Math.round(pointed.dbm)} dBm</b> from {units.find((unit) => unit.id === onAir[pointed.index]?.unit)?.name ?? 'another floor'}
        </span>
      )}
      {measured && <ScaleQuestion floor={floor} from={measured.from} to={measured.to} onDone={() => setMeasured(undefined)} />}
    </div>
  )
}

function levelAt({ columns, rows, stepM, dbm, loudest }: Coverage, { x, y }: Point): { dbm: number; index: number } | undefined {
  const [column, row] = [Math.floor(x / stepM), Math.floor(y / stepM)]
  if (column < 0 || row < 0 || column >= columns || row >= rows) return undefined
  const level = dbm[row * columns + column]
  return level === undefined || level < -150 ? undefined : { dbm: level, index: loudest[row * columns + column] ?? -1 }
}
