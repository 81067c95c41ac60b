/**
 * What the wire helper can be asked: nothing else is done with its privilege. One JSON value a line over a Unix socket
 * that only the installer's own user can open.
 */

import { z } from 'zod'
import { cidrSchema, ipv4Schema } from '../../core/address/ipv4'
import { macSchema } from '../../core/address/mac'
import { messageText } from '../../core/message/message'

const address = ipv4Schema
/** A lane leads to one box: to no group of them (IEEE 802, 8.2), and to an address that a box can have (RFC 6890). */
const mac = macSchema.refine(
  (text) => (Number.parseInt(text.slice(0, 2), 16) & 1) === 0 && !/^[0:]+$/.test(text),
  messageText('not-one-mac'),
)
const boxAddress = ipv4Schema.refine((text) => {
  const first = Number.parseInt(text, 10)
  return first > 0 && first < 224 && first !== 127
}, messageText('not-an-address-of-a-box'))
const target = z.strictObject({ mac, address: boxAddress, prefix: z.int().min(8).max(30) })
const range = z.strictObject({ first: address, last: address })

const text = z.string().nullable()
const heard = z.object({
  neighbours: z.array(
    z.object({
      mac: z.string(),
      chassis: z.string(),
      port: z.string(),
      portWords: z.string().optional(),
      name: z.string().optional(),
      words: z.string().optional(),
      address: z.string().optional(),
      at: z.number(),
    }),
  ),
  asking: z.array(z.object({ mac: z.string(), hostName: text, vendorClass: text, at: z.number() })),
  /** Who speaks ARP, and from which address; null where it only asks whether an address is free. */
  talking: z.array(z.object({ mac: z.string(), address: text, at: z.number() })),
  servers: z.array(
    z.object({
      address: z.string(),
      mac: z.string(),
      /** Null for untagged. */
      vlan: z.int().nullable(),
      offered: z.string(),
      prefix: z.int().nullable(),
      router: text,
      controllers: z.array(z.string()),
      vendor: text,
      vendorClass: text,
      privateUse: text,
      at: z.number(),
    }),
  ),
  /** Whether this laptop lends addresses to boxes that wait for one, and which are lent until when, ms since 1970. */
  dhcp: z.object({
    state: z.enum(['off', 'serving', 'another-serves']),
    leases: z.array(z.object({ mac: z.string(), address, until: z.number() })),
  }),
})
export type HeardOnWire = z.infer<typeof heard>

export const helperVerbs = {
  /** The interface that it works, and what it has added to it. */
  standing: {
    ask: z.strictObject({}),
    answer: z.object({
      interfaceName: z.string(),
      added: z.array(z.string()),
      lanes: z.int(),
      /** Interfaces for tagged VLANs on top of it. */
      vlans: z.array(
        z.object({
          vlan: z.int(),
          dev: z.string(),
          origin: z.enum(['own', 'added']),
          /** When a frame with its tag came in last, ms since 1970. */
          heardAt: z.number().nullable(),
        }),
      ),
    }),
  },
  /** VLANs that are worked with their tag from now on: what the laptop lacks for it is added. */
  'reach-vlans': { ask: z.strictObject({ vlans: z.array(z.int().min(1).max(4094)).max(16) }), answer: z.object({}) },
  arp: { ask: z.strictObject({ address }), answer: z.object({ macs: z.array(z.string()) }) },
  neighbours: {
    ask: z.strictObject({ subnets: z.array(cidrSchema).max(64) }),
    answer: z.object({ found: z.array(z.object({ mac: z.string(), address: z.string() })) }),
  },
  /** Addresses that no lane may start from: the plan gives them to units, or a server hands them out. */
  'keep-off': { ask: z.strictObject({ ranges: z.array(range).max(4096) }), answer: z.object({}) },
  'open-lane': { ask: target, answer: z.object({ source: z.string() }) },
  'close-lane': { ask: target, answer: z.object({}) },
  ping: { ask: z.strictObject({ source: address, address }), answer: z.object({ answers: z.boolean() }) },
  /** Lends addresses of a subnet to these MACs from now on, or to nobody: never where another server answers. */
  'lend-addresses': {
    ask: z.strictObject({
      to: z.strictObject({ macs: z.array(mac).max(1024), cidr: cidrSchema }).nullable(),
    }),
    answer: z.object({}),
  },
  /** What was heard without asking, and who serves DHCP where that is asked for now. */
  heard: { ask: z.strictObject({ askForDhcp: z.enum(['now', 'no']) }), answer: heard },
  /** Takes away everything that was added. */
  restore: { ask: z.strictObject({}), answer: z.object({}) },
} as const
export type HelperVerbs = typeof helperVerbs
