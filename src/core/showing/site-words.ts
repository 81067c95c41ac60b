/** Words of the site or of one unit: what its settings are to be, its MAC, addresses, what stands in its tables. */
import { z } from 'zod'
import { settingOf } from '../catalogue/catalogue'
import type { Spoken } from '../config/outcomes'

export interface SiteWords {
  /** Whether words hold any of them. */
  has(words: string): boolean
  /** The longest stretch of words that holds none of them; empty where too little is left to know it by. */
  rest(words: string): string
}

export const noSiteWords: SiteWords = { has: () => false, rest: (words) => words }

/** A stretch of fewer letters says too little. */
const fewestLetters = 8

/** @param named  what rows of its tables are called */
export function siteWords(
  { spoken, macs }: { readonly spoken: readonly Spoken[]; readonly macs: readonly string[] },
  named: readonly string[],
): SiteWords {
  const values = spoken.flatMap(({ id, value }) => {
    if (settingOf(id).value instanceof z.ZodEnum) return []
    const each = Array.isArray(value) ? value : [value]
    return each.flatMap((one) => (typeof one === 'string' ? [one] : []))
  })
  // Numbers stand in labels too, such as those of bands.
  const own = [...new Set([...values, ...named].map((each) => each.toLowerCase()))]
    .filter((each) => each.length >= 3 && !/^[\d.]+$/.test(each))
    .toSorted((a, b) => b.length - a.length)
  const bare = macs.map((mac) => mac.replaceAll(':', ''))
  const has = (words: string): boolean => {
    const plain = words.toLowerCase()
    const packed = plain.replace(/[:.-]/g, '')
    const isUnits = bare.some((mac) => packed.includes(mac)) || /\d+\.\d+\.\d+\.\d+/.test(plain)
    return isUnits || own.some((each) => wholeIn(plain, each) >= 0)
  }
  const rest = (words: string): string => {
    let parts = [words]
    for (const each of own) parts = parts.flatMap((part) => without(part, each))
    const longest = parts.map(trimmed).toSorted((a, b) => b.length - a.length)[0] ?? ''
    return letters(longest) >= fewestLetters && !has(longest) && !/\d/.test(longest) ? longest : ''
  }
  return { has, rest }
}

const letters = (words: string): number => [...words.matchAll(/\p{L}/gu)].length
const trimmed = (words: string): string => words.replace(/^[^\p{L}]+|[^\p{L}.]+$/gu, '')

function without(words: string, own: string): string[] {
  const at = wholeIn(words.toLowerCase(), own)
  return at < 0 ? [words] : [words.slice(0, at), ...without(words.slice(at + own.length), own)]
}

/** Where words stand in others as they are, and not as a part of a longer one; -1 where they do not. */
function wholeIn(words: string, own: string): number {
  const isSign = (sign: string | undefined): boolean => sign !== undefined && /[\p{L}\p{N}]/u.test(sign)
  for (let at = words.indexOf(own); at >= 0; at = words.indexOf(own, at + 1))
    if (!isSign(words[at - 1]) && !isSign(words[at + own.length])) return at
  return -1
}

/** A form that is sent by its address leaves there what was put in: a path that holds a secret ends before it. */
export function pathWithoutSecrets(path: string, spoken: readonly Spoken[]): string {
  const secrets = spoken.flatMap(({ id, value }) =>
    settingOf(id).secret && typeof value === 'string' && value !== '' ? [value] : [],
  )
  const holds = (part: string): boolean =>
    secrets.some((secret) => part.includes(secret) || decoded(part).includes(secret))
  if (!holds(path)) return path
  const [bare = ''] = path.split('?')
  return holds(bare) || bare === '' ? '/' : bare
}

function decoded(path: string): string {
  try {
    return decodeURIComponent(path.replaceAll('+', ' '))
  } catch {
    return path
  }
}
