/**
 * Why a step cannot go on: each reason has a code that never changes its meaning, with parameters. Sentences are made
 * of it when it is shown (words/), and nothing is found by them.
 */

import { z } from 'zod'
import type { JoinReason } from '../kit/joining'
import type { OldCrypto } from '../kit/old-crypto'
import type { Message } from '../message/message'
import type { Check } from './check'

/**
 * What shows that somebody has helped: then the unit is mustered again without a press. Without it, only a person
 * starts it.
 */
export type ResumesWhen = 'it-answers' | 'it-was-away' | 'it-is-at-its-address'

interface Facts {
  /** A press that the page offers for it. */
  readonly press?: 'trust-new-certificate' | undefined
  readonly resumesWhen?: ResumesWhen | undefined
}

/** A reason of before reasons had codes, as it was put then. */
export interface FormerHeld extends Facts {
  readonly why: string
  readonly hands: readonly string[]
  readonly more?: string | undefined
}

/** Lights that tell most: how each looks, and what its maker says that it means. */
type Lights = readonly (readonly [light: string, meaning: string])[]

/** The reasons, with their parameters. */
interface Reasons {
  /** Kept before reasons had codes. */
  'as-told': FormerHeld
  'cannot-be-set': { reasons: readonly Message[] }
  /** Its model is not set by a muster at all: nothing is to be mended. */
  'set-by-hand': { why: Message; address?: string }
  'went-wrong': object
  'not-found': {
    addresses: readonly string[]
    port: number | null
    poe: string
    lights: Lights
    mac: string
  }
  'heard-only': { addresses: readonly string[]; heardAt: string | null; name: string; reset: readonly string[] }
  'service-shut': { address: string; service: number; port: number | null }
  'another-model': { says: string; card: string }
  'refuses-passwords': { reset: readonly string[] }
  'label-password': { mac: string }
  'session-in-use': { name: string; said: Message }
  'laptop-lacks': { what: Message }
  'went-away': { port: number | null; lights: Lights }
  slow: { port: number | null }
  'wrong-unit': { mac: string }
  'new-certificate': { reason: Message; name: string; mac: string }
  outdated: { names: readonly OldCrypto[]; model: string }
  garbled: { model: string }
  'setting-refused': { said: Message }
  'changed-meanwhile': { name: string }
  'setting-not-kept': { differences: readonly Message[] }
  'password-not-kept': object
  'factory-password-stays': { reset: string }
  'image-not-kept': { file: string; model: string }
  'image-refused': { file: string; reason: Message }
  'image-not-run': { found: string; wanted: string }
  'still-applying': { seconds: number }
  'not-saved': object
  'open-network': { ssid: string }
  'not-on-air': { faults: readonly Message[] }
  'clock-off': { off: Message; servers: readonly string[] }
  'check-failed': { checks: readonly Check[] }
  'trades-addresses': { other: string }
  'address-taken': { address: string; mac: string }
  'address-of-another': { address: string; other: string }
  'vlan-not-carried': { vlan: number; port: number | null; fault?: string | null }
  'vlan-silent': { vlan: number; port: number | null }
  'not-reserved': { got: string; address: string; mac: string }
  'did-not-return': { address: string; lights: Lights }
  'came-back-unchanged': { address: string }
  'no-controller': { by: readonly string[] }
  'controller-not-ready': { name: string }
  'no-discovery': {
    name: string
    address: string
    port: number | null
    answers: { joined: number; most: number } | null
    told?: readonly string[]
  }
  'not-shown': { name: string; address: string; port: number | null }
  'another-controller': { name: string; other: string; at: string; port: number | null }
  'turned-away': { name: string; reason: JoinReason }
  'state-unknown': { name: string; said: string }
  'join-hangs': { standing: Message; seconds: number }
}
export type HeldCode = keyof Reasons
export type HeldParams<C extends HeldCode> = Reasons[C]

const facts: { readonly [C in HeldCode]: Facts } = {
  'as-told': {},
  'cannot-be-set': {},
  'set-by-hand': { resumesWhen: 'it-is-at-its-address' },
  'went-wrong': {},
  'not-found': { resumesWhen: 'it-answers' },
  'heard-only': { resumesWhen: 'it-answers' },
  'service-shut': { resumesWhen: 'it-answers' },
  'another-model': {},
  'refuses-passwords': { resumesWhen: 'it-was-away' },
  'label-password': {},
  'session-in-use': {},
  'laptop-lacks': {},
  'went-away': { resumesWhen: 'it-was-away' },
  slow: {},
  'wrong-unit': {},
  'new-certificate': { press: 'trust-new-certificate' },
  outdated: {},
  garbled: {},
  'setting-refused': {},
  'changed-meanwhile': {},
  'setting-not-kept': {},
  'password-not-kept': {},
  'factory-password-stays': {},
  'image-not-kept': {},
  'image-refused': {},
  'image-not-run': {},
  'still-applying': {},
  'not-saved': {},
  'open-network': {},
  'not-on-air': {},
  'clock-off': {},
  'check-failed': {},
  'trades-addresses': {},
  'address-taken': {},
  'address-of-another': {},
  'vlan-not-carried': {},
  'vlan-silent': {},
  'not-reserved': {},
  'did-not-return': { resumesWhen: 'it-answers' },
  'came-back-unchanged': {},
  'no-controller': {},
  'controller-not-ready': {},
  'no-discovery': { resumesWhen: 'it-was-away' },
  'not-shown': { resumesWhen: 'it-was-away' },
  'another-controller': { resumesWhen: 'it-was-away' },
  'turned-away': {},
  'state-unknown': {},
  'join-hangs': {},
}
const codes = Object.keys(facts) as [HeldCode, ...HeldCode[]]

export const heldSchema = z.object({
  kind: z.literal('held'),
  code: z.enum(codes),
  params: z.record(z.string(), z.json()),
})
export type Held = z.infer<typeof heldSchema>

export function heldFor<C extends HeldCode>(code: C, params: HeldParams<C>): Held {
  return { kind: 'held', code, params: params as Held['params'] }
}

/** What the page offers for a reason, and what ends it without a press. */
export function heldFacts({ code, params }: Held): Facts {
  return code === 'as-told' ? (params as Facts) : facts[code]
}
