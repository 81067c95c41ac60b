/**
 * A unit's data as a configuration that can be compared. In: JSON of RFC 7951 from a unit, hostile. Out: what each
 * setting is. @throws WireError garbled, naming the place and never the value, which could be a secret
 */

import type { SettingId } from '../../../core/catalogue/catalogue'
import { type IdOf, idsOf, settingOf } from '../../../core/catalogue/catalogue'
import type { Scope } from '../../../core/catalogue/setting'
import type { Observed, ObservedConfig } from '../../../core/config/unit-config'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import { dig, type Field, networkFields, radioFields, unitFields } from './fields'
import { furtherUsersIn } from './users'

/** More than any unit has. */
const mostEntries = 200

type Values = Record<string, Observed<unknown>>

export interface UnitData {
  /** The running datastore: what the unit is to be. */
  readonly configured: unknown
  /** The operational datastore: what it is; left out where nothing of it is asked for. */
  readonly operational: unknown
  /** Which of the two is asked about. */
  readonly asked: 'configured' | 'in-effect'
  readonly managementInterface: string
  /** Who is signed in. */
  readonly admin: string
  /** When it was read, ms since 1970, by the laptop. */
  readonly at: number
}

export function toObserved({
  configured,
  operational,
  asked,
  managementInterface,
  admin,
  at,
}: UnitData): ObservedConfig {
  const data = asked === 'configured' ? configured : operational
  const wireless = dig(data, ['air-muster-wireless:wireless'])
  const config = {
    unit: {
      ...fieldsOf('unit', data, unitFields, 'the data'),
      ...composedOf({ data, operational, managementInterface, admin, at }),
    },
    networks: entriesOf('network', dig(wireless, ['network']), 'id', networkFields),
    radios: entriesOf('radio', dig(wireless, ['radio']), 'band', radioFields),
  }
  return config as ObservedConfig
}

/** Entries of a list by their key. @throws WireError garbled */
export function entriesOf<S extends 'network' | 'radio'>(
  scope: S,
  list: unknown,
  key: string,
  fields: Readonly<Record<IdOf<S>, Field>>,
): Record<string, Values> {
  if (list === undefined) return {}
  if (!Array.isArray(list) || list.length > mostEntries)
    throw new WireError('garbled', message('not-a-list', { of: scope }))
  const entries = list.map((entry): [string, Values] => {
    const name = dig(entry, [key])
    if (typeof name !== 'string' || name.length > 64)
      throw new WireError('garbled', message('member-without-key', { of: scope, key }))
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
  if (!parsed.success) throw new WireError('garbled', message('value-unfit', { where, setting: id }))
  return { kind: 'value', value: parsed.data }
}

interface Whole {
  readonly data: unknown
  readonly operational: unknown
  readonly managementInterface: string
  readonly admin: string
  readonly at: number
}
type Compose = (whole: Whole) => unknown
/** What no unit shows, and every one has. */
const unreadable = Symbol('unreadable')

/** Settings that are put together from several places; undefined where the unit does not tell. */
export const composed: Partial<Record<SettingId, Compose>> = {
  // Some write the name of the zone, some its rule.
  'clock.time-zone': ({ data }) =>
    dig(data, ['air-muster-wireless:services', 'time-zone-rule']) ??
    dig(data, ['ietf-system:system', 'clock', 'timezone-name']) ??
    '',
  'clock.time': ({ operational, at }) => {
    const told = dig(operational, ['ietf-system:system-state', 'clock', 'current-datetime'])
    const ms = typeof told === 'string' ? Date.parse(told) : Number.NaN
    return Number.isNaN(ms) ? undefined : (ms - at) / 1000
  },
  'unit.firmware': ({ operational }) => dig(operational, ['ietf-system:system-state', 'platform', 'os-version']),
  'admin.further-users': ({ data, admin }) => furtherUsersIn(data, admin),
  'admin.further-passwords': () => unreadable,
  'licence.units': ({ operational }) => dig(operational, ['air-muster-controller:access-points', 'most']),
  'management.method': methodOf,
  'management.address': (whole) => dig(addressOf(whole), ['ip']),
  'management.prefix': (whole) => dig(addressOf(whole), ['prefix-length']),
  'management.gateway': ({ data }) => gatewayOf(data),
  'management.vlan': ({ data, managementInterface }) =>
    dig(wiredOf(data, managementInterface), ['air-muster-wireless:management-vlan']) ?? null,
}

function composedOf(whole: Whole): Values {
  return Object.fromEntries(
    idsOf('unit').flatMap((id): [string, Observed<unknown>][] => {
      const compose = composed[id]
      if (!compose) return []
      const value = compose(whole)
      if (value === unreadable) return [[id, { kind: 'unreadable' }]]
      return [[id, value === undefined ? { kind: 'unsupported' } : judged(id, value, 'the data')]]
    }),
  )
}

function wiredOf(data: unknown, managementInterface: string): unknown {
  const list = dig(data, ['ietf-interfaces:interfaces', 'interface'])
  return Array.isArray(list) ? list.find((each) => dig(each, ['name']) === managementInterface) : undefined
}

function methodOf({ data, managementInterface }: Whole): unknown {
  return dig(wiredOf(data, managementInterface), ['ietf-ip:ipv4', 'air-muster-wireless:method']) ?? 'static'
}

/** Is the management address asked for? */
export function asksDhcp(data: unknown, managementInterface: string): boolean {
  return methodOf({ data, operational: undefined, managementInterface, admin: '', at: 0 }) === 'dhcp'
}

/** RFC 8344. An address that DHCP gave stands in the state alone. */
function addressOf(whole: Whole): unknown {
  const from = methodOf(whole) === 'dhcp' ? whole.operational : whole.data
  const addresses = dig(wiredOf(from, whole.managementInterface), ['ietf-ip:ipv4', 'address'])
  return Array.isArray(addresses) ? addresses[0] : undefined
}

/** RFC 8349: the default route of the static ones. */
function gatewayOf(data: unknown): unknown {
  const protocols = dig(data, ['ietf-routing:routing', 'control-plane-protocols', 'control-plane-protocol'])
  const routes = (Array.isArray(protocols) ? protocols : []).flatMap((protocol) => {
    const list = dig(protocol, ['static-routes', 'ietf-ipv4-unicast-routing:ipv4', 'route'])
    return Array.isArray(list) ? list : []
  })
  const standard: unknown = routes.find((route) => dig(route, ['destination-prefix']) === '0.0.0.0/0')
  return dig(standard, ['next-hop', 'next-hop-address']) ?? null
}
