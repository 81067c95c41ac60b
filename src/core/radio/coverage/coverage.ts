/**
 * Received level over a floor: for each square the level of the loudest unit, as a phone would hear it.
 *
 * In: the floor, the units of one band on this floor and others, and the step of the raster. Out: levels row by row.
 */
import type { Band } from '../../regulatory/blocks'
import { between, heightM, type PlacedRadio } from '../propagation/levels'
import {
  clutterOf,
  distanceCoefficient,
  type Fit,
  fittedDb,
  floorLoss,
  noFit,
  officeLoss,
  openLoss,
} from '../propagation/propagation'
import { fromSite, type SituatedFloor, toSite } from '../propagation/situation'
import { indexOfWalls, type WallIndex } from '../propagation/wall-index'

export interface Coverage {
  readonly columns: number
  readonly rows: number
  readonly stepM: number
  /** dBm, `rows` by `columns`; the middle of each square. */
  readonly dbm: Float32Array
  /** Of the second loudest unit, dBm: where a client goes when the loudest is gone. */
  readonly second: Float32Array
  /** Which unit is loudest, by its place in the list; -1 where there is none. */
  readonly loudest: Int16Array
}

/** Below this a call breaks and pages are slow, dBm. */
export const wantedDbm = -67

/** Height at which a phone is held, m above the floor. */
const phoneHeightM = 1.2
/** Antenna gain of a phone, dBi. */
const phoneGain = 0

export function coverage(
  band: Band,
  floor: SituatedFloor,
  radios: readonly PlacedRadio[],
  stepM: number,
  fit: Fit = noFit,
): Coverage {
  const columns = Math.max(1, Math.ceil(floor.widthM / stepM))
  const rows = Math.max(1, Math.ceil(floor.depthM / stepM))
  const dbm = new Float32Array(columns * rows).fill(-200)
  const second = new Float32Array(columns * rows).fill(-200)
  const loudest = new Int16Array(columns * rows).fill(-1)
  const sources = radios.map((radio) => sourceOf(band, floor, radio, fit))
  const open = new Float64Array(sources.length)
  for (let cell = 0; cell < columns * rows; cell += 1) {
    const x = ((cell % columns) + 0.5) * stepM
    const y = (Math.floor(cell / columns) + 0.5) * stepM
    for (let index = 0; index < sources.length; index += 1) open[index] = openLevel(sources[index] as Source, x, y)
    // Walls only make it quieter: whoever is no louder without them than the second best with them need not be looked
    // at.
    let [best, nextBest] = [-200, -200]
    for (;;) {
      const next = loudestOf(open, nextBest)
      if (next === -1) break
      const source = sources[next] as Source
      const level = (open[next] ?? 0) - wallsMore(band, source, x, y, (open[next] ?? 0) - nextBest)
      open[next] = -200
      if (level <= nextBest) continue
      if (level <= best) {
        nextBest = level
        continue
      }
      nextBest = best
      best = level
      loudest[cell] = next
    }
    dbm[cell] = best
    second[cell] = nextBest
  }
  return { columns, rows, stepM, dbm, second, loudest }
}

/** A unit as a floor hears it. */
interface Source {
  readonly x: number
  readonly y: number
  /** Height above the phone, m, squared. */
  readonly riseSquared: number
  /** What a phone hears of it at one metre, dBm. */
  readonly atOneMetre: number
  /** dB for each tenfold of the squared distance. */
  readonly halfCoefficient: number
  readonly walls: WallIndex | undefined
  /** What is usual in an office is in the coefficient already: drawn walls count as far as they are more. */
  readonly isOffice: boolean
  /** Middle of its channel, MHz; 0 where it has none yet. */
  readonly centreMhz: number
}

function sourceOf(band: Band, floor: SituatedFloor, radio: PlacedRadio, fit: Fit): Source {
  const same = radio.floor.id === floor.id
  const way = same ? { floors: 0, outerDb: 0, clutter: clutterOf(floor) } : between(band, radio.floor, floor)
  const rise = heightM(radio.floor) - (floor.elevationM + phoneHeightM)
  const { centreMhz = 0 } = radio
  const { x, y } = same ? radio : fromSite(floor, toSite(radio.floor, radio))
  return {
    x,
    y,
    riseSquared: rise * rise,
    atOneMetre:
      radio.powerDbm +
      radio.gain +
      phoneGain -
      floorLoss(band, way.floors, centreMhz) -
      way.outerDb -
      openLoss(band, 1) +
      fittedDb(fit, 1),
    halfCoefficient: (distanceCoefficient(band, way.clutter, centreMhz) - fit.perDecadeDb) / 2,
    walls: same && floor.walls.length > 0 ? indexOfWalls(floor.walls) : undefined,
    isOffice: way.clutter === 'office',
    centreMhz,
  }
}

/** What drawn walls take off beyond what the coefficient holds already, dB. */
function wallsMore(
  band: Band,
  { x, y, riseSquared, walls, isOffice, centreMhz }: Source,
  atX: number,
  atY: number,
  enough: number,
): number {
  if (!walls) return 0
  const metres = Math.sqrt((atX - x) ** 2 + (atY - y) ** 2 + riseSquared)
  const usual = isOffice ? officeLoss(band, metres, centreMhz) : 0
  return Math.max(0, walls.loss(band, x, y, atX, atY, enough + usual) - usual)
}

/** Level without walls. */
function openLevel({ x, y, riseSquared, atOneMetre, halfCoefficient }: Source, atX: number, atY: number): number {
  return atOneMetre - halfCoefficient * Math.log10(Math.max(1, (atX - x) ** 2 + (atY - y) ** 2 + riseSquared))
}

/** Place of the greatest of the levels above a floor; -1 where none is. */
function loudestOf(levels: Float64Array, above: number): number {
  let found = -1
  let most = above
  for (let index = 0; index < levels.length; index += 1) {
    const level = levels[index] ?? 0
    if (level > most) {
      most = level
      found = index
    }
  }
  return found
}
