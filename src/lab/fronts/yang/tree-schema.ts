/** The shape of a stand-in's tree: every type, range and pattern of its modules (models/). */
import { z } from 'zod'
import { modeSchema } from '../../device/device-settings'

const band = z.enum(['2.4', '5', '6'])
const day = z.enum(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'])
const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/)
const vlan = z.int().min(1).max(4094)
const signal = z.int().min(-95).max(-40)
const rate = z.int().min(1).max(4_294_967_295)
const host = z.union([z.ipv4(), z.ipv6(), z.string().regex(/^[A-Za-z0-9]([A-Za-z0-9.-]{0,251}[A-Za-z0-9])?$/)])
const port = z.int().min(0).max(65535)
const key = z.string().min(8).max(64)
const server = z.strictObject({ address: z.union([z.ipv4(), z.ipv6()]), port })
const mac = z.string().regex(/^[0-9a-fA-F]{2}(:[0-9a-fA-F]{2}){5}$/)

const security = z.strictObject({
  mode: modeSchema.optional(),
  'open-confirmed': z.boolean().optional(),
  cipher: z.enum(['ccmp', 'gcmp-256']).optional(),
  pmf: z.enum(['off', 'optional', 'required']).optional(),
  passphrase: z
    .string()
    .regex(/^([ -~]{8,63}|[0-9a-fA-F]{64})$/, '8 to 63 printable ASCII characters or 64 hexadecimal digits')
    .optional(),
  radius: z
    .strictObject({
      server: z.array(server).default([]),
      accounting: z.array(server).default([]),
      secret: z.string().min(1).max(128).optional(),
    })
    .optional(),
})

const network = z.strictObject({
  id: z.string().min(1).max(32),
  ssid: z
    .base64()
    .transform((text) => Buffer.from(text, 'base64'))
    .refine(({ length }) => length >= 1 && length <= 32, 'an SSID is 1 to 32 octets'),
  enabled: z.boolean().default(false),
  hidden: z.boolean().default(false),
  vlan: vlan.optional(),
  isolation: z.boolean().default(false),
  band: z.array(band).min(1),
  'rate-per-client': rate.optional(),
  'rate-shared': rate.optional(),
  'most-clients': z.int().min(1).max(65535).optional(),
  hours: z.strictObject({ day: z.array(day).min(1), from: timeOfDay, to: timeOfDay }).optional(),
  steering: z.enum(['client-decides', 'lean-to-5', 'insist-on-5', 'spread']).default('client-decides'),
  'steering-above': signal.optional(),
  'least-signal': signal.optional(),
  'fast-roaming': z.boolean().default(false),
  'mobility-domain': z.int().min(1).max(65535).optional(),
  'client-list': z.strictObject({ rule: z.enum(['allow', 'deny']), mac: z.array(mac).default([]) }).optional(),
  security: security.prefault({}),
})

export const radioSchema = z.strictObject({
  band,
  enabled: z.boolean().default(false),
  mode: z.enum(['n', 'ac', 'ax', 'be']).optional(),
  channel: z.int().min(1).max(233),
  width: z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160), z.literal(320)]),
  secondary: z.enum(['above', 'below']).optional(),
  power: z
    .string()
    .regex(/^-?\d{1,2}(\.\d)?$/, 'a power is a decimal with one fraction digit')
    .transform(Number)
    .refine((dbm) => dbm >= -10 && dbm <= 36, 'a power is -10.0 to 36.0 dBm'),
  'low-rates': z.enum(['kept', 'dropped']).default('kept'),
  'beacon-interval': z.int().min(50).max(1000).default(100),
})

const timeServer = z.strictObject({ name: z.string(), udp: z.strictObject({ address: host }) })
const nameServer = z.strictObject({ name: z.string(), 'udp-and-tcp': z.strictObject({ address: host }) })

const octet = '[0-9a-f]{2}'
const accessPoint = z.strictObject({
  mac: z.string().regex(new RegExp(`^${octet}(:${octet}){5}$`)),
  name: z.string().min(1).max(63).optional(),
  location: z.string().optional(),
  network: z.array(z.string()).default([]),
  method: z.enum(['static', 'dhcp']).default('dhcp'),
  address: z.ipv4().optional(),
  'prefix-length': z.int().min(1).max(32).optional(),
  gateway: z.ipv4().optional(),
  controller: z.array(z.ipv4()).max(8).default([]),
  radio: z.array(radioSchema.partial({ channel: true, width: true, power: true })).default([]),
})

export const treeSchema = z.strictObject({
  'air-muster-controller:access-points': z
    .strictObject({
      login: z.strictObject({ user: z.string().min(1).max(32), password: z.string().min(1).max(64) }).optional(),
      'access-point': z.array(accessPoint).default([]),
    })
    .optional(),
  'ietf-system:system': z.strictObject({
    hostname: z.string().min(1).max(253).default(''),
    location: z.string().default(''),
    clock: z.strictObject({ 'timezone-name': z.string().min(1) }).optional(),
    ntp: z.strictObject({ enabled: z.boolean().default(true), server: z.array(timeServer).default([]) }).prefault({}),
    'dns-resolver': z.strictObject({ server: z.array(nameServer).default([]) }).prefault({}),
    authentication: z.strictObject({
      user: z.array(z.strictObject({ name: z.string().min(1), password: z.string().optional() })).min(1),
    }),
  }),
  /** RFC 8341. */
  'ietf-netconf-acm:nacm': z
    .strictObject({
      groups: z
        .strictObject({
          group: z
            .array(z.strictObject({ name: z.string().min(1), 'user-name': z.array(z.string().min(1)).default([]) }))
            .default([]),
        })
        .prefault({}),
      'rule-list': z
        .array(
          z.strictObject({
            name: z.string().min(1),
            group: z.array(z.string().min(1)).default([]),
            rule: z
              .array(
                z.strictObject({
                  name: z.string().min(1),
                  'module-name': z.string().default('*'),
                  'access-operations': z.string().default('*'),
                  action: z.enum(['permit', 'deny']),
                }),
              )
              .default([]),
          }),
        )
        .default([]),
    })
    .prefault({}),
  'ietf-interfaces:interfaces': z.strictObject({
    interface: z
      .array(
        z.strictObject({
          name: z.string(),
          type: z.string(),
          'ietf-ip:ipv4': z.strictObject({
            address: z
              .array(z.strictObject({ ip: z.ipv4(), 'prefix-length': z.int().min(0).max(32) }))
              .max(1)
              .default([]),
            'air-muster-wireless:method': z.enum(['static', 'dhcp']).default('static'),
          }),
          'air-muster-wireless:management-vlan': vlan.optional(),
        }),
      )
      .length(1),
  }),
  'ietf-routing:routing': z
    .strictObject({
      'control-plane-protocols': z.strictObject({
        'control-plane-protocol': z
          .array(
            z.strictObject({
              type: z.literal('ietf-routing:static'),
              name: z.string(),
              'static-routes': z.strictObject({
                'ietf-ipv4-unicast-routing:ipv4': z.strictObject({
                  route: z
                    .array(
                      z.strictObject({
                        'destination-prefix': z.literal('0.0.0.0/0'),
                        'next-hop': z.strictObject({ 'next-hop-address': z.ipv4() }),
                      }),
                    )
                    .max(1)
                    .default([]),
                }),
              }),
            }),
          )
          .max(1)
          .default([]),
      }),
    })
    .optional(),
  'air-muster-wireless:wireless': z.strictObject({
    country: z
      .string()
      .regex(/^([A-Z]{2}|00)$/)
      .optional(),
    environment: z.enum(['indoor', 'outdoor']).optional(),
    network: z.array(network).default([]),
    radio: z.array(radioSchema).default([]),
  }),
  'air-muster-wireless:services': z
    .strictObject({
      'https-only': z.boolean().default(false),
      ssh: z.boolean().default(false),
      telnet: z.boolean().default(false),
      lights: z.boolean().default(true),
      'time-zone-rule': z.string().min(3).max(80).optional(),
      syslog: host.optional(),
      mail: z.strictObject({ server: host, to: z.string().min(3).max(254) }).optional(),
      restart: z.strictObject({ day, at: timeOfDay }).optional(),
      snmp: z
        .strictObject({ user: z.string().min(1).max(32), 'authentication-key': key, 'privacy-key': key })
        .optional(),
    })
    .prefault({}),
})
export type Tree = z.infer<typeof treeSchema>
export type TreeNetwork = Tree['air-muster-wireless:wireless']['network'][number]
export type TreePoint = z.infer<typeof accessPoint>
export type TreeRadio = z.infer<typeof radioSchema>
