/**
 * Templates of commands: mustache, with names that are settings. Only plain and conditional places are allowed: what
 * would let a value in without its escape, or bring in another file, is refused when the card is read.
 */

import mustache from 'mustache'
import { isSettingId } from '../catalogue/catalogue'
import { type Message, message, messageText } from '../message/message'

/** What an access point of a controller is known by, in the commands that set it there. */
export const ofUnitsAlone = ['unit.mac', 'unit.serial'] as const

/** Names beside the settings. */
const derived: ReadonlySet<string> = new Set([
  ...ofUnitsAlone,
  'radios',
  'networks',
  'vlans',
  'vlan',
  'first',
  'index',
  'radio.name',
  'radio.band',
  'radio.centre',
  'radio.pair',
  'network.id',
  'login.user',
  'login.password',
  'current.address',
  'current.prefix',
])

type Token = [kind: string, name: string, start: number, end: number, inner?: Token[], ...rest: unknown[]]

/** What is wrong with a template, as texts of messages; none where it is good. */
export function templateFaults(text: string): string[] {
  let tokens: Token[]
  try {
    tokens = mustache.parse(text) as unknown as Token[]
  } catch (error) {
    return [error instanceof Error ? error.message : String(error)]
  }
  const faults: string[] = []
  const walk = (each: readonly Token[]): void => {
    for (const [kind, name, , , inner] of each) {
      if (kind === 'text') continue
      if (kind !== 'name' && kind !== '#' && kind !== '^')
        faults.push(
          kind === '&'
            ? messageText('place-without-escape', { name })
            : messageText('place-not-allowed', { kind, name }),
        )
      else if (!isKnown(name)) faults.push(messageText('setting-unknown', { setting: name }))
      if (inner) walk(inner)
    }
  }
  walk(tokens)
  return faults
}

/** Names of the places in a template that has no faults. */
export function placesNamed(text: string): ReadonlySet<string> {
  const named = (each: readonly Token[]): string[] =>
    each.flatMap(([kind, name, , , inner]) => (kind === 'text' ? [] : [name, ...named(inner ?? [])]))
  return new Set(templateFaults(text).length > 0 ? [] : named(mustache.parse(text) as unknown as Token[]))
}

/** `is.network.security.wpa3-personal` asks whether a setting has a value. */
function isKnown(name: string): boolean {
  const [group, setting] = name.replace(/^is\./, '').split('.')
  const id = `${group}.${setting}`
  return derived.has(name) || isSettingId(name) || (name.startsWith('is.') && (derived.has(id) || isSettingId(id)))
}

export type Escape = (value: string) => string

/** Fills a template in; each value goes through the escape. @throws whatever the escape throws */
export function fillIn(text: string, values: object, written: Escape): string {
  return mustache.render(text, values, undefined, { escape: (value) => written(String(value)) })
}

/** How values are written into the commands of a card; `escape.ts` of the dialect says what each does. */
export type Quoting = 'shell' | 'quoted' | 'bare'

/** Where a reader of the command line is, before a piece of it. */
interface Reading {
  /** The sign that ends what is quoted; empty where nothing is. */
  quote: string
  /** The sign before the next one. */
  before: string
  /** Whether that sign takes the meaning of the next one away. */
  escaped: boolean
  /** What makes the rest of the line harder to read than this reader can; empty where nothing does. */
  lost: string
}

/**
 * Places at which a value would not be one word of the command line, whatever it holds: its escape would end the quotes
 * around it, or mean nothing there.
 *
 * @returns texts of messages; none where every place is good
 */
export function unsafePlaces(text: string, quoting: Quoting): string[] {
  if (quoting === 'bare') return []
  const faults: string[] = []
  const reading: Reading = { quote: '', before: '\n', escaped: false, lost: '' }
  const walk = (tokens: readonly Token[]): void => {
    for (const [kind, name, , , inner] of tokens) {
      if (kind === 'text') for (const sign of name) read(reading, sign, quoting)
      else if (kind === 'name') {
        const why = unsafe(reading)
        if (why) faults.push(messageText('place-unsafe', { name, why }))
        reading.before = 'a'
        reading.escaped = false
      } else if (inner) {
        const { quote, escaped } = reading
        walk(inner)
        // It may be left out: what follows must mean the same either way.
        if (quote !== reading.quote || escaped !== reading.escaped)
          faults.push(messageText('quotes-within-place', { kind, name }))
      }
    }
  }
  walk(mustache.parse(text) as unknown as Token[])
  return faults
}

function unsafe({ quote, before, escaped, lost }: Reading): Message | undefined {
  if (lost !== '') return message('place-behind', { lost })
  if (quote !== '') return message('place-within-quotes')
  return escaped || before === '$' ? message('place-right-behind', { before }) : undefined
}

/**
 * Two signs that begin what is expanded once more, a here-document, or arithmetic (IEEE Std 1003.1-2017, 2.6, 2.7.4).
 */
const expanding = new Set(['<<', '(('])
const quotes = { shell: `'"\``, quoted: '"', bare: '' } as const

function read(reading: Reading, sign: string, quoting: Quoting): void {
  const { quote, before, escaped } = reading
  reading.before = sign
  reading.escaped = false
  if (escaped) return
  if (sign === '\\' && quote !== "'") reading.escaped = true
  else if (quote !== '') {
    if (sign === quote) reading.quote = ''
    // Within double quotes these begin a command, or a word, with quotes of its own.
    else if (quoting === 'shell' && quote === '"' && (sign === '`' || (before === '$' && '({'.includes(sign))))
      reading.lost = sign === '`' ? sign : `$${sign}`
  } else if (quotes[quoting].includes(sign)) {
    reading.quote = sign
    if (sign === '`') reading.lost = sign
  } else if (quoting === 'shell') {
    if (expanding.has(before + sign)) reading.lost = before + sign
    else if (sign === '#' && /[\s;&|()]/.test(before)) reading.lost = '#'
  }
}
