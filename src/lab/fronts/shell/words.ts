/** A typed line as words: parts within double quotes may hold anything, and stand beside others in one word. */
import { Refusal } from '../../device/refusal'

/** @throws Refusal where a quotation does not end */
export function wordsIn(line: string): string[] {
  const words: string[] = []
  let word: string | undefined
  let quoted = false
  for (let at = 0; at < line.length; at += 1) {
    const sign = line.charAt(at)
    if (quoted && sign === '\\' && at + 1 < line.length) {
      at += 1
      word += line.charAt(at)
    } else if (sign === '"') {
      quoted = !quoted
      word ??= ''
    } else if (!quoted && sign === ' ') {
      if (word !== undefined) words.push(word)
      word = undefined
    } else word = (word ?? '') + sign
  }
  if (quoted) throw new Refusal('malformed-message', 'a quotation does not end')
  return word === undefined ? words : [...words, word]
}

/** As it is shown: between double quotes. */
export const shown = (text: string): string => `"${text.replace(/["\\]/g, (sign) => `\\${sign}`)}"`
