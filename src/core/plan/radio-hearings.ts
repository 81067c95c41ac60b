/**
 * Whom each radio of a plan hears: by places and walls, as it was measured, or as the order of the list lets guess; and
 * the networks of others.
 */
import { type RadioPolicy, targetDbm } from '../brief/policies'
import { type Hearing, type OtherNetwork, quietestDbm } from '../radio/channels/channel-problem'
import { conductedOf, planPower } from '../radio/channels/power'
import { radioId, type Wanted } from '../radio/channels/radio-request'
import type { Placement, Site } from '../radio/propagation/floor'
import { hearings, type PlacedRadio } from '../radio/propagation/levels'
import { type Fit, noFit } from '../radio/propagation/propagation'
import type { SituatedFloor } from '../radio/propagation/situation'
import { type Misfit, misfitOf } from '../radio/survey/fit'
import { type Band, blockOf } from '../regulatory/blocks'

/** Radios of a band where they hang. */
function placedOf(
  band: Band,
  here: readonly Wanted[],
  policy: RadioPolicy,
  floors: ReadonlyMap<string, SituatedFloor>,
  places: ReadonlyMap<string, Placement>,
): PlacedRadio[] {
  return here.flatMap(({ request, radio, options }): PlacedRadio[] => {
    const place = places.get(request.unit)
    const floor = floors.get(place?.floor ?? '')
    // As loud as it will be on the block that lets it be loudest: who disturbs whom must not be taken too low.
    const powers = options.flatMap((option) => planPower(option, radio, targetDbm(policy, band), 'area') ?? [])
    const powerDbm = Math.max(...powers.map(conductedOf))
    return place && floor && powers.length > 0
      ? [{ id: radioId(request.unit, band), floor, x: place.x, y: place.y, powerDbm, gain: radio.gain }]
      : []
  })
}

export interface Heard {
  readonly hears: readonly Hearing[]
  /** What measuring says of the model; undefined where nothing was measured between units that hang somewhere. */
  readonly misfit: Misfit | undefined
}

/** Worked out from places and walls; where a level was measured, that. */
export function hearingsOf(
  band: Band,
  wanted: readonly Wanted[],
  policy: RadioPolicy,
  floors: ReadonlyMap<string, SituatedFloor>,
  places: ReadonlyMap<string, Placement>,
  site: Site,
): Heard {
  const here = wanted.filter((each) => each.band === band)
  const placed = placedOf(band, here, policy, floors, places)
  const misfit = misfitOf(band, placed, site.measured, (unit) => radioId(unit, band))
  const known = new Set(here.map((each) => radioId(each.request.unit, band)))
  const measured = site.measured
    .filter((each) => each.band === band)
    .map(({ a, b, dbm }) => ({ a: radioId(a, band), b: radioId(b, band), dbm }))
    .filter(({ a, b }) => a !== b && known.has(a) && known.has(b))
  const pair = (a: string, b: string): string => (a < b ? `${a}\n${b}` : `${b}\n${a}`)
  const told = new Set(measured.map(({ a, b }) => pair(a, b)))
  const assumed = assumedHearings(
    here.map(({ request }) => radioId(request.unit, band)),
    new Set(placed.map((each) => each.id)),
  )
  const computed = hearings(band, placed, fitInUse(site, misfit ? [misfit] : [], band))
  return {
    hears: [...measured, ...[...computed, ...assumed].filter(({ a, b }) => !told.has(pair(a, b)))],
    misfit,
  }
}

/** The fit that levels of a band are worked out with. */
export function fitInUse({ model }: Pick<Site, 'model'>, misfits: readonly Misfit[], band: Band): Fit {
  return (model === 'fitted' ? misfits.find((each) => each.band === band)?.fit : undefined) ?? noFit
}

/** What the next unit on the list is taken to hear of one that is not placed, dBm; further ones less. */
const nextOnList = { dbm: -68, fallsBy: 4 } as const

/**
 * A unit that hangs nowhere yet is taken to be near its neighbours on the list, which people write in the order of
 * rooms.
 */
function assumedHearings(ids: readonly string[], placed: ReadonlySet<string>): Hearing[] {
  return ids.flatMap((a, at) => {
    const found: Hearing[] = []
    for (let away = 1; nextOnList.dbm - nextOnList.fallsBy * (away - 1) > quietestDbm; away += 1) {
      const b = ids[at + away]
      if (b !== undefined && !(placed.has(a) && placed.has(b)))
        found.push({ a, b, dbm: nextOnList.dbm - nextOnList.fallsBy * (away - 1) })
    }
    return found
  })
}

/** Networks of others that a radio hears. */
export function othersFor({ request, band }: Wanted, site: Site): OtherNetwork[] {
  return site.heard
    .filter((each) => each.band === band && (each.unit === null || each.unit === request.unit))
    .flatMap(({ channel, width, secondary, dbm }) => {
      const block = blockOf(band, channel, width, secondary)
      return block ? [{ radio: radioId(request.unit, band), lowMhz: block.lowMhz, highMhz: block.highMhz, dbm }] : []
    })
}
