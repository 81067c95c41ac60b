/** What failed on the wire, as a reason with its code. The device's own words go to the log line. */
import { type KitCard, modelName } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import { OutdatedError, type WireError, type WireErrorKind } from '../../wire/errors/wire-error'
import { type HeldError, held } from './held-error'

export interface Subject {
  readonly unit: Unit
  readonly card: KitCard
}

/** The two lights that tell most, as they stand first on the card: how it looks, and what that means. */
export const tellingLights = (card: Pick<KitCard, 'lights'>): readonly (readonly [light: string, meaning: string])[] =>
  Object.entries(card.lights).slice(0, 2)

/** It is at none of the addresses where it could be. */
export function notFound(subject: Subject, addresses: readonly string[]): HeldError {
  const { unit, card } = subject
  return held('not-found', {
    addresses,
    port: unit.port,
    poe: card.power.poe,
    lights: tellingLights(subject.card),
    mac: unit.mac,
  })
}

/**
 * Its cable and its power are good: it speaks, and answers nowhere.
 * @param heardAt  its address, as far as it was heard
 */
export function heardOnly({ unit, card }: Subject, addresses: readonly string[], heardAt: string | null): HeldError {
  return held('heard-only', { addresses, heardAt, name: unit.name, reset: card.reset.steps })
}

/** It is there by layer 2, and its service has had the time to start. */
export function serviceShut({ unit, card }: Subject, address: string): HeldError {
  return held('service-shut', { address, service: card.factory.port, port: unit.port })
}

export function refusesAllPasswords({ card }: Subject): HeldError {
  return held('refuses-passwords', { reset: card.reset.steps })
}

type Explanation = (subject: Subject, error: WireError) => HeldError

const explanations: Readonly<Record<WireErrorKind, Explanation>> = {
  unreachable: (subject) => held('went-away', { port: subject.unit.port, lights: tellingLights(subject.card) }),
  timeout: ({ unit }) => held('slow', { port: unit.port }),
  refused: (subject) => refusesAllPasswords(subject),
  occupied: ({ unit }, { told }) => held('session-in-use', { name: unit.name, said: told }),
  lacking: (_subject, { told }) => held('laptop-lacks', { what: told }),
  'wrong-unit': ({ unit }) => held('wrong-unit', { mac: unit.mac }),
  untrusted: ({ unit }, { told }) => held('new-certificate', { reason: told, name: unit.name, mac: unit.mac }),
  garbled: ({ card }) => held('garbled', { model: modelName(card) }),
  rejected: (_subject, { told }) => held('setting-refused', { said: told }),
  outdated: ({ card }, error) => {
    const old = error instanceof OutdatedError ? error.old : []
    return held('outdated', { names: old, model: modelName(card) })
  },
  overtaken: ({ unit }) => held('changed-meanwhile', { name: unit.name }),
}

export function explain(subject: Subject, error: WireError): HeldError {
  return explanations[error.kind](subject, error)
}
