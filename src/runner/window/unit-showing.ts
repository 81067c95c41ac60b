/** Hands show on one unit how its model is set: what they do becomes a record, and the record a card. */
import type { SettingKey } from '../../core/config/unit-config'
import type { ActValue, PressRole } from '../../core/showing/act'
import { howItIsWritten } from '../../core/showing/meaning'
import type { Noted, ProtocolLogin } from '../../core/showing/noted'
import { answered, likelyFor, nothingShown, type ShownRecord, withNoted } from '../../core/showing/record'
import { type ShownUnit, shownCard } from '../../core/showing/shown-card'
import type { Hand, Told } from '../../core/showing/window-talk'

/** So many values that were put in are kept in mind: a field tells its own when it is left. */
const mostPutIn = 8

export class UnitShowing {
  readonly #subject: ShownUnit
  readonly #tell: (told: Told) => void
  #record: ShownRecord
  #putIn: readonly SettingKey[] = []

  /** @param before  what was shown on this unit until its window was closed */
  constructor(subject: ShownUnit, tell: (told: Told) => void, before: ShownRecord = nothingShown) {
    this.#subject = subject
    this.#tell = tell
    this.#record = before
    this.#tellActs()
  }

  get record(): ShownRecord {
    return this.#record
  }

  /** What a page told of itself and of hands on it. */
  readonly note = (noted: Noted | ProtocolLogin): void => {
    const { mac, spoken, factory } = this.#subject
    const before = this.#record
    const showing = { mac, spoken, factory, putIn: this.#putIn }
    this.#record = withNoted(before, noted, showing)
    if (typeof noted === 'string') return
    const likely = likelyFor(this.#record, noted, showing)
    if (likely) this.#tell({ kind: 'likely', id: likely.id, of: likely.of })
    if (this.#record.acts.length !== before.acts.length || noted.hands) this.#tellActs()
  }

  putIn(key: SettingKey): void {
    this.#putIn = [...this.#putIn, key].slice(-mostPutIn)
  }

  answer(hand: Extract<Hand, { kind: 'means' }>): void {
    const { act, value } = hand
    const text = this.#record.texts[act] ?? ''
    this.#record = answered(this.#record, act, this.#meant(value, text))
    this.#tellActs()
  }

  /** What is said of an act, with how its page writes it. */
  #meant(value: Extract<Hand, { kind: 'means' }>['value'], text: string): ActValue | PressRole {
    if (value === 'always') return { kind: 'always', text }
    if (typeof value === 'string' || value.kind !== 'setting') return value
    const { id, of } = value
    const spoken = this.#subject.spoken.find((each) => each.id === id && each.of === of)
    return { ...value, how: (spoken && howItIsWritten(spoken, text)) ?? {} }
  }

  makeCard(): void {
    this.#tell({ kind: 'card', ...shownCard(this.#record, this.#subject) })
  }

  #tellActs(): void {
    const acts = this.#record.acts.slice(-mostActsTold).map(({ number, label, path, does }) => ({
      ...{ number, path, label },
      ...(does.kind === 'press'
        ? { does: 'press' as const, role: does.role }
        : { does: 'puts' as const, value: toldValue(does.value), stood: does.stood }),
    }))
    this.#tell({ kind: 'shown', acts })
  }
}

const mostActsTold = 500

type ToldAct = Extract<Told, { kind: 'shown' }>['acts'][number]

/** Of a value its setting is told, and nothing else. */
function toldValue(value: Extract<ShownRecord['acts'][number]['does'], { kind: 'puts' }>['value']): ToldAct['value'] {
  if (value.kind === 'setting' || value.kind === 'tick-of') return { kind: 'setting', id: value.id, of: value.of }
  return { kind: value.kind }
}
