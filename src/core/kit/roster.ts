/**
 * Checks of the kit list: what one row alone cannot know.
 *
 * In: the units and the cards by model. Out: faults, each with its unit, its column and a code.
 */

import { matches } from '../input/pattern'
import { type Message, message } from '../message/message'
import { hasPrefixOf, isManaged, type KitCard, modelName } from './kit-card'
import { controllerOf, managedBy } from './managed-by'
import { type PoeFaultCode, reviewPoe } from './poe'
import type { Unit } from './unit'

/** What can be wrong with a kit list: codes of the table of messages. */
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
  | PoeFaultCode

export interface RosterFault extends Message<RosterFaultCode> {
  /** Undefined for a fault of the whole list. */
  readonly unit: string | undefined
  readonly field: 'name' | 'location' | 'mac' | 'serial' | 'port' | 'sitePort' | 'model' | 'list'
  /** `row` cannot be kept like this: the list holds one unit for each MAC and name. */
  readonly weight: 'row' | 'mend'
}

const unique: readonly { field: 'name' | 'mac' | 'serial' | 'port'; weight: RosterFault['weight'] }[] = [
  { field: 'name', weight: 'row' },
  { field: 'mac', weight: 'row' },
  { field: 'serial', weight: 'mend' },
  { field: 'port', weight: 'mend' },
]

export function reviewRoster(units: readonly Unit[], cards: ReadonlyMap<string, KitCard>): RosterFault[] {
  return [
    ...duplicates(units),
    ...sharedSitePorts(units),
    ...units.flatMap((unit) => reviewUnit(unit, cards)),
    ...reviewControllers(units, cards),
    ...reviewPoe(units, cards).map(
      (fault): RosterFault => ({ ...fault, field: fault.unit === undefined ? 'list' : 'port', weight: 'mend' }),
    ),
  ]
}

function duplicates(units: readonly Unit[]): RosterFault[] {
  return unique.flatMap(({ field, weight }) => {
    const seen = new Map<string, Unit>()
    return units.flatMap((unit): RosterFault[] => {
      const value = String(unit[field] ?? '').toLowerCase()
      const first = value === '' ? undefined : seen.get(value)
      if (first)
        return [
          {
            ...message(`same-${field}`, { name: unit.name, other: first.name, value: String(unit[field]) }),
            unit: unit.id,
            field,
            weight,
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
    return [
      {
        ...message('same-site-port', { name: unit.name, other: first.name, siteSwitch, sitePort }),
        unit: unit.id,
        field: 'sitePort',
        weight: 'mend',
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
            unit: unit.id,
            field: 'model',
            weight: 'mend',
            ...message('no-card', { model: unit.model, name: unit.name, known: modelName(known) }),
          },
        ]
      : []
  }
  const faults: RosterFault[] = []
  if (!matches(card.limits.namePattern, unit.name))
    faults.push({
      unit: unit.id,
      field: 'name',
      weight: 'mend',
      ...message('name-not-taken', { model: unit.model, name: unit.name, allowed: card.limits.nameWords }),
    })
  const { macPrefixes } = card.recognise
  if (macPrefixes.length > 0 && !hasPrefixOf(card, unit.mac)) {
    const other = [...cards.values()].find((each) => hasPrefixOf(each, unit.mac))
    if (other)
      faults.push({
        unit: unit.id,
        field: 'model',
        weight: 'mend',
        ...message('mac-of-another-model', {
          name: unit.name,
          model: unit.model,
          mac: unit.mac,
          other: modelName(other),
        }),
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
        unit: controller.id,
        field: 'model',
        weight: 'mend',
        ...message('too-many-units', { name: controller.name, most, count }),
      },
    ]
  })
  return [
    ...orphans.map(
      ({ unit, by }): RosterFault => ({
        ...message('no-controller', { name: unit.name, by }),
        unit: unit.id,
        field: 'model',
        weight: 'mend',
      }),
    ),
    ...crowded,
  ]
}
