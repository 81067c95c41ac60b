/** A wireless network: its name, who it is for, how it is secured, and what its clients may do. */

import { z } from 'zod'
import { ipv4Schema } from '../address/ipv4'
import { macSchema } from '../address/mac'
import { networkSettings } from '../catalogue/network'
import { fieldsOf } from '../catalogue/plain'
import { securityModeSchema } from '../catalogue/security-mode'
import { bandSchema, days, timeOfDaySchema } from '../catalogue/values'
import { messageText } from '../message/message'
import { ssidSchema } from './ssid'
import { vlanSchema } from './subnet'

const hoursSchema = z.object({
  days: z.array(z.enum(days)).min(1, messageText('no-day')),
  from: timeOfDaySchema,
  to: timeOfDaySchema,
})

const kbpsRule = messageText('rate-unfit')
const kbps = z.int(kbpsRule).min(64, kbpsRule).max(10_000_000, kbpsRule).nullable().default(null)
const levelRule = messageText('signal-unfit')
const level = z.int(levelRule).min(-95, levelRule).max(-40, levelRule).nullable().default(null)
const clientsRule = messageText('most-clients-unfit')

export const wirelessNetworkSchema = z.object({
  /** Stays the same when the network is renamed: its passphrase is filed under it. */
  id: z.string().regex(/^[a-z0-9-]{1,32}$/),
  ssid: ssidSchema,
  purpose: z.enum(['staff', 'guests', 'voice', 'things']),
  bands: z.array(bandSchema).min(1, messageText('no-band')),
  security: securityModeSchema,
  /** AES-CCMP is the one cipher. */
  cipher: z
    .literal('ccmp', {
      error: messageText('cipher-not-aes'),
    })
    .default('ccmp'),
  /** An open network takes its own name, typed a second time. */
  openConfirmation: z.string().default(''),
  /** Servers of WPA2-Enterprise (RFC 2865); the shared secret lies in the vault. */
  radius: z
    .array(z.object({ address: ipv4Schema, port: z.int().min(1).max(65535).default(1812) }))
    .max(3)
    .default([]),
  /** Where the sessions of WPA2-Enterprise are written down (RFC 2866), under the same shared secret. */
  accounting: z
    .array(z.object({ address: ipv4Schema, port: z.int().min(1).max(65535).default(1813) }))
    .max(3)
    .default([]),
  /** Protected management frames (IEEE 802.11w): by the security, or as said here. */
  pmf: z.enum(['by-security', 'off', 'optional', 'required']).default('by-security'),
  vlan: vlanSchema.nullable(),
  ...fieldsOf(networkSettings, 'network'),
  limits: z
    .object({
      perClientKbps: kbps,
      sharedKbps: kbps,
      mostClients: z.int(clientsRule).min(1, clientsRule).max(2000, clientsRule).nullable().default(null),
    })
    .prefault({}),
  /** When it is on air; null for always. */
  hours: hoursSchema.nullable().default(null),
  /** Clients are steered only above this signal, dBm. */
  steeringAboveDbm: level,
  /** Fast transition, IEEE 802.11r. */
  fastRoaming: z.boolean().default(false),
  macList: z
    .object({ rule: z.enum(['none', 'allow', 'deny']), macs: z.array(macSchema).max(2000) })
    .prefault({ rule: 'none', macs: [] }),
})
export type WirelessNetwork = z.infer<typeof wirelessNetworkSchema>

/** A network as a new one begins. */
export function newNetwork(id: string, ssid: string): WirelessNetwork {
  return wirelessNetworkSchema.parse({
    id,
    ssid,
    purpose: 'staff',
    bands: ['2.4', '5'],
    security: 'wpa2-personal',
    vlan: null,
  })
}
