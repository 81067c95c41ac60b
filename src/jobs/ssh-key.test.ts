import { generateKeyPairSync } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { english } from '../../tests/support/english'
import { privateKeyFault } from './ssh-key'

const pem = (type: 'rsa' | 'ec', part: object = {}) => {
  const made =
    type === 'rsa'
      ? generateKeyPairSync('rsa', { modulusLength: 2048 })
      : generateKeyPairSync('ec', { namedCurve: 'P-256' })
  return made.privateKey.export({ type: type === 'rsa' ? 'pkcs1' : 'sec1', format: 'pem', ...part }) as string
}

describe('a private key for SSH', () => {
  it('is taken in PEM, with or without its last line end', () => {
    for (const text of [pem('rsa'), pem('ec'), pem('rsa').trim(), `\n${pem('ec')}\n`])
      expect(privateKeyFault(text)).toBeUndefined()
  })

  it('is refused where it has a passphrase, and the sentence says how to take it off', () => {
    const sealed = pem('rsa', { cipher: 'aes-128-cbc', passphrase: 'secret' })
    expect(english(privateKeyFault(sealed))).toContain('has a passphrase of its own')
    expect(english(privateKeyFault(sealed))).toContain('ssh-keygen -p')
  })

  it('is refused where it is the public half, no key at all, or far too long', () => {
    const half = 'ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIOMqqnkVzrm0SdG6UOoqKLsabgH5C9okWi0dh2l9GKJl made up'
    expect(english(privateKeyFault(half))).toContain('the public half of a key')
    expect(english(privateKeyFault('nonsense'))).toContain('no private key in the form of OpenSSH or PEM')
    expect(english(privateKeyFault(''))).toContain('no private key')
    expect(english(privateKeyFault('x'.repeat(20_001)))).toContain('too long')
  })
})
