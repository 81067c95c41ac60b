/** A page as it stands, and hands on it: what a window would tell of both becomes a record. */
import { parse } from 'yaml'
import { spokenOf } from '../../src/core/config/outcomes'
import type { ElementFacts } from '../../src/core/kit/page-element'
import type { Noted, Puts } from '../../src/core/showing/noted'
import { nothingShown, type Showing, type ShownRecord, withNoted } from '../../src/core/showing/record'
import { type ShownUnit, shownCard } from '../../src/core/showing/shown-card'
import { askingFor } from './config'

export const spoken = spokenOf(askingFor('Ostrel O-40'))
export const value = (id: string): string => String(spoken.find((each) => each.id === id)?.value)
export const showing: Showing = { mac: '02:48:31:00:00:01', spoken, factory: { user: '', password: 'box' }, putIn: [] }
export const unit = {
  ...({ model: 'Some Box', mac: showing.mac, address: '192.168.1.1', scheme: 'http', port: 80 } as const),
  factory: showing.factory,
  spoken: [],
}

export type Given = Partial<ElementFacts> & {
  readonly within?: boolean
  /** What stands in it. */
  readonly holds?: string | boolean
}
const nothing = { name: '', id: '', label: '', text: '', hint: '', role: '', heading: '', row: '' }
const factsOf = (elements: readonly Given[]): ElementFacts[] =>
  elements.map(({ within: _within, holds: _holds, ...each }, seen) => ({ ...nothing, use: 'press', ...each, seen }))
const standing = (elements: readonly Given[]): Puts[] =>
  elements.flatMap(({ use, holds }, seen): Puts[] => {
    if (typeof holds === 'boolean') return [{ kind: 'ticked', seen, ticked: holds, isOneOfSeveral: false }]
    if (holds === undefined) return []
    return [
      use === 'choose' ? { kind: 'chosen', seen, value: holds, offered: [] } : { kind: 'typed', seen, text: holds },
    ]
  })

/** A page as it stands, and what hands do on the element whose words are given. */
export class ShownPage {
  #record: ShownRecord = nothingShown
  #showing = showing
  path = '/'
  elements: Given[] = []

  #tell(hands?: Noted['hands'], rows: Noted['rows'] = []): void {
    const noted = { path: this.path, facts: factsOf(this.elements), rows, ...(hands ? { hands } : {}) }
    this.#record = withNoted(this.#record, noted, this.#showing)
  }

  /** Another page, or the same with other things on it. */
  stands(path: string, ...elements: Given[]): void {
    this.path = path
    this.elements = elements
    this.#tell()
  }

  /** @param cells  what stands in it, cell by cell */
  hasRow(...cells: string[]): void {
    const parts = cells.map((text, at) => {
      const name = `td:nth-child(${at + 1})`
      return { each: 'tbody tr', name, text, isFirst: at === 0 }
    })
    this.#tell(undefined, parts)
  }

  /** From now on hands act for an access point that is set through it. */
  actFor(joined: NonNullable<Showing['joined']>, toBe: Showing['spoken']): void {
    const { mac, spoken: own } = showing
    this.#showing = { ...showing, joined, spoken: toBe, beside: [{ mac, spoken: own }] }
  }

  says(words: string, state: ShownRecord['states'][string]): void {
    this.#record = { ...this.#record, states: { ...this.#record.states, [words]: state } }
  }

  get record(): ShownRecord {
    return this.#record
  }

  #seen(words: string): number {
    return this.elements.findIndex(({ label, text }) => label === words || text === words)
  }

  type(label: string, text: string): void {
    this.#tell({ kind: 'typed', seen: this.#seen(label), text })
  }

  press(words: string, { isButton = true, inRow = false } = {}): void {
    const row = inRow ? { each: 'tbody tr', name: 'td:nth-child(1)' } : null
    const within = inRow ? [this.#seen(words)] : []
    const hands = { row, isButton, within, standing: standing(this.elements) }
    this.#tell({ kind: 'pressed', seen: this.#seen(words), ...hands })
  }

  signIn(): void {
    this.stands('/login', field('Password'), button('Log in'))
    this.type('Password', 'box')
    this.press('Log in')
  }

  choose(label: string, chosen: string): void {
    this.#tell({ kind: 'chosen', seen: this.#seen(label), value: chosen, offered: [chosen] })
  }

  get card() {
    return this.cardFor(unit)
  }

  cardFor(of: ShownUnit) {
    const { yaml, missing } = shownCard(this.#record, of)
    const { dialect } = parse(yaml) as { dialect: Record<string, unknown> & { pages: Record<string, unknown>[] } }
    return { dialect, missing: missing.map(({ code }) => code) }
  }
}

export const field = (label: string): Given => ({ use: 'type', label })
export const button = (text: string): Given => ({ text })
export const words = (text: string): Given => ({ use: 'show', text })
export const textsOf = (ats: unknown): unknown[] =>
  (ats as { by: { text?: string; label?: string }[] }[]).map(({ by: [first] }) => first?.text ?? first?.label)
