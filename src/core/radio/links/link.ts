/**
 * A radio link between two units: what arrives at either end, whether the way is clear, and what to mind.
 *
 * In: how far apart, how high, the block, power and antennas of both ends. Out: for each direction the expected level
 * and the rates that hold, and the clearance.
 */

import { type Message, message } from '../../message/message'
import type { Dbi, Dbm } from '../channels/power'
import { mcsFrom, mcsOf } from '../propagation/data-rate'

export interface LinkPath {
  /** From mast to mast, m. */
  readonly distanceM: number
  /** Heights of the antennas above one common ground, m. */
  readonly heightA: number
  readonly heightB: number
  /** The highest thing on the way: how far from the first mast, and how high; null where there is none. */
  readonly obstacle: { readonly distanceM: number; readonly heightM: number } | null
}

export interface LinkEnd {
  /** Conducted, dBm. */
  readonly powerDbm: Dbm
  readonly gain: Dbi
}

export interface LinkRadios {
  readonly centreMhz: number
  /** MHz. */
  readonly width: number
  readonly access: LinkEnd
  readonly station: LinkEnd
}

/** What one end hears of the other. */
export interface Arrival {
  readonly at: 'access' | 'station'
  /** dBm. */
  readonly receivedDbm: Dbm
  /** Fastest MCS that holds in good weather; -1 where none does. */
  readonly mcs: number
  /** Fastest that is left when the path fades by what is reckoned with; -1 where the link breaks. */
  readonly mcsFaded: number
  /** Above the level at which the slowest MCS still holds, dB. */
  readonly marginDb: number
}

/** One place on the way. */
export interface Clearing {
  /** From the first mast, m. */
  readonly fromA: number
  /** What stands there: the obstacle, or the ground. */
  readonly what: 'obstacle' | 'ground'
  /** Height that stands free there, with the bulge of the earth taken off, m. */
  readonly clearM: number
  /** Radius of the first Fresnel zone there, m. */
  readonly fresnelM: number
  /** Height that is to stand free there, m. */
  readonly wantedM: number
}

export interface LinkBudget {
  readonly path: LinkPath
  readonly lossDb: number
  /** What an edge on the way takes on top of that, dB. */
  readonly edgeDb: number
  /** At the station, then at the access end. */
  readonly arrivals: readonly [Arrival, Arrival]
  /** Where the way is least clear. */
  readonly worst: Clearing
  /** The most that will arrive on a bench, with the two a pair of metres apart, dBm. */
  readonly onBenchDbm: Dbm
}

/** Above this a receiver is overloaded, dBm. */
export const tooLoudDbm = -30
/** By how much rain, wind in the mast and ageing are reckoned to lower what arrives, dB: our own figure. */
export const fadeDb = 15
const benchM = 2
/** From here on the whole first zone is wanted, m: our own bound for what P.530 has for paths that refraction bends. */
export const longPathM = 10_000

/**
 * Part of the first Fresnel zone that is to be clear. With 0.6 of it nothing is lost by diffraction (ITU-R P.526-15,
 * 4.1); on a long path the whole zone at k = 4/3, since refraction changes (ITU-R P.530-18, 2.2.2.1).
 */
export function wantedClearance(distanceM: number): number {
  return distanceM > longPathM ? 1 : 0.6
}

/** Free-space loss, dB: ITU-R P.525-4, 2.2: L = 32.4 + 20 log10 f + 20 log10 d, f in MHz, d in km. */
export function freeSpaceLoss(mhz: number, metres: number): number {
  return 32.4 + 20 * Math.log10(mhz) + 20 * Math.log10(metres / 1000)
}

/** Radius of the first Fresnel zone, m: ITU-R P.526-15, 2.1: 17.3 sqrt(d1 d2 / (f d)), d in km and f in GHz. */
export function fresnelRadius(mhz: number, fromA: number, distanceM: number): number {
  return 17.3 * Math.sqrt(((fromA / 1000) * ((distanceM - fromA) / 1000)) / ((mhz / 1000) * (distanceM / 1000)))
}

/** How far the earth bulges into the way, m, for a usual atmosphere (effective radius 4/3 of 6371 km: d1 d2 / 17). */
export function earthBulge(fromA: number, distanceM: number): number {
  return ((fromA / 1000) * ((distanceM - fromA) / 1000)) / 17
}

/** Height of the straight line between both antennas, m. */
export function lineHeight({ heightA, heightB, distanceM }: LinkPath, fromA: number): number {
  return heightA + ((heightB - heightA) * fromA) / distanceM
}

/**
 * What a single sharp edge takes off the level, dB: ITU-R P.526-15, 4.1, formulas (26) and (31). An edge 0.55 of the
 * first Fresnel zone below the line takes nothing, one that touches it 6 dB.
 *
 * @param aboveM  how far the edge stands above the straight line; negative where it is below
 */
export function edgeLoss(mhz: number, aboveM: number, fromA: number, distanceM: number): number {
  const wavelengthM = 299.792458 / mhz
  const nu = aboveM * Math.sqrt((2 / wavelengthM) * (1 / fromA + 1 / (distanceM - fromA)))
  return nu <= -0.78 ? 0 : 6.9 + 20 * Math.log10(Math.sqrt((nu - 0.1) ** 2 + 1) + nu - 0.1)
}

/** Is the obstacle between the masts at all? */
export function isOnTheWay({ obstacle, distanceM }: Pick<LinkPath, 'obstacle' | 'distanceM'>): boolean {
  return obstacle === null || (obstacle.distanceM > 0 && obstacle.distanceM < distanceM)
}

/** Places that the way is looked at, beside the obstacle. */
const looks = 400

/** The way as it lies: obstacle and ground, with what stands free above each. */
export function clearings(path: LinkPath, mhz: number): Clearing[] {
  const { distanceM, obstacle } = path
  const at = (fromA: number, what: Clearing['what'], heightM: number): Clearing => {
    const fresnelM = fresnelRadius(mhz, fromA, distanceM)
    const clearM = lineHeight(path, fromA) - heightM - earthBulge(fromA, distanceM)
    return { fromA, what, clearM, fresnelM, wantedM: wantedClearance(distanceM) * fresnelM }
  }
  const ground = Array.from({ length: looks - 1 }, (_, index) => at(((index + 1) * distanceM) / looks, 'ground', 0))
  return obstacle && isOnTheWay(path) ? [...ground, at(obstacle.distanceM, 'obstacle', obstacle.heightM)] : ground
}

export function linkBudget(path: LinkPath, { centreMhz, width, access, station }: LinkRadios): LinkBudget {
  const { distanceM } = path
  const [first, ...more] = clearings(path, centreMhz)
  if (!first) throw new RangeError('a way has places')
  const spare = ({ clearM, wantedM }: Clearing): number => clearM - wantedM
  const edge = more.find(({ what }) => what === 'obstacle')
  const edgeDb = edge ? edgeLoss(centreMhz, -edge.clearM, edge.fromA, distanceM) : 0
  const gains = access.gain + station.gain
  const arrival = (at: Arrival['at'], powerDbm: Dbm): Arrival => {
    const receivedDbm = powerDbm + gains - freeSpaceLoss(centreMhz, distanceM) - edgeDb
    return {
      at,
      receivedDbm,
      mcs: mcsOf(receivedDbm, width),
      mcsFaded: mcsOf(receivedDbm - fadeDb, width),
      marginDb: receivedDbm - mcsFrom(0, width),
    }
  }
  return {
    path,
    lossDb: freeSpaceLoss(centreMhz, distanceM),
    edgeDb,
    arrivals: [arrival('station', access.powerDbm), arrival('access', station.powerDbm)],
    worst: more.reduce((worst, each) => (spare(each) < spare(worst) ? each : worst), first),
    onBenchDbm: Math.max(access.powerDbm, station.powerDbm) + gains - freeSpaceLoss(centreMhz, benchM),
  }
}

export interface LinkRemark extends Message {
  readonly weight: 'mend' | 'know'
}

const round = (value: number): string => value.toFixed(1)

/** What the installer should know of a link, the first are what must be mended. */
export function linkRemarks(budget: LinkBudget): readonly LinkRemark[] {
  const remarks: LinkRemark[] = [...wayRemarks(budget)]
  for (const { at, receivedDbm, mcsFaded, marginDb } of budget.arrivals) {
    const end = at === 'access' ? message('access-end') : message('station-end')
    if (mcsFaded < 0)
      remarks.push({
        weight: 'mend',
        ...message('link-margin-low', { end, margin: round(marginDb), fade: fadeDb }),
      })
    if (receivedDbm > tooLoudDbm)
      remarks.push({
        weight: 'mend',
        ...message('link-too-loud', { dbm: round(receivedDbm), end, most: tooLoudDbm }),
      })
  }
  if (budget.onBenchDbm > tooLoudDbm)
    remarks.push({
      weight: 'know',
      ...message('link-loud-on-bench', { dbm: Math.round(budget.onBenchDbm) }),
    })
  remarks.push({
    weight: 'know',
    ...message('link-far-end-first'),
  })
  return remarks
}

function wayRemarks({ path, worst }: LinkBudget): LinkRemark[] {
  const { obstacle, distanceM } = path
  if (obstacle && !isOnTheWay(path))
    return [
      {
        weight: 'mend',
        ...message('link-obstacle-beyond', { at: round(obstacle.distanceM), length: round(distanceM) }),
      },
    ]
  const missing = worst.wantedM - worst.clearM
  if (missing <= 0) return []
  const share = worst.fromA / distanceM
  const zone = distanceM > longPathM ? message('whole-fresnel-zone') : message('part-of-fresnel-zone')
  const where = worst.what === 'obstacle' ? message('above-highest-thing') : message('above-ground')
  return [
    {
      weight: 'mend',
      // A mast lifts the line by as much as the place is near to it.
      ...message('link-not-clear', {
        clear: round(Math.max(0, worst.clearM)),
        where,
        from: round(worst.fromA),
        wanted: round(worst.wantedM),
        zone,
        access: round(missing / (1 - share)),
        station: round(missing / share),
        both: round(missing),
      }),
    },
  ]
}
