/**
 * What the lab's host port and the lab say to each other, over one connection on loopback that stays open: an HTTP
 * request for `/wire` with the lab's token, upgraded (RFC 9110, 7.8) to questions and answers, one a line.
 */
import { z } from 'zod'
import { heardSchema, laptopSchema } from '../muster/events'
import type { Ask } from '../questions/question'

const target = z.object({ mac: z.string(), address: z.string(), prefix: z.int() })

/** Question and answer by the name of the question. */
export const labWire = {
  laptop: { ask: z.object({}), answer: laptopSchema },
  arp: { ask: z.object({ address: z.string() }), answer: z.object({ macs: z.array(z.string()) }) },
  /** Everybody who answers ARP at an address of these subnets. */
  neighbours: {
    ask: z.object({ subnets: z.array(z.string()).max(64) }),
    answer: z.object({ found: z.array(z.object({ mac: z.string(), address: z.string() })) }),
  },
  /**
   * Who is on the wire at all, with the address that each speaks from; who says by LLDP what it is, who serves DHCP.
   */
  'on-link': {
    ask: z.object({}),
    answer: z.object({
      found: z.array(z.object({ mac: z.string(), address: z.string().nullable() })),
      introductions: z.array(z.object({ mac: z.string(), words: z.string() })),
      servers: heardSchema.shape.servers,
    }),
  },
  /** Addresses that the laptop never speaks from. */
  'keep-off': {
    ask: z.object({ ranges: z.array(z.object({ first: z.string(), last: z.string() })).max(4096) }),
    answer: z.object({}),
  },
  'open-lane': { ask: target, answer: z.object({ source: z.string() }) },
  'close-lane': { ask: target, answer: z.object({}) },
  dial: { ask: target.extend({ port: z.int() }), answer: z.object({ loopbackPort: z.int().nullable() }) },
  /** Where datagrams to a port of the unit go. */
  datagrams: { ask: target.extend({ port: z.int() }), answer: z.object({ loopbackPort: z.int().nullable() }) },
  ping: { ask: target, answer: z.object({ answers: z.boolean() }) },
  restore: { ask: z.object({}), answer: z.object({}) },
} as const

export type LabWire = typeof labWire
export type LabAsk<Q extends keyof LabWire> = Ask<LabWire, Q>

/** What the connection is upgraded to. */
export const labWireProtocol = 'air-muster-wire'

/** Header that carries the lab's token, so that no web page can talk to it. */
export const labTokenHeader = 'x-lab-token'
