/**
 * Who hears whom, and how loudly.
 *
 * In: radios of one band with their places, power and gain. Out: pairs with the level of the louder direction, dBm;
 * a pair below the floor of what disturbs is left out.
 */
import type { Band } from '../regulatory/blocks'
import type { Hearing } from './channel-problem'
import { quietestDbm } from './channel-problem'
import type { Floor } from './floor'
import { distanceLoss, distanceOfLoss, floorLoss, type Walls, wallsOf } from './propagation'
import { indexOfWalls } from './wall-index'

export interface PlacedRadio {
  readonly id: string
  readonly floor: Floor
  readonly x: number
  readonly y: number
  /** Conducted power, dBm. */
  readonly powerDbm: number
  /** Antenna gain, dBi. */
  readonly gain: number
}

/** Height at which units hang and clients are held, m above their floor. */
const unitHeightM = 2.5

export function heightM(floor: Pick<Floor, 'storey' | 'heightM'>): number {
  return floor.storey * floor.heightM + unitHeightM
}

/**
 * Loss on the way between two places, dB.
 *
 * @param enough  where the loss comes to this much it need not be exact: walls beyond are not counted
 */
export function lossBetween(
  band: Band,
  a: { floor: Floor; x: number; y: number },
  b: { floor: Floor; x: number; y: number },
  enough = Number.POSITIVE_INFINITY,
): number {
  const floors = Math.abs(a.floor.storey - b.floor.storey)
  const rise = floors === 0 ? 0 : heightM(a.floor) - heightM(b.floor)
  const metres = Math.hypot(a.x - b.x, a.y - b.y, rise)
  const same = a.floor.id === b.floor.id
  // Through a floor the drawn walls of neither storey say what is in the way: the coefficient does.
  const walls = same ? wallsOf(a.floor) : 'in-coefficient'
  const straight = distanceLoss(band, metres, walls) + floorLoss(band, floors)
  return straight >= enough || !same
    ? straight
    : straight + indexOfWalls(a.floor.walls).loss(band, a.x, a.y, b.x, b.y, enough - straight)
}

/**
 * All pairs that hear each other. Radios are sorted into squares as wide as the farthest one is heard, so that ten
 * thousand of them need not be compared each with each.
 */
export function hearings(band: Band, radios: readonly PlacedRadio[]): Hearing[] {
  const loudest =
    radios.reduce((most, { powerDbm, gain }) => Math.max(most, powerDbm + gain), 0) +
    radios.reduce((most, { gain }) => Math.max(most, gain), 0)
  const drawn = radios.some((radio) => wallsOf(radio.floor) === 'drawn')
  const farM = Math.max(1, distanceOfLoss(band, loudest - quietestDbm, drawn ? 'drawn' : 'in-coefficient'))
  const squares = new Map<string, number[]>()
  const column = (x: number): number => Math.floor(x / farM)
  radios.forEach((radio, index) => {
    const key = `${column(radio.x)} ${column(radio.y)}`
    const there = squares.get(key)
    if (there) there.push(index)
    else squares.set(key, [index])
  })
  const reach = reachByFloors(band, loudest, drawn ? 'drawn' : 'in-coefficient')
  const found: Hearing[] = []
  const compare = (a: PlacedRadio, b: PlacedRadio): void => {
    const floors = Math.abs(a.floor.storey - b.floor.storey)
    // Too far apart for the loudest pair there is: neither logarithms nor walls need be looked at.
    if ((a.x - b.x) ** 2 + (a.y - b.y) ** 2 > (reach[floors] ?? 0)) return
    const budget = Math.max(a.powerDbm, b.powerDbm) + a.gain + b.gain
    const dbm = budget - lossBetween(band, a, b, budget - quietestDbm)
    if (dbm > quietestDbm) found.push({ a: a.id, b: b.id, dbm: Math.round(dbm * 10) / 10 })
  }
  radios.forEach((a, index) => {
    for (let dx = -1; dx <= 1; dx += 1) {
      for (let dy = -1; dy <= 1; dy += 1) {
        const square = squares.get(`${column(a.x) + dx} ${column(a.y) + dy}`)
        if (square) for (const other of square) if (other > index) compare(a, radios[other] ?? a)
      }
    }
  })
  return found
}

/** Square of the greatest distance at which anybody is heard, m², by floors between; the straight line alone, so never too short. */
function reachByFloors(band: Band, budget: number, sameFloor: Walls): number[] {
  const squares: number[] = []
  for (let floors = 0; floors <= 250; floors += 1) {
    const left = budget - quietestDbm - floorLoss(band, floors)
    const far = distanceOfLoss(band, left, floors === 0 ? sameFloor : 'in-coefficient')
    // Within a metre nothing more is lost: the loss at one metre is the least there is.
    if (far < 1) break
    squares.push(far ** 2)
  }
  return squares
}
