import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import { sentence } from '../../words/en/sentence'
import { nearCountries } from './country'
import { RegulatoryFormatError, readRegulatoryDatabase } from './database'

const file = readFileSync(join(import.meta.dirname, '../../../data/regulatory.db'))

/** What is said of bytes that are no database. */
function told(bytes: Uint8Array): string {
  try {
    readRegulatoryDatabase(bytes)
    return 'read'
  } catch (error) {
    if (error instanceof RegulatoryFormatError) return sentence(error.told)
    throw error
  }
}

it('reads all countries of the file, in order', () => {
  const codes = [...readRegulatoryDatabase(file).keys()]
  expect(codes).toHaveLength(182)
  expect(codes).toEqual([...codes].sort())
})

/** A file with one country and one rule, written by hand; `change` is laid over it, byte by byte. */
function written(change: Readonly<Record<number, number>> = {}): Buffer {
  const bytes = Buffer.alloc(60)
  bytes.write('RGDB', 0)
  bytes.writeUInt32BE(20, 4)
  bytes.write('XY', 8)
  bytes.writeUInt16BE(5, 10)
  // A collection of three bytes, padded to four, then a pointer to the rule at byte 28.
  bytes.set([3, 1, 2], 20)
  bytes.writeUInt16BE(7, 24)
  bytes.set([18, 4 | 16], 28)
  bytes.writeUInt16BE(2301, 30)
  bytes.writeUInt32BE(5250000, 32)
  bytes.writeUInt32BE(5350000, 36)
  bytes.writeUInt32BE(80000, 40)
  bytes.writeUInt16BE(600, 44)
  for (const [at, byte] of Object.entries(change)) bytes[Number(at)] = byte
  return bytes
}

it('reads a rule that was written by hand', () => {
  const bytes = written()
  const country = readRegulatoryDatabase(bytes).get('XY')
  expect(country?.dfs).toBe('ETSI')
  expect(country?.rules).toEqual([
    {
      startKhz: 5250000,
      endKhz: 5350000,
      bandwidthKhz: 80000,
      eirpCentiDbm: 2301,
      noOfdm: false,
      noOutdoor: false,
      dfs: true,
      noIr: false,
      autoBandwidth: true,
      listenSeconds: 600,
    },
  ])
})

it.each([
  ['another file', Buffer.from('PNG picture'), 'byte 0: this is not a regulatory database'],
  ['another version', Buffer.from([0x52, 0x47, 0x44, 0x42, 0, 0, 0, 21]), 'byte 4: version 21'],
  ['half a file', file.subarray(0, 700), 'the file ends within'],
  ['nothing', Buffer.alloc(0), 'byte 0: the file ends within the header'],
])('says where %s goes wrong', (_name, bytes, words) => {
  expect(told(bytes)).toContain(words)
})

it.each([
  ['a code of small letters', { 8: 0x78 }, 'byte 8: "xY" is not a country code'],
  ['a code that ends wrong', { 9: 0x30 }, 'byte 8: "X0" is not a country code'],
  ['a country twice', { 12: 0x58, 13: 0x59, 15: 5 }, 'byte 12: XY stands there twice'],
  ['a short collection', { 20: 2 }, 'byte 20: the rules of XY have length 2, at least 3 is needed'],
  ['a region of nobody', { 22: 4 }, 'byte 22: the rules of XY name an unknown DFS region'],
  ['a short rule', { 28: 15 }, 'byte 28: a rule of XY has length 15, at least 16 is needed'],
  ['flags of tomorrow', { 29: 32 }, 'byte 29: a rule of XY has flags 32 that this program does not know'],
  [
    'a rule that ends where it starts',
    { 36: 0, 37: 0x50, 38: 0x1b, 39: 0xd0 },
    'byte 32: a rule of XY ends at 5250000 kHz, not above its start at 5250000 kHz',
  ],
  ['a pointer past the end', { 24: 1 }, 'byte 1052: the file ends within a rule of XY'],
  ['a collection past the end', { 10: 1 }, 'byte 1044: the file ends within the rules of XY'],
])('names the byte and the fault of %s', (_name, change, words) => {
  expect(told(written(change))).toBe(words)
})

it('names the version, the country entry and itself where it ends too soon', () => {
  expect(told(written().subarray(0, 6))).toBe('byte 4: the file ends within the header')
  expect(told(written().subarray(0, 9))).toBe('byte 10: the file ends within a country entry')
})

it('reads each flag for itself, every region, and the time of a rule where the rule is long enough', () => {
  const rule = (change: Readonly<Record<number, number>>) => readRegulatoryDatabase(written(change)).get('XY')?.rules[0]
  const flags = (of: number) => {
    const { noOfdm, noOutdoor, dfs, noIr, autoBandwidth } = rule({ 29: of }) ?? {}
    return [noOfdm, noOutdoor, dfs, noIr, autoBandwidth]
  }
  expect([1, 2, 4, 8, 16, 31].map(flags)).toEqual([
    [true, false, false, false, false],
    [false, true, false, false, false],
    [false, false, true, false, false],
    [false, false, false, true, false],
    [false, false, false, false, true],
    [true, true, true, true, true],
  ])
  expect([0, 1, 2, 3].map((region) => readRegulatoryDatabase(written({ 22: region })).get('XY')?.dfs)).toEqual([
    ...[null, 'FCC', 'ETSI', 'JP'],
  ])
  expect(rule({ 28: 16 })?.listenSeconds).toBeUndefined()
  expect(rule({ 28: 17 })?.listenSeconds).toBeUndefined()
  expect(rule({ 44: 0, 45: 0 })?.listenSeconds).toBeUndefined()
  expect(rule({ 44: 0, 45: 1 })?.listenSeconds).toBe(1)
  // A longer collection of another program is passed over, padded to an even length.
  const long = written({ 20: 4 })
  expect(readRegulatoryDatabase(long).get('XY')?.rules).toHaveLength(1)
})

it('never crashes on damage: it reads or it says where', () => {
  for (let at = 0; at < file.length; at += 7) {
    const damaged = Uint8Array.from(file)
    damaged[at] = 255 - (damaged[at] ?? 0)
    try {
      readRegulatoryDatabase(damaged)
    } catch (error) {
      expect(error).toBeInstanceOf(RegulatoryFormatError)
      expect(english((error as RegulatoryFormatError).told)).toMatch(/^byte \d+: /)
    }
  }
})

it('finds near countries by name and by letters turned round', () => {
  const codes = [...readRegulatoryDatabase(file).keys()]
  expect(nearCountries('ZN', codes)[0]?.code).toBe('NZ')
  expect(nearCountries('japan', codes)[0]?.code).toBe('JP')
  expect(nearCountries('', codes)).toEqual([])
})
