/**
 * The data of an access point as our YANG modules have it (JSON encoding of RFC 7951), and its way to and from
 * UnitConfig.
 *
 * ietf-system (RFC 7317), ietf-interfaces (RFC 8343), ietf-ip (RFC 8344), air-muster-wireless (models/).
 */
import { z } from 'zod'
import { securityModeSchema } from '../../core/brief/wireless-network'
import type { NetworkConfig, RadioConfig, UnitConfig } from '../../core/config/unit-config'

const yangBand = z.enum(['2.4', '5', '6'])

export const yangNetworkSchema = z.strictObject({
  ssid: z
    .string()
    .refine((ssid) => ssid.length > 0 && new TextEncoder().encode(ssid).length <= 32, 'an SSID is 1 to 32 bytes'),
  enabled: z.boolean().default(true),
  hidden: z.boolean().default(false),
  vlan: z.int().min(1).max(4094).optional(),
  isolation: z.boolean().default(false),
  band: z.array(yangBand).min(1),
  security: z
    .strictObject({
      mode: securityModeSchema.default('open'),
      passphrase: z
        .string()
        .regex(
          /^([ -~]{8,63}|[0-9a-fA-F]{64})$/,
          'a passphrase is 8 to 63 printable ASCII characters or 64 hexadecimal digits',
        )
        .optional(),
    })
    .default({ mode: 'open' }),
})
export type YangNetwork = z.infer<typeof yangNetworkSchema>

export const yangRadioSchema = z.strictObject({
  band: yangBand,
  enabled: z.boolean().default(false),
  channel: z.int().min(1).max(233),
  width: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160), z.literal(320)]),
  power: z.int().min(-10).max(36),
})
export type YangRadio = z.infer<typeof yangRadioSchema>

const ipv4 = z.strictObject({
  address: z.array(z.strictObject({ ip: z.ipv4(), 'prefix-length': z.int().min(0).max(32) })).default([]),
  'air-muster-wireless:method': z.enum(['static', 'dhcp']).optional(),
  'air-muster-wireless:default-gateway': z.ipv4().optional(),
})

/** Configuration: what a unit is to be. Passwords go in and never come out. */
export const yangConfigSchema = z.strictObject({
  'ietf-system:system': z.strictObject({
    hostname: z.string().min(1).max(253).optional(),
    clock: z.strictObject({ 'timezone-name': z.string() }).optional(),
    ntp: z
      .strictObject({
        enabled: z.boolean().default(true),
        server: z.array(z.strictObject({ name: z.string(), udp: z.strictObject({ address: z.string() }) })).default([]),
      })
      .optional(),
    'dns-resolver': z
      .strictObject({
        server: z
          .array(z.strictObject({ name: z.string(), 'udp-and-tcp': z.strictObject({ address: z.string() }) }))
          .default([]),
      })
      .optional(),
    authentication: z.strictObject({
      user: z.array(z.strictObject({ name: z.string(), password: z.string().optional() })).min(1),
    }),
  }),
  'ietf-interfaces:interfaces': z.strictObject({
    interface: z.array(
      z.strictObject({
        name: z.string(),
        type: z.string(),
        enabled: z.boolean().default(true),
        'ietf-ip:ipv4': ipv4.optional(),
      }),
    ),
  }),
  'air-muster-wireless:wireless': z.strictObject({
    country: z.string().regex(/^([A-Z]{2}|00)$/, 'a country is two capital letters'),
    lights: z.boolean().default(true),
    network: z.array(yangNetworkSchema).default([]),
    radio: z.array(yangRadioSchema),
  }),
})
export type YangConfig = z.infer<typeof yangConfigSchema>

export const yangAirSchema = z.object({
  'air-muster-wireless:wireless-state': z.object({
    'changes-waiting': z.boolean(),
    applying: z.boolean(),
    radio: z.array(
      z.object({
        band: yangBand,
        condition: z.enum(['off', 'listening', 'on-air']),
        'listens-for': z.number().optional(),
        channel: z.number().optional(),
        width: z.number().optional(),
        power: z.number().optional(),
        network: z.array(z.object({ ssid: z.string(), security: z.string() })).default([]),
      }),
    ),
  }),
})
export type YangAir = z.infer<typeof yangAirSchema>

/** @param managementInterface  name of the interface that carries the management address */
export function toUnitConfig(data: YangConfig, managementInterface: string): UnitConfig {
  const system = data['ietf-system:system']
  const wireless = data['air-muster-wireless:wireless']
  const ip = data['ietf-interfaces:interfaces'].interface.find((each) => each.name === managementInterface)?.[
    'ietf-ip:ipv4'
  ]
  const address = ip?.address[0]
  return {
    country: wireless.country,
    clock: {
      timeZone: system.clock?.['timezone-name'] ?? '',
      ntpServers: (system.ntp?.server ?? []).map((server) => server.udp.address),
    },
    name: system.hostname ?? '',
    management: {
      method: ip?.['air-muster-wireless:method'] ?? 'static',
      address: address?.ip ?? null,
      prefix: address?.['prefix-length'] ?? null,
      gateway: ip?.['air-muster-wireless:default-gateway'] ?? null,
      dnsServers: (system['dns-resolver']?.server ?? []).map((server) => server['udp-and-tcp'].address),
    },
    networks: wireless.network.map(
      (network): NetworkConfig => ({
        ssid: network.ssid,
        enabled: network.enabled,
        hidden: network.hidden,
        security: { mode: network.security.mode, passphrase: network.security.passphrase ?? null },
        vlan: network.vlan ?? null,
        isolation: network.isolation,
        bands: network.band,
      }),
    ),
    radios: wireless.radio.map(
      (radio): RadioConfig => ({
        band: radio.band,
        enabled: radio.enabled,
        channel: radio.channel,
        width: radio.width,
        powerDbm: radio.power,
      }),
    ),
    admin: { user: system.authentication.user[0]?.name ?? '' },
    services: { lights: wireless.lights },
  }
}

/** A network with its security in one piece: it is never there without. */
export function toYangNetwork(network: NetworkConfig): YangNetwork {
  return {
    ssid: network.ssid,
    enabled: network.enabled,
    hidden: network.hidden,
    ...(network.vlan === null ? {} : { vlan: network.vlan }),
    isolation: network.isolation,
    band: network.bands,
    security: {
      mode: network.security.mode,
      ...(network.security.passphrase === null ? {} : { passphrase: network.security.passphrase }),
    },
  }
}
