import { randomInt } from 'node:crypto'
import { expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import { macSchema, parseMac } from '../address/mac'
import { generatedBits, generatePassword, passphraseFault } from './passphrase'

it('makes passwords without look-alike characters, that are passphrases too', () => {
  for (let round = 0; round < 200; round += 1) {
    const password = generatePassword((below) => randomInt(below))
    expect(password).toMatch(/^([a-hjkmnp-zA-HJ-NP-Z2-9]{4}-){3}[a-hjkmnp-zA-HJ-NP-Z2-9]{4}$/)
    expect(password).toMatch(/[a-z]/)
    expect(password).toMatch(/[A-Z]/)
    expect(password).toMatch(/[2-9]/)
    expect(passphraseFault(password)).toBeUndefined()
  }
  expect(generatedBits()).toBeGreaterThan(90)
})

it.each([
  ['seven77', 'WPA2 needs 8'],
  ['x'.repeat(64), 'WPA2 takes 63'],
  ['café ole', 'not plain ASCII'],
])('says what is wrong with the passphrase %s', (passphrase, words) => {
  expect(english(passphraseFault(passphrase))).toContain(words)
})

it('takes 64 hexadecimal digits as a key of WPA2, and of nothing that has SAE', () => {
  const key = '0f'.repeat(32)
  expect(passphraseFault(key)).toBeUndefined()
  expect(passphraseFault(key, 'wpa2-personal')).toBeUndefined()
  for (const mode of ['wpa3-personal', 'wpa3-wpa2-mixed'] as const)
    expect(english(passphraseFault(key, mode))).toContain('WPA3 takes a passphrase')
})

it('reads a MAC in any usual notation', () => {
  for (const text of [
    '02:4F:52:10:6A:2C',
    '02-4f-52-10-6a-2c',
    '024f.5210.6a2c',
    '024F52106A2C',
    ' 02:4f:52:10:6a:2c ',
  ])
    expect(parseMac(text)).toBe('02:4f:52:10:6a:2c')
  for (const text of ['02:4f:52:10:6a', '02:4f:52:10:6a:2g', '']) expect(parseMac(text)).toBeUndefined()
  expect(english(macSchema.safeParse('label').error?.issues[0]?.message)).toContain('six pairs')
})
