/** Hands show on one unit how its model is set: what they do becomes a record, and the record a card. */
import type { Spoken } from '../../core/config/outcomes'
import type { SettingKey } from '../../core/config/unit-config'
import type { ActValue, PressRole } from '../../core/showing/act'
import { type JoinedUnit, statesIn } from '../../core/showing/joined-row'
import { howItIsWritten } from '../../core/showing/meaning'
import type { Noted, ProtocolLogin } from '../../core/showing/noted'
import { answered, likelyFor, nothingShown, type Showing, type ShownRecord, withNoted } from '../../core/showing/record'
import { type ShownUnit, shownCard } from '../../core/showing/shown-card'
import type { Hand, Told } from '../../core/showing/window-talk'

/** So many values that were put in are kept in mind: a field tells its own when it is left. */
const mostPutIn = 8

/** The access point that is set through the unit at this moment. */
export interface ActedFor extends JoinedUnit {
  readonly model: string
  readonly spoken: readonly Spoken[]
  /** Whether its model has a card. */
  readonly isDescribed: boolean
}

export class UnitShowing {
  readonly #subject: ShownUnit
  readonly #tell: (told: Told) => void
  #record: ShownRecord
  #putIn: readonly SettingKey[] = []
  #joined: ActedFor | undefined
  /** All access points that were set so far, by MAC. */
  readonly #all = new Map<string, ActedFor>()

  /** @param before  what was shown on this unit until its window was closed */
  constructor(subject: ShownUnit, tell: (told: Told) => void, before: ShownRecord = nothingShown) {
    this.#subject = subject
    this.#tell = tell
    const { address, scheme, port } = subject
    this.#record = { ...before, from: before.from ?? { address, scheme, port } }
    this.#tellActs()
  }

  get record(): ShownRecord {
    return this.#record
  }

  /** What a page told of itself and of what was done on it. */
  readonly note = (noted: Noted | ProtocolLogin): void => {
    const before = this.#record
    const showing = this.#known()
    this.#record = withNoted(before, noted, showing)
    if (typeof noted === 'string') return
    const likely = likelyFor(this.#record, noted, showing)
    if (likely) this.#tell({ kind: 'likely', id: likely.id, of: likely.of })
    const { acts, joined } = this.#record
    const isStateNew = JSON.stringify(joined) !== JSON.stringify(before.joined)
    if (acts.length !== before.acts.length || noted.hands || isStateNew) this.#tellActs()
  }

  #known(): Showing {
    const { mac, spoken, factory } = this.#subject
    return {
      mac,
      joined: this.#joined,
      spoken: this.#joined?.spoken ?? spoken,
      beside: [{ mac, spoken }, ...this.#all.values()],
      factory,
      putIn: this.#putIn,
    }
  }

  /** @param joined  undefined for the unit itself */
  actFor(joined: ActedFor | undefined): void {
    this.#joined = joined
    this.#putIn = []
    if (joined) this.#all.set(joined.mac, joined)
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

  sayState({ words, state }: Extract<Hand, { kind: 'state-means' }>): void {
    this.#record = { ...this.#record, states: { ...this.#record.states, [words]: state } }
    this.#tellActs()
  }

  /** What is said of an act, with how its page writes it. */
  #meant(value: Extract<Hand, { kind: 'means' }>['value'], text: string): ActValue | PressRole {
    if (value === 'always') return { kind: 'always', text }
    if (typeof value === 'string' || value.kind !== 'setting') return value
    const { id, of } = value
    const spoken = this.#known().spoken.find((each) => each.id === id && each.of === of)
    return { ...value, how: (spoken && howItIsWritten(spoken, text)) ?? {} }
  }

  makeCard(): void {
    const undescribed = [...this.#all.values()].find(({ isDescribed }) => !isDescribed)
    this.#tell({ kind: 'card', ...shownCard(this.#record, { ...this.#subject, undescribed }) })
  }

  #tellActs(): void {
    const acts = this.#record.acts.slice(-mostActsTold).map(({ number, for: whom, label, path, does }) => ({
      ...{ number, for: whom, path, label },
      ...(does.kind === 'press'
        ? { does: 'press' as const, role: does.role }
        : { does: 'puts' as const, value: toldValue(does.value), stood: does.stood }),
    }))
    const states = statesIn(this.#record).words.map(({ words, state }) => ({ words, ...(state ? { state } : {}) }))
    this.#tell({ kind: 'shown', acts, states })
  }
}

const mostActsTold = 500

type ToldAct = Extract<Told, { kind: 'shown' }>['acts'][number]

/** Of a value its setting is told, and nothing else. */
function toldValue(value: Extract<ShownRecord['acts'][number]['does'], { kind: 'puts' }>['value']): ToldAct['value'] {
  if (value.kind === 'setting' || value.kind === 'tick-of') return { kind: 'setting', id: value.id, of: value.of }
  return { kind: value.kind }
}
