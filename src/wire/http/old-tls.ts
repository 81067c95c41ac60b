/** Old TLS, spoken where it is named, and told apart from a unit that does not answer. */
import { createSecureContext, DEFAULT_CIPHERS, type SecureContext, type TLSSocket } from 'node:tls'
import type { OldCrypto } from '../../core/kit/old-crypto'

export const everyOldTls: readonly OldCrypto[] = [
  'tls-1.0',
  'tls-1.1',
  'rsa-key-exchange',
  'sha-1-certificate',
  '1024-bit-certificate',
]
const fewestBits = 2048
/** Signatures of X.509 with SHA-1, as their identifiers stand in DER: RFC 8017, A.2.4, and RFC 5758, 3.2. */
const sha1Signatures = [Buffer.from('06092a864886f70d010105', 'hex'), Buffer.from('06072a8648ce3d0401', 'hex')]

const contexts = new Map<string, SecureContext>()

/** Takes what is safe today, and beside it what is named. Made once for each set of names. */
export function contextFor(named: readonly OldCrypto[] = []): SecureContext {
  const old = everyOldTls.filter((name) => named.includes(name))
  const key = old.join()
  const known = contexts.get(key)
  if (known) return known
  const has = (name: OldCrypto): boolean => old.includes(name)
  const isWeak = old.some((name) => name !== 'rsa-key-exchange')
  const context = createSecureContext({
    minVersion: has('tls-1.0') ? 'TLSv1' : has('tls-1.1') ? 'TLSv1.1' : 'TLSv1.2',
    // The library refuses weak keys and signatures by its own level of security, where it is not told otherwise.
    ciphers: `${DEFAULT_CIPHERS}${has('rsa-key-exchange') ? '' : ':!kRSA'}${isWeak ? ':@SECLEVEL=0' : ''}`,
  })
  contexts.set(key, context)
  return context
}

/** What is old in a connection as it was agreed upon. */
export function oldIn(socket: TLSSocket): OldCrypto[] {
  const { bits, modulus, raw } = socket.getPeerCertificate() as { bits?: number; modulus?: string; raw?: Buffer }
  const protocol = socket.getProtocol()
  const isSmall = modulus !== undefined && bits !== undefined && bits < fewestBits
  return [
    ...(protocol === 'TLSv1' ? (['tls-1.0'] as const) : []),
    ...(protocol === 'TLSv1.1' ? (['tls-1.1'] as const) : []),
    ...(socket.getCipher().standardName.startsWith('TLS_RSA_') ? (['rsa-key-exchange'] as const) : []),
    ...(sha1Signatures.some((each) => raw?.includes(each)) ? (['sha-1-certificate'] as const) : []),
    ...(isSmall ? (['1024-bit-certificate'] as const) : []),
  ]
}

/** Whether a handshake failed for what was offered, and not because nobody answered. */
export const isDisagreement = (error: Error): boolean =>
  'code' in error && String(error.code).startsWith('ERR_SSL_') && error.code !== 'ERR_SSL_WRONG_VERSION_NUMBER'
