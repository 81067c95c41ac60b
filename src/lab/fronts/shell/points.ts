/** Access points of a controller with a command line: how they are told of, and what is said of one of them. */
import type { Device } from '../../device/device'
import type { DeviceRadio, ManagedPoint } from '../../device/device-settings'
import type { Join } from '../../device/join'
import { Refusal } from '../../device/refusal'
import { either, misunderstood, need, whole } from './arguments'
import { radioNames } from './tell'
import { shown } from './words'

type Words = readonly string[]

const stages: Readonly<Record<Join['standing'], string>> = {
  absent: 'gone',
  discovered: 'heard',
  joining: 'coming',
  image: 'takes firmware',
  configuring: 'is told',
  run: 'works',
  'turned-away': 'sent off',
}
const reasons: Readonly<Partial<Record<NonNullable<Join['reason']>, string>>> = {
  'not-listed': 'stranger',
  'licence-full': 'sent off, no room',
  clock: 'sent off, what day is it',
  country: 'sent off, other regdom',
}
const fresh: Omit<ManagedPoint, 'mac'> = {
  ...{ name: '', location: '', networks: [], radios: [], gateway: null, controllers: [] },
  wired: { method: 'dhcp', address: null, prefix: null, vlan: null },
}

/** All that it has on its list or has heard. */
export function tellPoints(device: Device): string[] {
  const own = device.identity.mac
  const listed = device.effective.points
  const macs = [...new Set([...listed.map(({ mac }) => mac), ...device.joins.at(own)])]
  return macs.flatMap((mac) => {
    const { standing, reason, unit } = device.joins.of(mac, own)
    const point = listed.find((each) => each.mac === mac)
    return [
      `point ${mac}`,
      ` stage ${(reason && reasons[reason]) ?? stages[standing]}`,
      ...(point?.name ? [` call ${shown(point.name)}`] : []),
      ...(unit?.address ? [` sits ${unit.address}`] : []),
    ]
  })
}

/** What one of them was told. */
export function tellPoint(device: Device, mac: string): string[] {
  const point = device.effective.points.find((each) => each.mac === mac)
  if (!point) throw new Refusal('invalid-value', 'no: a stranger')
  const { wired, gateway } = point
  return [
    `call ${shown(point.name)}`,
    `stands ${shown(point.location)}`,
    wired.method === 'static' ? 'own fixed' : 'own asks',
    ...(wired.address === null ? [] : [`own address ${wired.address}/${wired.prefix}`]),
    ...(gateway === null ? [] : [`own gateway ${gateway}`]),
    ...point.radios.flatMap(({ band, on, channel, width, power }) => [
      `air ${radioNames.get(band)}`,
      ` ${on ? 'up' : 'down'}`,
      ...(channel === undefined ? [] : [` at ${channel} wide ${width}`]),
      ...(power === undefined ? [] : [` strength ${power}`]),
    ]),
  ]
}

/** `point MAC in`, `out`, `call`, `stands`, `own` and `air`. @throws Refusal */
export function changePoint(device: Device, [mac = '', what, ...rest]: Words): void {
  const { points } = device.configured
  if (what === 'in') {
    if (points.some((each) => each.mac === mac)) return
    if (!device.joins.at(device.identity.mac).includes(mac)) throw new Refusal('invalid-value', 'nobody is there')
    return device.manage([...points, { mac, ...fresh }])
  }
  const before = points.find((each) => each.mac === mac)
  if (!before) throw new Refusal('invalid-value', 'a stranger: let it in')
  const others = points.filter((each) => each !== before)
  if (what === 'out') return device.manage(others)
  device.manage([...others, { ...before, ...partOf(before, what ?? '', rest) }])
}

function partOf(before: ManagedPoint, what: string, words: Words): Partial<ManagedPoint> {
  const [first] = words
  if (what === 'call') return { name: need(first) }
  if (what === 'stands') return { location: first ?? '' }
  if (what === 'own') return own(words)
  if (what !== 'air') return misunderstood()
  const band = [...radioNames].find(([, name]) => name === first)?.[0] as DeviceRadio['band'] | undefined
  if (band === undefined) throw new Refusal('invalid-value', `there is no ${need(first)}`)
  const radio = before.radios.find((each) => each.band === band) ?? { band, on: false }
  return {
    radios: [...before.radios.filter((each) => each.band !== band), { ...radio, ...ofRadio(words.slice(1)) }],
  }
}

function own([how, where = '', via, gateway]: Words): Partial<ManagedPoint> {
  if (how === 'asks') return { wired: { method: 'dhcp', address: null, prefix: null, vlan: null }, gateway: null }
  const [address = '', prefix = ''] = where.split('/')
  if (how !== 'address' || via !== 'via') return misunderstood()
  return {
    wired: { method: 'static', address, prefix: whole(prefix), vlan: null },
    gateway: gateway === 'nothing' ? null : need(gateway),
  }
}

function ofRadio([what, first, wide, second]: Words): Partial<DeviceRadio> {
  if (what === 'at' && wide === 'wide') return { channel: whole(first), width: whole(second) }
  if (what === 'strength') return { power: whole(first) }
  return { on: either(what, 'up', 'down') }
}
