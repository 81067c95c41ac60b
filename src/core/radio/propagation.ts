/**
 * How much of a signal is lost on its way: by distance, by walls, by floors.
 *
 * Distance and floors follow Recommendation ITU-R P.1238 (indoor, 300 MHz to 450 GHz), site-general form:
 * L = 20 log10 f + N log10 d + Lf(n) - 28, with f in MHz and d in metres (1 m at the least).
 */
import type { Band } from '../regulatory/blocks'
import type { Floor, Material, Wall } from './floor'

export type Db = number

/** Middle of each band, MHz. */
const middleMhz: Readonly<Record<Band, number>> = { '2.4': 2440, '5': 5500, '6': 6400 }

/** Power loss coefficient N for offices: ITU-R P.1238, table 2 (2.4 GHz 30; 5.2 GHz 31, taken for 6 GHz too). It holds the walls of an office in it. */
const officeN: Readonly<Record<Band, number>> = { '2.4': 30, '5': 31, '6': 31 }
/** Along an open line of sight, ITU-R P.1238: as free space. Walls that are drawn are counted one by one. */
const openN = 20
/** Loss of the first floor passed through, dB, offices: ITU-R P.1238, table 3 (2.4 GHz 14; 5.2 GHz 16, taken for 6 GHz too). */
const firstFloorDb: Readonly<Record<Band, Db>> = { '2.4': 14, '5': 16, '6': 16 }
/** Each further floor, as the same table has it for offices at 1.8 to 2 GHz: 15 + 4 (n - 1). */
const furtherFloorDb = 4

/** Loss of one wall, dB: our own round figures for usual thicknesses, rising with frequency. */
export const wallDb: Readonly<Record<Material, Readonly<Record<Band, Db>>>> = {
  plasterboard: { '2.4': 3, '5': 4, '6': 4 },
  glass: { '2.4': 3, '5': 5, '6': 5 },
  wood: { '2.4': 4, '5': 6, '6': 6 },
  brick: { '2.4': 8, '5': 13, '6': 14 },
  concrete: { '2.4': 14, '5': 22, '6': 24 },
  metal: { '2.4': 26, '5': 32, '6': 33 },
}

/** Whether walls are drawn, and counted one by one, or are held in the coefficient. */
export type Walls = 'drawn' | 'in-coefficient'

/** N of the formula: dB for each tenfold of the distance. */
export function distanceCoefficient(band: Band, walls: Walls): number {
  return walls === 'drawn' ? openN : officeN[band]
}

/** Loss over a distance in metres. */
export function distanceLoss(band: Band, metres: number, walls: Walls): Db {
  return 20 * Math.log10(middleMhz[band]) + distanceCoefficient(band, walls) * Math.log10(Math.max(1, metres)) - 28
}

/** Distance at which a loss is reached, m: the way back of `distanceLoss`. */
export function distanceOfLoss(band: Band, loss: Db, walls: Walls): number {
  return 10 ** ((loss - 20 * Math.log10(middleMhz[band]) + 28) / distanceCoefficient(band, walls))
}

/** Loss through floors. @param count how many are passed, 0 for none */
export function floorLoss(band: Band, count: number): Db {
  return count === 0 ? 0 : firstFloorDb[band] + furtherFloorDb * (count - 1)
}

/** Whether two segments cross: each one's ends lie on either side of the other. */
export function crosses(ax: number, ay: number, bx: number, by: number, { x1, y1, x2, y2 }: Wall): boolean {
  if (
    Math.max(x1, x2) < Math.min(ax, bx) ||
    Math.min(x1, x2) > Math.max(ax, bx) ||
    Math.max(y1, y2) < Math.min(ay, by) ||
    Math.min(y1, y2) > Math.max(ay, by)
  )
    return false
  const side = (px: number, py: number, qx: number, qy: number, rx: number, ry: number): number =>
    (qx - px) * (ry - py) - (qy - py) * (rx - px)
  return (
    side(x1, y1, x2, y2, ax, ay) * side(x1, y1, x2, y2, bx, by) < 0 &&
    side(ax, ay, bx, by, x1, y1) * side(ax, ay, bx, by, x2, y2) <= 0
  )
}

/** Where walls count one by one: where they are drawn, and outdoors, where there are none. */
export function wallsOf(floor: Pick<Floor, 'walls' | 'environment'>): Walls {
  return floor.walls.length > 0 || floor.environment === 'outdoor' ? 'drawn' : 'in-coefficient'
}
