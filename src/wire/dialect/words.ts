/** Values in a unit's own words, and back. */
import { formatIpv4, maskOf, prefixOfMask } from '../../core/address/ipv4'
import type { SettingId } from '../../core/catalogue/catalogue'
import { settingOf } from '../../core/catalogue/catalogue'
import { matches } from '../../core/input/pattern'
import type { ValueWords } from '../../core/kit/value-words'

/** Our word for how a network is secured; what the unit says where we have none, and `open` where it says nothing. */
export function securityWord(said: string, words: Readonly<Record<string, string>> = {}): string {
  if (said === '' || matches('^(?i:none|open)$', said)) return 'open'
  return Object.entries(words).find(([, word]) => word === said)?.[0] ?? said
}

/** Our value as the unit writes it; null and undefined where there is none. */
export function toWords(value: unknown, how: ValueWords | undefined): string | boolean | null | undefined {
  const word = how?.words?.[String(value)]
  if (word !== undefined) return word
  if (value === null || value === undefined || typeof value === 'boolean') return value
  if (Array.isArray(value)) return value.length === 0 ? null : value.join(how?.separator ?? ',')
  if (how?.as === 'hex') return Buffer.from(String(value), 'utf8').toString('hex')
  if (how?.as === 'mask') return formatIpv4(maskOf(Number(value)))
  return String(how?.times !== undefined && typeof value === 'number' ? Math.round(value * how.times) : value)
}

/** @returns undefined where the words are no value of this setting */
export function fromWords(id: SettingId, text: string, how: ValueWords | undefined, at: number): unknown {
  const known = Object.entries(how?.words ?? {}).find(([, word]) => word === text)?.[0]
  if (known !== undefined) return firstThatFits(id, [known, Number(known), known === 'true', null])
  if (how?.as === 'hex') return /^([0-9a-f]{2})*$/i.test(text) ? Buffer.from(text, 'hex').toString('utf8') : undefined
  if (how?.as === 'mask') return firstThatFits(id, [prefixOfMask(text.trim()) ?? Number.NaN])
  if (how?.as === 'quoted') return firstThatFits(id, [text.replace(/\\(.)/g, '$1')])
  if (how?.as === 'epoch') return Math.round(Number(text) - at / 1000)
  if (how?.as === 'list') {
    const entries = text
      .split(how.separator)
      .map((entry) => entry.trim())
      .filter(Boolean)
    return firstThatFits(id, [entries, entries.map(Number)])
  }
  if (how?.times !== undefined) return firstThatFits(id, [Number(text) / how.times])
  return firstThatFits(id, text.trim() === '' ? [text] : [text, Number(text)])
}

function firstThatFits(id: SettingId, candidates: readonly unknown[]): unknown {
  const schema = settingOf(id).value
  return candidates.find((candidate) => !Number.isNaN(candidate) && schema.safeParse(candidate).success)
}
