/**
 * Cryptography that is spoken only where a kit card names it: whoever stands on the wire may read along, or stand
 * between. Each name is one weakness, so that none comes along with another.
 */
import { z } from 'zod'

const offers = {
  'tls-1.0': 'nothing newer than TLS 1.0',
  'tls-1.1': 'nothing newer than TLS 1.1',
  'rsa-key-exchange': 'no key exchange but RSA',
  'sha-1-certificate': 'a certificate that is signed with SHA-1',
  '1024-bit-certificate': 'a certificate with a key of fewer than 2048 bits',
  'ssh-1024-bit-key-exchange': 'no SSH key exchange but diffie-hellman-group1-sha1',
  'ssh-sha-1-key-exchange': 'no SSH key exchange without SHA-1',
  'ssh-sha-1-host-key': 'no SSH host key but one that signs with SHA-1',
  'ssh-dss-host-key': 'no SSH host key but one of DSS',
  'ssh-cbc-cipher': 'no SSH cipher but those that chain blocks (CBC)',
} as const

export const oldCryptoSchema = z.enum(Object.keys(offers) as [keyof typeof offers, ...(keyof typeof offers)[]])
export type OldCrypto = keyof typeof offers

/** What is old and not named. */
export const unnamed = (found: readonly OldCrypto[], named: readonly OldCrypto[] = []): OldCrypto[] =>
  found.filter((name) => !named.includes(name))

/** What a unit offers that is old, as the end of a sentence that begins with the unit. */
export const offersWords = (names: readonly OldCrypto[]): string =>
  `offers ${names.map((name) => offers[name]).join(', ')}`

/** What is named here or there, each once. */
export const named = (...lists: readonly (readonly OldCrypto[])[]): OldCrypto[] => [...new Set(lists.flat())]
