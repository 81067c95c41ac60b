/**
 * Cryptography that is spoken only where a kit card names it: whoever stands on the wire may read along, or stand
 * between. Each name is one weakness, so that none comes along with another.
 */
import { z } from 'zod'

const names = [
  'tls-1.0',
  'tls-1.1',
  'rsa-key-exchange',
  'sha-1-certificate',
  '1024-bit-certificate',
  'ssh-1024-bit-key-exchange',
  'ssh-sha-1-key-exchange',
  'ssh-sha-1-host-key',
  'ssh-dss-host-key',
  'ssh-cbc-cipher',
] as const

export const oldCryptoSchema = z.enum(names)
export type OldCrypto = (typeof names)[number]

/** What is old and not named. */
export const unnamed = (found: readonly OldCrypto[], named: readonly OldCrypto[] = []): OldCrypto[] =>
  found.filter((name) => !named.includes(name))

/** What is named here or there, each once. */
export const named = (...lists: readonly (readonly OldCrypto[])[]): OldCrypto[] => [...new Set(lists.flat())]
