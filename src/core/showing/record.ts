/**
 * The record of a showing: what hands did on a unit's pages, each act with the element that it was done to and what
 * its value means. It holds no secret and no value of the site: a value is kept as the setting that it is of.
 */
import { z } from 'zod'
import type { Spoken } from '../config/outcomes'
import { settingOf } from '../config/settings/settings'
import type { SettingKey } from '../config/unit-config'
import type { Described, ElementFacts } from '../kit/page-element'
import { type Meaning, meaningOfChoice, meaningOfText } from './meaning'
import type { Noted, NotedRow } from './noted'
import { describe } from './seek'
import { bandByWords } from './trade-words'

/** What a press is for, beside leading on. */
export const pressRoles = ['way', 'effect', 'restart', 'sign-out', 'remove', 'close', 'left-out'] as const
export type PressRole = (typeof pressRoles)[number]

/** What the value of an act is. */
export type ActValue =
  | ({ readonly kind: 'setting' } & Meaning)
  /** One of several elements that are ticked together for one setting: the band of a network, a way to an address. */
  | { readonly kind: 'tick-of'; readonly id: SettingKey['id']; readonly of: string; readonly tick: string }
  /** The login that it has out of its box. */
  | { readonly kind: 'factory'; readonly part: 'user' | 'password' }
  | { readonly kind: 'always'; readonly text: string }
  | { readonly kind: 'ticked'; readonly ticked: boolean }
  | { readonly kind: 'left-out' }
  /** Nobody knows yet: it is asked about. */
  | { readonly kind: 'unknown' }

export interface Act {
  readonly number: number
  readonly path: string
  readonly at: Described
  /** What the element is called, for people. */
  readonly label: string
  readonly does:
    | {
        readonly kind: 'puts'
        readonly value: ActValue
        /** All that a list offered where something was chosen from it. */
        readonly offered: readonly string[]
      }
    | { readonly kind: 'press'; readonly role: PressRole; readonly row: NotedRow | undefined }
  /** Words that stood on the page afterwards and not before. */
  readonly appeared: readonly Described[]
}

export interface ShownRecord {
  readonly acts: readonly Act[]
  /** Where a page shows the unit's MAC. */
  readonly mac: { readonly path: string; readonly at: Described } | undefined
  /** Where networks stand in rows, and on which page. */
  readonly rows: { readonly path: string; readonly row: NotedRow } | undefined
  /** The page as it stood at the last act. */
  readonly before: readonly ElementFacts[]
  /** What rows of its tables are called. */
  readonly named: readonly string[]
  /** What was typed and means nothing, by the number of its act: it goes into no card unless somebody says so. */
  readonly texts: Readonly<Record<number, string>>
}
export const nothingShown: ShownRecord = {
  acts: [],
  mac: undefined,
  rows: undefined,
  before: [],
  named: [],
  texts: {},
}

/** What is known of the unit that is shown. */
export interface Showing {
  readonly mac: string
  readonly spoken: readonly Spoken[]
  readonly factory: { readonly user: string; readonly password: string }
  /** What was put in from the list beside the window, the last at the end. */
  readonly putIn: readonly SettingKey[]
}

const mostNamed = 500

/** Adds what a page told. */
export function withNoted(record: ShownRecord, noted: Noted, showing: Showing): ShownRecord {
  const { facts, path, hands, rows } = noted
  const named = [...new Set([...record.named, ...rows.flatMap(({ each, text }) => (each === 'li' ? [] : [text]))])]
  const isOfSite = ofSite(showing, named)
  const seen: ShownRecord = {
    ...record,
    mac: record.mac ?? macOn(noted, showing),
    rows: record.rows ?? rowsOn(path, rows, showing),
    named: named.slice(-mostNamed),
  }
  if (!hands) return { ...seen, acts: withAppeared(record, facts, isOfSite) }
  const own = facts.find((each) => each.seen === hands.seen)
  if (!own) return seen
  const row = hands.kind === 'pressed' ? (hands.row ?? undefined) : undefined
  // Within a row an element is told from those of the same row alone.
  const alike = row && own.row !== '' ? facts.filter((each) => each.row === own.row) : facts
  const at = describe(alike, own, isOfSite)
  if (!at) return seen
  const label = [own.label || own.text || own.hint || own.name, own.heading]
    .filter((each) => each && !isOfSite(each))
    .join(', ')
  const does: Act['does'] =
    hands.kind === 'pressed'
      ? { kind: 'press', role: roleOf(own, row), row }
      : {
          kind: 'puts',
          value: actValue(record, hands, own, { ...showing, isOfSite }),
          offered: hands.kind === 'chosen' ? hands.offered : [],
        }
  const number = (record.acts.at(-1)?.number ?? 0) + 1
  const act: Act = { number, path, at, label, does, appeared: [] }
  const isUnknown = does.kind === 'puts' && does.value.kind === 'unknown' && hands.kind === 'typed'
  const texts = isUnknown ? { ...record.texts, [number]: hands.text } : record.texts
  return { ...seen, acts: joined(record.acts, act), before: facts, texts }
}

/** What is put into the same element again, before anything is pressed, takes the place of what was there. */
function joined(acts: readonly Act[], act: Act): Act[] {
  const pressed = acts.findLastIndex(({ does }) => does.kind === 'press')
  const isSame = (each: Act, index: number): boolean =>
    index > pressed && each.path === act.path && JSON.stringify(each.at) === JSON.stringify(act.at)
  const kept = act.does.kind === 'puts' ? acts.filter((each, index) => !isSame(each, index)) : acts
  return [...kept, act]
}

/** What somebody says of an act: what its value is, or what its press is for. */
export function answered(record: ShownRecord, number: number, value: ActValue | PressRole): ShownRecord {
  const acts = record.acts.map((act): Act => {
    if (act.number !== number) return act
    if (act.does.kind === 'press')
      return typeof value === 'string' ? { ...act, does: { ...act.does, role: value } } : act
    return typeof value === 'string' ? act : { ...act, does: { ...act.does, value } }
  })
  return { ...record, acts }
}

/** Words of the site or of one unit: what its settings are to be, its MAC, addresses, what stands in its tables. */
function ofSite({ spoken, mac }: Showing, named: readonly string[]): (words: string) => boolean {
  const own = spoken.flatMap(({ id, value }) => {
    if (settingOf(id).value instanceof z.ZodEnum) return []
    const values = Array.isArray(value) ? value : [value]
    return values.flatMap((each) => (typeof each === 'string' ? [each] : []))
  })
  // Numbers stand in labels too, such as those of bands.
  const all = [...own, ...named]
    .map((each) => each.toLowerCase())
    .filter((each) => each.length >= 3 && !/^[\d.]+$/.test(each))
  const bare = mac.replaceAll(':', '')
  return (words) => {
    const plain = words.toLowerCase()
    const isUnits = plain.replace(/[:.-]/g, '').includes(bare) || /\d+\.\d+\.\d+\.\d+/.test(plain)
    return isUnits || all.some((each) => holdsWhole(plain, each))
  }
}

/** Whether words stand in others as they are, and not as a part of a longer one. */
function holdsWhole(words: string, own: string): boolean {
  const isSign = (sign: string | undefined): boolean => sign !== undefined && /[\p{L}\p{N}]/u.test(sign)
  for (let at = words.indexOf(own); at >= 0; at = words.indexOf(own, at + 1))
    if (!isSign(words[at - 1]) && !isSign(words[at + own.length])) return true
  return false
}

function macOn({ path, facts }: Noted, { mac }: Showing): ShownRecord['mac'] {
  const shows = facts.find(
    ({ use, text }) => use === 'show' && text.toLowerCase().replace(/[^0-9a-f]/g, '') === mac.replaceAll(':', ''),
  )
  const at = shows && describe(facts, shows, (words) => words === shows.text)
  return at && { path, at }
}

/** A row that is called as one of the networks is. */
function rowsOn(path: string, rows: Noted['rows'], { spoken }: Showing): ShownRecord['rows'] {
  const names = spoken.filter(({ id }) => id === 'network.ssid').map(({ value }) => value)
  const found = rows.find(({ text }) => names.includes(text))
  return found && { path, row: { each: found.each, name: found.name } }
}

function withAppeared(
  { acts, before }: ShownRecord,
  facts: readonly ElementFacts[],
  isOfSite: (words: string) => boolean,
): readonly Act[] {
  const last = acts.at(-1)
  if (last?.does.kind !== 'press') return acts
  const known = new Set(before.map(({ text }) => text))
  const words = new Set(last.appeared.map((each) => JSON.stringify(each)))
  const added = facts.flatMap((each): Described[] => {
    if (each.use !== 'show' || known.has(each.text)) return []
    const at = describe(facts, each, isOfSite)
    return at?.by.some(({ text }) => text !== undefined) && !words.has(JSON.stringify(at)) ? [at] : []
  })
  return [...acts.slice(0, -1), { ...last, appeared: [...last.appeared, ...added].slice(0, 40) }]
}

function roleOf({ text }: ElementFacts, row: NotedRow | undefined): PressRole {
  if (row && /\b(remove|delete|take away)\b/i.test(text)) return 'remove'
  if (/^(cancel|close|back)$/i.test(text)) return 'close'
  if (/\b(restart|reboot|start again)\b/i.test(text)) return 'restart'
  if (/\b(sign|log) ?(out|off)\b/i.test(text)) return 'sign-out'
  if (/\b(save|apply) (all|changes|configuration)\b|\b(commit|activate)\b/i.test(text)) return 'effect'
  return 'way'
}

/** The network that is being set: the one whose name was put in last, on this page. */
function networkAt({ acts }: ShownRecord): string | undefined {
  for (const { does } of acts.toReversed())
    if (does.kind === 'puts' && does.value.kind === 'setting' && does.value.id === 'network.ssid') return does.value.of
  return undefined
}

type Puts = Exclude<NonNullable<Noted['hands']>, { kind: 'pressed' }>

function actValue(
  record: ShownRecord,
  hands: Puts,
  own: ElementFacts,
  { spoken, factory, putIn, isOfSite }: Showing & { readonly isOfSite: (words: string) => boolean },
): ActValue {
  const network = networkAt(record)
  if (hands.kind === 'typed') {
    const meaning = meaningOfText(spoken, hands.text, own, { putIn, network })
    if (meaning) return { kind: 'setting', ...meaning }
    if (hands.text !== '' && hands.text === factory.password) return { kind: 'factory', part: 'password' }
    if (hands.text !== '' && hands.text === factory.user) return { kind: 'factory', part: 'user' }
    return { kind: 'unknown' }
  }
  if (hands.kind === 'chosen') {
    const meaning = meaningOfChoice(spoken, hands.value, own, { network })
    // What stands in a list may be of the site too: it goes into no card as words.
    const isOwn = isOfSite(hands.value)
    if (meaning && (!isOwn || Object.keys(meaning.how).length === 0)) return { kind: 'setting', ...meaning }
    return isOwn ? { kind: 'unknown' } : { kind: 'always', text: hands.value }
  }
  const band = bandByWords(own.label)
  const isBandOfNetwork = band !== undefined && network !== undefined && own.label.length <= 12
  if (isBandOfNetwork && hands.ticked) return { kind: 'tick-of', id: 'network.bands', of: network, tick: band }
  if (hands.isOneOfSeveral) {
    if (/\b(static|fixed|manual)\b/i.test(own.label)) return tickOf('static')
    if (/\b(dhcp|automatic|from the network)\b/i.test(own.label)) return tickOf('dhcp')
  }
  const meaning = meaningOfChoice(spoken, hands.ticked, own, { network })
  return meaning ? { kind: 'setting', ...meaning } : { kind: 'ticked', ticked: hands.ticked }
}

const tickOf = (tick: string): ActValue => ({ kind: 'tick-of', id: 'management.method', of: '', tick })
