/**
 * Who hears whom, and how loudly.
 *
 * In: radios of one band with their places, power and gain. Out: pairs with the level of the louder direction, dBm;
 * a pair below the floor of what disturbs is left out.
 */
import type { Band } from '../regulatory/blocks'
import type { Hearing } from './channel-problem'
import { quietestDbm } from './channel-problem'
import {
  type Clutter,
  clutterOf,
  distanceLoss,
  distanceOfLoss,
  floorLoss,
  officeLoss,
  openLoss,
  wallDb,
} from './propagation'
import { liesOver, type Point, type SituatedFloor, toSite } from './situation'
import { indexOfWalls } from './wall-index'

export interface PlacedRadio {
  readonly id: string
  readonly floor: SituatedFloor
  /** On its own drawing, m. */
  readonly x: number
  readonly y: number
  /** Conducted power, dBm. */
  readonly powerDbm: number
  /** Antenna gain, dBi. */
  readonly gain: number
  /** Middle of its channel, MHz, where it has one. */
  readonly centreMhz?: number | undefined
}

/** Height at which units hang, m above their floor. */
const unitHeightM = 2.5

export function heightM({ elevationM }: Pick<SituatedFloor, 'elevationM'>): number {
  return elevationM + unitHeightM
}

/** What is between two drawings, whatever the distance. */
export interface Between {
  /** Floors that are passed. */
  readonly floors: number
  /** Outer walls that are passed, dB. */
  readonly outerDb: number
  readonly clutter: Clutter
}

/**
 * Over each other it goes through the floors in between. Side by side, or from indoors to outdoors, it goes out through
 * the outer walls of each that is indoors, and in again.
 */
export function between(band: Band, a: SituatedFloor, b: SituatedFloor): Between {
  const indoors = [a, b].filter(({ environment }) => environment === 'indoor')
  const floors = indoors.length === 2 && liesOver(a, b) ? Math.abs(a.storey - b.storey) : 0
  return {
    floors,
    outerDb: floors > 0 ? 0 : indoors.reduce((sum, { outerWalls }) => sum + wallDb[outerWalls][band], 0),
    // The drawn walls of neither drawing say what is in the way from one to the other.
    clutter: indoors.length > 0 ? 'office' : 'walls-alone',
  }
}

/**
 * Loss on the way between two places, dB.
 *
 * @param enough  where the loss comes to this much it need not be exact: walls beyond are not counted
 */
export function lossBetween(
  band: Band,
  a: { floor: SituatedFloor; x: number; y: number },
  b: { floor: SituatedFloor; x: number; y: number },
  enough = Number.POSITIVE_INFINITY,
): number {
  if (a.floor.id !== b.floor.id) {
    const [one, other] = [toSite(a.floor, a), toSite(b.floor, b)]
    const metres = Math.hypot(one.x - other.x, one.y - other.y, heightM(a.floor) - heightM(b.floor))
    const { floors, outerDb, clutter } = between(band, a.floor, b.floor)
    return distanceLoss(band, metres, clutter) + floorLoss(band, floors) + outerDb
  }
  const metres = Math.hypot(a.x - b.x, a.y - b.y)
  const open = openLoss(band, metres)
  const usual = clutterOf(a.floor) === 'office' ? officeLoss(band, metres) : 0
  if (open + usual >= enough || a.floor.walls.length === 0) return open + usual
  // One wall that is drawn does not make the rest of an office go away.
  return open + Math.max(usual, indexOfWalls(a.floor.walls).loss(band, a.x, a.y, b.x, b.y, enough - open))
}

/**
 * All pairs that hear each other. Radios are sorted into squares as wide as the farthest one is heard, so that ten
 * thousand of them need not be compared each with each.
 */
export function hearings(band: Band, radios: readonly PlacedRadio[]): Hearing[] {
  const loudest =
    radios.reduce((most, { powerDbm, gain }) => Math.max(most, powerDbm + gain), 0) +
    radios.reduce((most, { gain }) => Math.max(most, gain), 0)
  const least: Clutter = radios.some(({ floor }) => clutterOf(floor) === 'walls-alone') ? 'walls-alone' : 'office'
  const farM = Math.max(1, distanceOfLoss(band, loudest - quietestDbm, least))
  const points = radios.map((radio): Point => toSite(radio.floor, radio))
  const squares = new Map<string, number[]>()
  const column = (x: number): number => Math.floor(x / farM)
  points.forEach((point, index) => {
    const key = `${column(point.x)} ${column(point.y)}`
    const there = squares.get(key)
    if (there) there.push(index)
    else squares.set(key, [index])
  })
  const reach = reachOf(band, loudest, farM)
  const found: Hearing[] = []
  const compare = (index: number, other: number): void => {
    const [a, b] = [radios[index], radios[other]]
    const [one, two] = [points[index], points[other]]
    if (!a || !b || !one || !two) return
    // Too far apart for the loudest pair there is: neither logarithms nor walls need be looked at.
    if ((one.x - two.x) ** 2 + (one.y - two.y) ** 2 > reach(a.floor, b.floor)) return
    const budget = Math.max(a.powerDbm, b.powerDbm) + a.gain + b.gain
    const dbm = budget - lossBetween(band, a, b, budget - quietestDbm)
    if (dbm > quietestDbm) found.push({ a: a.id, b: b.id, dbm: Math.round(dbm * 10) / 10 })
  }
  points.forEach((point, index) => {
    for (let dx = -1; dx <= 1; dx += 1) {
      for (let dy = -1; dy <= 1; dy += 1) {
        const square = squares.get(`${column(point.x) + dx} ${column(point.y) + dy}`)
        if (square) for (const other of square) if (other > index) compare(index, other)
      }
    }
  })
  return found
}

/** Square of the greatest distance at which anybody is heard, m², by the drawings of both; never too short. */
function reachOf(band: Band, budget: number, farM: number): (a: SituatedFloor, b: SituatedFloor) => number {
  const known = new Map<SituatedFloor, Map<SituatedFloor, number>>()
  return (a, b) => {
    if (a === b) return farM ** 2
    const row = known.get(a) ?? new Map<SituatedFloor, number>()
    known.set(a, row)
    const before = row.get(b)
    if (before !== undefined) return before
    const { floors, outerDb, clutter } = between(band, a, b)
    const far = distanceOfLoss(band, budget - quietestDbm - floorLoss(band, floors) - outerDb, clutter)
    // Within a metre nothing more is lost: the loss at one metre is the least there is.
    const squared = far < 1 ? -1 : far ** 2
    row.set(b, squared)
    return squared
  }
}
