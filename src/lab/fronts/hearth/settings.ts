/** What a Hearth's page is told of its settings, and what becomes of what is put into it. */
import { z } from 'zod'
import { parseIpv4 } from '../../../core/address/ipv4'
import { centreMhz } from '../../../core/regulatory/blocks'
import type { Device } from '../../device/device'
import { type DeviceNetwork, type DeviceRadio, type DeviceSettings, plainNetwork } from '../../device/device-settings'
import { Refusal } from '../../device/refusal'
import { prefixOf } from '../change'
import { maskText } from '../pages/views'
import type { HearthRadio, HearthView } from './view'

export const lands: Readonly<Record<string, string>> = {
  Australia: 'AU',
  Canada: 'CA',
  Germany: 'DE',
  'New Zealand': 'NZ',
  'United Kingdom': 'GB',
  'United States': 'US',
}
export const zones = [
  'Etc/UTC',
  'Pacific/Auckland',
  'Australia/Sydney',
  'Europe/Berlin',
  'Europe/London',
  'America/New_York',
]

const guards: Readonly<Record<string, DeviceNetwork['mode']>> = {
  'WPA2 (AES)': 'wpa2-personal',
  'WPA2 / WPA3': 'wpa3-wpa2-mixed',
  'WPA3 (SAE)': 'wpa3-personal',
  None: 'open',
}
const guardOf = (mode: string): string => Object.entries(guards).find(([, each]) => each === mode)?.[0] ?? mode
const landOf = (code: string | null): string => Object.entries(lands).find(([, each]) => each === code)?.[0] ?? ''

const channelText = (band: DeviceRadio['band'], channel: number): string =>
  `${channel} - ${(centreMhz(band, channel) / 1000).toFixed(3)} GHz`

/** A radio as a form shows it, with what it may be set to. */
export function radioView(
  device: Device,
  { band, on, channel, width, power }: Pick<DeviceRadio, 'band' | 'on' | 'channel' | 'width' | 'power'>,
): HearthRadio {
  const { sheet } = device
  return {
    ...{ band, on },
    channel: channelText(band, channel),
    channels: [...new Set([channel, ...device.channels(band).map((each) => each.channel)])].map((each) =>
      channelText(band, each),
    ),
    width: `${width} MHz`,
    widths: (sheet.widths[band] ?? []).map((each) => `${each} MHz`),
    power: `${power} dBm`,
    powers: (sheet.powers[band] ?? []).map((each) => `${each} dBm`),
  }
}

export function viewOf(device: Device): Omit<HearthView, 'units'> {
  const { configured: set, sheet, identity, wired } = device
  return {
    box: {
      name: set.name,
      location: set.location,
      lights: set.lights,
      zone: set.zoneName ?? '',
      country: landOf(set.country),
      timeServers: set.timeServers,
    },
    state: [
      ['Model', `${sheet.maker} ${sheet.model}`],
      ['MAC address', identity.mac.toUpperCase()],
      ['Serial number', identity.serial],
      ['Firmware', device.firmware],
      ['Time', String(Math.floor(device.time.getTime() / 1000))],
      ['Address', wired.address ?? ''],
      ['Netmask', maskText(wired.prefix)],
    ],
    standing: device.changes.standing,
    radios: set.radios.map((radio) => radioView(device, radio)),
    air: device.air().map(({ radio, condition, listensFor, networks }) => ({
      band: radio.band,
      words:
        condition === 'on-air'
          ? 'Transmitting'
          : condition === 'listening'
            ? `Listening for radar, ${listensFor} s more`
            : 'Silent',
      channel: channelText(radio.band, radio.channel),
      width: `${radio.width} MHz`,
      nets: networks.map(({ name, mode, bssid }) => ({ name, guard: guardOf(mode), bssid })),
    })),
    nets: set.networks.map(({ id, name, on, bands, hidden, mode, vlan, isolated }) => ({
      ...{ id, name, on, bands, hidden, vlan, isolated },
      guard: guardOf(mode),
    })),
    guards: Object.keys(guards),
  }
}

const tick = z.string().transform((text) => text === 'yes')
const text = z.string().max(200)
const number = z.string().transform((each) => Number.parseInt(each, 10))
const land = text.transform((name, context) => {
  const code = lands[name]
  if (code !== undefined) return code
  context.addIssue({ code: 'custom', message: 'Choose a country.' })
  return z.NEVER
})

const networkPost = z.object({
  id: z.string().nullable(),
  name: z.string().min(1, 'A network has a name.').max(32),
  on: tick,
  hidden: tick,
  guard: text,
  key: text,
  vlan: text,
  isolated: tick,
  low: tick,
  high: tick,
})

function saveNetwork(device: Device, posted: z.infer<typeof networkPost>): Partial<DeviceSettings> {
  const { networks } = device.configured
  const before = networks.find(({ id }) => id === posted.id)
  const mode = guards[posted.guard]
  if (!mode) throw new Refusal('invalid-value', 'Choose how it is protected.')
  // An empty field leaves the key as it is.
  const passphrase = mode === 'open' ? null : posted.key || before?.passphrase || ''
  if (passphrase !== null && !/^([\x20-\x7e]{8,63}|[0-9a-fA-F]{64})$/.test(passphrase))
    throw new Refusal('invalid-value', 'A passphrase has 8 to 63 signs.')
  const id = before?.id ?? `n${Math.max(0, ...networks.map((each) => Number(each.id.slice(1)) || 0)) + 1}`
  const next: DeviceNetwork = {
    ...plainNetwork,
    ...before,
    id,
    name: posted.name,
    on: posted.on,
    bands: [...(posted.low ? (['2.4'] as const) : []), ...(posted.high ? (['5'] as const) : [])],
    hidden: posted.hidden,
    mode,
    passphrase,
    vlan: posted.vlan === '' ? null : Number(posted.vlan),
    isolated: posted.isolated,
    meantOpen: mode === 'open',
    frames: mode === 'wpa3-personal' ? 'required' : mode === 'wpa3-wpa2-mixed' ? 'optional' : 'off',
  }
  return { networks: before ? networks.map((each) => (each === before ? next : each)) : [...networks, next] }
}

export const radioPost = z.object({ band: text, on: tick, channel: number, width: number, power: number })
const boxPost = z.object({ name: text, location: text, country: land, zone: text, timeServers: text, lights: tick })
const beginPost = z.object({
  country: land,
  zone: z.enum(zones, 'Choose a time zone.'),
  user: z.string().min(1, 'Say who looks after it.').max(32),
  word: z.string().min(10, 'A password has 10 to 32 signs.').max(32, 'A password has 10 to 32 signs.'),
  net: text,
})
const wiredPost = z.object({
  way: z.enum(['own', 'given']),
  number: text,
  mask: text,
  router: text,
  resolvers: text,
  tag: text,
})

const words = (list: string): string[] => list.split(/[\s,]+/).filter(Boolean)

/** By the name of what is posted: what the settings become. @throws Refusal, ZodError */
export const posts: Readonly<Record<string, (device: Device, body: unknown) => Partial<DeviceSettings>>> = {
  network: (device, body) => saveNetwork(device, networkPost.parse(body)),
  remove: ({ configured }, body) => {
    const { id } = z.object({ id: z.string() }).parse(body)
    return { networks: configured.networks.filter((each) => each.id !== id) }
  },
  radios: ({ configured }, body) => {
    const posted = z.object({ radios: z.array(radioPost) }).parse(body).radios
    return {
      radios: configured.radios.map((each) => ({
        ...each,
        ...posted.find(({ band }) => band === each.band),
        band: each.band,
      })),
    }
  },
  box: (_device, body) => {
    const { zone: zoneName, timeServers, ...rest } = boxPost.parse(body)
    return { ...rest, zoneName, timeServers: words(timeServers) }
  },
  wired: (_device, body) => {
    const { way, number: address, mask, router, resolvers, tag } = wiredPost.parse(body)
    const vlan = tag === '' ? null : Number(tag)
    if (way === 'own' && parseIpv4(address) === undefined) throw new Refusal('invalid-value', 'That is no address.')
    return {
      wired:
        way === 'given'
          ? { method: 'dhcp', address: null, prefix: null, vlan }
          : { method: 'static', address, prefix: prefixOf(mask), vlan },
      gateway: router || null,
      nameServers: words(resolvers),
    }
  },
}

/** Nobody is its admin yet: whoever comes first makes one, and says where it is. @throws Refusal, ZodError */
export function begin(device: Device, body: unknown): void {
  const { country, zone, user, word, net } = beginPost.parse(body)
  const { configured } = device
  const networks = configured.networks.map((each) => ({ ...each, name: net || each.name }))
  device.configure(
    { ...configured, country, zoneName: zone, users: [user], administrators: [user], networks },
    new Map([[user, word]]),
  )
}
