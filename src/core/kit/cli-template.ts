/**
 * Templates of commands: mustache, with names that are settings. Only plain and conditional places are allowed: what
 * would let a value in without its escape, or bring in another file, is refused when the card is read.
 */
import mustache from 'mustache'
import { isSettingId } from '../config/setting-ids'

/** Names beside the settings. */
const derived: ReadonlySet<string> = new Set([
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

/** What is wrong with a template, in sentences; none where it is good. */
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
        faults.push(kind === '&' ? `{{{${name}}}} would go in without its escape` : `{{${kind}${name}}} is not allowed`)
      else if (!isKnown(name)) faults.push(`"${name}" is not in the table of settings`)
      if (inner) walk(inner)
    }
  }
  walk(tokens)
  return faults
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

/**
 * Names that stand within quotes: their escape would end the quotes, and what follows would be a command.
 * @param quotes  signs that quote in this command line
 */
export function quotedPlaces(text: string, quotes: string): string[] {
  let open = ''
  return [...text.matchAll(/\{\{[^}]*\}\}|\\.|[\s\S]/g)].flatMap(([piece]) => {
    if (/^\{\{[A-Za-z]/.test(piece)) return open === '' ? [] : [piece.slice(2, -2)]
    if (open === '' && quotes.includes(piece)) open = piece
    else if (piece === open) open = ''
    return []
  })
}
