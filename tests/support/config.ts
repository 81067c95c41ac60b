/** What a unit of a model is to be, by a brief, for tests that speak to units themselves. */

import type { Brief } from '../../src/core/brief/brief'
import { neededSecrets } from '../../src/core/brief/brief'
import type { Asking } from '../../src/core/config/asking'
import { desiredOf } from '../../src/core/config/compile'
import type { Clear, Config, ObservedConfig } from '../../src/core/config/unit-config'
import type { Unit } from '../../src/core/kit/unit'
import { makePlan } from '../../src/core/plan/plan'
import { sentence } from '../../src/words/en/sentence'
import { cardOf, countryOf, demoBrief } from './data'

export const testMac = '02:4f:52:00:00:01'
export const today = new Date('2026-11-25T12:00:00Z')

/** Its secrets are made up: it goes where clear ones belong, and where marks do. */
export function askingFor(model: string, brief: Brief = demoBrief, more: Partial<Unit> = {}): Asking<never> {
  const unit: Unit = {
    id: 'u',
    name: 'hall-01',
    location: 'desk',
    model,
    mac: testMac,
    serial: '',
    port: 1,
    siteSwitch: '',
    sitePort: '',
    ...more,
  }
  const card = cardOf(model)
  const { plans, faults } = makePlan({
    brief,
    units: [unit],
    cards: new Map([[model, card]]),
    country: countryOf(brief.country),
    before: new Map(),
  })
  const [plan] = plans
  if (!plan) throw new Error(faults.map(sentence).join(' '))
  const secrets = new Map(neededSecrets(brief, ['u']).map((name) => [name, `Secret of ${name}`.slice(0, 60)]))
  const manages = card.role === 'controller' ? 1 : undefined
  const controller = card.role === 'managed-access-point' ? '10.44.8.20' : undefined
  return { brief, unit, plan, card, secrets, today, manages, controller }
}

export const desiredFor = (model: string, brief?: Brief): Config<Clear> => desiredOf(askingFor(model, brief))

/** The values that were told, as a configuration that can be asked for. */
export function valuesIn(observed: ObservedConfig): Config<Clear> {
  const told = (values: object): object =>
    Object.fromEntries(
      Object.entries(values as Record<string, { kind: string; value?: unknown }>).flatMap(([id, each]) =>
        each.kind === 'value' ? [[id, each.value]] : [],
      ),
    )
  const all = (groups: Readonly<Record<string, object>>): Record<string, object> =>
    Object.fromEntries(Object.entries(groups).map(([of, values]) => [of, told(values)]))
  return { unit: told(observed.unit), networks: all(observed.networks), radios: all(observed.radios) }
}
