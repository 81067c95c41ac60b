/**
 * A unit's data as a configuration that can be compared. In: JSON of RFC 7951 from a unit, hostile. Out: what each
 * setting is. @throws WireError garbled, naming the place and never the value, which could be a secret
 */

import type { Scope } from '../../../core/config/settings/setting'
import { type IdOf, idsOf, settingOf } from '../../../core/config/settings/settings'
import type { Observed, ObservedConfig } from '../../../core/config/unit-config'
import { WireError } from '../../wire-error'
import { dig, type Field, networkFields, radioFields, unitFields } from './fields'

/** More than any unit has. */
const mostEntries = 200

type Values = Record<string, Observed<unknown>>

export interface UnitData {
  /** The running datastore: what the unit is to be. */
  readonly configured: unknown
  /** The operational datastore: what it is. */
  readonly operational: unknown
  /** Which of the two is asked about. */
  readonly asked: 'configured' | 'in-effect'
  readonly managementInterface: string
  /** When it was read, ms since 1970, by the laptop. */
  readonly at: number
}

export function toObserved({ configured, operational, asked, managementInterface, at }: UnitData): ObservedConfig {
  const data = asked === 'configured' ? configured : operational
  const wireless = dig(data, ['air-muster-wireless:wireless'])
  const config = {
    unit: {
      ...fieldsOf('unit', data, unitFields, 'the data'),
      ...timeZoneOf(data),
      ...addressOf(data, operational, managementInterface),
      ...stateOf(operational, at),
    },
    networks: entriesOf('network', dig(wireless, ['network']), 'id', networkFields),
    radios: entriesOf('radio', dig(wireless, ['radio']), 'band', radioFields),
  }
  return config as ObservedConfig
}

function entriesOf<S extends 'network' | 'radio'>(
  scope: S,
  list: unknown,
  key: string,
  fields: Readonly<Record<IdOf<S>, Field>>,
): Record<string, Values> {
  if (list === undefined) return {}
  if (!Array.isArray(list) || list.length > mostEntries) throw new WireError('garbled', `its ${scope}s are not a list`)
  const entries = list.map((entry): [string, Values] => {
    const name = dig(entry, [key])
    if (typeof name !== 'string' || name.length > 64)
      throw new WireError('garbled', `one of its ${scope}s has no ${key}`)
    return [name, fieldsOf(scope, entry, fields, `${scope} ${name}`)]
  })
  return Object.fromEntries(entries)
}

function fieldsOf(
  scope: Scope,
  data: unknown,
  fields: Readonly<Partial<Record<string, Field>>>,
  where: string,
): Values {
  const values: Values = {}
  for (const id of idsOf(scope)) {
    const field = fields[id]
    if (!field) continue
    const found = dig(data, field.path)
    values[id] = found === undefined ? absent(field) : judged(id, field.from(found), where)
  }
  return values
}

function absent({ absent: stands }: Field): Observed<unknown> {
  return typeof stands === 'string' ? { kind: stands } : { kind: 'value', value: stands.value }
}

function judged(id: Parameters<typeof settingOf>[0], value: unknown, where: string): Observed<unknown> {
  const parsed = settingOf(id).value.safeParse(value)
  if (!parsed.success) throw new WireError('garbled', `${where}: ${id} is not what it can be`)
  return { kind: 'value', value: parsed.data }
}

/** Some write the name of the zone, some its rule. */
function timeZoneOf(data: unknown): Values {
  const zone =
    dig(data, ['air-muster-wireless:services', 'time-zone-rule']) ??
    dig(data, ['ietf-system:system', 'clock', 'timezone-name'])
  return {
    'clock.time-zone': zone === undefined ? { kind: 'value', value: '' } : judged('clock.time-zone', zone, 'the data'),
  }
}

/** RFC 8344 for the address, RFC 8349 for the gateway. An address that DHCP gave stands in the state alone. */
function addressOf(data: unknown, operational: unknown, managementInterface: string): Values {
  const place = (from: unknown): unknown => {
    const list = dig(from, ['ietf-interfaces:interfaces', 'interface'])
    return Array.isArray(list) ? list.find((each) => dig(each, ['name']) === managementInterface) : undefined
  }
  const wired = place(data)
  const method = dig(wired, ['ietf-ip:ipv4', 'air-muster-wireless:method']) ?? 'static'
  const addresses = dig(method === 'dhcp' ? place(operational) : wired, ['ietf-ip:ipv4', 'address'])
  const first: unknown = Array.isArray(addresses) ? addresses[0] : undefined
  const optional = (id: 'management.address' | 'management.prefix', step: string): Values => {
    const value = dig(first, [step])
    return { [id]: value === undefined ? { kind: 'unsupported' } : judged(id, value, managementInterface) }
  }
  return {
    'management.method': judged('management.method', method, managementInterface),
    ...optional('management.address', 'ip'),
    ...optional('management.prefix', 'prefix-length'),
    'management.gateway': judged('management.gateway', gatewayOf(data), 'its routes'),
    'management.vlan': judged(
      'management.vlan',
      dig(wired, ['air-muster-wireless:management-vlan']) ?? null,
      managementInterface,
    ),
  }
}

function gatewayOf(data: unknown): unknown {
  const protocols = dig(data, ['ietf-routing:routing', 'control-plane-protocols', 'control-plane-protocol'])
  const routes = (Array.isArray(protocols) ? protocols : []).flatMap((protocol) => {
    const list = dig(protocol, ['static-routes', 'ietf-ipv4-unicast-routing:ipv4', 'route'])
    return Array.isArray(list) ? list : []
  })
  const standard: unknown = routes.find((route) => dig(route, ['destination-prefix']) === '0.0.0.0/0')
  return dig(standard, ['next-hop', 'next-hop-address']) ?? null
}

/** Clock and firmware are told as state (RFC 7317). */
function stateOf(operational: unknown, at: number): Values {
  const state = dig(operational, ['ietf-system:system-state'])
  const told = dig(state, ['clock', 'current-datetime'])
  const ms = typeof told === 'string' ? Date.parse(told) : Number.NaN
  const version = dig(state, ['platform', 'os-version'])
  return {
    'clock.time': Number.isNaN(ms) ? { kind: 'unsupported' } : { kind: 'value', value: (ms - at) / 1000 },
    'unit.firmware':
      version === undefined ? { kind: 'unsupported' } : judged('unit.firmware', version, 'what it says of itself'),
  }
}
