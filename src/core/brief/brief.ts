/**
 * The brief: what the site is to have, as agreed with the client. It holds no secrets; it names them, and the vault
 * keeps them.
 */
import { z } from 'zod'
import { cidrSchema, ipv4Schema } from '../addressing/ipv4'
import { ssidSchema } from './ssid'

const vlanRule = 'a VLAN is a whole number from 1 to 4094 (IEEE 802.1Q)'
const vlanSchema = z.int(vlanRule).min(1, vlanRule).max(4094, vlanRule)

export const subnetSchema = z.object({
  name: z.string().trim().min(1, 'a subnet takes a name'),
  cidr: cidrSchema,
  vlan: vlanSchema.nullable(),
  gateway: ipv4Schema.nullable(),
  dnsServers: z.array(ipv4Schema).max(3),
  dhcpPool: z.object({ first: ipv4Schema, last: ipv4Schema }).nullable(),
})
export type Subnet = z.infer<typeof subnetSchema>

export const bandSchema = z.enum(['2.4', '5', '6'])
/** CCMP is the one cipher: TKIP is broken and caps the rate at that of 802.11g. */
export const securityModeSchema = z.enum(['open', 'wpa2-personal'])

export const wirelessNetworkSchema = z.object({
  /** Stays the same when the network is renamed: its passphrase is filed under it. */
  id: z.string().regex(/^[a-z0-9-]{1,32}$/),
  ssid: ssidSchema,
  purpose: z.enum(['staff', 'guests', 'voice', 'things']),
  bands: z.array(bandSchema).min(1, 'choose a band at least'),
  security: securityModeSchema,
  vlan: vlanSchema.nullable(),
  hidden: z.boolean(),
  isolation: z.boolean(),
})
export type WirelessNetwork = z.infer<typeof wirelessNetworkSchema>

export const radioPolicySchema = z.object({
  place: z.enum(['indoor', 'outdoor']),
  bands: z.array(z.object({ band: bandSchema, width: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160)]), targetDbm: z.number().min(0).max(36) })),
  /** Whether channels that must listen for radar are planned: never where a choice without is free. */
  radar: z.enum(['welcome', 'avoid']),
})
export type RadioPolicy = z.infer<typeof radioPolicySchema>

export const adminPolicySchema = z.object({ passwords: z.enum(['one-per-job', 'one-per-unit']), lights: z.enum(['on', 'off']) })
export type AdminPolicy = z.infer<typeof adminPolicySchema>

export const briefSchema = z.object({
  country: z.string().regex(/^([A-Z]{2}|00)$/, 'a country is two capital letters, such as NZ'),
  site: z.string().trim().min(1, 'name the site').max(120),
  timeZone: z.string().refine(isTimeZone, 'this is not a time zone of the IANA list, such as Pacific/Auckland'),
  ntpServers: z.array(z.string().trim().min(1)).min(1, 'units need a time server: a wrong clock breaks joins and certificates').max(3),
  management: subnetSchema,
  networks: z.array(wirelessNetworkSchema).max(16),
  radio: radioPolicySchema,
  admin: adminPolicySchema,
})
export type Brief = z.infer<typeof briefSchema>

/** Names under which the vault keeps a job's secrets. */
export const secretName = {
  passphrase: (network: Pick<WirelessNetwork, 'id'>) => `network/${network.id}/passphrase`,
  jobPassword: 'admin/password',
  unitPassword: (unit: string) => `admin/password/${unit}`,
} as const

/** The name under which a unit's admin password is kept, by the policy. */
export function adminSecretName(policy: AdminPolicy, unit: string): string {
  return policy.passwords === 'one-per-job' ? secretName.jobPassword : secretName.unitPassword(unit)
}

/** A formatter is slow to make, and the same few zones are asked for again and again. */
const knownZones = new Set<string>()

function isTimeZone(name: string): boolean {
  if (knownZones.has(name)) return true
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    knownZones.add(name)
    return true
  } catch {
    return false
  }
}
