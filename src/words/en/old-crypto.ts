/** What a unit offers that is no longer safe, in words. */
import type { OldCrypto } from '../../core/kit/old-crypto'

const offers: Readonly<Record<OldCrypto, string>> = {
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
}

/** As the end of a sentence that begins with the unit. */
export const offersWords = (names: readonly string[]): string =>
  `offers ${names.map((name) => offers[name as OldCrypto] ?? name).join(', ')}`
