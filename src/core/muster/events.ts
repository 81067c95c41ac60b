/**
 * Events: everything that a runner tells. They are appended and never changed; the roll is derived from them.
 */

import { z } from 'zod'
import { askedSchema } from '../config/asked'
import { settingOutcomeSchema } from '../config/outcomes'
import { settingIdSchema } from '../config/unit-config'
import { oldCryptoSchema } from '../kit/old-crypto'
import { evidenceKinds } from '../kit/recognise'
import { messageSchema } from '../message/message'
import { checkSchema } from './check'
import { heldSchema } from './held'
import { steps } from './procedure'

export type { Check } from './check'

export const stepStateSchema = z.union([
  z.object({ kind: z.literal('idle') }),
  z.object({ kind: z.literal('working'), doing: messageSchema }),
  /** `until` in milliseconds since 1970; a wait that ran out is waited on with patience, then held. */
  z.object({ kind: z.literal('waiting'), until: z.number(), waitingFor: messageSchema }),
  z.object({ kind: z.literal('done'), note: messageSchema.optional() }),
  heldSchema,
])
export type StepState = z.infer<typeof stepStateSchema>

export const sightingSchema = z.object({
  mac: z.string(),
  address: z.string(),
  /** `maker model` where the unit said so itself; null while it answers by layer 2 only. */
  model: z.string().nullable(),
  /** What speaks for that; sweeps of before did not say. */
  by: z.array(z.enum(evidenceKinds)).readonly().default([]),
  /** Whose it may be by its MAC alone, a model or a maker, where it said nothing itself. */
  perhaps: z.string().optional(),
  /** Unit on the kit list with this MAC. */
  unit: z.string().nullable(),
  seen: z.enum(['at-factory-address', 'at-its-address', 'by-dhcp', 'elsewhere']),
  /**
   * Whether its management service answers, or only ARP; `untrusted` where it shows another certificate than before.
   */
  answers: z.enum(['service', 'arp-only', 'untrusted']),
  /** Since when it answers like this, ms since 1970; sweeps of before did not say. */
  since: z.number().optional(),
})
export type Sighting = z.infer<typeof sightingSchema>

/** What is heard on the wire beside who answers: each known by its MAC. */
export const heardSchema = z.object({
  /** Who gives addresses by DHCP, and where it sends access points to find their controller (option 138, RFC 5417). */
  servers: z.array(
    z.object({
      mac: z.string(),
      /** In which it serves; null for untagged. */
      vlan: z.int().nullable().default(null),
      address: z.string(),
      controllers: z.array(z.string()).default([]),
    }),
  ),
  /** Who asks DHCP for an address, with what kind of device it says that it is. */
  asking: z.array(z.object({ mac: z.string(), says: z.string().nullable() })),
  /** The other end of the laptop's cable, where it says so itself (IEEE 802.1AB). */
  cableEnd: z.object({ name: z.string(), port: z.string() }).nullable(),
  /** Units that are heard on the wire and answer nowhere: each with the address that it speaks from, if it has one. */
  onLink: z.array(z.object({ mac: z.string(), address: z.string().nullable() })).default([]),
  /** Whether this laptop lends addresses to boxes that wait for one, and which are lent until when, ms since 1970. */
  lending: z
    .object({
      /** `cannot`: this laptop has no wire helper. */
      state: z.enum(['off', 'serving', 'another-serves', 'cannot']),
      leases: z.array(z.object({ mac: z.string(), address: z.string(), until: z.number() })),
    })
    .default({ state: 'off', leases: [] }),
  /** Addresses of the servers that the brief names, as the site's own name servers have them. */
  named: z.array(z.object({ name: z.string(), address: z.string() })).default([]),
})
export type Heard = z.infer<typeof heardSchema>
export const nothingHeard: Heard = {
  servers: [],
  asking: [],
  cableEnd: null,
  onLink: [],
  lending: { state: 'off', leases: [] },
  named: [],
}

export const laptopSchema = z.object({
  interfaceName: z.string(),
  addresses: z.array(z.object({ cidr: z.string(), origin: z.enum(['own', 'added']) })),
  lanes: z.int(),
  /** VLANs that it reaches with a tag. */
  vlans: z.array(z.int()).default([]),
  /** VLANs that it has an interface for, and where nobody was heard: whether the switch carries them cannot be told. */
  silentVlans: z.array(z.int()).default([]),
  /** Why it has no interface for a VLAN that it should reach, in its system's own words. */
  vlanFault: z.string().nullable().default(null),
  /** How many times faster than life the wire runs; 1 on a real one. */
  pace: z.number(),
})
export type Laptop = z.infer<typeof laptopSchema>

/** The BSSID of a network, by its id, on a radio. */
export const cellSchema = z.object({ band: z.string(), network: z.string(), bssid: z.string() })
export type Cell = z.infer<typeof cellSchema>

const unit = z.string()
export const musterEventSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('step'), unit, step: z.enum(steps), state: stepStateSchema }),
  z.object({ kind: z.literal('log'), unit, told: messageSchema }),
  z.object({ kind: z.literal('check'), unit, check: checkSchema }),
  z.object({
    kind: z.literal('muster'),
    phase: z.enum(['started', 'pausing', 'paused', 'ended']),
    units: z.array(unit),
  }),
  /** A one-way door: opened before the unit hears of the change, passed when the new way in is proven. */
  z.object({
    kind: z.literal('door'),
    unit,
    door: z.enum(['password', 'address']),
    state: z.enum(['opened', 'passed']),
    /** Of the password door, opened: the mark of the password that goes through it. */
    secret: z.string().optional(),
    /** Of the address door, opened: where the unit is sent. Events of older programs do not say. */
    place: z.object({ address: z.string(), prefix: z.int() }).optional(),
  }),
  z.object({ kind: z.literal('kept'), unit, copy: z.enum(['as-found', 'as-left', 'from-pages', 'page-when-held']) }),
  /**
   * What was written and is not shown by the unit has taken effect: marks by setting. `from: scratch` where it was
   * found as out of its box, and nothing that was written before counts.
   */
  z.object({
    kind: z.literal('written'),
    unit,
    mac: z.string(),
    from: z.enum(['before', 'scratch']),
    marks: z.record(z.string(), z.string()),
  }),
  /** What became of each setting. */
  z.object({ kind: z.literal('outcomes'), unit, outcomes: z.array(settingOutcomeSchema) }),
  /** Somebody has seen to a setting that no muster can set. */
  z.object({
    kind: z.literal('by-hand'),
    unit,
    id: settingIdSchema,
    of: z.string(),
    /** What was asked when it was done: another asking is to be done again. */
    asked: z.string(),
    who: z.string(),
    done: z.enum(['yes', 'no']),
  }),
  /** A radio has left its channel, since it heard radar there. */
  z.object({
    kind: z.literal('radar'),
    unit,
    band: z.string(),
    from: z.int(),
    to: z.int(),
    width: z.number(),
  }),
  /**
   * A unit came with a network on air that anybody could join: found so, with when it was first seen, ms since 1970;
   * then silenced.
   */
  z.object({
    kind: z.literal('shipped-open'),
    unit,
    ssid: z.string(),
    state: z.enum(['found', 'silenced']),
    since: z.number().optional(),
  }),
  /** Every check was good for this. */
  z.object({
    kind: z.literal('proven'),
    unit,
    asked: askedSchema,
    /** The machine whose runner proved it. */
    by: z.string().optional(),
    /** Hands have set it, and it was looked at from outside. */
    how: z.literal('by-hand').optional(),
    /** What it ran then, where it tells. */
    firmware: z.string().optional(),
    /** The BSSID of each network on each radio, where it tells. */
    cells: z.array(cellSchema).optional(),
  }),
  z.object({
    kind: z.literal('sweep'),
    sightings: z.array(sightingSchema),
    heard: heardSchema.default(nothingHeard),
  }),
  z.object({ kind: z.literal('laptop'), laptop: laptopSchema }),
  /** Somebody has opened the window on a unit's own pages, or it was closed. */
  z.object({
    kind: z.literal('window'),
    unit,
    state: z.enum(['opened', 'closed']),
    by: z.string(),
    why: z.enum(['by-hand', 'idle', 'ended', 'lost']).optional(),
  }),
  /** Somebody lets what is no longer safe be spoken with one unit, by name; with no name no more. */
  z.object({ kind: z.literal('speaks-old'), unit, old: z.array(oldCryptoSchema).max(20), by: z.string() }),
  /** Somebody has this laptop lend addresses to boxes that wait for one, or no more. */
  z.object({ kind: z.literal('lending'), state: z.enum(['on', 'off']), by: z.string() }),
  /** Somebody asked to see a secret: the name of it, never its value. */
  z.object({ kind: z.literal('reveal'), secret: z.string(), by: z.string().optional() }),
])
export type MusterEvent = z.infer<typeof musterEventSchema>

/** An event in its place: numbered without gaps within its job. */
export const placedEventSchema = z.object({ seq: z.int(), at: z.number(), event: musterEventSchema })
export type PlacedEvent = z.infer<typeof placedEventSchema>
