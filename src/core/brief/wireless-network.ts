/** A wireless network: its name, who it is for, how it is secured, and what its clients may do. */
import { z } from 'zod'
import { ipv4Schema } from '../addressing/ipv4'
import { macSchema } from '../kit/mac'
import { ssidSchema } from './ssid'
import { vlanSchema } from './subnet'

export const bandSchema = z.enum(['2.4', '5', '6'])

export const securityModes = [
  'wpa2-personal',
  'wpa2-enterprise',
  'wpa3-personal',
  'wpa3-wpa2-mixed',
  'wpa3-enterprise',
  'owe',
  'open',
] as const
export const securityModeSchema = z.enum(securityModes)
export type SecurityMode = z.infer<typeof securityModeSchema>

export const securityNames: Readonly<Record<SecurityMode, string>> = {
  'wpa2-personal': 'WPA2-Personal',
  'wpa2-enterprise': 'WPA2-Enterprise',
  'wpa3-personal': 'WPA3-Personal',
  'wpa3-wpa2-mixed': 'WPA3/WPA2 mixed',
  'wpa3-enterprise': 'WPA3-Enterprise',
  owe: 'OWE, encrypted without a passphrase',
  open: 'Open',
}

/** The security with its cipher, as a sheet names it. */
export function securityWords(mode: SecurityMode): string {
  return mode === 'open' ? securityNames.open : `${securityNames[mode]}, AES-CCMP`
}

/** Is a RADIUS server asked who may join? */
export function asksRadius(mode: SecurityMode): boolean {
  return mode === 'wpa2-enterprise' || mode === 'wpa3-enterprise'
}

/** May it be on air at 6 GHz? IEEE 802.11ax-2021, 12.12.2: SAE, OWE (RFC 8110) or IEEE 802.1X with protected frames. */
export function fits6Ghz(mode: SecurityMode): boolean {
  return mode === 'wpa3-personal' || mode === 'wpa3-enterprise' || mode === 'owe'
}

/** Has it a key that one access point could hand to the next? IEEE 802.11-2020, 13.2: open networks and OWE have none. */
export function canRoamFast(mode: SecurityMode): boolean {
  return mode !== 'open' && mode !== 'owe'
}

export type Pmf = 'off' | 'optional' | 'required'
/**
 * Protected management frames (IEEE 802.11-2020, 12.2.8) that a mode may have, the first unless the brief says
 * otherwise: SAE and OWE require them, alone; beside a pre-shared key SAE clients use them and others need not.
 */
export const pmfOf: Readonly<Record<Exclude<SecurityMode, 'open'>, readonly Pmf[]>> = {
  'wpa2-personal': ['off', 'optional', 'required'],
  'wpa2-enterprise': ['off', 'optional', 'required'],
  'wpa3-wpa2-mixed': ['optional'],
  'wpa3-personal': ['required'],
  'wpa3-enterprise': ['required'],
  owe: ['required'],
}

/** Does a client of this network type a passphrase? */
export function takesPassphrase(mode: SecurityMode): boolean {
  return mode === 'wpa2-personal' || mode === 'wpa3-personal' || mode === 'wpa3-wpa2-mixed'
}

export const days = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const
const clockSchema = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time of day is written 07:30, from 00:00 to 23:59')
const hoursSchema = z.object({
  days: z.array(z.enum(days)).min(1, 'choose a day at least'),
  from: clockSchema,
  to: clockSchema,
})

const kbpsRule = 'a rate is a whole number of kbit/s from 64 to 10000000'
const kbps = z.int(kbpsRule).min(64, kbpsRule).max(10_000_000, kbpsRule).nullable().default(null)
const levelRule = 'a signal is a whole number of dBm from -95 to -40'
const level = z.int(levelRule).min(-95, levelRule).max(-40, levelRule).nullable().default(null)
const clientsRule = 'the most clients are a whole number from 1 to 2000'

export const steerings = ['client-decides', 'lean-to-5', 'insist-on-5', 'spread'] as const

export const wirelessNetworkSchema = z.object({
  /** Stays the same when the network is renamed: its passphrase is filed under it. */
  id: z.string().regex(/^[a-z0-9-]{1,32}$/),
  ssid: ssidSchema,
  purpose: z.enum(['staff', 'guests', 'voice', 'things']),
  bands: z.array(bandSchema).min(1, 'choose a band at least'),
  security: securityModeSchema,
  /** AES-CCMP is the one cipher. */
  cipher: z
    .literal('ccmp', {
      error:
        'the cipher is AES-CCMP: TKIP is broken, and it holds every client to 54 Mbit/s (IEEE 802.11 forbids it with high-throughput rates)',
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
  hidden: z.boolean(),
  isolation: z.boolean(),
  limits: z
    .object({
      perClientKbps: kbps,
      sharedKbps: kbps,
      mostClients: z.int(clientsRule).min(1, clientsRule).max(2000, clientsRule).nullable().default(null),
    })
    .prefault({}),
  /** When it is on air; null for always. */
  hours: hoursSchema.nullable().default(null),
  /** What is done with clients that know both 2.4 and 5 GHz, and only above a signal, dBm. */
  steering: z.enum(steerings).default('client-decides'),
  steeringAboveDbm: level,
  /** Signal below which a client is let go, dBm. Off by default: a client with nowhere to go bounces. */
  leastDbm: level,
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
    hidden: false,
    isolation: false,
  })
}
