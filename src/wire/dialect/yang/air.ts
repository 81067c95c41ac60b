/** What radios really do, as our module has it in the state of a unit. */
import { z } from 'zod'
import { parseMac } from '../../../core/address/mac'
import type { RadioOnAir } from '../dialect'

const ssid = z.base64().transform((text) => Buffer.from(text, 'base64').toString('utf8'))
const radio = z.object({
  band: z.string().max(8),
  condition: z.enum(['off', 'listening', 'on-air']),
  'listens-for': z.number().optional(),
  channel: z.number().optional(),
  width: z.number().optional(),
  'left-for-radar': z.number().optional(),
  'on-air': z
    .array(z.object({ network: z.string().max(64), ssid, security: z.string().max(40), bssid: z.string().optional() }))
    .max(100)
    .default([]),
})

/** The container `wireless` of the state. */
export const wirelessState = z.object({ radio: z.array(radio).max(20).default([]) })

export function radiosOnAir(state: z.infer<typeof wirelessState>): RadioOnAir[] {
  return state.radio.map((each) => ({
    band: each.band,
    condition: each.condition,
    listensFor: each['listens-for'] ?? 0,
    channel: each.channel,
    width: each.width,
    leftForRadar: each['left-for-radar'],
    networks: each['on-air'].map(({ network, bssid, ...rest }) => ({
      id: network,
      ...rest,
      bssid: parseMac(bssid ?? ''),
    })),
  }))
}
