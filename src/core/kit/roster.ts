/**
 * Checks of the kit list: what one row alone cannot know.
 *
 * In: the units and the cards by model. Out: faults, each with its unit, its column and a sentence.
 */
import { matches } from '../input/pattern'
import { hasPrefixOf, isManaged, type KitCard, modelName } from './kit-card'
import { controllerOf, managedBy } from './managed-by'
import { reviewPoe } from './poe'
import type { Unit } from './unit'

/** What can be wrong with a kit list: each code keeps its meaning; the sentence is made for people. */
export type RosterFaultCode =
  | 'same-name'
  | 'same-mac'
  | 'same-serial'
  | 'same-port'
  | 'same-site-port'
  | 'no-card'
  | 'name-not-taken'
  | 'mac-of-another-model'
  | 'too-many-units'
  | 'no-controller'
  | 'power'

export interface RosterFault {
  readonly code: RosterFaultCode
  /** Undefined for a fault of the whole list. */
  readonly unit: string | undefined
  readonly field: 'name' | 'location' | 'mac' | 'serial' | 'port' | 'sitePort' | 'model' | 'list'
  readonly sentence: string
  /** `row` cannot be kept like this: the list holds one unit for each MAC and name. */
  readonly weight: 'row' | 'mend'
}

const unique: readonly { field: 'name' | 'mac' | 'serial' | 'port'; words: string; weight: RosterFault['weight'] }[] = [
  { field: 'name', words: 'name', weight: 'row' },
  { field: 'mac', words: 'MAC', weight: 'row' },
  { field: 'serial', words: 'serial number', weight: 'mend' },
  { field: 'port', words: 'bench port', weight: 'mend' },
]

export function reviewRoster(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): RosterFault[] {
  return [
    ...duplicates(units),
    ...sharedSitePorts(units),
    ...units.flatMap((unit) => reviewUnit(unit, cards)),
    ...reviewControllers(units, cards),
    ...reviewPoe(units, cards).map(
      ({ unit, sentence }): RosterFault => ({
        unit,
        code: 'power',
        field: unit === undefined ? 'list' : 'port',
        sentence,
        weight: 'mend',
      }),
    ),
  ]
}

function duplicates(units: readonly Unit[]): RosterFault[] {
  return unique.flatMap(({ field, words, weight }) => {
    const seen = new Map<string, Unit>()
    return units.flatMap((unit): RosterFault[] => {
      const value = String(unit[field] ?? '').toLowerCase()
      const first = value === '' ? undefined : seen.get(value)
      if (first)
        return [
          {
            code: `same-${field}`,
            unit: unit.id,
            field,
            weight,
            sentence: `${unit.name} has the same ${words} as ${first.name}: ${unit[field]}.`,
          },
        ]
      seen.set(value, unit)
      return []
    })
  })
}

/** Two units at one port of one switch on site: it holds one cable. */
function sharedSitePorts(units: readonly Unit[]): RosterFault[] {
  const seen = new Map<string, Unit>()
  return units.flatMap((unit): RosterFault[] => {
    const { siteSwitch, sitePort } = unit
    if (sitePort === '') return []
    const place = JSON.stringify([siteSwitch.toLowerCase(), sitePort.toLowerCase()])
    const first = seen.get(place)
    if (!first) {
      seen.set(place, unit)
      return []
    }
    const where = siteSwitch === '' ? `port ${sitePort}` : `port ${sitePort} of ${siteSwitch}`
    return [
      {
        code: 'same-site-port',
        unit: unit.id,
        field: 'sitePort',
        weight: 'mend',
        sentence: `${unit.name} and ${first.name} are both in ${where} on site.`,
      },
    ]
  })
}

function reviewUnit(unit: Unit, cards: ReadonlyMap<string, KitCard>): RosterFault[] {
  const card = cards.get(unit.model)
  if (!card || card.isBare) {
    // A model without a card is set by hand. One whose MAC is known is more likely misspelt.
    const known = [...cards.values()].find((each) => hasPrefixOf(each, unit.mac))
    return known
      ? [
          {
            code: 'no-card',
            unit: unit.id,
            field: 'model',
            weight: 'mend',
            sentence: `There is no kit card for "${unit.model}", and the MAC of ${unit.name} is that of ${modelName(known)}.`,
          },
        ]
      : []
  }
  const faults: RosterFault[] = []
  if (!matches(card.limits.namePattern, unit.name))
    faults.push({
      unit: unit.id,
      code: 'name-not-taken',
      field: 'name',
      weight: 'mend',
      sentence: `${unit.model} does not take the name "${unit.name}": ${card.limits.nameWords}.`,
    })
  const { macPrefixes } = card.recognise
  if (macPrefixes.length > 0 && !hasPrefixOf(card, unit.mac)) {
    const other = [...cards.values()].find((each) => hasPrefixOf(each, unit.mac))
    if (other)
      faults.push({
        unit: unit.id,
        code: 'mac-of-another-model',
        field: 'model',
        weight: 'mend',
        sentence: `${unit.name} is listed as ${unit.model}, and its MAC ${unit.mac} is that of a ${modelName(other)}.`,
      })
  }
  return faults
}

/** A managed unit takes a controller that knows its model, and a controller takes only so many. */
function reviewControllers(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): RosterFault[] {
  const orphans = units.flatMap((unit) => {
    const card = cards.get(unit.model)
    return card && isManaged(card) && !controllerOf(unit, units, cards) ? [{ unit, by: card.dialect.by }] : []
  })
  const controllers = units.filter((unit) => cards.get(unit.model)?.role === 'controller')
  const crowded = controllers.flatMap((controller): RosterFault[] => {
    const most = cards.get(controller.model)?.limits.mostUnits
    const count = managedBy(controller, units, cards).length
    if (most === undefined || count <= most) return []
    return [
      {
        code: 'too-many-units',
        unit: controller.id,
        field: 'model',
        weight: 'mend',
        sentence: `${controller.name} manages ${most} units at the most; ${count} are on the list.`,
      },
    ]
  })
  return [
    ...orphans.map(
      ({ unit, by }): RosterFault => ({
        code: 'no-controller',
        unit: unit.id,
        field: 'model',
        weight: 'mend',
        sentence: `${unit.name} is set through a controller (${by.join(' or ')}), and none is on the list.`,
      }),
    ),
    ...crowded,
  ]
}
