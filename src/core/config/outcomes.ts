/**
 * What becomes of each setting on each unit: nothing that was asked is dropped in silence.
 *
 * In: what is asked of a unit, and what its proof has read. Out: one outcome for each setting that the brief or the
 * plan speaks of.
 */

import { dequal } from 'dequal/lite'
import { z } from 'zod'
import type { SettingId } from '../catalogue/catalogue'
import { type Row, settingOf } from '../catalogue/catalogue'
import type { Scope } from '../catalogue/setting'
import { plainWords } from '../catalogue/setting'
import { isManaged, modelName, whyNotMustered } from '../kit/kit-card'
import { carriesNetworks } from '../kit/networks-carried'
import { type Message, message, messageSchema } from '../message/message'
import type { Band } from '../regulatory/blocks'
import type { Asking, Subjects } from './asking'
import { isSame, valueWords } from './compare'
import { desiredValue, desireRowsOf, whyNotTaken } from './desired'
import { bandsOn } from './desired-network'
import {
  type Config,
  type Holding,
  keyText,
  type Mark,
  type Observed,
  type ObservedConfig,
  type Secrecy,
  type SettingKey,
  settingIdSchema,
} from './unit-config'

export const outcomeSchema = z.discriminatedUnion('kind', [
  /** Nothing has come of it yet. */
  z.object({ kind: z.literal('open') }),
  /** Read back as asked. */
  z.object({ kind: z.literal('proven'), value: z.string() }),
  /** Written, and not shown by the unit: the mark of what was written is kept. */
  z.object({ kind: z.literal('written'), mark: z.string() }),
  /** This model cannot be set to it: somebody's hands can. */
  z.object({ kind: z.literal('by-hand'), why: messageSchema, hands: messageSchema }),
  z.object({ kind: z.literal('not-for-it'), why: messageSchema }),
])
export type Outcome = z.infer<typeof outcomeSchema>

export const settingOutcomeSchema = z.object({
  id: settingIdSchema,
  of: z.string(),
  /** `Ellery Crew` or `5 GHz`; empty for the unit itself. */
  name: z.string(),
  /** What is asked, for people; never a secret. */
  asked: z.string(),
  /** Tells one asking from another, also of a secret: of what kind the value is, or the mark of a secret. */
  mark: z.string(),
  outcome: outcomeSchema,
})
export type SettingOutcome = z.infer<typeof settingOutcomeSchema>

/** One setting that is spoken of, with the value that is asked. */
export interface Spoken<S extends Secrecy = Secrecy> extends SettingKey, Holding<S> {
  readonly name: string
  readonly value: unknown
  readonly outcome: Outcome
}

/** What was worked out for an asking: it is asked for in several ways. */
interface Worked {
  readonly spoken: readonly Spoken[]
  expected?: readonly SettingOutcome[]
}
const workedBefore = new WeakMap<Asking, Worked>()

function workedFor(asking: Asking): Worked {
  const known = workedBefore.get(asking)
  if (known) return known
  const worked: Worked = { spoken: allSpokenOf(asking) }
  workedBefore.set(asking, worked)
  return worked
}

/** Every setting that brief and plan speak of, and what can be said of it before anything is tried. */
export function spokenOf<S extends Secrecy>(asking: Asking<S>): readonly Spoken<S>[] {
  return workedFor(asking).spoken as readonly Spoken<S>[]
}

function allSpokenOf(asking: Asking): Spoken[] {
  const { brief, card } = asking
  const spoken: Spoken[] = []
  const silent = whyNotMustered(card)
  const carries = carriesNetworks(card)
  speak(spoken, 'unit', asking, undefined, '', '', silent, undefined)
  for (const network of brief.networks) {
    const why = !carries
      ? message('carries-no-networks')
      : bandsOn(network, asking).length === 0
        ? message('no-radio-for-network')
        : undefined
    speak(spoken, 'network', asking, network, network.id, network.ssid, silent, why)
  }
  const bands = new Set<Band>([...card.radios.map(({ band }) => band), ...brief.radio.bands.map(({ band }) => band)])
  for (const band of [...bands].sort()) {
    const radio = card.radios.find((each) => each.band === band)
    const why = radio ? undefined : message('no-radio-of-band', { band })
    speak(spoken, 'radio', asking, { band, radio }, band, `${band} GHz`, silent, why)
  }
  return spoken
}

/**
 * Adds what is spoken of one unit, network or radio. A loop over plain objects: a job has hundreds of thousands.
 *
 * @param silent  why a muster does not speak to this model at all
 * @param why     why none of it is for this unit
 */
function speak<S extends Scope>(
  spoken: Spoken[],
  scope: S,
  asking: Asking,
  subject: Subjects[S],
  of: string,
  name: string,
  silent: Message | undefined,
  why: Message | undefined,
): void {
  for (const row of desireRowsOf(scope)) {
    const value = row.desire.desired(asking, subject)
    if (value === undefined) continue
    const outcome: Outcome =
      why === undefined ? foretell(row, value, asking, subject, silent) : { kind: 'not-for-it', why }
    spoken.push({ id: row.id, of, name, value, outcome })
  }
}

const open: Outcome = { kind: 'open' }
const ofItsController: Outcome = { kind: 'not-for-it', why: message('controller-has-it') }
const notAskedFor: Outcome = { kind: 'not-for-it', why: message('model-does-not-ask') }
const askedForNone: Outcome = { kind: 'not-for-it', why: message('brief-asks-for-none') }
const hasNone: Outcome = {
  kind: 'not-for-it',
  why: message('model-has-none'),
}

/** What can be said of a setting before anything is tried. */
function foretell(
  { id, setting }: Row,
  value: unknown,
  asking: Asking,
  subject: Subjects[Scope],
  silent: Message | undefined,
): Outcome {
  const { card } = asking
  const byHand = (why: Message): Outcome => ({
    kind: 'by-hand',
    why,
    hands: setting.secret
      ? message('hands-as-in-vault', { setting: id })
      : message('hands-set', { setting: id, value: valueWords(id, value) }),
  })
  const isNothing = setting.nothing !== undefined && isSame(id, setting.nothing, value)
  if (silent !== undefined)
    return isNothing && !setting.oftenOn
      ? askedForNone
      : byHand(message('not-set-by-muster', { model: modelName(card), why: silent }))
  // Nobody sets it on the unit itself, by hand or otherwise.
  if (setting.scope === 'unit' && isManaged(card) && card.can[id] === undefined) return ofItsController
  if (!card.can[id]) {
    if (setting.whereAsked) return notAskedFor
    return isNothing ? hasNone : byHand(message('not-taken-by-model', { model: modelName(card) }))
  }
  const unfit = whyUnfit(id, value, asking, subject)
  if (unfit !== undefined) return byHand(unfit)
  if (isNothing || !setting.needs) return open
  const lacking = setting.needs.find((needed) => !isTaken(needed, asking, subject))
  return lacking === undefined ? open : byHand(message('goes-with', { setting: lacking, model: modelName(card) }))
}

/** Why a model that knows a setting cannot take this value of it; undefined where it can. */
function whyUnfit(id: SettingId, value: unknown, asking: Asking, subject: Subjects[Scope]): Message | undefined {
  const { show = plainWords } = settingOf(id)
  const why = whyNotTaken(id, value, asking, subject)
  if (why !== undefined) return why
  const { values } = asking.card.can[id] ?? {}
  if (!values || values.some((each) => dequal(each, value))) return undefined
  return message('takes-only', { model: modelName(asking.card), values: values.map((each) => show(each)).join(', ') })
}

/** Does the model take a setting as it is asked? */
function isTaken(id: SettingId, asking: Asking, subject: Subjects[Scope]): boolean {
  const value = desiredValue(id, asking, subject)
  if (value === undefined) return true
  return asking.card.can[id] !== undefined && whyUnfit(id, value, asking, subject) === undefined
}

/** The same as it may be kept and shown. */
export function expectedOf(asking: Asking<Mark>): readonly SettingOutcome[] {
  const worked = workedFor(asking)
  worked.expected ??= spokenOf(asking).map(asExpected)
  return worked.expected
}

function asExpected({ id, of, name, value, outcome }: Spoken<Mark>): SettingOutcome {
  return { id, of, name, asked: valueWords(id, value), mark: markOf(value), outcome }
}

/** Mark of an asked value; of a secret, its value is a mark already. */
export function markOf(value: unknown): string {
  return typeof value === 'string' ? value : JSON.stringify(value ?? null)
}

/**
 * The outcomes when a proof has read a unit: what was read as asked is proven, what was not shown is written.
 */
export function settled(
  expected: readonly SettingOutcome[],
  desired: (key: SettingKey) => unknown,
  observed: ObservedConfig,
  written: ReadonlyMap<string, string>,
): SettingOutcome[] {
  return expected.map((each) =>
    each.outcome.kind === 'open'
      ? { ...each, outcome: seen(each, desired(each), find(observed, each), written) }
      : each,
  )
}

function seen(
  expected: SettingOutcome,
  desired: unknown,
  found: Observed<unknown>,
  written: ReadonlyMap<string, string>,
): Outcome {
  const row = settingOf(expected.id)
  // The proof has signed in with it, in a session of its own.
  if (row.bySigningIn)
    return { kind: 'proven', value: row.secret ? 'signed in with it' : valueWords(expected.id, desired) }
  if (found.kind === 'value') {
    if (isSame(expected.id, desired, found.value))
      return { kind: 'proven', value: valueWords(expected.id, found.value) }
    if (row.onlyRead)
      return {
        kind: 'by-hand',
        why: message('has-value', { value: valueWords(expected.id, found.value) }),
        hands: message('hands-bring', { setting: expected.id, value: valueWords(expected.id, desired) }),
      }
  }
  // Nobody is shown it, and the proof has asked with it.
  if (row.byAsking && found.kind === 'unreadable') return { kind: 'proven', value: 'asked with it' }
  if (found.kind === 'unreadable' && written.get(keyText(expected)) === expected.mark)
    return { kind: 'written', mark: expected.mark }
  return { kind: 'open' }
}

/** What was read of a setting. */
export function find(observed: ObservedConfig, key: SettingKey): Observed<unknown> {
  return (valueAt(observed, key) as Observed<unknown> | undefined) ?? { kind: 'unsupported' }
}

/** The value of a setting of the unit, of one network or of one radio; undefined where it has none. */
export function valueAt(config: Config<Secrecy> | ObservedConfig, { id, of }: SettingKey): unknown {
  const { scope } = settingOf(id)
  const values: Readonly<Partial<Record<string, unknown>>> | undefined =
    scope === 'unit' ? config.unit : scope === 'network' ? config.networks[of] : config.radios[of]
  return values?.[id]
}

/** The outcomes of today: one that was kept holds as long as the same is asked. */
export function standing(expected: readonly SettingOutcome[], kept: readonly SettingOutcome[]): SettingOutcome[] {
  const before = new Map(kept.map((each) => [keyText(each), each]))
  return expected.map((each) => {
    const one = before.get(keyText(each))
    // A setting made by hand may have been proven from outside.
    const mayHold = each.outcome.kind === 'open' || (each.outcome.kind === 'by-hand' && one?.outcome.kind === 'proven')
    return mayHold && one && one.mark === each.mark && one.asked === each.asked
      ? { ...each, outcome: one.outcome }
      : each
  })
}
