/** Units that have found a Hearth, as its pages show them and are told of them. */
import { z } from 'zod'
import { parseIpv4 } from '../../../core/address/ipv4'
import type { Device } from '../../device/device'
import type { DeviceRadio, ManagedPoint } from '../../device/device-settings'
import type { Join } from '../../device/join'
import { Refusal } from '../../device/refusal'
import { prefixOf } from '../change'
import { maskText } from '../pages/views'
import { radioPost, radioView } from './settings'
import type { HearthUnit } from './view'
import { wordsOf } from './words'

const states: Readonly<Record<Join['standing'], string>> = {
  absent: 'Gone',
  discovered: 'Seen',
  joining: 'Joining',
  image: 'Updating',
  configuring: 'Getting its settings',
  run: 'Working',
  'turned-away': 'Refused',
}
const reasons: Readonly<Partial<Record<NonNullable<Join['reason']>, string>>> = {
  'not-listed': 'Waiting for you',
  'licence-full': 'Refused: there is room for no more',
  clock: 'Refused: wrong time',
  country: 'Refused: made for another country',
}

/** A radio as it was told to be; off where nobody has told it anything. */
function radioOf(band: DeviceRadio['band'], point: ManagedPoint | undefined) {
  const { on = false, channel, width, power } = point?.radios.find((each) => each.band === band) ?? {}
  return { band, on, channel: channel ?? (band === '2.4' ? 1 : 36), width: width ?? 20, power: power ?? 8 }
}

export function unitsOf(device: Device): HearthUnit[] {
  const own = device.identity.mac
  const { points, radios } = device.configured
  const words = wordsOf(device.firmware)
  const macs = [...new Set([...points.map(({ mac }) => mac), ...device.joins.at(own)])]
  return macs.map((mac) => {
    const { standing, reason } = device.joins.of(mac, own)
    const point = points.find((each) => each.mac === mac)
    const { wired } = point ?? {}
    return {
      mac,
      name: point?.name ?? '',
      spot: point?.location ?? '',
      state: (reason && reasons[reason]) ?? states[standing],
      taken: point !== undefined,
      way: wired?.method === 'static' ? words.fixed : words.given,
      address: wired?.address ?? '',
      mask: wired?.prefix ? maskText(wired.prefix) : '',
      router: point?.gateway ?? '',
      radios: radios.map(({ band }) => radioView(device, radioOf(band, point))),
    }
  })
}

const whose = z.object({ mac: z.string() })
const unitPost = z.object({
  mac: z.string(),
  name: z.string().min(1, 'A unit has a name.').max(32),
  spot: z.string().max(80),
  way: z.enum(['own', 'given']),
  address: z.string(),
  mask: z.string(),
  router: z.string(),
  radios: z.array(radioPost),
})

function changed(device: Device, body: unknown): ManagedPoint[] {
  const { mac, name, spot, way, address, mask, router, radios } = unitPost.parse(body)
  if (way === 'own' && parseIpv4(address) === undefined) throw new Refusal('invalid-value', 'That is no address.')
  return device.configured.points.map((point) =>
    point.mac === mac
      ? {
          ...{ ...point, name, location: spot },
          radios: radios as ManagedPoint['radios'],
          wired:
            way === 'own'
              ? { method: 'static', address, prefix: prefixOf(mask), vlan: null }
              : { method: 'dhcp', address: null, prefix: null, vlan: null },
          gateway: way === 'own' ? router || null : null,
        }
      : point,
  )
}

/** By the name of what is posted. @throws Refusal, ZodError */
export const manageUnits = {
  takein: (device: Device, body: unknown): void => {
    const { mac } = whose.parse(body)
    const { points } = device.configured
    if (points.some((each) => each.mac === mac)) return
    if (!device.joins.at(device.identity.mac).includes(mac)) throw new Refusal('invalid-value', 'It is gone.')
    const wired = { method: 'dhcp', address: null, prefix: null, vlan: null } as const
    const fresh = { mac, name: '', location: '', networks: [], radios: [], wired, gateway: null, controllers: [] }
    device.manage([...points, fresh])
  },
  unit: (device: Device, body: unknown): void => device.manage(changed(device, body)),
  letgo: (device: Device, body: unknown): void => {
    const { mac } = whose.parse(body)
    device.manage(device.configured.points.filter((each) => each.mac !== mac))
  },
} as const
