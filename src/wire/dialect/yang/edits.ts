/**
 * What differs, as edits of one YANG Patch.
 *
 * In: differences and the whole that they lead to. Out: edits, one for each thing that is written whole: a network
 * with its security, a radio, the address with its gateway.
 */

import type { SettingId } from '../../../core/catalogue/catalogue'
import type { Difference } from '../../../core/config/compare'
import type { Clear, Config } from '../../../core/config/unit-config'
import { messageText } from '../../../core/message/message'
import { entry } from '../../codec/resource-path'
import type { YangEdit } from '../../codec/yang-patch'
import { type Field, networkFields, radioFields, unitFields } from './fields'
import { userEdits } from './users'

export type Edit = Omit<YangEdit, 'edit-id'>
type Values = Readonly<Partial<Record<string, unknown>>>
/** What is known of the unit beside what differs. */
export interface Place {
  readonly managementInterface: string
  /** Who is signed in. */
  readonly admin: string
  /** What it is configured to be now; left out where no user differs. */
  readonly present?: unknown
}
type Write = (unit: Config<Clear>['unit'], place: Place) => Edit[]

const system = '/ietf-system:system'
const wireless = '/air-muster-wireless:wireless'
const services = '/air-muster-wireless:services'

/** A thing at a place: it is put there whole, or taken away. */
function at(target: string, name: string, value: unknown): Edit {
  return value === undefined
    ? { operation: 'remove', target }
    : { operation: 'replace', target, value: { [name]: value } }
}

/** A setting that stands alone at its place. */
const alone =
  (id: SettingId): Write =>
  (unit) => {
    const field = unitFields[id]
    if (!field) throw new TypeError(messageText('setting-without-place', { setting: id }))
    const name = field.path.at(-1) ?? ''
    const module = field.path[0]?.split(':')[0] ?? ''
    return [at(`/${field.path.join('/')}`, `${module}:${name}`, field.to((unit as Values)[id]))]
  }

const servers = (addresses: readonly string[], transport: 'udp' | 'udp-and-tcp'): unknown[] =>
  addresses.map((address) => ({ name: address, [transport]: { address } }))

const country: Write = (unit) => [
  {
    operation: 'merge',
    target: wireless,
    value: {
      'air-muster-wireless:wireless': {
        country: unit['unit.country'],
        ...(unit['unit.environment'] === undefined ? {} : { environment: unit['unit.environment'] }),
      },
    },
  },
]

const timeZone: Write = (unit) => {
  const zone = unit['clock.time-zone'] ?? ''
  return zone.startsWith('<')
    ? [at(`${services}/time-zone-rule`, 'air-muster-wireless:time-zone-rule', zone)]
    : [at(`${system}/clock`, 'ietf-system:clock', { 'timezone-name': zone })]
}

const timeServers: Write = (unit) => [
  at(`${system}/ntp`, 'ietf-system:ntp', { enabled: true, server: servers(unit['clock.ntp-servers'] ?? [], 'udp') }),
]

const snmp: Write = (unit) => {
  const user = unit['services.snmp-user'] ?? undefined
  const value = user && {
    user,
    'authentication-key': unit['services.snmp-authentication'],
    'privacy-key': unit['services.snmp-privacy'],
  }
  return [at(`${services}/snmp`, 'air-muster-wireless:snmp', value)]
}

const pushedLogin: Write = (unit) => {
  const user = unit['pushed.user'] ?? undefined
  const login = user && { user, password: unit['pushed.password'] }
  return [at(`/air-muster-controller:access-points/login`, 'air-muster-controller:login', login)]
}

const protocols = '/ietf-routing:routing/control-plane-protocols'
const staticRoutes = `${protocols}/${entry('control-plane-protocol', 'ietf-routing:static', 'management')}`

/** The address goes last: the session may die with it. */
const management: Write = (unit, { managementInterface }) => {
  const wired = `/ietf-interfaces:interfaces/${entry('interface', managementInterface)}`
  const isStatic = unit['management.method'] === 'static'
  const gateway = unit['management.gateway'] ?? undefined
  const route = gateway && {
    type: 'ietf-routing:static',
    name: 'management',
    'static-routes': {
      'ietf-ipv4-unicast-routing:ipv4': {
        route: [{ 'destination-prefix': '0.0.0.0/0', 'next-hop': { 'next-hop-address': gateway } }],
      },
    },
  }
  const dns = isStatic ? { server: servers(unit['management.dns-servers'] ?? [], 'udp-and-tcp') } : undefined
  const address = isStatic ? [{ ip: unit['management.address'], 'prefix-length': unit['management.prefix'] }] : []
  return [
    at(`${system}/dns-resolver`, 'ietf-system:dns-resolver', dns),
    at(staticRoutes, 'ietf-routing:control-plane-protocol', route && [route]),
    at(
      `${wired}/air-muster-wireless:management-vlan`,
      'air-muster-wireless:management-vlan',
      unit['management.vlan'] ?? undefined,
    ),
    at(`${wired}/ietf-ip:ipv4`, 'ietf-ip:ipv4', { address, 'air-muster-wireless:method': unit['management.method'] }),
  ]
}

const users: Write = (unit, { present, admin }) => userEdits(unit, present, admin)

/** What writes each setting of the unit itself; settings that are written together share one. */
export const writes: Readonly<Partial<Record<SettingId, Write>>> = {
  ...Object.fromEntries((Object.keys(unitFields) as SettingId[]).map((id) => [id, alone(id)])),
  'unit.country': country,
  'unit.environment': country,
  'clock.time-zone': timeZone,
  'clock.ntp-servers': timeServers,
  'management.method': management,
  'management.address': management,
  'management.prefix': management,
  'management.gateway': management,
  'management.dns-servers': management,
  'management.vlan': management,
  'admin.further-users': users,
  'admin.further-passwords': users,
  'pushed.user': pushedLogin,
  'pushed.password': pushedLogin,
  'services.snmp-user': snmp,
  'services.snmp-authentication': snmp,
  'services.snmp-privacy': snmp,
}

/** Edits in the order in which the differences come, each thing once. */
export function editsFor(differences: readonly Difference[], desired: Config<Clear>, place: Place): Edit[] {
  const done = new Set<unknown>()
  const once = (thing: unknown, edits: () => Edit[]): Edit[] => {
    if (done.has(thing)) return []
    done.add(thing)
    return edits()
  }
  return differences.flatMap((difference): Edit[] => {
    const { of } = difference
    if (difference.kind === 'surplus') return [{ operation: 'remove', target: `${wireless}/${entry('network', of)}` }]
    const network = desired.networks[of]
    const radio = desired.radios[of]
    if (scopeOf(difference) === 'network' && network) return once(`network ${of}`, () => [networkEdit(of, network)])
    if (scopeOf(difference) === 'radio' && radio) return once(`radio ${of}`, () => [radioEdit(of, radio)])
    const write = difference.kind === 'value' ? writes[difference.id] : undefined
    return write ? once(write, () => write(desired.unit, place)) : []
  })
}

function scopeOf(difference: Difference): 'unit' | 'network' | 'radio' {
  if (difference.kind !== 'value') return difference.scope
  return difference.of === '' ? 'unit' : difference.id.startsWith('network.') ? 'network' : 'radio'
}

/** A network goes over in one piece with its security: at no time is one there without. */
export function networkEdit(id: string, values: Values): Edit {
  const network = { id, ...fill(values, networkFields) }
  // An open network is said twice on the wire too.
  if (values['network.security'] === 'open')
    Object.assign(network, { security: { mode: 'open', 'open-confirmed': true } })
  return {
    operation: 'replace',
    target: `${wireless}/${entry('network', id)}`,
    value: { 'air-muster-wireless:network': [network] },
  }
}

/** What is not spoken of stays as it is. */
function radioEdit(band: string, values: Values): Edit {
  return {
    operation: 'merge',
    target: `${wireless}/${entry('radio', band)}`,
    value: { 'air-muster-wireless:radio': [radioData(band, values)] },
  }
}

/** One radio as data. */
export function radioData(band: string, values: Values): Record<string, unknown> {
  return { band, ...fill(values, radioFields) }
}

function fill(values: Values, fields: Readonly<Record<string, Field>>): Record<string, unknown> {
  const filled: Record<string, unknown> = {}
  for (const [id, { path, to }] of Object.entries(fields)) {
    const value = values[id] === undefined ? undefined : to(values[id])
    if (value === undefined) continue
    const last = path.at(-1) ?? ''
    const parent = path.slice(0, -1).reduce<Record<string, unknown>>((node, step) => {
      node[step] ??= {}
      return node[step] as Record<string, unknown>
    }, filled)
    parent[last] = value
  }
  return filled
}
