'use client'
import type { PointerEvent } from 'react'
import type { UnitPlan } from '../../../core/plan/plan'
import type { Band } from '../../../core/regulatory/blocks'
import classes from './floor-map.module.css'

interface Props {
  readonly name: string
  /** Pixels. */
  readonly x: number
  readonly y: number
  readonly plan: UnitPlan | undefined
  readonly band: Band
  /** Small where units lie close to each other on the screen: the channel that is looked at, and no other. */
  readonly size: 'small' | 'full'
  readonly state: 'selected' | 'plain'
  readonly onDown: (event: PointerEvent<SVGGElement>) => void
  readonly onUp: () => void
  /** Moves it by metres, with the arrow keys. */
  readonly onKey: (dx: number, dy: number) => void
  readonly onPick: () => void
}

const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-0.5, 0],
  ArrowRight: [0.5, 0],
  ArrowUp: [0, -0.5],
  ArrowDown: [0, 0.5],
}

/** A unit on the floor: its channel in the band that is looked at, the others smaller. */
export function UnitMark({ name, x, y, plan, band, size, state, onDown, onUp, onKey, onPick }: Props) {
  const radios = plan?.radios ?? []
  const own = radios.find((radio) => radio.band === band)
  const others = radios.filter((radio) => radio.band !== band).map((radio) => radio.channel)
  const text = own ? `${own.channel}` : '–'
  const rest = size === 'full' && others.length > 0 ? ` / ${others.join(' / ')}` : ''
  const wide = size === 'small' ? 8 + text.length * 7 : 16 + (text.length + rest.length) * 7.6
  const high = size === 'small' ? 18 : 26
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing has no buttons of its own
    <g
      className={classes.unit}
      data-state={state}
      data-size={size}
      data-unit={name}
      data-radar={own?.radar ?? false}
      transform={`translate(${x} ${y})`}
      tabIndex={0}
      role="button"
      onPointerDown={onDown}
      onPointerUp={onUp}
      onPointerCancel={onUp}
      onKeyDown={(event) => {
        const step = arrows[event.key]
        if (event.key === 'Enter') onPick()
        else if (step) onKey(...step)
        else return
        event.preventDefault()
        event.stopPropagation()
      }}
    >
      <rect x={-wide / 2} y={-high / 2} width={wide} height={high} rx={size === 'small' ? 3 : 5} />
      <text className={classes.channel} y={5}>
        {text}
        <tspan className={classes.other}>{rest}</tspan>
      </text>
      <text className={classes.name} y={size === 'small' ? 20 : 28}>
        {name}
        {own?.locked ? ' ⚿' : ''}
      </text>
    </g>
  )
}
