/**
 * Received level over a floor: for each square the level of the loudest unit, as a phone would hear it.
 *
 * In: the floor, the units of one band on this floor and others, and the step of the raster. Out: levels row by row.
 */
import type { Band } from '../regulatory/blocks'
import type { Floor } from './floor'
import { heightM, type PlacedRadio } from './levels'
import { distanceCoefficient, distanceLoss, floorLoss, wallsOf } from './propagation'
import { indexOfWalls } from './wall-index'

export interface Coverage {
  readonly columns: number
  readonly rows: number
  readonly stepM: number
  /** dBm, `rows` by `columns`; the middle of each square. */
  readonly dbm: Float32Array
  /** Which unit is loudest, by its place in the list; -1 where there is none. */
  readonly loudest: Int16Array
}

/** Height at which a phone is held, m above the floor. */
const phoneHeightM = 1.2
/** Antenna gain of a phone, dBi. */
const phoneGain = 0

export function coverage(band: Band, floor: Floor, radios: readonly PlacedRadio[], stepM: number): Coverage {
  const columns = Math.max(1, Math.ceil(floor.widthM / stepM))
  const rows = Math.max(1, Math.ceil(floor.depthM / stepM))
  const dbm = new Float32Array(columns * rows).fill(-200)
  const loudest = new Int16Array(columns * rows).fill(-1)
  for (const [index, radio] of radios.entries()) paint({ columns, rows, stepM, dbm, loudest }, band, floor, radio, index)
  return { columns, rows, stepM, dbm, loudest }
}

function paint({ columns, rows, stepM, dbm, loudest }: Coverage, band: Band, floor: Floor, radio: PlacedRadio, index: number): void {
  const floors = Math.abs(radio.floor.storey - floor.storey)
  const same = radio.floor.id === floor.id
  const how = same ? wallsOf(floor) : 'in-coefficient'
  const rise = heightM(radio.floor) - (floor.storey * floor.heightM + phoneHeightM)
  const atOneMetre = radio.powerDbm + radio.gain + phoneGain - floorLoss(band, floors) - distanceLoss(band, 1, how)
  const walls = same && floor.walls.length > 0 ? indexOfWalls(floor.walls) : undefined
  // 10 log10 of the squared distance: half a logarithm saved for each square.
  const half = distanceCoefficient(band, how) / 2
  for (let row = 0; row < rows; row += 1) {
    const y = (row + 0.5) * stepM
    for (let column = 0; column < columns; column += 1) {
      const cell = row * columns + column
      const x = (column + 0.5) * stepM
      const squared = Math.max(1, (x - radio.x) ** 2 + (y - radio.y) ** 2 + rise * rise)
      let level = atOneMetre - half * Math.log10(squared)
      // Walls only make it quieter: where it is not the loudest without them, they need not be counted.
      if (level <= (dbm[cell] ?? 0)) continue
      if (walls) level -= walls.loss(band, radio.x, radio.y, x, y, level - (dbm[cell] ?? 0))
      if (level <= (dbm[cell] ?? 0)) continue
      dbm[cell] = level
      loudest[cell] = index
    }
  }
}
