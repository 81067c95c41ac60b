/**
 * Why a step cannot go on: each reason has a code that never changes its meaning, with parameters. Words are made of
 * it when it is shown, and nothing is found by its words.
 */
import { z } from 'zod'
import { addressHolds } from './held-address'
import { joinHolds } from './held-joins'
import { again, byItself, cable, type HeldWords, lightWords } from './held-words'

export type { HeldWords } from './held-words'

const reasons = {
  /** Kept before reasons had codes. */
  'as-told': (words: HeldWords): HeldWords => words,
  'cannot-be-set': ({ reasons: [why = '', ...more] }: { reasons: readonly string[] }): HeldWords => ({
    why,
    hands: ['Mend it in the brief, the kit or the plan.', again],
    more: more.join(' ') || undefined,
  }),
  /** Its model is not set by a muster at all: nothing is to be mended. */
  'set-by-hand': ({ why, address }: { why: string; address?: string }): HeldWords => ({
    why,
    hands: [
      'Set it by hand: its slip has every value.',
      ...(address === undefined
        ? []
        : [`Its address, ${address}, comes last: it is called again when it answers there.`]),
      'Tick there what is done.',
    ],
    resumesWhen: 'it-is-at-its-address',
  }),
  'went-wrong': (_none: object): HeldWords => ({
    why: 'Air Muster itself went wrong here.',
    hands: ['Muster this unit again.', 'If it happens twice, send us the log of the runner.'],
  }),
  'not-found': (p: {
    addresses: readonly string[]
    port: number | null
    poe: string
    lights: readonly string[]
    mac: string
  }): HeldWords => ({
    why: `It does not answer at ${p.addresses.join(' or ')}.`,
    hands: [
      `Check ${cable(p.port)} and that the port gives ${p.poe} power.`,
      lightWords(p.lights),
      `Compare the MAC on its label with ${p.mac}.`,
      byItself,
    ],
    resumesWhen: 'it-answers',
  }),
  'heard-only': (p: {
    addresses: readonly string[]
    heardAt: string | null
    name: string
    reset: readonly string[]
  }): HeldWords => ({
    why: `It is heard on the wire${p.heardAt === null ? '' : ` from ${p.heardAt}`}, and does not answer at ${p.addresses.join(' or ')}.`,
    hands: [
      'Leave its cable as it is: it has power, and the wire carries what it says.',
      p.heardAt === null
        ? 'Wait until it has an address, or reset it.'
        : `If ${p.name} belongs to another subnet on purpose, say so in the brief; else reset it.`,
      ...p.reset,
      byItself,
    ],
    resumesWhen: 'it-answers',
  }),
  'service-shut': ({
    address,
    service,
    port,
  }: {
    address: string
    service: number
    port: number | null
  }): HeldWords => ({
    why: `It answers ARP at ${address}, and lets nobody in at port ${service}.`,
    hands: [
      `Take ${cable(port)} out for ten seconds and put it in again.`,
      `If port ${service} stays shut, look for a filter on the switch, or reset the unit.`,
      byItself,
    ],
    resumesWhen: 'it-answers',
  }),
  'another-model': ({ says, card }: { says: string; card: string }): HeldWords => ({
    why: `It says that it is ${says}, not ${card}.`,
    hands: ['Read the model on its label.', 'Correct the kit list, then muster it again.'],
  }),
  'refuses-passwords': ({ reset }: { reset: readonly string[] }): HeldWords => ({
    why: 'It refuses the factory password.',
    hands: [...reset, 'It carries on by itself from Reach.'],
    more: "It was set up before. Neither the job's password nor the one on its label opens it.",
    resumesWhen: 'it-was-away',
  }),
  'label-password': ({ mac }: { mac: string }): HeldWords => ({
    why: 'Each box of this model has a password of its own, and nobody has told the one of this.',
    hands: [`Read it on the label that says ${mac}, and type it on its slip in the kit list.`, again],
  }),
  'session-in-use': ({ name, said }: { name: string; said: string }): HeldWords => ({
    why: 'It takes one session at a time, and somebody else is signed in.',
    hands: [`Sign out wherever ${name} is open in a browser, and close that tab.`, again],
    more: `It said: ${said}`,
  }),
  'laptop-lacks': ({ what }: { what: string }): HeldWords => ({
    why: 'It takes a program that this laptop lacks.',
    hands: ['Install it: muster doctor says how.', again],
    more: `Missing: ${what}`,
  }),
  'went-away': ({ port, lights }: { port: number | null; lights: readonly string[] }): HeldWords => ({
    why: 'It stopped answering.',
    hands: [
      `Check ${cable(port)}.`,
      lightWords(lights),
      'Take it out for ten seconds and put it in again: it goes on by itself when it answers.',
    ],
    resumesWhen: 'it-was-away',
  }),
  slow: ({ port }: { port: number | null }): HeldWords => ({
    why: 'It answers too slowly.',
    hands: ['Give it a minute, then muster it again.', `If it stays slow, take ${cable(port)} out for ten seconds.`],
  }),
  'wrong-unit': ({ mac }: { mac: string }): HeldWords => ({
    why: 'Another unit answers in its place.',
    hands: [`Compare the MAC on its label with ${mac}.`, 'Put the right MAC on the kit list, then muster it again.'],
  }),
  'new-certificate': (p: { reason: string; name: string; mac: string }): HeldWords => ({
    why: 'Its certificate is not the one it showed first.',
    more: p.reason,
    hands: [
      `Make sure that nobody put another device in place of ${p.name}: compare its label with ${p.mac}.`,
      'If you reset it yourself, it has made itself a new one: trust that, and it is mustered again.',
    ],
    press: 'trust-new-certificate',
  }),
  outdated: ({ says, names, model }: { says: string; names: readonly string[]; model: string }): HeldWords => ({
    why: `It ${says}: whoever is on its wire may read along, or stand between.`,
    hands: [
      'Look whether its maker has a newer firmware.',
      `Where you accept it for the model, say so on the kit card of ${model}: old: [${names.join(', ')}] under does.`,
      again,
    ],
  }),
  garbled: ({ model }: { model: string }): HeldWords => ({
    why: `It does not answer as ${model} should.`,
    hands: [
      'Check the model on its label against the kit list.',
      'If they agree, power it off for ten seconds and muster it again.',
    ],
  }),
  'setting-refused': ({ said }: { said: string }): HeldWords => ({
    why: 'It refuses a setting.',
    hands: ['Read below what it said, change the brief or the plan, then muster it again.'],
    more: `It said: ${said}`,
  }),
  'changed-meanwhile': ({ name }: { name: string }): HeldWords => ({
    why: 'Another program or person changes it while it is being set.',
    hands: [`See that nobody else is signed in to ${name}, and no other program sets it.`, 'Then muster it again.'],
  }),
  'setting-not-kept': ({ differences }: { differences: readonly string[] }): HeldWords => ({
    why: 'It took a setting and shows another.',
    hands: ['Muster it again.', 'If it happens twice, set it aside: its firmware may be faulty.'],
    more: differences.join(' '),
  }),
  'password-not-kept': (_none: object): HeldWords => ({
    why: 'It took the new password and then refused it.',
    hands: [
      'Its old password is back. Muster it again.',
      'If it happens twice, have another password made in the brief.',
    ],
  }),
  'factory-password-stays': ({ reset }: { reset: string }): HeldWords => ({
    why: 'It still takes the factory password.',
    hands: ['Muster it again.', `If it happens twice, reset it: ${reset}`, 'Do not leave it on site like this.'],
  }),
  'image-not-kept': ({ file, model }: { file: string; model: string }): HeldWords => ({
    why: `The image ${file} for ${model} is not here any more, or is damaged.`,
    hands: ['Give it to the brief again, under its firmware.', again],
  }),
  'image-refused': ({ file, reason }: { file: string; reason: string }): HeldWords => ({
    why: `It does not take the image ${file}: ${reason}.`,
    hands: ['Compare model and digest with those that its maker gives.', 'Give the right one to the brief.', again],
  }),
  'image-not-run': ({ found, wanted }: { found: string; wanted: string }): HeldWords => ({
    why: `It was given firmware ${wanted} and runs ${found}.`,
    hands: [
      'See that the image brings the version that the brief says.',
      'Leave it powered, and muster it again.',
      'If it happens twice, set it aside: it does not keep what is written to it.',
    ],
  }),
  'still-applying': ({ seconds }: { seconds: number }): HeldWords => ({
    why: `It is still applying after ${seconds} s.`,
    hands: ['Leave it powered for two minutes more.', 'Then muster it again: it goes on where it stopped.'],
  }),
  'not-saved': (_none: object): HeldWords => ({
    why: 'It says that it has not saved.',
    hands: ['Leave it powered, and muster it again.', 'If it happens twice, set it aside: a restart would lose all.'],
  }),
  'open-network': ({ ssid }: { ssid: string }): HeldWords => ({
    why: `Network "${ssid}" is on air without security.`,
    hands: ['Take its cable out now.', 'Check the brief, then muster it again.'],
  }),
  'not-on-air': ({ faults }: { faults: readonly string[] }): HeldWords => ({
    why: 'A radio is not on air as planned.',
    hands: ['Read below what differs.', 'If it heard radar, plan another channel; else muster it again.'],
    more: faults.join(' '),
  }),
  'clock-off': ({ off, servers }: { off: string; servers: readonly string[] }): HeldWords => ({
    why: `Its clock is ${off}.`,
    hands: [
      `See that ${servers.join(' or ')} answers as a time server (NTP, UDP 123), and that the unit reaches it.`,
      'Compare the clock of this laptop with one that is right.',
      again,
    ],
    more: 'A wrong clock breaks joins, certificates and schedules.',
  }),
  'check-failed': ({ first, all }: { first: string; all: readonly string[] }): HeldWords => ({
    why: first,
    hands: ['Muster it again: what is right is left alone.', 'If it stays, look at the same point by hand.'],
    more: all.join(' '),
  }),
  ...addressHolds,
  ...joinHolds,
} as const

export type HeldCode = keyof typeof reasons
export type HeldParams<C extends HeldCode> = Parameters<(typeof reasons)[C]>[0]
const codes = Object.keys(reasons) as [HeldCode, ...HeldCode[]]

type Params = Record<string, z.core.util.JSONType>
const today = z.object({
  kind: z.literal('held'),
  code: z.enum(codes),
  params: z.record(z.string(), z.json()),
})
const former = z
  .object({
    kind: z.literal('held'),
    why: z.string(),
    more: z.string().optional(),
    hands: z.array(z.string()),
    press: z.literal('trust-new-certificate').optional(),
    resumesWhen: z.enum(['it-answers', 'it-was-away']).optional(),
  })
  .transform(({ kind, ...words }): z.infer<typeof today> => ({ kind, code: 'as-told', params: words as Params }))
export const heldSchema = z.union([today, former])
export type Held = z.infer<typeof today>

export function heldFor<C extends HeldCode>(code: C, params: HeldParams<C>): Held {
  return { kind: 'held', code, params: params as Held['params'] }
}

export function heldWords({ code, params }: Held): HeldWords {
  return (reasons[code] as (params: unknown) => HeldWords)(params)
}
