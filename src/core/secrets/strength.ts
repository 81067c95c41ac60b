/**
 * How hard a typed passphrase is to guess. Loads a dictionary of some megabytes: for the server, not for a page.
 */
import { zxcvbn, zxcvbnOptions } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common'
import type { Weakness } from './weakness'

/** Below this a guesser with one computer is through in a day or so. */
const wantedBits = 40

let dictionaries: 'here' | 'not yet' = 'not yet'

/** Bits of work for somebody who guesses, knowing these words of the site. */
export function guessBits(text: string, siteWords: readonly string[]): number {
  if (dictionaries === 'not yet') zxcvbnOptions.setOptions({ dictionary, graphs: adjacencyGraphs })
  dictionaries = 'here'
  return zxcvbn(text, [...siteWords]).guessesLog10 * Math.log2(10)
}

/**
 * What is weak about a passphrase that WPA2 allows; undefined where nothing is.
 *
 * @param siteWords  names that a guesser would try: SSID, client, site
 */
export function passphraseWeakness(
  passphrase: string,
  ssid: string,
  siteWords: readonly string[],
): Weakness | undefined {
  if (passphrase.toLowerCase() === ssid.toLowerCase()) return { kind: 'same-as-name' }
  const bits = guessBits(
    passphrase,
    [ssid, ...siteWords].flatMap((words) => [words, ...words.split(/\W+/)]).filter((word) => word.length > 2),
  )
  return bits < wantedBits ? { kind: 'guessable', bits: Math.floor(bits) } : undefined
}
