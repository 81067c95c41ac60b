'use client'
import { useElementSize } from '@mantine/hooks'
import { useMemo, useRef, useState } from 'react'
import type { Coverage } from '../../../core/radio/coverage/coverage'
import type { Floor, Material } from '../../../core/radio/propagation/floor'
import type { Band } from '../../../core/regulatory/blocks'
import { useJob } from '../../live/job-provider'
import { usePlan } from '../state/plan-context'
import { AlignQuestion } from './align-question'
import { CoverageLayer, CoverageLegend } from './coverage-layer'
import { DrawingImage } from './drawing-image'
import classes from './floor-map.module.css'
import type { Tool } from './floor-tools'
import { HearingLines, HearingWords } from './hearing-lines'
import type { Picture } from './level-steps'
import { ScaleQuestion } from './scale-question'
import { UnitMark } from './unit-mark'
import { type Point, useFloorPointer } from './use-floor-pointer'

interface Props {
  readonly floor: Floor
  readonly band: Band
  readonly tool: Tool
  readonly onTool: (tool: Tool) => void
  readonly onFloor: (floor: string) => void
  readonly material: Material
  readonly picture: Picture | 'hidden'
}

const marginPx = 34

/** The drawing with walls, units and lines between those that hear each other on one channel. */
export function FloorMap({ floor, band, tool, onTool, onFloor, material, picture }: Props) {
  const { units, selected, select } = useJob()
  const { site, plans } = usePlan()
  const { ref, width, height } = useElementSize()
  const board = useRef<SVGSVGElement>(null)
  const [coverage, setCoverage] = useState<Coverage>()
  const scale = Math.max(1, Math.min((width - 2 * marginPx) / floor.widthM, (height - 2 * marginPx) / floor.depthM))
  const left = Math.max(marginPx, (width - floor.widthM * scale) / 2)
  const hand = useFloorPointer(board, floor, { scale, left, top: marginPx }, tool, material, onTool)
  const px = (metres: number): number => metres * scale
  const here = useMemo(
    () => site.placements.filter((placement) => placement.floor === floor.id),
    [site.placements, floor.id],
  )
  const onAir = here.filter((placement) => plans.get(placement.unit)?.radios.some((radio) => radio.band === band))
  const pointed = hand.pointer && coverage && picture !== 'hidden' ? levelAt(coverage, hand.pointer) : undefined
  const rule = Math.min(10, floor.widthM)

  return (
    <div ref={ref} className={classes.map} data-tool={tool.kind}>
      {width > 0 && (
        // biome-ignore lint/a11y/useSemanticElements: a drawing is no set of fields
        <svg
          ref={board}
          width={width}
          height={Math.max(height, 200)}
          role="group"
          aria-label={`${floor.name}, ${here.length} units, each with its channels, at ${band} GHz first`}
          data-floor={floor.id}
          onPointerDown={hand.down}
          onPointerMove={hand.move}
          onPointerLeave={hand.leave}
        >
          <title>{floor.name}</title>
          <g transform={`translate(${left} ${marginPx})`}>
            <rect className={classes.ground} width={px(floor.widthM)} height={px(floor.depthM)} />
            <DrawingImage floor={floor} scale={scale} />
            {picture !== 'hidden' && (
              <CoverageLayer floor={floor} band={band} scale={scale} picture={picture} onPainted={setCoverage} />
            )}
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
                onPointerDown={() => tool.kind === 'erase' && hand.erase(index)}
              >
                <title>{wall.material}</title>
              </line>
            ))}
            <HearingLines here={here} band={band} px={px} />
            {hand.begun && hand.end && (
              <line
                className={classes.drawn}
                x1={px(hand.begun.x)}
                y1={px(hand.begun.y)}
                x2={px(hand.end.x)}
                y2={px(hand.end.y)}
              />
            )}
            {hand.measured && (
              <line
                className={classes.drawn}
                x1={px(hand.measured.from.x)}
                y1={px(hand.measured.from.y)}
                x2={px(hand.measured.to.x)}
                y2={px(hand.measured.to.y)}
              />
            )}
            {here.map((placement) => (
              <UnitMark
                key={placement.unit}
                name={units.find((unit) => unit.id === placement.unit)?.name ?? placement.unit}
                x={px(placement.x)}
                y={px(placement.y)}
                plan={plans.get(placement.unit)}
                band={band}
                size={scale < 8 ? 'small' : 'full'}
                state={placement.unit === selected ? 'selected' : 'plain'}
                onDown={(event) => hand.take(event, placement)}
                onUp={hand.drop}
                onKey={(dx, dy) => hand.put(placement.unit, { x: placement.x + dx, y: placement.y + dy }, 'whole')}
                onPick={() => select(placement.unit)}
              />
            ))}
            <HearingWords here={here} band={band} px={px} />
            {/* How long ten metres are. */}
            <path className={classes.ruler} d={`M0 ${px(floor.depthM) + 12}v5h${px(rule)}v-5`} />
            <text className={classes.rulerText} x={px(rule) + 6} y={px(floor.depthM) + 18}>
              {rule} m
            </text>
          </g>
        </svg>
      )}
      {picture !== 'hidden' && <CoverageLegend band={band} picture={picture} />}
      {pointed && (
        <span className={classes.pointed} role="status">
          <b className="mono">{Math.round(pointed.dbm)} dBm</b> from{' '}
          {units.find((unit) => unit.id === onAir[pointed.index]?.unit)?.name ?? 'another floor'}
        </span>
      )}
      {hand.measured && tool.kind === 'align' && (
        <AlignQuestion
          floor={floor}
          tool={tool}
          {...hand.measured}
          onTool={onTool}
          onFloor={onFloor}
          onDone={hand.letGo}
        />
      )}
      {hand.measured && tool.kind !== 'align' && (
        <ScaleQuestion floor={floor} from={hand.measured.from} to={hand.measured.to} onDone={hand.letGo} />
      )}
    </div>
  )
}

function levelAt(
  { columns, rows, stepM, dbm, loudest }: Coverage,
  { x, y }: Point,
): { dbm: number; index: number } | undefined {
  const [column, row] = [Math.floor(x / stepM), Math.floor(y / stepM)]
  if (column < 0 || row < 0 || column >= columns || row >= rows) return undefined
  const level = dbm[row * columns + column]
  return level === undefined || level < -150 ? undefined : { dbm: level, index: loudest[row * columns + column] ?? -1 }
}
