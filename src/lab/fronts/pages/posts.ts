/** What is done with a saved page: its fields, checked, become what the unit is told to be. */
import { parseIpv4 } from '../../../core/address/ipv4'
import type { Device } from '../../device/device'
import { type DeviceNetwork, type DeviceRadio, plainNetwork } from '../../device/device-settings'
import { Refusal } from '../../device/refusal'
import { change, prefixOf } from '../change'
import { dots, guards } from './views'

type Form = URLSearchParams
export type Post = (device: Device, form: Form) => void

/** By the page that is saved. */
export const posts: Readonly<Record<string, Post>> = {
  '/box': (device, form) =>
    change(device, {
      name: word(form, 'title'),
      location: form.get('spot') ?? '',
      country: word(form, 'land').toUpperCase(),
      lights: form.has('glow'),
    }),
  '/time': (device, form) => change(device, { zoneName: word(form, 'region'), timeServers: list(form, 'sources') }),
  '/cable': (device, form) => {
    const given = form.get('way') === 'given'
    const vlan = numberOrNothing(form, 'tag')
    change(device, {
      wired: given
        ? { method: 'dhcp', address: null, prefix: null, vlan }
        : { method: 'static', address: address(form, 'number'), prefix: prefixOf(word(form, 'mask')), vlan },
      gateway: form.get('way-out') ? address(form, 'way-out') : null,
      nameServers: list(form, 'resolvers'),
    })
  },
  '/doors': (device, form) =>
    change(device, { httpsOnly: form.has('only-secure'), syslog: form.get('log-to')?.trim() || null }),
}

export function changePassword(device: Device, user: string, form: Form): void {
  if (!device.accepts(user, form.get('before') ?? '')) throw new Refusal('invalid-value', 'That is not your password.')
  if (form.get('next') !== form.get('again')) throw new Refusal('invalid-value', 'The two are not the same.')
  device.configure(device.configured, new Map([[user, form.get('next') ?? '']]))
}

export function saveRadio(device: Device, radio: DeviceRadio, form: Form): void {
  const channel = /^(\d{1,3}) \(/.exec(form.get('channel') ?? '')?.[1]
  if (channel === undefined) throw new Refusal('invalid-value', 'Choose a channel.')
  const next: DeviceRadio = {
    ...radio,
    on: form.has('lit'),
    channel: Number(channel),
    width: Number.parseInt(form.get('wide') ?? '', 10),
    power: Number(form.get('loud')),
  }
  const { radios } = device.configured
  change(device, { radios: radios.map((each) => (each.band === radio.band ? next : each)) })
}

/** A place without a name is free. */
export function saveNetwork(device: Device, band: DeviceRadio['band'], slot: number, form: Form): void {
  const id = `${band}-${slot}`
  const { networks } = device.configured
  const before = networks.find((each) => each.id === id)
  const others = networks.filter((each) => each.id !== id)
  const name = form.get('called') ?? ''
  if (name === '') return change(device, { networks: others })
  const mode = guards[form.get('guard') ?? '']
  if (!mode) throw new Refusal('invalid-value', 'Choose what guards it.')
  const key = form.get('key') ?? ''
  const passphrase = key === dots ? (before?.passphrase ?? null) : key
  if (mode !== 'open' && !/^([\x20-\x7e]{8,63}|[0-9a-fA-F]{64})$/.test(passphrase ?? ''))
    throw new Refusal('invalid-value', 'A key has 8 to 63 signs.')
  const next: DeviceNetwork = {
    ...plainNetwork,
    ...before,
    id,
    name,
    bands: [band],
    on: form.has('shown'),
    hidden: form.has('quiet'),
    mode,
    passphrase: mode === 'open' ? null : passphrase,
    vlan: numberOrNothing(form, 'lan'),
    isolated: form.has('apart'),
    multicastToUnicast: form.has('singly'),
    // Nobody opens a network on these pages without choosing to.
    meantOpen: mode === 'open',
    frames: mode === 'wpa3-personal' ? 'required' : mode === 'wpa3-wpa2-mixed' ? 'optional' : 'off',
  }
  change(device, { networks: [...others, next] })
}

function word(form: Form, name: string): string {
  const text = form.get(name)?.trim() ?? ''
  if (text === '') throw new Refusal('data-missing', `Fill in ${name}.`)
  return text
}

function address(form: Form, name: string): string {
  const text = word(form, name)
  if (parseIpv4(text) === undefined) throw new Refusal('invalid-value', `${text} is no address.`)
  return text
}

const list = (form: Form, name: string): string[] =>
  (form.get(name) ?? '').split(',').flatMap((each) => each.trim() || [])

function numberOrNothing(form: Form, name: string): number | null {
  const text = form.get(name)?.trim() ?? ''
  if (text === '') return null
  if (!/^\d{1,4}$/.test(text)) throw new Refusal('invalid-value', `${text} is no number.`)
  return Number(text)
}
