/**
 * Who hears whom, and how loudly.
 *
 * In: radios of one band with their places, power and gain. Out: pairs with the level of the louder direction, dBm;
 * a pair below the floor of what disturbs is left out.
 */
import type { Band } from '../../regulatory/blocks'
import type { Hearing } from '../channels/channel-problem'
import { quietestDbm } from '../channels/channel-problem'
import {
  type Clutter,
  clutterOf,
  distanceLoss,
  distanceOfLoss,
  type Fit,
  fittedDb,
  floorLoss,
  noFit,
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

/** How far two places are apart, m. */
export function metresBetween(
  a: { floor: SituatedFloor; x: number; y: number },
  b: { floor: SituatedFloor; x: number; y: number },
): number {
  const [one, other] = [toSite(a.floor, a), toSite(b.floor, b)]
  return Math.hypot(one.x - other.x, one.y - other.y, heightM(a.floor) - heightM(b.floor))
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
  fit: Fit = noFit,
): number {
  if (a.floor.id !== b.floor.id) {
    const [one, other] = [toSite(a.floor, a), toSite(b.floor, b)]
    return wayBetween(band, a.floor, b.floor, fit).loss((one.x - other.x) ** 2 + (one.y - other.y) ** 2)
  }
  const metres = Math.hypot(a.x - b.x, a.y - b.y)
  const open = openLoss(band, metres) - fittedDb(fit, metres)
  const usual = clutterOf(a.floor) === 'office' ? officeLoss(band, metres) : 0
  if (open + usual >= enough || a.floor.walls.length === 0) return open + usual
  // One wall that is drawn does not make the rest of an office go away.
  return open + Math.max(usual, indexOfWalls(a.floor.walls).loss(band, a.x, a.y, b.x, b.y, enough - open))
}

/**
 * All pairs that hear each other. Radios are sorted into squares as wide as the farthest one is heard, so that ten
 * thousand of them need not be compared each with each.
 */
export function hearings(band: Band, radios: readonly PlacedRadio[], fit: Fit = noFit): Hearing[] {
  const loudest =
    radios.reduce((most, { powerDbm, gain }) => Math.max(most, powerDbm + gain), 0) +
    radios.reduce((most, { gain }) => Math.max(most, gain), 0)
  const least: Clutter = radios.some(({ floor }) => clutterOf(floor) === 'walls-alone') ? 'walls-alone' : 'office'
  const farM = Math.max(1, distanceOfLoss(band, loudest - quietestDbm, least, fit))
  const { xs, ys, floorOf, ways } = layOut(band, radios, fit)
  const floors = ways.length
  // In one array, since it is asked for every pair that lies in neighbouring squares.
  const reach = Float64Array.from({ length: floors * floors }, (_, at) => {
    const way = ways[Math.floor(at / floors)]?.[at % floors]
    return way ? way.reach(loudest) : farM ** 2
  })
  const squares = new Map<number, number[]>()
  const square = (column: number, row: number): number => column * 1_000_003 + row
  const line = (metres: number): number => Math.floor(metres / farM)
  radios.forEach((_, index) => {
    const key = square(line(xs[index] ?? 0), line(ys[index] ?? 0))
    const there = squares.get(key)
    if (there) there.push(index)
    else squares.set(key, [index])
  })
  const found: Hearing[] = []
  const compare = (index: number, other: number, across: number): void => {
    const [a, b] = [radios[index], radios[other]]
    if (!a || !b) return
    const way = ways[floorOf[index] ?? 0]?.[floorOf[other] ?? 0]
    const budget = Math.max(a.powerDbm, b.powerDbm) + a.gain + b.gain
    const loss = way ? way.loss(across) : lossBetween(band, a, b, budget - quietestDbm, fit)
    const dbm = budget - loss
    if (dbm > quietestDbm) found.push({ a: a.id, b: b.id, dbm: Math.round(dbm * 10) / 10 })
  }
  radios.forEach((_, index) => {
    const [x, y, row] = [xs[index] ?? 0, ys[index] ?? 0, (floorOf[index] ?? 0) * floors]
    for (let dx = -1; dx <= 1; dx += 1) {
      for (let dy = -1; dy <= 1; dy += 1) {
        const near = squares.get(square(line(x) + dx, line(y) + dy)) ?? []
        for (const other of near) {
          if (other <= index) continue
          const across = (x - (xs[other] ?? 0)) ** 2 + (y - (ys[other] ?? 0)) ** 2
          // Too far apart for the loudest pair there is: neither logarithms nor walls need be looked at.
          if (across <= (reach[row + (floorOf[other] ?? 0)] ?? 0)) compare(index, other, across)
        }
      }
    }
  })
  return found
}

/** The way from one drawing to another: worked out once for all the radios on both. */
interface Way {
  /** Loss, dB, by the square of the distance as seen from above, m². */
  loss(across: number): number
  /** Square of the greatest distance at which a budget still lets anybody hear, m²; negative where none does. */
  reach(budget: number): number
}

/** Radios in one plan of the site, with the way between any two drawings; undefined from a drawing to itself. */
function layOut(
  band: Band,
  radios: readonly PlacedRadio[],
  fit: Fit,
): { xs: Float64Array; ys: Float64Array; floorOf: Int32Array; ways: readonly (readonly (Way | undefined)[])[] } {
  const floors = [...new Set(radios.map(({ floor }) => floor))]
  const numbers = new Map(floors.map((floor, at) => [floor, at]))
  const points = radios.map((radio): Point => toSite(radio.floor, radio))
  return {
    xs: Float64Array.from(points, ({ x }) => x),
    ys: Float64Array.from(points, ({ y }) => y),
    floorOf: Int32Array.from(radios, ({ floor }) => numbers.get(floor) ?? 0),
    ways: floors.map((a) => floors.map((b) => (a === b ? undefined : wayBetween(band, a, b, fit)))),
  }
}

function wayBetween(band: Band, a: SituatedFloor, b: SituatedFloor, fit: Fit): Way {
  const { floors, outerDb, clutter } = between(band, a, b)
  const fixed = floorLoss(band, floors) + outerDb
  const rise = (heightM(a) - heightM(b)) ** 2
  return {
    loss: (across) => distanceLoss(band, Math.sqrt(across + rise), clutter, fit) + fixed,
    reach: (budget) => {
      const far = distanceOfLoss(band, budget - quietestDbm - fixed, clutter, fit)
      // Within a metre nothing more is lost: the loss at one metre is the least there is.
      return far < 1 ? -1 : far ** 2
    },
  }
}
