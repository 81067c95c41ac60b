import { expect, it } from 'vitest'
import { english } from '../../../../tests/support/english'
import { readMeasured, samePair } from './measured'

const units = [
  { id: 'one', name: 'hall-01', mac: '02:4f:52:00:00:01' },
  { id: 'two', name: 'Hall-02', mac: null },
  { id: 'three', name: 'yard-1', mac: '02:4f:52:00:00:03' },
]

it('reads pairs by name or MAC, with their band and level, whatever the columns are called', () => {
  const text =
    '\ufeffAt,Hears,Band,Signal\nHALL-01,hall-02,5 GHz,-71 ' +
    'dBm\n02-4F-52-00-00-03,hall-99,5,-70\nyard-1,024f.5200.0001,2.4,-80.5\n'
  const { levels, faults } = readMeasured(text, units)
  expect(levels).toEqual([
    { a: 'one', b: 'two', band: '5', dbm: -71 },
    { a: 'three', b: 'one', band: '2.4', dbm: -80.5 },
  ])
  expect(english(faults)).toEqual(['line 3: heard: no unit of the list is called "hall-99".'])
})

it('takes the mean of a pair that was measured more than once, either way round', () => {
  const text =
    'unit\theard\tband\tdbm\nhall-01\thall-02\t5\t-70\nhall-02\thall-01\t5\t-73\nhall-01\thall-02\t2.4\t-60\n'
  expect(readMeasured(text, units).levels).toEqual([
    { a: 'one', b: 'two', band: '5', dbm: -71.5 },
    { a: 'one', b: 'two', band: '2.4', dbm: -60 },
  ])
})

it('says of each line that is none what is wrong with it, and keeps the others', () => {
  const lines = ['hall-01,hall-01,5,-70', 'hall-01,hall-02,7,-70', 'hall-01,hall-02,5,', 'hall-01,yard-1,5,-66']
  const { levels, faults } = readMeasured(`unit,heard,band,dbm\n${lines.join('\n')}`, units)
  expect(levels).toEqual([{ a: 'one', b: 'three', band: '5', dbm: -66 }])
  expect(english(faults)).toEqual([
    'line 2: a unit does not hear itself.',
    expect.stringMatching(/^line 3: band: /),
    expect.stringMatching(/^line 4: dbm: /),
  ])
  expect(readMeasured('nothing at all', units)).toEqual({ levels: [], faults: [] })
})

it('tells which line is meant where others are empty, and takes names and cells with blanks around them', () => {
  const text =
    '\n unit , heard ,band, dbm \n\n hall-01 , YARD-1 , 5 ghz ,-66dBm\n\nhall-01,yard-1,5, \nhall-01,,5,-50\n'
  const { levels, faults } = readMeasured(text.slice(1), units)
  expect(levels).toEqual([{ a: 'one', b: 'three', band: '5', dbm: -66 }])
  expect(english(faults)).toEqual([
    expect.stringMatching(/^line 5: dbm: .+\.$/),
    'line 6: heard: no unit of the list is called "".',
  ])
})

it('takes no MAC for another one, and no unit for one that has none', () => {
  const { levels, faults } = readMeasured(
    'unit,heard,band,dbm\n02:4f:52:00:00:02,yard-1,5,-50\n,yard-1,5,-50\nhall-01,02:4f,5,-50\n',
    units,
  )
  expect(levels).toEqual([])
  expect(english(faults)).toEqual([
    'line 2: unit: no unit of the list is called "02:4f:52:00:00:02".',
    'line 3: unit: no unit of the list is called "".',
    'line 4: heard: no unit of the list is called "02:4f".',
  ])
  expect(english(readMeasured('heard,band,dbm\nyard-1,5,-50', units).faults)).toEqual([
    'line 2: unit: no unit of the list is called "".',
  ])
})

it('keeps pairs apart that differ in a unit', () => {
  const text = 'unit,heard,band,dbm\nhall-01,hall-02,5,-70\nhall-01,yard-1,5,-60\nyard-1,hall-02,5,-50'
  expect(readMeasured(text, units).levels.map(({ dbm }) => dbm)).toEqual([-70, -60, -50])
})

it('knows the same pair whoever listened, in the same band alone', () => {
  const pair = (a: string, b: string, band: '5' | '2.4' = '5') => ({ a, b, band })
  expect(samePair(pair('x', 'y'), pair('y', 'x'))).toBe(true)
  expect(samePair(pair('x', 'y'), pair('x', 'z'))).toBe(false)
  expect(samePair(pair('x', 'y'), pair('x', 'y', '2.4'))).toBe(false)
  expect(samePair(pair('a', 'bc'), pair('ab', 'c'))).toBe(false)
})
