/**
 * What one unit is to be, or is: the same shape for both, so that the two can be compared.
 */
import { z } from 'zod'
import { bandSchema, securityModeSchema } from '../brief/wireless-network'

export const networkConfigSchema = z.object({
  ssid: z.string(),
  enabled: z.boolean(),
  hidden: z.boolean(),
  security: z.object({
    mode: securityModeSchema,
    /** Null where the unit does not show it back. */
    passphrase: z.string().nullable(),
  }),
  vlan: z.number().nullable(),
  isolation: z.boolean(),
  bands: z.array(bandSchema),
})
export type NetworkConfig = z.infer<typeof networkConfigSchema>

export const radioConfigSchema = z.object({
  band: bandSchema,
  enabled: z.boolean(),
  /** Primary 20 MHz channel. */
  channel: z.number(),
  /** MHz. */
  width: z.number(),
  /** Conducted power, dBm. */
  powerDbm: z.number(),
})
export type RadioConfig = z.infer<typeof radioConfigSchema>

export const unitConfigSchema = z.object({
  country: z.string(),
  clock: z.object({ timeZone: z.string(), ntpServers: z.array(z.string()) }),
  name: z.string(),
  management: z.object({
    method: z.enum(['static', 'dhcp']),
    address: z.string().nullable(),
    prefix: z.number().nullable(),
    gateway: z.string().nullable(),
    dnsServers: z.array(z.string()),
  }),
  networks: z.array(networkConfigSchema),
  radios: z.array(radioConfigSchema),
  admin: z.object({ user: z.string() }),
  services: z.object({ lights: z.boolean() }),
})
export type UnitConfig = z.infer<typeof unitConfigSchema>
