/**
 * The shape of a stand-in's tree: every type, range and pattern of its modules. Written by `npm run models` from
 * models/*.yang; a test keeps it true.
 */
import { z } from 'zod'

const address = z.union([
  z
    .string()
    .regex(
      /^(?:(([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])\.){3}([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])(%[\p{N}\p{L}]+)?)$/u,
    ),
  z
    .string()
    .regex(
      /^(?:((:|[0-9a-fA-F]{0,4}):)([0-9a-fA-F]{0,4}:){0,5}((([0-9a-fA-F]{0,4}:)?(:|[0-9a-fA-F]{0,4}))|(((25[0-5]|2[0-4][0-9]|[01]?[0-9]?[0-9])\.){3}(25[0-5]|2[0-4][0-9]|[01]?[0-9]?[0-9])))(%[\p{N}\p{L}]+)?)$/u,
    )
    .regex(/^(?:(([^:]+:){6}(([^:]+:[^:]+)|(.*\..*)))|((([^:]+:)*[^:]+)?::(([^:]+:)*[^:]+)?)(%.+)?)$/u),
  z
    .string()
    .min(1)
    .max(253)
    .regex(
      /^(?:((([a-zA-Z0-9_]([a-zA-Z0-9\-_]){0,61})?[a-zA-Z0-9]\.)*([a-zA-Z0-9_]([a-zA-Z0-9\-_]){0,61})?[a-zA-Z0-9]\.?)|\.)$/u,
    ),
])
const address2 = z.union([
  z
    .string()
    .regex(
      /^(?:(([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])\.){3}([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])(%[\p{N}\p{L}]+)?)$/u,
    ),
  z
    .string()
    .regex(
      /^(?:((:|[0-9a-fA-F]{0,4}):)([0-9a-fA-F]{0,4}:){0,5}((([0-9a-fA-F]{0,4}:)?(:|[0-9a-fA-F]{0,4}))|(((25[0-5]|2[0-4][0-9]|[01]?[0-9]?[0-9])\.){3}(25[0-5]|2[0-4][0-9]|[01]?[0-9]?[0-9])))(%[\p{N}\p{L}]+)?)$/u,
    )
    .regex(/^(?:(([^:]+:){6}(([^:]+:[^:]+)|(.*\..*)))|((([^:]+:)*[^:]+)?::(([^:]+:)*[^:]+)?)(%.+)?)$/u),
])
const moduleName = z.union([z.string().regex(/^(?:\*)$/u), z.string()])
const ip = z
  .string()
  .regex(
    /^(?:(([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])\.){3}([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])(%[\p{N}\p{L}]+)?)$/u,
  )
  .regex(/^(?:[0-9.]*)$/u)
const day = z.enum(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'])
const from = z.string().regex(/^(?:([01][0-9]|2[0-3]):[0-5][0-9])$/u)
const mac = z.string().regex(/^(?:[0-9a-fA-F]{2}(:[0-9a-fA-F]{2}){5})$/u)
const power = z
  .string()
  .regex(/^-?\d+(\.\d{1,1})?$/)
  .transform(Number)
  .refine((value) => value >= -10 && value <= 36)

export const treeSchema = z.strictObject({
  'ietf-system:system': z
    .strictObject({
      hostname: z
        .string()
        .min(1)
        .max(253)
        .regex(
          /^(?:((([a-zA-Z0-9_]([a-zA-Z0-9\-_]){0,61})?[a-zA-Z0-9]\.)*([a-zA-Z0-9_]([a-zA-Z0-9\-_]){0,61})?[a-zA-Z0-9]\.?)|\.)$/u,
        )
        .optional(),
      location: z.string().optional(),
      clock: z.strictObject({ 'timezone-name': z.string().optional() }).prefault({}),
      ntp: z
        .strictObject({
          enabled: z.boolean().default(true),
          server: z.array(z.strictObject({ name: z.string(), udp: z.strictObject({ address: address }) })).default([]),
        })
        .optional(),
      'dns-resolver': z
        .strictObject({
          server: z
            .array(z.strictObject({ name: z.string(), 'udp-and-tcp': z.strictObject({ address: address2 }) }))
            .default([]),
        })
        .prefault({}),
      authentication: z
        .strictObject({
          user: z
            .array(
              z.strictObject({
                name: z.string(),
                password: z
                  .string()
                  .regex(
                    /^(?:\$0\$.*|\$1\$[a-zA-Z0-9./]{1,8}\$[a-zA-Z0-9./]{22}|\$5\$(rounds=\d+\$)?[a-zA-Z0-9./]{1,16}\$[a-zA-Z0-9./]{43}|\$6\$(rounds=\d+\$)?[a-zA-Z0-9./]{1,16}\$[a-zA-Z0-9./]{86})$/u,
                  )
                  .optional(),
              }),
            )
            .default([]),
        })
        .prefault({}),
    })
    .prefault({}),
  'ietf-netconf-acm:nacm': z
    .strictObject({
      groups: z
        .strictObject({
          group: z
            .array(
              z.strictObject({
                name: z
                  .string()
                  .min(1)
                  .regex(/^(?:[^*].*)$/u),
                'user-name': z.array(z.string().min(1)).default([]),
              }),
            )
            .default([]),
        })
        .prefault({}),
      'rule-list': z
        .array(
          z.strictObject({
            name: z.string().min(1),
            group: z
              .array(
                z.union([
                  z.string().regex(/^(?:\*)$/u),
                  z
                    .string()
                    .min(1)
                    .regex(/^(?:[^*].*)$/u),
                ]),
              )
              .default([]),
            rule: z
              .array(
                z.strictObject({
                  name: z.string().min(1),
                  'module-name': moduleName.default('*'),
                  'access-operations': moduleName.default('*'),
                  action: z.enum(['permit', 'deny']),
                }),
              )
              .default([]),
          }),
        )
        .default([]),
    })
    .prefault({}),
  'ietf-interfaces:interfaces': z
    .strictObject({
      interface: z
        .array(
          z.strictObject({
            name: z.string(),
            type: z.string(),
            'air-muster-wireless:management-vlan': z.int().min(1).max(4094).optional(),
            'ietf-ip:ipv4': z
              .strictObject({
                address: z
                  .array(z.strictObject({ ip: ip, 'prefix-length': z.int().min(0).max(32).optional() }))
                  .default([]),
                'air-muster-wireless:method': z.enum(['static', 'dhcp']).optional(),
              })
              .optional(),
          }),
        )
        .default([]),
    })
    .prefault({}),
  'ietf-routing:routing': z
    .strictObject({
      'control-plane-protocols': z
        .strictObject({
          'control-plane-protocol': z
            .array(
              z.strictObject({
                type: z.string(),
                name: z.string(),
                'static-routes': z
                  .strictObject({
                    'ietf-ipv4-unicast-routing:ipv4': z
                      .strictObject({
                        route: z
                          .array(
                            z.strictObject({
                              'destination-prefix': z
                                .string()
                                .regex(
                                  /^(?:(([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])\.){3}([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])\/(([0-9])|([1-2][0-9])|(3[0-2])))$/u,
                                ),
                              'next-hop': z
                                .strictObject({
                                  'next-hop-address': z
                                    .string()
                                    .regex(
                                      /^(?:(([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])\.){3}([0-9]|[1-9][0-9]|1[0-9][0-9]|2[0-4][0-9]|25[0-5])(%[\p{N}\p{L}]+)?)$/u,
                                    )
                                    .optional(),
                                })
                                .prefault({}),
                            }),
                          )
                          .default([]),
                      })
                      .prefault({}),
                  })
                  .prefault({}),
              }),
            )
            .default([]),
        })
        .prefault({}),
    })
    .prefault({}),
  'air-muster-wireless:wireless': z
    .strictObject({
      country: z
        .string()
        .regex(/^(?:[A-Z]{2}|00)$/u)
        .optional(),
      environment: z.enum(['indoor', 'outdoor']).optional(),
      network: z
        .array(
          z.strictObject({
            id: z.string().min(1).max(32),
            ssid: z
              .base64()
              .transform((text) => Buffer.from(text, 'base64'))
              .refine((value) => value.length >= 1 && value.length <= 32, 'wrong number of octets'),
            enabled: z.boolean().default(false),
            hidden: z.boolean().default(false),
            vlan: z.int().min(1).max(4094).optional(),
            isolation: z.boolean().default(false),
            'multicast-to-unicast': z.boolean().default(false),
            band: z.array(z.enum(['2.4', '5', '6'])).min(1),
            'rate-per-client': z.int().min(1).max(4294967295).optional(),
            'rate-shared': z.int().min(1).max(4294967295).optional(),
            'most-clients': z.int().min(1).max(65535).optional(),
            hours: z.strictObject({ day: z.array(day).min(1), from: from, to: from }).optional(),
            steering: z.enum(['client-decides', 'lean-to-5', 'insist-on-5', 'spread']).default('client-decides'),
            'steering-above': z.int().min(-95).max(-40).optional(),
            'least-signal': z.int().min(-95).max(-40).optional(),
            'fast-roaming': z.boolean().default(false),
            'mobility-domain': z.int().min(1).max(65535).optional(),
            'client-list': z
              .strictObject({ rule: z.enum(['allow', 'deny']), mac: z.array(mac).default([]) })
              .optional(),
            security: z
              .strictObject({
                mode: z
                  .enum([
                    'open',
                    'wpa2-personal',
                    'wpa2-enterprise',
                    'wpa3-personal',
                    'wpa3-wpa2-mixed',
                    'wpa3-enterprise',
                    'owe',
                  ])
                  .optional(),
                'open-confirmed': z.boolean().optional(),
                cipher: z.enum(['ccmp', 'gcmp-256']).optional(),
                pmf: z.enum(['off', 'optional', 'required']).optional(),
                passphrase: z
                  .string()
                  .min(8)
                  .max(64)
                  .regex(/^(?:[ -~]{8,63}|[0-9a-fA-F]{64})$/u)
                  .optional(),
                radius: z
                  .strictObject({
                    server: z.array(z.strictObject({ address: address2, port: z.int().min(0).max(65535) })).default([]),
                    accounting: z
                      .array(z.strictObject({ address: address2, port: z.int().min(0).max(65535) }))
                      .default([]),
                    secret: z.string().min(1).max(128).optional(),
                  })
                  .optional(),
              })
              .prefault({}),
          }),
        )
        .default([]),
      radio: z
        .array(
          z.strictObject({
            band: z.enum(['2.4', '5', '6']),
            enabled: z.boolean().default(false),
            mode: z.enum(['n', 'ac', 'ax', 'be']).optional(),
            channel: z.int().min(1).max(233).optional(),
            width: z.literal([20, 40, 80, 160, 320]).optional(),
            secondary: z.enum(['above', 'below']).optional(),
            power: power.optional(),
            'low-rates': z.enum(['kept', 'dropped']).default('kept'),
            'beacon-interval': z.int().min(50).max(1000).default(100),
          }),
        )
        .default([]),
    })
    .prefault({}),
  'air-muster-wireless:services': z
    .strictObject({
      'https-only': z.boolean().optional(),
      ssh: z.boolean().optional(),
      telnet: z.boolean().optional(),
      lights: z.boolean().optional(),
      'time-zone-rule': z.string().min(3).max(80).optional(),
      syslog: address.optional(),
      mail: z.strictObject({ server: address, to: z.string().min(3).max(254) }).optional(),
      restart: z.strictObject({ day: day, at: from }).optional(),
      snmp: z
        .strictObject({
          user: z.string().min(1).max(32),
          'authentication-key': z.string().min(8).max(64),
          'privacy-key': z.string().min(8).max(64),
        })
        .optional(),
    })
    .prefault({}),
  'air-muster-controller:access-points': z
    .strictObject({
      login: z
        .strictObject({ user: z.string().min(1).max(32), password: z.string().min(1).max(64).optional() })
        .optional(),
      'access-point': z
        .array(
          z.strictObject({
            mac: mac,
            name: z.string().min(1).max(63).optional(),
            location: z.string().optional(),
            network: z.array(z.string().min(1).max(32)).default([]),
            method: z.enum(['static', 'dhcp']).default('dhcp'),
            address: ip.optional(),
            'prefix-length': z.int().min(1).max(32).optional(),
            gateway: ip.optional(),
            controller: z.array(ip).default([]),
            radio: z
              .array(
                z.strictObject({
                  band: z.enum(['2.4', '5', '6']),
                  enabled: z.boolean().default(false),
                  mode: z.enum(['n', 'ac', 'ax', 'be']).optional(),
                  channel: z.int().min(1).max(233).optional(),
                  width: z.literal([20, 40, 80, 160, 320]).optional(),
                  secondary: z.enum(['above', 'below']).optional(),
                  power: power.optional(),
                  'low-rates': z.enum(['kept', 'dropped']).default('kept'),
                  'beacon-interval': z.int().min(50).max(1000).default(100),
                }),
              )
              .default([]),
          }),
        )
        .default([]),
    })
    .prefault({}),
})
export type Tree = z.infer<typeof treeSchema>
