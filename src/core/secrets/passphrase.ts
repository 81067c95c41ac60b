/**
 * Passphrases and passwords: rules, and generation without look-alike characters.
 *
 * The source of randomness is handed in, so that this stays pure.
 */

import type { SecurityMode } from '../catalogue/security-mode'
import { type Message, message } from '../message/message'

/** No 0 O o, 1 l I i, and nothing that changes place between keyboards: read aloud and typed without a mistake. */
const clearLetters = 'abcdefghjkmnpqrstuvwxyz'
const clearCapitals = 'ABCDEFGHJKLMNPQRSTUVWXYZ'
const clearDigits = '23456789'
const alphabet = clearLetters + clearCapitals + clearDigits

/** Gives a whole number from 0 up to and without `below`, all equally likely. */
export type RandomBelow = (below: number) => number

/**
 * What is wrong with a passphrase (IEEE 802.11-2020 J.4.1); undefined where it may be used. 64 hexadecimal digits are
 * the key itself, which SAE has no use for: it makes its own (12.4).
 */
export function passphraseFault(passphrase: string, security: SecurityMode = 'wpa2-personal'): Message | undefined {
  if (/^[0-9a-fA-F]{64}$/.test(passphrase))
    return security === 'wpa2-personal' ? undefined : message('passphrase-is-a-key')
  if (!/^[\x20-\x7e]*$/.test(passphrase)) return message('passphrase-not-ascii')
  if (passphrase.length < 8) return message('passphrase-too-short', { count: passphrase.length })
  if (passphrase.length > 63) return message('passphrase-too-long', { count: passphrase.length })
  return undefined
}

/**
 * A password with a capital, a small letter and a digit, in groups of four with dashes.
 *
 * @param characters  letters and digits, without the dashes; at least 8
 */
export function generatePassword(random: RandomBelow, characters = 16): string {
  const pick = (from: string): string => from[random(from.length)] ?? ''
  for (;;) {
    const text = Array.from({ length: characters }, () => pick(alphabet)).join('')
    const kinds = [clearLetters, clearCapitals, clearDigits]
    if (kinds.every((kind) => [...text].some((letter) => kind.includes(letter))))
      return (text.match(/.{1,4}/g) ?? []).join('-')
  }
}

/** Entropy of a generated password, bits: independent letters of the alphabet. */
export function generatedBits(characters = 16): number {
  return characters * Math.log2(alphabet.length)
}
