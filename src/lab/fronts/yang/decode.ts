/**
 * A tree as settings of a stand-in, with every rule of the modules (models/): what the module refuses is refused here.
 */

import { type Tree, treeSchema } from '../../../../models/tree-schema'
import {
  type DeviceNetwork,
  type DeviceRadio,
  type DeviceSettings,
  type ManagedPoint,
  plainNetwork,
} from '../../device/device-settings'
import { Refusal } from '../../device/refusal'
import type { StandInSheet } from '../../device/stand-in-sheet'
import { fieldOf } from './leaf-names'
import { checkRules } from './rules'
import { isNode, type Node } from './tree'

type TreeNetwork = Tree['air-muster-wireless:wireless']['network'][number]
type TreeRadio = Tree['air-muster-wireless:wireless']['radio'][number]
type TreePoint = Tree['air-muster-controller:access-points']['access-point'][number]

export interface Decoded {
  readonly settings: DeviceSettings
  /** New passwords by user, in clear. */
  readonly passwords: ReadonlyMap<string, string>
}

/** @throws Refusal naming the first place where the tree does not keep to the modules */
export function decode(tree: Node, sheet: StandInSheet): Decoded {
  refuseUnknown(tree, sheet)
  const parsed = treeSchema.safeParse(tree)
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    throw new Refusal('invalid-value', issue?.message ?? 'not valid', `/${issue?.path.join('/') ?? ''}`)
  }
  const data = parsed.data
  // Careless firmware takes a network without a word of its security.
  checkRules(data, (test) => sheet.careless && test === 'mode')
  for (const { id, network, radio } of data['air-muster-controller:access-points']['access-point'].map(named)) {
    for (const each of radio) if (each.enabled) whole(each, `access point ${id}`)
    const missing = network.find((of) => !data['air-muster-wireless:wireless'].network.some((each) => each.id === of))
    if (missing !== undefined) throw new Refusal('data-missing', `there is no network ${missing}`)
    if (network.length > mostOfPoint)
      throw new Refusal('invalid-value', `an access point carries ${mostOfPoint} networks at the most`)
  }
  return { settings: settingsOf(data), passwords: passwordsOf(data) }
}

/** What this firmware does not know is no part of its modules. */
function refuseUnknown(node: unknown, { lacks }: StandInSheet, path = ''): void {
  if (Array.isArray(node)) for (const each of node) refuseUnknown(each, { lacks } as StandInSheet, path)
  else if (isNode(node))
    for (const [name, value] of Object.entries(node)) {
      const empty = Array.isArray(value) && value.length === 0
      if (lacks.includes(name) && !empty)
        throw new Refusal('unknown-element', `${name} is not known`, `${path}/${name}`)
      refuseUnknown(value, { lacks } as StandInSheet, `${path}/${name}`)
    }
}

/** Networks of one access point. */
const mostOfPoint = 6

const named = ({ mac, network, radio }: TreePoint) => ({ id: mac, network, radio })

/** A radio that comes with the unit has all three. */
function whole<R extends Pick<TreeRadio, 'channel' | 'width' | 'power'>>(radio: R, where: string) {
  const { channel, width, power } = radio
  if (channel === undefined || width === undefined || power === undefined)
    throw new Refusal('data-missing', 'a radio that transmits has a channel, a width and a power', where)
  return { ...radio, channel, width, power }
}

function settingsOf(data: Tree): DeviceSettings {
  const system = data['ietf-system:system']
  const wireless = data['air-muster-wireless:wireless']
  const services = data['air-muster-wireless:services']
  const [ethernet] = data['ietf-interfaces:interfaces'].interface
  const ip = ethernet?.['ietf-ip:ipv4']
  const [protocol] = data['ietf-routing:routing']['control-plane-protocols']['control-plane-protocol']
  const [route] = protocol?.['static-routes']['ietf-ipv4-unicast-routing:ipv4'].route ?? []
  return {
    name: system.hostname ?? '',
    location: system.location ?? '',
    country: wireless.country ?? null,
    environment: wireless.environment ?? null,
    zoneName: system.clock['timezone-name'] ?? null,
    zoneRule: services['time-zone-rule'] ?? null,
    timeServers: (system.ntp?.server ?? []).map(({ udp }) => udp.address),
    nameServers: system['dns-resolver'].server.map((server) => server['udp-and-tcp'].address),
    users: system.authentication.user.map(({ name }) => name),
    administrators:
      data['ietf-netconf-acm:nacm'].groups.group.find(({ name }) => name === 'administrators')?.['user-name'] ?? [],
    // RFC 8341, 3.4.5: a group by itself may do what everybody may.
    administratorsMay: data['ietf-netconf-acm:nacm']['rule-list'].some(
      ({ group, rule }) =>
        group.includes('administrators') &&
        rule.some(
          (each) => each.action === 'permit' && each['access-operations'] === '*' && each['module-name'] === '*',
        ),
    ),
    wired: {
      method: ip?.['air-muster-wireless:method'] ?? 'static',
      address: ip?.address[0]?.ip ?? null,
      prefix: ip?.address[0]?.['prefix-length'] ?? null,
      vlan: ethernet?.['air-muster-wireless:management-vlan'] ?? null,
    },
    gateway: route?.['next-hop']['next-hop-address'] ?? null,
    networks: wireless.network.map(networkOf),
    radios: wireless.radio.map((each) => radioOf(whole(each, `radio ${each.band}`))),
    httpsOnly: services['https-only'] ?? false,
    ssh: services.ssh ?? false,
    telnet: services.telnet ?? false,
    lights: services.lights ?? true,
    syslog: services.syslog ?? null,
    mail: services.mail ?? null,
    restart: services.restart ?? null,
    snmp: services.snmp
      ? {
          user: services.snmp.user,
          authentication: services.snmp['authentication-key'],
          privacy: services.snmp['privacy-key'],
        }
      : null,
    controllers: [],
    pushed: pushedLogin(data),
    points: data['air-muster-controller:access-points']['access-point'].map(pointOf),
  }
}

/** Its password is written, and not shown: a login without one is none. */
function pushedLogin(data: Tree): DeviceSettings['pushed'] {
  const { login } = data['air-muster-controller:access-points']
  return login?.password === undefined ? null : { user: login.user, password: login.password }
}

function pointOf(each: TreePoint): ManagedPoint {
  return {
    mac: each.mac,
    name: each.name ?? '',
    location: each.location ?? '',
    networks: each.network,
    radios: each.radio.map(pointRadioOf),
    wired: {
      method: each.method,
      address: each.method === 'static' ? (each.address ?? null) : null,
      prefix: each.method === 'static' ? (each['prefix-length'] ?? null) : null,
      vlan: null,
    },
    gateway: each.gateway ?? null,
    controllers: each.controller,
  }
}

function networkOf({
  id,
  ssid,
  band,
  security: is,
  hours,
  'client-list': clients,
  ...plain
}: TreeNetwork): DeviceNetwork {
  const { radius } = is
  const peers = (list: readonly { address: string; port: number }[]) =>
    list.map(({ address, port: number }) => ({ host: address, port: number }))
  return {
    ...plainNetwork,
    ...Object.fromEntries(Object.entries(plain).map(([leaf, value]) => [fieldOf(leaf), value])),
    id,
    name: ssid.toString('utf8'),
    bands: band,
    hours: hours ? { days: hours.day, from: hours.from, to: hours.to } : null,
    clients: clients ? { rule: clients.rule, macs: clients.mac } : null,
    mode: is.mode ?? 'open',
    meantOpen: is['open-confirmed'] ?? false,
    cipher: is.cipher ?? 'ccmp',
    frames: is.pmf ?? null,
    passphrase: is.passphrase ?? null,
    radius: radius
      ? { servers: peers(radius.server), accounting: peers(radius.accounting), secret: radius.secret ?? null }
      : null,
  }
}

/** What it is not told stays as it is. */
function pointRadioOf(each: TreePoint['radio'][number]): ManagedPoint['radios'][number] {
  const { channel, width, secondary, power } = each
  return {
    band: each.band,
    on: each.enabled,
    generation: each.mode ?? null,
    lowRates: each['low-rates'],
    beacon: each['beacon-interval'],
    ...(channel === undefined ? {} : { channel }),
    ...(width === undefined ? {} : { width }),
    ...(secondary === undefined ? {} : { secondary }),
    ...(power === undefined ? {} : { power }),
  }
}

function radioOf(each: ReturnType<typeof whole<TreeRadio>>): DeviceRadio {
  return {
    band: each.band,
    on: each.enabled,
    generation: each.mode ?? null,
    channel: each.channel,
    width: each.width,
    ...(each.secondary === undefined ? {} : { secondary: each.secondary }),
    power: each.power,
    lowRates: each['low-rates'],
    beacon: each['beacon-interval'],
  }
}

/** RFC 7317 crypt-hash: "$0$" and clear text, which the unit hashes; this one just keeps it. */
function passwordsOf(data: Tree): Map<string, string> {
  const users = data['ietf-system:system'].authentication.user
  return new Map(
    users.flatMap(({ name, password }): [string, string][] => {
      if (password === undefined) return []
      if (!password.startsWith('$0$'))
        throw new Refusal(
          'invalid-value',
          'this unit takes passwords in clear, marked $0$',
          '/ietf-system:system/authentication',
        )
      return [[name, password.slice(3)]]
    }),
  )
}
