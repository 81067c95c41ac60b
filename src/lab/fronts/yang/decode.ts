/**
 * A tree as settings of a stand-in, with every rule of the modules (models/): what the module refuses is refused here.
 */
import {
  type DeviceNetwork,
  type DeviceRadio,
  type DeviceSettings,
  type ManagedPoint,
  plainNetwork,
} from '../../device/device-settings'
import { Refusal } from '../../device/refusal'
import type { StandInSheet } from '../../device/stand-in-sheet'
import { isNode, type Node } from './tree'
import { type Tree, type TreeNetwork, type TreePoint, type TreeRadio, treeSchema } from './tree-schema'

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
  const networks = data['air-muster-wireless:wireless'].network
  for (const each of networks) checkNetwork(each, networks, sheet)
  for (const each of data['air-muster-wireless:wireless'].radio) checkRadio(each)
  for (const each of data['air-muster-controller:access-points']?.['access-point'] ?? []) {
    for (const { channel, width, power, ...radio } of each.radio) {
      if (channel !== undefined && width !== undefined && power !== undefined)
        checkRadio({ ...radio, channel, width, power })
      else if (radio.enabled)
        throw new Refusal('data-missing', 'a radio that transmits has a channel, a width and a power')
    }
    const missing = each.network.find((id) => !networks.some((network) => network.id === id))
    if (missing !== undefined) throw new Refusal('data-missing', `there is no network ${missing}`)
    if (each.network.length > mostOfPoint)
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

const takesPassphrase = ['wpa2-personal', 'wpa3-personal', 'wpa3-wpa2-mixed']
const requiresFrames = ['wpa3-personal', 'wpa3-enterprise', 'owe']

function checkNetwork(each: TreeNetwork, all: readonly TreeNetwork[], { careless }: StandInSheet): void {
  const { id, security: is } = each
  const refuse = (words: string): never => {
    throw new Refusal('invalid-value', words, `/air-muster-wireless:wireless/network=${id}`)
  }
  const twin = all.find(
    (other) => other !== each && other.ssid.equals(each.ssid) && other.band.some((one) => each.band.includes(one)),
  )
  if (twin) refuse('a name stands once on a band')
  if (each['steering-above'] !== undefined && each.steering === 'client-decides') refuse('nothing is steered')
  if (each['fast-roaming'] && each['mobility-domain'] === undefined) refuse('fast roaming takes a mobility domain')
  if (careless && is.mode === undefined) return
  const { mode } = is
  if (mode === undefined) refuse('a network says how it is secured')
  else if (takesPassphrase.includes(mode) !== (is.passphrase !== undefined))
    refuse(is.passphrase === undefined ? 'it has no passphrase' : 'it takes no passphrase')
  if (mode !== 'wpa2-personal' && (is.passphrase?.length ?? 0) > 63) refuse('SAE takes no key in hexadecimal digits')
  const asksServer = mode === 'wpa2-enterprise' || mode === 'wpa3-enterprise'
  if (asksServer && !(is.radius?.server.length && is.radius.secret))
    refuse('enterprise security takes a RADIUS server and its secret')
  if (!asksServer && is.radius) refuse('it asks no RADIUS server')
  if (mode === 'open' && is['open-confirmed'] !== true) refuse('an open network is said twice')
  if (mode !== 'open' && is['open-confirmed'] !== undefined) refuse('it is not open')
  if (mode === 'open' && is.cipher !== undefined) refuse('an open network has no cipher')
  if (mode !== undefined && requiresFrames.includes(mode) && is.pmf !== undefined && is.pmf !== 'required')
    refuse(`${mode} requires protected management frames`)
  if (mode === 'wpa3-wpa2-mixed' && is.pmf !== undefined && is.pmf !== 'optional')
    refuse('beside a pre-shared key protected management frames are optional')
  if (mode !== undefined && each.band.includes('6') && !requiresFrames.includes(mode)) refuse(`${mode} is not at 6 GHz`)
  if (each['fast-roaming'] && (mode === 'open' || mode === 'owe')) refuse(`${mode} has no key to roam with`)
}

function checkRadio(each: TreeRadio): void {
  const refuse = (words: string): never => {
    throw new Refusal('invalid-value', words, `/air-muster-wireless:wireless/radio=${each.band}`)
  }
  if (each.band === '2.4' && each.channel > 14) refuse('at 2.4 GHz there are channels 1 to 14')
  if (each.band === '5' && (each.channel < 32 || each.channel > 181)) refuse('at 5 GHz there are channels 32 to 181')
  if (each.band === '2.4' && each.width > 40) refuse('at 2.4 GHz a channel is 20 or 40 MHz wide')
  if (each.band === '5' && each.width > 160) refuse('at 5 GHz a channel is 160 MHz wide at the most')
}

function settingsOf(data: Tree): DeviceSettings {
  const system = data['ietf-system:system']
  const wireless = data['air-muster-wireless:wireless']
  const services = data['air-muster-wireless:services']
  const [ethernet] = data['ietf-interfaces:interfaces'].interface
  const ip = ethernet?.['ietf-ip:ipv4']
  const [protocol] = data['ietf-routing:routing']?.['control-plane-protocols']['control-plane-protocol'] ?? []
  const [route] = protocol?.['static-routes']['ietf-ipv4-unicast-routing:ipv4'].route ?? []
  return {
    name: system.hostname,
    location: system.location,
    country: wireless.country ?? null,
    environment: wireless.environment ?? null,
    zoneName: system.clock?.['timezone-name'] ?? null,
    zoneRule: services['time-zone-rule'] ?? null,
    timeServers: system.ntp.server.map(({ udp }) => udp.address),
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
    radios: wireless.radio.map(radioOf),
    httpsOnly: services['https-only'],
    ssh: services.ssh,
    telnet: services.telnet,
    lights: services.lights,
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
    pushed: data['air-muster-controller:access-points']?.login ?? null,
    points: (data['air-muster-controller:access-points']?.['access-point'] ?? []).map(pointOf),
  }
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

function networkOf(each: TreeNetwork): DeviceNetwork {
  const { security: is, hours, radius } = { ...each, radius: each.security.radius }
  const peers = (list: readonly { address: string; port: number }[]) =>
    list.map(({ address, port: number }) => ({ host: address, port: number }))
  return {
    ...plainNetwork,
    id: each.id,
    name: each.ssid.toString('utf8'),
    on: each.enabled,
    bands: each.band,
    hidden: each.hidden,
    vlan: each.vlan ?? null,
    isolated: each.isolation,
    clientRate: each['rate-per-client'] ?? null,
    totalRate: each['rate-shared'] ?? null,
    clientLimit: each['most-clients'] ?? null,
    hours: hours ? { days: hours.day, from: hours.from, to: hours.to } : null,
    steer: each.steering,
    steerAbove: each['steering-above'] ?? null,
    letGoBelow: each['least-signal'] ?? null,
    roaming: each['fast-roaming'],
    roamingDomain: each['mobility-domain'] ?? null,
    clients: each['client-list'] ? { rule: each['client-list'].rule, macs: each['client-list'].mac } : null,
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

function radioOf(each: TreeRadio): DeviceRadio {
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
