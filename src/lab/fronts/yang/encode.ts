/** A stand-in's settings and state as the tree that its modules ask for: code of its own, no client's. */
import type { Device } from '../../device/device'
import type { DeviceNetwork, DeviceRadio, DeviceSettings, ManagedPoint } from '../../device/device-settings'
import type { RadioNow } from '../../device/radio-now'
import type { StandInSheet } from '../../device/stand-in-sheet'
import { leafOf } from './leaf-names'
import type { Node } from './tree'

const octets = (text: string): string => Buffer.from(text, 'utf8').toString('base64')
const decimal = (dbm: number): string => dbm.toFixed(1)
/** Leaves that have no value are not there. */
const present = (node: Node): Node =>
  Object.fromEntries(Object.entries(node).filter(([, value]) => value !== null && value !== undefined))

/** What a firmware does not know is no part of its tree. */
function without(node: unknown, lacks: readonly string[]): unknown {
  if (Array.isArray(node)) return node.map((each) => without(each, lacks))
  if (typeof node !== 'object' || node === null) return node
  const known = Object.entries(node).filter(([name]) => !lacks.includes(name))
  return Object.fromEntries(known.map(([name, value]) => [name, without(value, lacks)]))
}

const administratorsMay = {
  name: 'administrators',
  group: ['administrators'],
  rule: [{ name: 'everything', 'module-name': '*', 'access-operations': '*', action: 'permit' }],
}

/** @param secrets  to be edited, its tree needs them; to be read, it holds none but what the unit shows */
export function encode(settings: DeviceSettings, sheet: StandInSheet, secrets: 'with' | 'as-shown'): Node {
  // Settings are replaced, never changed: what was encoded once need not be again.
  const of = encoded.get(settings) ?? new Map<string, Node>()
  const key = `${sheet.model} ${secrets}`
  const tree = of.get(key) ?? (without(whole(settings, sheet, secrets), sheet.lacks) as Node)
  encoded.set(settings, of.set(key, tree))
  return tree
}
const encoded = new WeakMap<DeviceSettings, Map<string, Node>>()

function whole(settings: DeviceSettings, sheet: StandInSheet, secrets: 'with' | 'as-shown'): Node {
  return {
    'ietf-system:system': present({
      hostname: settings.name,
      location: settings.location === '' ? null : settings.location,
      clock: settings.zoneName === null ? null : { 'timezone-name': settings.zoneName },
      ntp: { enabled: true, server: settings.timeServers.map((host) => ({ name: host, udp: { address: host } })) },
      'dns-resolver': {
        server: settings.nameServers.map((host) => ({ name: host, 'udp-and-tcp': { address: host } })),
      },
      authentication: { user: settings.users.map((name) => ({ name })) },
    }),
    'ietf-netconf-acm:nacm': {
      groups: { group: [{ name: 'administrators', 'user-name': settings.administrators }] },
      'rule-list': settings.administratorsMay ? [administratorsMay] : [],
    },
    'ietf-interfaces:interfaces': {
      interface: [
        present({
          name: sheet.managementInterface,
          type: 'iana-if-type:ethernetCsmacd',
          'ietf-ip:ipv4': {
            address:
              settings.wired.address === null
                ? []
                : [{ ip: settings.wired.address, 'prefix-length': settings.wired.prefix }],
            'air-muster-wireless:method': settings.wired.method,
          },
          'air-muster-wireless:management-vlan': settings.wired.vlan,
        }),
      ],
    },
    ...(settings.gateway === null ? {} : { 'ietf-routing:routing': routing(settings.gateway) }),
    'air-muster-wireless:wireless': present({
      country: settings.country,
      environment: settings.environment,
      network: settings.networks.map((network) => encodeNetwork(network, sheet, secrets)),
      radio: settings.radios.map(encodeRadio),
    }),
    ...(sheet.mostPoints === null
      ? {}
      : {
          'air-muster-controller:access-points': present({
            login: settings.pushed && {
              user: settings.pushed.user,
              ...(secrets === 'with' ? { password: settings.pushed.password } : {}),
            },
            'access-point': settings.points.map(encodePoint),
          }),
        }),
    'air-muster-wireless:services': present({
      'https-only': settings.httpsOnly,
      ssh: settings.ssh,
      telnet: settings.telnet,
      lights: settings.lights,
      'time-zone-rule': settings.zoneRule,
      syslog: settings.syslog,
      mail: settings.mail,
      restart: settings.restart,
      snmp: settings.snmp && {
        user: settings.snmp.user,
        ...(secrets === 'with'
          ? { 'authentication-key': settings.snmp.authentication, 'privacy-key': settings.snmp.privacy }
          : {}),
      },
    }),
  }
}

function encodePoint(point: ManagedPoint): Node {
  return present({
    mac: point.mac,
    name: point.name === '' ? null : point.name,
    location: point.location === '' ? null : point.location,
    network: point.networks,
    method: point.wired.method,
    address: point.wired.address,
    'prefix-length': point.wired.prefix,
    gateway: point.gateway,
    controller: point.controllers,
    radio: point.radios.map(encodeRadio),
  })
}

/** What a controller knows of an access point: how far it has come, and what its radios do. */
function encodeJoined(point: ManagedPoint, { joins, identity }: Device): Node {
  const { standing, reason, unit } = joins.of(point.mac, identity.mac)
  return present({
    ...encodePoint(point),
    join: standing,
    reason,
    'current-address': standing === 'absent' ? null : unit?.address,
    radio: standing === 'run' && unit ? unit.air().map(encodeRadioNow) : point.radios.map(encodeRadio),
  })
}

function routing(gateway: string): Node {
  const route = { 'destination-prefix': '0.0.0.0/0', 'next-hop': { 'next-hop-address': gateway } }
  return {
    'control-plane-protocols': {
      'control-plane-protocol': [
        {
          type: 'ietf-routing:static',
          name: 'management',
          'static-routes': { 'ietf-ipv4-unicast-routing:ipv4': { route: [route] } },
        },
      ],
    },
  }
}

function encodeNetwork(network: DeviceNetwork, sheet: StandInSheet, secrets: 'with' | 'as-shown'): Node {
  const { name, hours, clients, mode, meantOpen, cipher, frames, passphrase, radius, ...plain } = network
  const shows = secrets === 'with' || sheet.showsPassphrases
  return present({
    ...Object.fromEntries(Object.entries(plain).map(([field, value]) => [leafOf(field), value])),
    ssid: octets(name),
    hours: hours && { day: hours.days, from: hours.from, to: hours.to },
    'client-list': clients && { rule: clients.rule, mac: clients.macs },
    security: present({
      mode,
      'open-confirmed': mode === 'open' && meantOpen ? true : null,
      cipher: mode === 'open' ? null : cipher,
      pmf: frames,
      passphrase: shows ? passphrase : null,
      radius:
        radius &&
        present({
          server: radius.servers.map(({ host, port }) => ({ address: host, port })),
          accounting: radius.accounting.map(({ host, port }) => ({ address: host, port })),
          secret: secrets === 'with' ? radius.secret : null,
        }),
    }),
  })
}

function encodeRadio(radio: DeviceRadio | ManagedPoint['radios'][number]): Node {
  return present({
    band: radio.band,
    enabled: radio.on,
    mode: radio.generation,
    channel: radio.channel,
    width: radio.width,
    secondary: radio.secondary ?? null,
    power: radio.power === undefined ? null : decimal(radio.power),
    'low-rates': radio.lowRates,
    'beacon-interval': radio.beacon,
  })
}

/**
 * The operational datastore (RFC 8342): what is in effect, with the state that the modules ask for.
 *
 * @param only  the one top-level container that is asked for; undefined for all of it
 */
export function encodeOperational(device: Device, only?: string): Node {
  const changes = (): Node => {
    const { standing, saved } = device.changes
    return { 'air-muster-wireless:changes': { standing, unsaved: !saved } }
  }
  // Asked again and again while it applies.
  return only === 'air-muster-wireless:changes' ? changes() : { ...encodeState(device), ...changes() }
}

function encodeState(device: Device): Node {
  const { sheet, effective, wired } = device
  const { address, prefix, gateway, dns } = wired
  // What DHCP gave stands in the state alone.
  const now =
    effective.wired.method === 'static'
      ? effective
      : { ...effective, wired: { ...effective.wired, address, prefix }, gateway, nameServers: [...dns] }
  const tree = encode(now, sheet, 'as-shown')
  const [ethernet = {}] = (tree['ietf-interfaces:interfaces'] as { interface: Node[] }).interface
  const radios = device.air().map((each) => without(encodeRadioNow(each), sheet.lacks))
  return {
    ...tree,
    'ietf-interfaces:interfaces': {
      interface: [
        {
          ...ethernet,
          'oper-status': 'up',
          'phys-address': device.identity.mac,
          statistics: { 'discontinuity-time': '2026-01-01T00:00:00Z' },
        },
      ],
    },
    'ietf-system:system-state': {
      platform: { 'os-name': `${sheet.maker} ${sheet.model}`, 'os-version': device.firmware },
      clock: { 'current-datetime': device.time.toISOString() },
    },
    'air-muster-wireless:wireless': { ...(tree['air-muster-wireless:wireless'] as Node), radio: radios },
    ...(sheet.mostPoints === null
      ? {}
      : {
          'air-muster-controller:access-points': {
            ...(tree['air-muster-controller:access-points'] as Node),
            most: sheet.mostPoints,
            'access-point': effective.points.map((point) => encodeJoined(point, device)),
          },
        }),
  }
}

function encodeRadioNow({ radio, condition, listensFor, networks, left }: RadioNow): Node {
  return {
    ...encodeRadio(radio),
    condition,
    ...(listensFor > 0 ? { 'listens-for': listensFor } : {}),
    ...(left === undefined ? {} : { 'left-for-radar': left }),
    'on-air': networks.map(({ id, name, mode, bssid }) => ({ network: id, ssid: octets(name), security: mode, bssid })),
  }
}
