import { generateKeyPairSync } from 'node:crypto'

/** The key of an SSH service. Not by ssh2 itself: now and then it cannot read the key that it made. */
export function newHostKey(): string {
  return generateKeyPairSync('ec', {
    namedCurve: 'prime256v1',
    privateKeyEncoding: { type: 'sec1', format: 'pem' },
    publicKeyEncoding: { type: 'spki', format: 'pem' },
  }).privateKey
}
