/**
 * What failed, in the installer's words, and what the hands should do. The device's own words go to the log line.
 */
import { type KitCard, modelName } from '../core/kit/kit-card'
import type { Unit } from '../core/kit/unit'
import type { Held } from '../core/muster/events'
import type { WireError, WireErrorKind } from '../wire/wire-error'

/** A step that cannot go on: thrown by steps, shown as the held state. */
export class HeldError extends Error {
  override readonly name = 'HeldError'
  constructor(readonly held: Held) {
    super(held.why)
  }
}

export function held(why: string, hands: readonly string[], more?: string): HeldError {
  return new HeldError({ is: 'held', why, hands: [...hands], ...(more === undefined ? {} : { more }) })
}

/** Held until hands have helped: what shows that they have begins its muster again by itself. */
export function heldForHands(
  resumesWhen: NonNullable<Held['resumesWhen']>,
  why: string,
  hands: readonly string[],
  more?: string,
): HeldError {
  return new HeldError({ ...held(why, hands, more).held, resumesWhen })
}

export interface Subject {
  readonly unit: Unit
  readonly card: KitCard
}

const inPort = (unit: Unit): string => (unit.port === null ? 'its cable' : `the cable in port ${unit.port}`)
const lightMeanings = ({ card }: Subject): string =>
  `Look at its light: ${Object.entries(card.lights)
    .slice(0, 2)
    .map(([light, meaning]) => `${light} means ${meaning}`)
    .join(', ')}, dark means no power.`

/** It is at none of the addresses where it could be. */
export function notFound(subject: Subject, addresses: readonly string[]): HeldError {
  return heldForHands('it-answers', `It does not answer at ${addresses.join(' or ')}.`, [
    `Check ${inPort(subject.unit)} and that the port gives ${subject.card.power.poe} power.`,
    lightMeanings(subject),
    `Compare the MAC on its label with ${subject.unit.mac}.`,
    'It carries on by itself when it answers.',
  ])
}

export function refusesAllPasswords({ card }: Subject): HeldError {
  return heldForHands(
    'it-was-away',
    'It refuses the factory password.',
    [...card.reset.steps, 'It carries on by itself from Reach.'],
    "It was set up before. Neither the job's password nor the one on its label opens it.",
  )
}

type Explanation = (subject: Subject, error: WireError) => HeldError

const explanations: Readonly<Record<WireErrorKind, Explanation>> = {
  unreachable: (subject) =>
    heldForHands('it-was-away', 'It stopped answering.', [
      `Check ${inPort(subject.unit)}.`,
      lightMeanings(subject),
      'Take it out for ten seconds and put it in again: it goes on by itself when it answers.',
    ]),
  timeout: (subject) =>
    held('It answers too slowly.', [
      `Give it a minute, then muster it again.`,
      `If it stays slow, take ${inPort(subject.unit)} out for ten seconds.`,
    ]),
  refused: (subject) => refusesAllPasswords(subject),
  'wrong-unit': ({ unit }) =>
    held('Another unit answers in its place.', [
      `Compare the MAC on its label with ${unit.mac}.`,
      'Put the right MAC on the kit list, then muster it again.',
    ]),
  untrusted: ({ unit }, error) =>
    new HeldError({
      is: 'held',
      why: 'Its certificate is not the one it showed first.',
      more: error.reason,
      hands: [
        `Make sure that nobody put another device in place of ${unit.name}: compare its label with ${unit.mac}.`,
        'If you reset it yourself, it has made itself a new one: trust that, and it is mustered again.',
      ],
      press: 'trust-new-certificate',
    }),
  garbled: ({ card }) =>
    held(`It does not answer as ${modelName(card)} should.`, [
      'Check the model on its label against the kit list.',
      'If they agree, power it off for ten seconds and muster it again.',
    ]),
  rejected: (_subject, error) =>
    held(
      'It refuses a setting.',
      ['Read below what it said, change the brief or the plan, then muster it again.'],
      `It said: ${error.reason}`,
    ),
}

export function explain(subject: Subject, error: WireError): HeldError {
  return explanations[error.kind](subject, error)
}
