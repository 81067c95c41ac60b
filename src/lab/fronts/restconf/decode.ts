/**
 * A tree as settings of a stand-in, with every rule of the modules (models/): what the module refuses is refused here.
 */
import { z } from 'zod'
import { type DeviceNetwork, type DeviceRadio, type DeviceSettings, plainNetwork } from '../../device/device-settings'
import { Refusal } from '../../device/refusal'
import type { StandInSheet } from '../../device/sheet'
import { isNode, type Node } from './tree'

const band = z.enum(['2.4', '5', '6'])
const day = z.enum(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'])
const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/)
const vlan = z.int().min(1).max(4094)
const signal = z.int().min(-95).max(-40)
const rate = z.int().min(1).max(4_294_967_295)
const host = z.union([z.ipv4(), z.ipv6(), z.string().regex(/^[A-Za-z0-9]([A-Za-z0-9.-]{0,251}[A-Za-z0-9])?$/)])
const port = z.int().min(0).max(65535)
const key = z.string().min(8).max(64)
const server = z.strictObject({ address: z.union([z.ipv4(), z.ipv6()]), port })
const mac = z.string().regex(/^[0-9a-fA-F]{2}(:[0-9a-fA-F]{2}){5}$/)

const security = z.strictObject({
  mode: z.enum(['open', 'wpa2-personal', 'wpa2-enterprise', 'wpa3-personal', 'wpa3-wpa2-mixed']).optional(),
  'open-confirmed': z.boolean().optional(),
  cipher: z.enum(['ccmp', 'gcmp-256']).optional(),
  pmf: z.enum(['off', 'optional', 'required']).optional(),
  passphrase: z
    .string()
    .regex(/^([ -~]{8,63}|[0-9a-fA-F]{64})$/, '8 to 63 printable ASCII characters or 64 hexadecimal digits')
    .optional(),
  radius: z
    .strictObject({
      server: z.array(server).default([]),
      accounting: z.array(server).default([]),
      secret: z.string().min(1).max(128).optional(),
    })
    .optional(),
})

const network = z.strictObject({
  id: z.string().min(1).max(32),
  ssid: z
    .base64()
    .transform((text) => Buffer.from(text, 'base64'))
    .refine(({ length }) => length >= 1 && length <= 32, 'an SSID is 1 to 32 octets'),
  enabled: z.boolean().default(false),
  hidden: z.boolean().default(false),
  vlan: vlan.optional(),
  isolation: z.boolean().default(false),
  band: z.array(band).min(1),
  'rate-per-client': rate.optional(),
  'rate-shared': rate.optional(),
  'most-clients': z.int().min(1).max(65535).optional(),
  hours: z.strictObject({ day: z.array(day).min(1), from: timeOfDay, to: timeOfDay }).optional(),
  steering: z.enum(['client-decides', 'lean-to-5', 'insist-on-5', 'spread']).default('client-decides'),
  'steering-above': signal.optional(),
  'least-signal': signal.optional(),
  'fast-roaming': z.boolean().default(false),
  'mobility-domain': z.int().min(1).max(65535).optional(),
  'client-list': z.strictObject({ rule: z.enum(['allow', 'deny']), mac: z.array(mac).default([]) }).optional(),
  security: security.prefault({}),
})

const radio = z.strictObject({
  band,
  enabled: z.boolean().default(false),
  mode: z.enum(['n', 'ac', 'ax', 'be']).optional(),
  channel: z.int().min(1).max(233),
  width: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160), z.literal(320)]),
  power: z
    .string()
    .regex(/^-?\d{1,2}(\.\d)?$/, 'a power is a decimal with one fraction digit')
    .transform(Number)
    .refine((dbm) => dbm >= -10 && dbm <= 36, 'a power is -10.0 to 36.0 dBm'),
  'low-rates': z.enum(['kept', 'dropped']).default('kept'),
  'beacon-interval': z.int().min(50).max(1000).default(100),
})

const timeServer = z.strictObject({ name: z.string(), udp: z.strictObject({ address: host }) })
const nameServer = z.strictObject({ name: z.string(), 'udp-and-tcp': z.strictObject({ address: host }) })

const treeSchema = z.strictObject({
  'ietf-system:system': z.strictObject({
    hostname: z.string().min(1).max(253).default(''),
    location: z.string().default(''),
    clock: z.strictObject({ 'timezone-name': z.string().min(1) }).optional(),
    ntp: z.strictObject({ enabled: z.boolean().default(true), server: z.array(timeServer).default([]) }).prefault({}),
    'dns-resolver': z.strictObject({ server: z.array(nameServer).default([]) }).prefault({}),
    authentication: z.strictObject({
      user: z.array(z.strictObject({ name: z.string().min(1), password: z.string().optional() })).min(1),
    }),
  }),
  'ietf-interfaces:interfaces': z.strictObject({
    interface: z
      .array(
        z.strictObject({
          name: z.string(),
          type: z.string(),
          'ietf-ip:ipv4': z.strictObject({
            address: z
              .array(z.strictObject({ ip: z.ipv4(), 'prefix-length': z.int().min(0).max(32) }))
              .max(1)
              .default([]),
            'air-muster-wireless:method': z.enum(['static', 'dhcp']).default('static'),
          }),
          'air-muster-wireless:management-vlan': vlan.optional(),
        }),
      )
      .length(1),
  }),
  'ietf-routing:routing': z
    .strictObject({
      'control-plane-protocols': z.strictObject({
        'control-plane-protocol': z
          .array(
            z.strictObject({
              type: z.literal('ietf-routing:static'),
              name: z.string(),
              'static-routes': z.strictObject({
                'ietf-ipv4-unicast-routing:ipv4': z.strictObject({
                  route: z
                    .array(
                      z.strictObject({
                        'destination-prefix': z.literal('0.0.0.0/0'),
                        'next-hop': z.strictObject({ 'next-hop-address': z.ipv4() }),
                      }),
                    )
                    .max(1)
                    .default([]),
                }),
              }),
            }),
          )
          .max(1)
          .default([]),
      }),
    })
    .optional(),
  'air-muster-wireless:wireless': z.strictObject({
    country: z
      .string()
      .regex(/^([A-Z]{2}|00)$/)
      .optional(),
    environment: z.enum(['indoor', 'outdoor']).optional(),
    network: z.array(network).default([]),
    radio: z.array(radio).default([]),
  }),
  'air-muster-wireless:services': z
    .strictObject({
      'https-only': z.boolean().default(false),
      ssh: z.boolean().default(false),
      telnet: z.boolean().default(false),
      lights: z.boolean().default(true),
      'time-zone-rule': z.string().min(3).max(80).optional(),
      syslog: host.optional(),
      mail: z.strictObject({ server: host, to: z.string().min(3).max(254) }).optional(),
      restart: z.strictObject({ day, at: timeOfDay }).optional(),
      snmp: z
        .strictObject({ user: z.string().min(1).max(32), 'authentication-key': key, 'privacy-key': key })
        .optional(),
    })
    .prefault({}),
})
type Tree = z.infer<typeof treeSchema>
type TreeNetwork = Tree['air-muster-wireless:wireless']['network'][number]

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

const takesPassphrase = ['wpa2-personal', 'wpa3-personal', 'wpa3-wpa2-mixed']

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
  if (mode === 'wpa2-enterprise' && !(is.radius?.server.length && is.radius.secret))
    refuse('WPA2-Enterprise takes a RADIUS server and its secret')
  if (mode !== 'wpa2-enterprise' && is.radius) refuse('it asks no RADIUS server')
  if (mode === 'open' && is['open-confirmed'] !== true) refuse('an open network is said twice')
  if (mode !== 'open' && is['open-confirmed'] !== undefined) refuse('it is not open')
  if (mode === 'open' && is.cipher !== undefined) refuse('an open network has no cipher')
  if (mode === 'wpa3-personal' && is.pmf !== undefined && is.pmf !== 'required')
    refuse('WPA3-Personal requires protected management frames')
}

function checkRadio(each: z.infer<typeof radio>): void {
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

function radioOf(each: z.infer<typeof radio>): DeviceRadio {
  return {
    band: each.band,
    on: each.enabled,
    generation: each.mode ?? null,
    channel: each.channel,
    width: each.width,
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
