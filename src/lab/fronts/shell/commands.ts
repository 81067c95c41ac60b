/**
 * The commands of a unit with a command line. Each takes effect at once, as careless firmware does it: a network that
 * is put up before its guard is on air open.
 */
import type { Device } from '../../device/device'
import {
  type DeviceNetwork,
  type DeviceRadio,
  type DeviceSettings,
  deviceSettingsSchema,
  plainNetwork,
} from '../../device/device-settings'
import { Refusal } from '../../device/refusal'
import { either, list, misunderstood, need, numberOr, whole } from './arguments'
import { changePoint, tellPoint, tellPoints } from './points'
import { radioNames, tellers } from './tell'

/** What is to happen with the line, beside what is printed. */
export type Outcome =
  | { readonly kind: 'printed'; readonly lines: readonly string[] }
  | { readonly kind: 'asks'; readonly question: string; readonly onYes: () => void }

type Words = readonly string[]
type Command = (device: Device, words: Words) => void

const done: Outcome = { kind: 'printed', lines: [] }

/** @throws Refusal */
export function carryOut(device: Device, words: Words): Outcome {
  const [first = '', ...rest] = words
  const isController = device.sheet.mostPoints !== null
  if (isController && first === 'tell' && rest[0] === 'points') return { kind: 'printed', lines: tellPoints(device) }
  if (isController && first === 'tell' && rest[0] === 'point')
    return { kind: 'printed', lines: tellPoint(device, need(rest[1])) }
  if (first === 'tell') {
    const teller = Object.hasOwn(tellers, rest.join(' ')) ? tellers[rest.join(' ')] : undefined
    if (!teller) throw new Refusal('unknown-element', 'not understood')
    return { kind: 'printed', lines: teller(device) }
  }
  if (first === 'restart' && rest[0] === 'now')
    return { kind: 'asks', question: 'what is not kept is lost, sure? [yes/no] ', onYes: () => device.restart() }
  if (isController && first === 'point') {
    changePoint(device, rest)
    return done
  }
  const command = Object.hasOwn(commands, first) ? commands[first] : undefined
  if (!command) throw new Refusal('unknown-element', 'not understood')
  command(device, rest)
  return done
}

const commands: Readonly<Record<string, Command>> = {
  regdom: (device, [country]) => change(device, { country: need(country) }),
  call: (device, [name]) => change(device, { name: need(name) }),
  stands: (device, [location = '']) => change(device, { location }),
  clock: (device, [what, value = '']) => {
    if (what === 'zone') change(device, { zoneName: value })
    else if (what === 'source') change(device, { timeServers: list(value) })
    else misunderstood()
  },
  net: (device, words) => net(device, words),
  air: (device, words) => air(device, words),
  web: (device, [how]) => change(device, { httpsOnly: either(how, 'only', 'also-plain') }),
  'old-shell': (device, [how]) => change(device, { telnet: either(how, 'on', 'off') }),
  reports: (device, [to, host]) => {
    if (to !== 'to') misunderstood()
    change(device, { syslog: host === 'nobody' ? null : need(host) })
  },
  watcher: (device, [user, authentication, privacy]) =>
    change(device, {
      snmp:
        user === 'nobody' ? null : { user: need(user), authentication: need(authentication), privacy: need(privacy) },
    }),
  own: (device, words) => own(device, words),
  login: (device, [user, secret, password]) => {
    if (secret !== 'secret') misunderstood()
    if (!device.configured.users.includes(need(user))) throw new Refusal('invalid-value', 'nobody is called that')
    device.configure(device.configured, new Map([[need(user), need(password)]]))
  },
  keep: (device) => device.save(),
}

function own(device: Device, [what, ...rest]: Words): void {
  const { wired, gateway } = device.configured
  if (what === 'resolvers') return change(device, { nameServers: list(rest[0] ?? '') })
  const after = (word: string): string | undefined => rest[rest.indexOf(word) + 1]
  const vlan = rest.includes('lan') ? numberOr(after('lan'), 'none') : wired.vlan
  if (what === 'asks') return change(device, { wired: { method: 'dhcp', address: null, prefix: null, vlan } })
  if (what !== 'address') misunderstood()
  const [address = '', prefix = ''] = (rest[0] ?? '').split('/')
  const via = rest.includes('via') ? after('via') : gateway
  change(device, {
    wired: { method: 'static', address, prefix: whole(prefix), vlan },
    gateway: via === 'nothing' ? null : (via ?? null),
  })
}

function net(device: Device, [id, what, ...rest]: Words): void {
  const { networks, radios } = device.configured
  const known = networks.find((each) => each.id === need(id))
  if (what === 'gone') return change(device, { networks: networks.filter((each) => each !== known) })
  const before: DeviceNetwork = known ?? {
    ...plainNetwork,
    id: need(id),
    name: '',
    bands: radios.map(({ band }) => band),
    mode: 'open',
    passphrase: null,
  }
  const next = { ...before, ...networkChange(what ?? '', rest) }
  change(device, { networks: known ? networks.map((each) => (each === known ? next : each)) : [...networks, next] })
}

function networkChange(what: string, [first, second]: Words): Partial<DeviceNetwork> {
  if (what === 'up' || what === 'down') return { on: what === 'up' }
  if (what === 'name') return { name: need(first), hidden: either(second, 'hidden', 'shown') }
  if (what === 'guard' && first === 'shared-key') {
    if (!/^([\x20-\x7e]{8,63}|[0-9a-fA-F]{64})$/.test(need(second)))
      throw new Refusal('invalid-value', 'a key has 8 to 63 signs, or 64 hexadecimal digits')
    return { mode: 'wpa2-personal', passphrase: need(second), meantOpen: false }
  }
  if (what === 'guard' && first === 'none') return { mode: 'open', passphrase: null, meantOpen: second === 'meant' }
  if (what === 'frames' && first === 'may') return { frames: 'optional' }
  if (what === 'frames') return { frames: either(first, 'must', 'off') ? 'required' : 'off' }
  if (what === 'lan') return { vlan: numberOr(first, 'none') }
  if (what === 'on') return { bands: list(need(first)) as DeviceNetwork['bands'] }
  if (what === 'clients') return { isolated: either(first, 'apart', 'together') }
  if (what === 'groups') return { multicastToUnicast: either(first, 'each', 'once') }
  if (what === 'most') return { clientLimit: numberOr(first, 'any') }
  return misunderstood()
}

function air(device: Device, [name, what, ...rest]: Words): void {
  const { radios } = device.configured
  const radio = radios.find(({ band }) => radioNames.get(band) === name)
  if (!radio) throw new Refusal('invalid-value', `there is no ${name}`)
  const next = { ...radio, ...radioChange(what ?? '', rest) }
  change(device, { radios: radios.map((each) => (each === radio ? next : each)) })
}

function radioChange(what: string, [first, wide, second]: Words): Partial<DeviceRadio> {
  if (what === 'up' || what === 'down') return { on: what === 'up' }
  if (what === 'at' && wide === 'wide') return { channel: whole(first), width: whole(second) }
  if (what === 'strength') return { power: whole(first) }
  if (what === 'rates') return { lowRates: either(first, 'all', 'fast') ? 'kept' : 'dropped' }
  if (what === 'beacon') return { beacon: whole(first) }
  return misunderstood()
}

function change(device: Device, part: Partial<DeviceSettings>): void {
  const next = deviceSettingsSchema.safeParse({ ...device.configured, ...part })
  if (!next.success) throw new Refusal('invalid-value', next.error.issues[0]?.message ?? 'not valid')
  device.configure(next.data)
}
