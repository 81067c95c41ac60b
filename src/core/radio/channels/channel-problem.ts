/**
 * The channel problem: which block each radio is to use, so that radios which hear each other disturb each other least.
 *
 * The cost is the sum over pairs of radios in one band of `overlap * max(0, level + 92)`: level is what one hears of
 * the other, dBm, the louder direction; overlap is the shared bandwidth divided by that of the narrower. Networks of
 * others count as radios that stay where they are. Where adjacent channels are counted by their mask, a pair whose
 * blocks do not overlap costs a quarter of `max(0, level - loss + 92)`: the loss is what the spectral mask takes off
 * between the two.
 */

import { z } from 'zod'
import { bandSchema } from '../../catalogue/values'
import { messageText } from '../../message/message'
import { usualListenSeconds } from '../../regulatory/radar-listening'
import { overlapOf, type Span } from './span'
import { lossBetweenDb } from './spectral-mask'

/** At or below this level nothing is disturbed, dBm. */
export const quietestDbm = -92

/**
 * `price` is what an option costs by itself, beside what it disturbs: bandwidth that is given up. The cost leaves it
 * out.
 */
const optionSchema = z
  .object({
    channel: z.int(),
    width: z.number().positive(),
    lowMhz: z.number(),
    highMhz: z.number(),
    radar: z.boolean().default(false),
    /** Left out, a radar channel is taken to be listened to for a minute. */
    listenSeconds: z.number().min(0).optional(),
    price: z.number().min(0).default(0),
  })
  .refine((option) => option.highMhz > option.lowMhz, messageText('option-ends-above'))
export type ChannelOption = z.infer<typeof optionSchema>

/** Seconds that an option is listened to for radar before it is on air. */
export function listenSecondsIn({ radar, listenSeconds }: Pick<ChannelOption, 'radar' | 'listenSeconds'>): number {
  return listenSeconds ?? (radar ? usualListenSeconds : 0)
}

const choiceSchema = z.object({ channel: z.int(), width: z.number().positive() })
export type ChannelChoice = z.infer<typeof choiceSchema>

const problemRadioSchema = z.object({
  id: z.string().min(1),
  band: bandSchema,
  options: z.array(optionSchema).min(1, messageText('radio-without-option')),
  /** Channel, or channel and width, that it must keep. */
  locked: z.union([z.int(), choiceSchema]).nullable().default(null),
  /** What it is set to already: among equals it stays. */
  set: choiceSchema.nullable().default(null),
})
export type ProblemRadio = z.infer<typeof problemRadioSchema>

const hearingSchema = z.object({ a: z.string(), b: z.string(), dbm: z.number() })
export type Hearing = z.infer<typeof hearingSchema>

const otherSchema = z.object({ radio: z.string(), lowMhz: z.number(), highMhz: z.number(), dbm: z.number() })
export type OtherNetwork = z.infer<typeof otherSchema>

export const channelProblemSchema = z
  .object({
    radios: z.array(problemRadioSchema),
    hears: z.array(hearingSchema).default([]),
    others: z.array(otherSchema).default([]),
    /** Left out, channels beside each other cost nothing. */
    adjacent: z.literal('by-mask').optional(),
  })
  .check((context) => {
    const { radios, hears, others } = context.value
    const known = new Set<string>()
    const fault = (told: string, path: (string | number)[]): void => {
      context.issues.push({ code: 'custom', message: told, path, input: context.value })
    }
    radios.forEach(({ id, options, locked }, index) => {
      if (known.has(id)) fault(messageText('radio-twice', { id }), ['radios', index, 'id'])
      known.add(id)
      if (locked !== null && !options.some((option) => isLocked(option, locked)))
        fault(messageText('radio-lock-unknown', { id }), ['radios', index, 'locked'])
    })
    hears.forEach(({ a, b }, index) => {
      const stranger = [a, b].find((id) => !known.has(id))
      if (stranger !== undefined) fault(messageText('radio-unknown', { radio: stranger }), ['hears', index])
      if (a === b) fault(messageText('radio-hears-itself', { radio: a }), ['hears', index])
    })
    others.forEach(({ radio }, index) => {
      if (!known.has(radio)) fault(messageText('radio-unknown', { radio }), ['others', index])
    })
  })
export type ChannelProblem = z.infer<typeof channelProblemSchema>

export function isLocked(option: ChannelChoice, locked: number | ChannelChoice): boolean {
  return typeof locked === 'number'
    ? option.channel === locked
    : option.channel === locked.channel && option.width === locked.width
}

/** How two blocks lie to each other. */
export interface Meeting {
  /** 0 to 1. */
  readonly overlap: number
  /** What is taken off between blocks that do not overlap, dB; infinite where nothing is counted. */
  readonly lossDb: number
}

export function meetingOf(a: Span, b: Span, adjacent: ChannelProblem['adjacent']): Meeting {
  const overlap = overlapOf(a, b)
  return { overlap, lossDb: overlap > 0 ? 0 : adjacent ? lossBetweenDb(a, b) : Number.POSITIVE_INFINITY }
}

/**
 * What comes through from a channel beside is noise: it lowers rates where a client is far, and takes no turns of the
 * air as a network on the same channel does. Weighed alike, it would put near neighbours on one channel for the sake of
 * far ones. Our own figure.
 */
const noiseShare = 0.25

/** What comes through of a pair of so much weight, over so much loss. */
export function noiseOf(weight: number, lossDb: number): number {
  return noiseShare * Math.max(0, weight - lossDb)
}

/** @param weight what the pair costs where the blocks overlap fully */
export function costOfMeeting({ overlap, lossDb }: Meeting, weight: number): number {
  return overlap > 0 ? overlap * weight : noiseOf(weight, lossDb)
}

/** What a level costs where two blocks overlap fully. */
export function weightOf(dbm: number): number {
  return Math.max(0, dbm - quietestDbm)
}

/** Pairs of radios by their places in a list, each once, with what a full overlap costs. */
export interface Pairs {
  readonly first: Int32Array
  readonly second: Int32Array
  readonly weight: Float64Array
  readonly count: number
}

/**
 * Pairs of the radios in the list that disturb each other; the louder direction, where a pair stands more than once.
 */
export function pairsOf(radios: readonly { readonly id: string }[], hears: readonly Hearing[]): Pairs {
  const index = new Map(radios.map((radio, at) => [radio.id, at]))
  const first = new Int32Array(hears.length)
  const second = new Int32Array(hears.length)
  const weight = new Float64Array(hears.length)
  const known = new Map<number, number>()
  let count = 0
  for (const { a, b, dbm } of hears) {
    const i = index.get(a)
    const j = index.get(b)
    const w = weightOf(dbm)
    if (i === undefined || j === undefined || w === 0) continue
    const key = i < j ? i * radios.length + j : j * radios.length + i
    const before = known.get(key)
    if (before !== undefined) {
      weight[before] = Math.max(weight[before] ?? 0, w)
      continue
    }
    known.set(key, count)
    first[count] = i
    second[count] = j
    weight[count] = w
    count += 1
  }
  return { first, second, weight, count }
}

/** The cost of a plan, worked out anew from the problem: the measure that everything else is held to. */
export function costOf(problem: ChannelProblem, chosen: ReadonlyMap<string, ChannelOption>): number {
  const { radios, hears, others, adjacent } = problem
  const options = radios.map((radio) => chosen.get(radio.id))
  const { first, second, weight, count } = pairsOf(radios, hears)
  let cost = 0
  for (let pair = 0; pair < count; pair += 1) {
    const [i = 0, j = 0] = [first[pair], second[pair]]
    const [one, other] = [options[i], options[j]]
    if (one && other && radios[i]?.band === radios[j]?.band)
      cost += costOfMeeting(meetingOf(one, other, adjacent), weight[pair] ?? 0)
  }
  for (const other of others) {
    const one = chosen.get(other.radio)
    if (one) cost += costOfMeeting(meetingOf(one, other, adjacent), weightOf(other.dbm))
  }
  return cost
}
