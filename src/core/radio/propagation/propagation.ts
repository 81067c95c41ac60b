/**
 * How much of a signal is lost on its way: by distance, by walls, by floors.
 *
 * Distance and floors follow Recommendation ITU-R P.1238-10 (08/2019), site-general form (clause 3.1):
 * L = 20 log10 f + N log10 d + Lf(n) - 28, with f in MHz and d in metres (1 m at the least). Later editions give the
 * loss of distance in another form, and no floors for these bands.
 */
import type { Band } from '../../regulatory/blocks'
import type { Floor, Material, Wall } from './floor'

export type Db = number

/** Middle of each band, MHz. */
const middleMhz: Readonly<Record<Band, number>> = { '2.4': 2440, '5': 5500, '6': 6400 }

/** What the recommendation says of offices at one frequency. */
interface OfficeRow {
  /** Power loss coefficient N, table 2: dB for each tenfold of the distance. It holds the walls of an office in it. */
  readonly n: number
  /** Loss through one floor, and through each further one, dB, table 3. */
  readonly firstFloorDb: Db
  readonly furtherFloorDb: Db
}

/**
 * Offices, P.1238-10, tables 2 and 3. A channel takes both from one row: that of 5.2 GHz holds up to 5725 MHz and is
 * taken for 6 GHz too. Of further floors the tables speak at 5.8 GHz alone (22 dB for one, 28 for two); elsewhere each
 * takes 4 dB, as 15 + 4 (n - 1) has it for 1.8 to 2 GHz.
 */
const officeRows: Readonly<Record<Band, OfficeRow>> = {
  '2.4': { n: 30, firstFloorDb: 14, furtherFloorDb: 4 },
  '5': { n: 31, firstFloorDb: 16, furtherFloorDb: 4 },
  '6': { n: 31, firstFloorDb: 16, furtherFloorDb: 4 },
}
const officeAt58: OfficeRow = { n: 24, firstFloorDb: 22, furtherFloorDb: 6 }
const from58Mhz = 5725

/** @param centreMhz  of the channel; 0 where it is not known, which at 5 GHz takes the row of 5.2 GHz */
function officeRow(band: Band, centreMhz: number): OfficeRow {
  return band === '5' && centreMhz >= from58Mhz ? officeAt58 : officeRows[band]
}

/** Along an open line of sight, P.1238-10: as free space. */
const openN = 20

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
export function officeLoss(band: Band, metres: number, centreMhz = 0): Db {
  return (officeRow(band, centreMhz).n - openN) * Math.log10(Math.max(1, metres))
}

/** N of the formula: dB for each tenfold of the distance. */
export function distanceCoefficient(band: Band, clutter: Clutter, centreMhz = 0): number {
  return clutter === 'office' ? officeRow(band, centreMhz).n : openN
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

/** Loss through so many floors; 0 for none. */
export function floorLoss(band: Band, count: number, centreMhz = 0): Db {
  if (count === 0) return 0
  const { firstFloorDb, furtherFloorDb } = officeRow(band, centreMhz)
  return firstFloorDb + furtherFloorDb * (count - 1)
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
