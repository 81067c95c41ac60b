import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { nearCountries } from './country'
import { readRegulatoryDatabase } from './database'

const file = readFileSync(join(import.meta.dirname, '../../../data/regulatory.db'))

it('reads all countries of the file, in order', () => {
  const codes = [...readRegulatoryDatabase(file).keys()]
  expect(codes).toHaveLength(182)
  expect(codes).toEqual([...codes].sort())
})

it('reads a rule that was written by hand', () => {
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
  ['nothing', Buffer.alloc(0), 'byte 0: the file ends within the magic number'],
])('says where %s goes wrong', (_name, bytes, words) => {
  expect(() => readRegulatoryDatabase(bytes)).toThrow(words)
})

it('never crashes on damage: it reads or it says where', () => {
  for (let at = 0; at < file.length; at += 7) {
    const damaged = Uint8Array.from(file)
    damaged[at] = 255 - (damaged[at] ?? 0)
    try {
      readRegulatoryDatabase(damaged)
    } catch (error) {
      expect(String(error)).toMatch(/^RegulatoryFormatError: byte \d+: /)
    }
  }
})

it('finds near countries by name and by letters turned round', () => {
  const codes = [...readRegulatoryDatabase(file).keys()]
  expect(nearCountries('ZN', codes)[0]?.code).toBe('NZ')
  expect(nearCountries('japan', codes)[0]?.code).toBe('JP')
  expect(nearCountries('', codes)).toEqual([])
})
