'use client'
import { radioId } from '../../../core/radio/channels/radio-request'
import { overlapOf } from '../../../core/radio/channels/span'
import type { Placement } from '../../../core/radio/propagation/floor'
import type { Band } from '../../../core/regulatory/blocks'
import { useJob } from '../../live/job-provider'
import { usePlan } from '../state/plan-context'
import classes from './floor-map.module.css'
import { type Box, boxAround, freeSpot } from './free-spot'

/** Louder than this on one channel, two units take turns all day, dBm. */
const loudDbm = -80

/** A unit's mark with its name below, and the words of a line, about, in pixels. */
const markWidth = 84
const markHeight = 50
const markBelow = 10
const letterWidth = 7.9
const lineHeight = 18

interface HearingLine {
  readonly from: Placement
  readonly to: Placement
  readonly dbm: number
  /** 0 to 1. */
  readonly shared: number
  readonly words: string
}

/** Pairs on this floor that hear each other on one channel of the band. */
function useHearingLines(here: readonly Placement[], band: Band): HearingLine[] {
  const { plans, live } = usePlan()
  const places = new Map(here.map((placement) => [radioId(placement.unit, band), placement]))
  return (live?.hears ?? []).flatMap(({ a, b, dbm }) => {
    const [from, to] = [places.get(a), places.get(b)]
    const [one, other] = [from, to].map((place) =>
      plans.get(place?.unit ?? '')?.radios.find((radio) => radio.band === band),
    )
    if (!from || !to || !one || !other) return []
    const shared = overlapOf(
      { lowMhz: one.lowMhz, highMhz: one.lowMhz + one.width },
      { lowMhz: other.lowMhz, highMhz: other.lowMhz + other.width },
    )
    return shared > 0
      ? [
          {
            from,
            to,
            dbm,
            shared,
            words: one.channel === other.channel ? `both on ${one.channel}` : `${one.channel} and ${other.channel}`,
          },
        ]
      : []
  })
}

interface Props {
  readonly here: readonly Placement[]
  readonly band: Band
  /** Pixels of so many metres. */
  readonly px: (metres: number) => number
}

const keyOf = ({ from, to }: HearingLine): string => `${from.unit} ${to.unit}`

/** Dotted lines between them, beneath the units. */
export function HearingLines({ here, band, px }: Props) {
  const lines = useHearingLines(here, band)
  return lines.map((line) => (
    <line
      key={keyOf(line)}
      className={classes.hears}
      data-loud={line.dbm > loudDbm}
      x1={px(line.from.x)}
      y1={px(line.from.y)}
      x2={px(line.to.x)}
      y2={px(line.to.y)}
    />
  ))
}

/** How loud the loudest are, or those of the selected unit; above the units. */
export function HearingWords({ here, band, px }: Props) {
  const { selected } = useJob()
  const lines = useHearingLines(here, band)
  const own = lines.filter((line) => line.from.unit === selected || line.to.unit === selected)
  const told = (own.length > 0 ? own : selected ? [] : lines)
    .toSorted((a, b) => b.dbm - a.dbm)
    .slice(0, own.length > 0 ? 4 : 1)
  const taken: Box[] = here.map(({ x, y }) => boxAround({ x: px(x), y: px(y) + markBelow }, markWidth, markHeight))
  return told.map((line) => {
    const words = `${Math.round(line.dbm)} dBm, ${line.words}`
    const width = words.length * letterWidth
    const spot = freeSpot(
      { x: px(line.from.x), y: px(line.from.y) },
      { x: px(line.to.x), y: px(line.to.y) },
      width,
      lineHeight,
      taken,
    )
    taken.push(boxAround(spot, width, lineHeight))
    return (
      <text key={keyOf(line)} className={classes.told} data-loud={line.dbm > loudDbm} x={spot.x} y={spot.y + 4}>
        {words}
      </text>
    )
  })
}
