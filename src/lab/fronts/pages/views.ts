/** The pages of a small unit that speaks nothing else. Each has one form; what is not saved on it is lost. */
import { formatIpv4 } from '../../../core/address/ipv4'
import { type ChannelBlock, centreMhz } from '../../../core/regulatory/blocks'
import type { Device } from '../../device/device'
import type { DeviceNetwork, DeviceRadio } from '../../device/device-settings'
import { buttons, escaped, input, select, tick } from './html'

export const dots = '••••••••'
/** Names of its radios in addresses, by band. */
export const radioNames: ReadonlyMap<string, DeviceRadio['band']> = new Map([
  ['low', '2.4'],
  ['high', '5'],
])
const nameOf = (band: string): string => [...radioNames].find(([, each]) => each === band)?.[0] ?? band

/** How it words the ways of securing a network. */
export const guards: Readonly<Record<string, DeviceNetwork['mode']>> = {
  nobody: 'open',
  'personal 2': 'wpa2-personal',
  'personal 3': 'wpa3-personal',
  'personal 2 or 3': 'wpa3-wpa2-mixed',
}
const guardOf = (mode: string): string => Object.entries(guards).find(([, each]) => each === mode)?.[0] ?? mode

export function maskText(prefix: number | null): string {
  return prefix === null ? '' : formatIpv4(prefix === 0 ? 0 : (-1 << (32 - prefix)) >>> 0)
}

/** What the page is about, within its form. */
export type View = (device: Device) => string

export const views: Readonly<Record<string, View>> = {
  '/box': ({ configured: set }) =>
    input({ name: 'title', label: 'Name of this unit', value: set.name, most: 32 }) +
    input({ name: 'spot', label: 'Where it hangs', value: set.location, most: 64 }) +
    input({ name: 'land', label: 'Country code', value: set.country ?? '', most: 2 }) +
    tick('glow', 'Show its light', set.lights),
  '/time': ({ configured: set }) =>
    input({ name: 'region', label: 'Time zone', value: set.zoneName ?? '' }) +
    input({ name: 'sources', label: 'Time servers, with a comma between', value: set.timeServers.join(', ') }),
  '/cable': ({ configured: set }) =>
    buttons(
      'way',
      [
        ['own', 'Its own address'],
        ['given', 'An address that it is given'],
      ],
      set.wired.method === 'static' ? 'own' : 'given',
    ) +
    input({ name: 'number', label: 'Address', value: set.wired.address ?? '' }) +
    input({ name: 'mask', label: 'Netmask', value: maskText(set.wired.prefix) }) +
    input({ name: 'way-out', label: 'Gateway', value: set.gateway ?? '' }) +
    input({ name: 'resolvers', label: 'Name servers', value: set.nameServers.join(', ') }) +
    input({
      name: 'tag',
      label: 'VLAN of its own, or nothing',
      value: set.wired.vlan === null ? '' : `${set.wired.vlan}`,
    }),
  '/access': () =>
    input({ name: 'before', label: 'Password until now', value: '', type: 'password' }) +
    input({ name: 'next', label: 'New password', value: '', type: 'password', most: 63 }) +
    input({ name: 'again', label: 'New password again', value: '', type: 'password', most: 63 }),
  '/doors': ({ configured: set }) =>
    tick('only-secure', 'Pages by HTTPS only', set.httpsOnly) +
    input({ name: 'log-to', label: 'Log lines go to', value: set.syslog ?? '' }),
}

/** @param channels  undefined while it still collects them: the list comes later */
export function radioView(radio: DeviceRadio, channels: readonly ChannelBlock[] | undefined, device: Device): string {
  const { widths, powers } = device.sheet
  const channel = (each: number): string => `${each} (${centreMhz(radio.band, each)} MHz)`
  const list =
    channels === undefined
      ? '<p><label>Channel <select name="channel" class="late"><option value="" disabled>collecting ' +
        'channels</option></select></label></p>'
      : select(
          'channel',
          'Channel',
          [...new Set([radio.channel, ...channels.map((each) => each.channel)])].map((each) => [
            channel(each),
            channel(each),
          ]),
          channel(radio.channel),
        )
  const script = `<script>
    const list = document.querySelector('select.late')
    if (list) fetch('/air/${nameOf(radio.band)}/channels').then((reply) => reply.json()).then(({ now, all }) => {
      list.replaceChildren(...all.map((text) => new Option(text, text, text === now, text === now)))
      list.classList.remove('late')
    })
  </script>`
  return (
    tick('lit', 'This radio transmits', radio.on) +
    list +
    select(
      'wide',
      'Width',
      (widths[radio.band] ?? []).map((each) => [`${each} MHz`, `${each} MHz`]),
      `${radio.width} MHz`,
    ) +
    select(
      'loud',
      'Power',
      (powers[radio.band] ?? []).map((each) => [`${each}`, `${each} dBm`]),
      `${radio.power}`,
    ) +
    script
  )
}

export function channelList(radio: DeviceRadio, channels: readonly ChannelBlock[]): { now: string; all: string[] } {
  const text = (each: number): string => `${each} (${centreMhz(radio.band, each)} MHz)`
  const all = [...new Set([radio.channel, ...channels.map((each) => each.channel)])]
  return { now: text(radio.channel), all: all.map(text) }
}

export function networkView(net: DeviceNetwork | undefined): string {
  return (
    tick('shown', 'This network is on air', net?.on ?? false) +
    input({ name: 'called', label: 'Name of the network', value: net?.name ?? '' }) +
    tick('quiet', 'Do not tell its name', net?.hidden ?? false) +
    select(
      'guard',
      'Guarded by',
      Object.keys(guards).map((each) => [each, each]),
      guardOf(net?.mode ?? 'wpa2-personal'),
    ) +
    input({ name: 'key', label: 'Key', value: net?.passphrase ? dots : '', type: 'password', most: 64 }) +
    input({ name: 'lan', label: 'VLAN, or nothing', value: net?.vlan == null ? '' : `${net.vlan}` }) +
    tick('apart', 'Keep its clients apart', net?.isolated ?? false) +
    tick('singly', 'Send multicast to each client singly', net?.multicastToUnicast ?? false)
  )
}

export function stateView(device: Device, mark: string): string {
  const { identity, wired, changes } = device
  const rows: [string, string][] = [
    ['mac', identity.mac.toUpperCase().replaceAll(':', '-')],
    ['serial', identity.serial],
    ['firmware', device.firmware],
    ['clock', String(Math.floor(device.time.getTime() / 1000))],
    ['address', wired.address ?? ''],
    ['netmask', maskText(wired.prefix)],
    ['settings', mark],
  ]
  const table = rows.map(([name, value]) => `<tr><th>${name}</th><td id="${name}">${escaped(value)}</td></tr>`)
  const standing =
    changes.standing === 'applying'
      ? '<p class="countdown">It puts your changes into effect. Leave it powered.</p>'
      : changes.standing === 'waiting'
        ? '<p class="kept-back">Saved pages wait to be put into effect.</p>'
        : ''
  return `<table>${table.join('')}</table>${standing}${device.air().map(airView).join('')}`
}

function airView({ radio, condition, listensFor, networks, left }: ReturnType<Device['air']>[number]): string {
  const nets = networks.map(
    ({ name, mode, bssid }) =>
      `<li><b>${escaped(name)}</b>, guarded by <i>${escaped(guardOf(mode))}</i>, as ` +
      `<code>${bssid.toUpperCase()}</code></li>`,
  )
  const does =
    condition === 'on-air'
      ? '<p class="sends">It sends.</p>'
      : condition === 'listening'
        ? `<p class="listens">It listens for <span>${listensFor}</span> s more.</p>`
        : '<p>It is silent.</p>'
  const away = left === undefined ? '' : `<p class="away">It has left <span>${left}</span>: radar.</p>`
  return (
    `<section class="air" data-radio="${nameOf(radio.band)}">${does}<p>Channel <span ` +
    `class="at">${radio.channel}</span>, <span class="wide">${radio.width}</span> MHz ` +
    `wide</p>${away}<ul>${nets.join('')}</ul></section>`
  )
}
