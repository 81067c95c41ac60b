/** What a unit was asked to be, as it was kept before there was a table of settings: read as what was asked then. */
import { z } from 'zod'
import { securityModeSchema } from '../catalogue/security-mode'
import { bandSchema } from '../catalogue/values'
import type { Config, Mark } from './unit-config'

export const formerAskedSchema = z.object({
  mac: z.string(),
  config: z.object({
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
    networks: z.array(
      z.object({
        ssid: z.string(),
        enabled: z.boolean(),
        hidden: z.boolean(),
        security: z.object({ mode: securityModeSchema, passphrase: z.string().nullable() }),
        vlan: z.number().nullable(),
        isolation: z.boolean(),
        bands: z.array(bandSchema),
      }),
    ),
    radios: z.array(
      z.object({
        band: bandSchema,
        enabled: z.boolean(),
        channel: z.number(),
        width: z.number(),
        powerDbm: z.number(),
      }),
    ),
    services: z.object({ lights: z.boolean() }),
  }),
  password: z.string(),
})
export type FormerAsked = z.infer<typeof formerAskedSchema>

/** Networks had no ids then: they stand under their names. */
export interface NamedAsked {
  readonly mac: string
  readonly config: Config<Mark>
  readonly password: string
  readonly networksBy: 'name'
}

export function fromFormer({ mac, password, config }: FormerAsked): NamedAsked {
  const { management } = config
  return {
    mac,
    password,
    networksBy: 'name',
    config: {
      unit: {
        'unit.name': config.name,
        'unit.country': config.country,
        'clock.time-zone': config.clock.timeZone,
        'clock.ntp-servers': config.clock.ntpServers,
        'management.method': management.method,
        ...(management.address === null ? {} : { 'management.address': management.address }),
        ...(management.prefix === null ? {} : { 'management.prefix': management.prefix }),
        'management.gateway': management.gateway,
        'management.dns-servers': management.dnsServers,
        'services.lights': config.services.lights,
      },
      networks: Object.fromEntries(
        config.networks.map((network) => [
          network.ssid,
          {
            'network.ssid': network.ssid,
            'network.enabled': network.enabled,
            'network.bands': network.bands,
            'network.security': network.security.mode,
            ...(network.security.passphrase === null ? {} : { 'network.passphrase': network.security.passphrase }),
            'network.vlan': network.vlan,
            'network.hidden': network.hidden,
            'network.isolation': network.isolation,
          },
        ]),
      ),
      radios: Object.fromEntries(
        config.radios.map(({ band, enabled, channel, width, powerDbm }) => [
          band,
          { 'radio.enabled': enabled, 'radio.channel': channel, 'radio.width': width, 'radio.power': powerDbm },
        ]),
      ),
    },
  }
}
