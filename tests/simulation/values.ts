/** What a simulated unit keeps as its configuration: values that are never changed in place. */

import { settingOf } from '../../src/core/catalogue/catalogue'
import type { Difference } from '../../src/core/config/compare'
import type { Clear, Config, Observed, ObservedConfig } from '../../src/core/config/unit-config'
import type { KitCard } from '../../src/core/kit/kit-card'
import type { UnitTraits } from './traits'

type Group = Readonly<Record<string, unknown>>
type Groups = Readonly<Record<string, Group>>

/** Values as the unit keeps them; never changed in place. */
export interface Values {
  readonly unit: Group
  readonly networks: Groups
  readonly radios: Groups
}

/** What a restart brings back. */
export interface Kept {
  readonly values: Values
  readonly password: string
}

export const factoryPassword = 'boxed'
/** Ids of networks that units ship with begin like this. */
export const shipped = 'shipped'

/** What a unit holds out of its box. */
export function boxedValues(card: KitCard, traits: UnitTraits): Values {
  const radio = (channel: number) => ({
    'radio.enabled': traits.radios === 'on',
    'radio.channel': channel,
    'radio.width': 20,
    'radio.power': 20,
  })
  const isOpen = traits.networks === 'open'
  const network = {
    'network.ssid': traits.networks === 'preset' ? 'Crew' : 'Setup',
    'network.enabled': true,
    'network.bands': ['2.4'],
    'network.security': isOpen ? 'open' : 'wpa2-personal',
    ...(isOpen ? {} : { 'network.passphrase': 'a-passphrase-of-somebody' }),
    'network.hidden': false,
    'network.isolation': false,
    'network.vlan': null,
  }
  const id = traits.networks === 'preset' ? 'n0' : shipped
  return {
    unit: {
      'unit.name': 'boxed',
      'unit.location': '',
      'unit.country': 'US',
      'clock.time-zone': 'UTC',
      'clock.ntp-servers': [],
      'management.method': traits.boxed === 'static' ? 'static' : 'dhcp',
      'management.address': card.factory.address,
      'management.prefix': 24,
      'management.gateway': null,
      'management.dns-servers': [],
      'services.https-only': false,
      'services.ssh': true,
      'services.syslog': null,
    },
    networks: traits.networks === 'none' || card.radios.length === 0 ? {} : { [id]: network },
    radios: card.radios.length === 0 ? {} : { '2.4': radio(1), '5': radio(36) },
  }
}

/** Values as a unit shows them. @param hides  whether it never shows secrets */
export function shown(values: Values, hides: boolean): ObservedConfig {
  const seen = (group: Group): Record<string, Observed<unknown>> =>
    Object.fromEntries(
      Object.entries(group).map(([id, value]) => [
        id,
        hides && settingOf(id as never).secret ? { kind: 'unreadable' } : { kind: 'value', value },
      ]),
    )
  const all = (groups: Groups) => Object.fromEntries(Object.entries(groups).map(([of, group]) => [of, seen(group)]))
  return { unit: seen(values.unit), networks: all(values.networks), radios: all(values.radios) } as ObservedConfig
}

/** @param desired  the whole that the difference leads to */
export function changed(values: Values, difference: Difference, desired: Config<Clear>): Values {
  const all = desired as unknown as Values
  if (difference.kind === 'value') {
    const { id, of } = difference
    const { scope } = settingOf(id)
    if (scope === 'unit') return { ...values, unit: { ...values.unit, [id]: all.unit[id] } }
    const name = scope === 'network' ? 'networks' : 'radios'
    const group = { ...values[name][of], [id]: all[name][of]?.[id] }
    return { ...values, [name]: { ...values[name], [of]: group } }
  }
  const name = difference.scope === 'network' ? 'networks' : 'radios'
  const { [difference.of]: _gone, ...others } = values[name]
  if (difference.kind === 'surplus') return { ...values, [name]: others }
  return { ...values, [name]: { ...others, [difference.of]: all[name][difference.of] ?? {} } }
}

/** The country has set its channels back. */
export function withRadiosReset(values: Values): Values {
  const radios = Object.entries(values.radios).map(([band, radio]) => [
    band,
    { ...radio, 'radio.channel': band === '5' ? 36 : 1, 'radio.width': 20 },
  ])
  return { ...values, radios: Object.fromEntries(radios) }
}

const moving = ['management.method', 'management.address'] as const
/** Is its way to be found another? */
export const movesBetween = (a: Values, b: Values): boolean => moving.some((id) => a.unit[id] !== b.unit[id])

/** What somebody else changes over a session of their own. */
export type Meddling = 'name' | 'password' | 'network' | 'radio'

export function meddled({ values, password }: Kept, what: Meddling): Kept {
  const all = (groups: Groups, changes: Group): Groups =>
    Object.fromEntries(Object.entries(groups).map(([of, each]) => [of, { ...each, ...changes }]))
  const made: Readonly<Record<Meddling, Kept>> = {
    password: { values, password: `${password}-of-somebody` },
    name: { values: { ...values, unit: { ...values.unit, 'unit.name': 'somebody' } }, password },
    network: { values: { ...values, networks: all(values.networks, { 'network.enabled': false }) }, password },
    radio: { values: { ...values, radios: all(values.radios, { 'radio.power': 5 }) }, password },
  }
  return made[what]
}
