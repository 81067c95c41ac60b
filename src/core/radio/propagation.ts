/**
 * How much of a signal is lost on its way: by distance, by walls, by floors.
 *
 * Distance and floors follow Recommendation ITU-R P.1238-10 (08/2019), site-general form (clause 3.1):
 * L = 20 log10 f + N log10 d + Lf(n) - 28, with f in MHz and d in metres (1 m at the least). Later editions give the
 * loss of distance in another form, and no floors for these bands.
 */
import type { Band } from '../regulatory/blocks'
import type { Floor, Material, Wall } from './floor'

export type Db = number

/** Middle of each band, MHz. */
const middleMhz: Readonly<Record<Band, number>> = { '2.4': 2440, '5': 5500, '6': 6400 }

/** Power loss coefficient N for offices: P.1238-10, table 2 (2.4 GHz 30; 5.2 GHz 31, taken for 6 GHz too). It holds the walls of an office in it. */
const officeN: Readonly<Record<Band, number>> = { '2.4': 30, '5': 31, '6': 31 }
/** Along an open line of sight, P.1238-10: as free space. */
const openN = 20
/** Loss through floors, dB, offices: P.1238-10, table 3: one floor 14 at 2.4 GHz and 16 at 5.2 GHz (taken for 6 GHz too). */
const firstFloorDb: Readonly<Record<Band, Db>> = { '2.4': 14, '5': 16, '6': 16 }
/** Each further floor, as the same table has it for offices at 1.8 to 2 GHz: 15 + 4 (n - 1). */
const furtherFloorDb = 4
/** At 5.8 GHz the same table says 22 dB for one floor and 28 for two. */
const at58 = { fromMhz: 5725, first: 22, further: 6 } as const

/** Loss of one wall, dB: our own round figures for usual thicknesses, rising with frequency. */
export const wallDb: Readonly<Record<Material, Readonly<Record<Band, Db>>>> = {
  plasterboard: { '2.4': 3, '5': 4, '6': 4 },
  glass: { '2.4': 3, '5': 5, '6': 5 },
  // A coat of metal that keeps warmth in keeps radio in too.
  'low-e glass': { '2.4': 25, '5': 28, '6': 29 },
  wood: { '2.4': 4, '5': 6, '6': 6 },
  brick: { '2.4': 8, '5': 13, '6': 14 },
  concrete: { '2.4': 14, '5': 22, '6': 24 },
  metal: { '2.4': 26, '5': 32, '6': 33 },
}

/**
 * What is in the way: nothing but the walls that are drawn, where all are drawn and outdoors; or what is usual in an
 * office, and more only where the drawn walls are more.
 */
export type Clutter = 'walls-alone' | 'office'

export function clutterOf({ innerWalls, environment }: Pick<Floor, 'innerWalls' | 'environment'>): Clutter {
  return environment === 'outdoor' || innerWalls === 'all-drawn' ? 'walls-alone' : 'office'
}

/** By how much a site is louder than the model: at ten metres, and with each tenfold of the distance beyond. */
export interface Fit {
  readonly atTenMetresDb: Db
  readonly perDecadeDb: Db
}

export const noFit: Fit = { atTenMetresDb: 0, perDecadeDb: 0 }

/** Tenfolds of a distance beyond ten metres. */
export function decadesOf(metres: number): number {
  return Math.log10(Math.max(1, metres)) - 1
}

/** What a fit takes off the loss at a distance, dB. */
export function fittedDb({ atTenMetresDb, perDecadeDb }: Fit, metres: number): Db {
  return perDecadeDb === 0 ? atTenMetresDb : atTenMetresDb + perDecadeDb * decadesOf(metres)
}

/** Loss over a distance in metres, with nothing in the way. */
export function openLoss(band: Band, metres: number): Db {
  return 20 * Math.log10(middleMhz[band]) + openN * Math.log10(Math.max(1, metres)) - 28
}

/** What an office has in the way over a distance, dB: by how much its coefficient exceeds that of an open line. */
export function officeLoss(band: Band, metres: number): Db {
  return (officeN[band] - openN) * Math.log10(Math.max(1, metres))
}

/** N of the formula: dB for each tenfold of the distance. */
export function distanceCoefficient(band: Band, clutter: Clutter): number {
  return clutter === 'office' ? officeN[band] : openN
}

/** Loss over a distance in metres: the least there is with this clutter. */
export function distanceLoss(band: Band, metres: number, clutter: Clutter, fit: Fit = noFit): Db {
  return openLoss(band, metres) + (clutter === 'office' ? officeLoss(band, metres) : 0) - fittedDb(fit, metres)
}

/** Distance at which a loss is reached, m: the way back of `distanceLoss`. */
export function distanceOfLoss(band: Band, loss: Db, clutter: Clutter, fit: Fit = noFit): number {
  const atOneMetre = openLoss(band, 1) - fittedDb(fit, 1)
  return 10 ** ((loss - atOneMetre) / (distanceCoefficient(band, clutter) - fit.perDecadeDb))
}

/**
 * Loss through floors.
 *
 * @param count      how many are passed, 0 for none
 * @param centreMhz  of the channel; where it is not known, the figure that loses less
 */
export function floorLoss(band: Band, count: number, centreMhz = 0): Db {
  if (count === 0) return 0
  return band === '5' && centreMhz >= at58.fromMhz
    ? at58.first + at58.further * (count - 1)
    : firstFloorDb[band] + furtherFloorDb * (count - 1)
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
