import { expect, it } from 'vitest'
import { mcsFrom, mcsOf, rateOf } from './data-rate'

it.each([
  [-82, 20, 0],
  [-82.1, 20, -1],
  [-70, 20, 4],
  [-64.5, 20, 6],
  [-52, 20, 11],
  [-30, 20, 11],
  // 3 dB more at 40 MHz, 6 at 80, 9 at 160.
  [-79, 40, 0],
  [-79.1, 40, -1],
  [-64, 80, 4],
  [-46, 80, 11],
  [-73, 160, 0],
])('%f dBm at %i MHz carries MCS %i', (dbm, width, mcs) => {
  expect(mcsOf(dbm, width)).toBe(mcs)
  if (mcs >= 0) expect(mcsFrom(mcs, width)).toBeLessThanOrEqual(dbm)
})

it('tells the rates of the tables for one stream', () => {
  expect([0, 7, 11].map((mcs) => rateOf(mcs, 20))).toEqual([8.6, 86, 143.4])
  expect(rateOf(11, 40)).toBe(286.8)
  expect(rateOf(11, 80)).toBeCloseTo(600.5, 0)
  expect(rateOf(11, 160)).toBeCloseTo(1201, -1)
  expect(rateOf(-1, 20)).toBe(0)
})
