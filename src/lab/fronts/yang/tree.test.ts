import { expect, it } from 'vitest'
import { loadRegulatory } from '../../../store/regulatory-file'
import { LabClock } from '../../device/clock'
import { Device } from '../../device/device'
import { ostrelO20, ostrelO40 } from '../../device/sheet'
import type { StandInSheet } from '../../device/stand-in-sheet'
import { carryOut } from './carry-out'
import { parsePath, type TreeEdit } from './tree'

const mac = '02:4f:52:00:00:01'
const boxed = (sheet: StandInSheet = ostrelO40, pace = 1000) =>
  new Device(sheet, { mac, serial: 'S-1' }, new LabClock(pace), loadRegulatory())
const octets = (text: string) => Buffer.from(text).toString('base64')
const secured = { mode: 'wpa2-personal', passphrase: 'eight or more' }
const network = (id: string, more: object = {}, operation: TreeEdit['operation'] = 'create'): TreeEdit => ({
  operation,
  target: `/air-muster-wireless:wireless/network=${encodeURIComponent(id)}`,
  value: { 'air-muster-wireless:network': [{ id, ssid: octets(id), band: ['5'], security: secured, ...more }] },
})
const names = (unit: Device) => unit.configured.networks.map(({ name }) => name)

it('takes edits all or none', () => {
  const unit = boxed()
  const before = unit.configured
  expect(() => carryOut(unit, [network('Good'), network('Bad', { vlan: 5000 })])).toThrow()
  expect(unit.configured).toBe(before)
  carryOut(unit, [network('Good')])
  expect(names(unit)).toEqual(['Ostrel', 'Good'])
})

it.each<[string, TreeEdit[], string]>([
  ['what is there already', [network('factory')], 'it is there already'],
  [
    'a key that is not the target’s',
    [{ ...network('A'), target: '/air-muster-wireless:wireless/network=B' }],
    'the key in the value',
  ],
  ['an unknown leaf', [network('A', { colour: 'red' })], 'colour'],
  [
    'a secured network without a passphrase',
    [network('A', { security: { mode: 'wpa2-personal' } })],
    'takes a passphrase',
  ],
  ['a network that does not say how it is secured', [network('A', { security: {} })], 'says how it is secured'],
  ['an open network said once', [network('A', { security: { mode: 'open' } })], 'said twice'],
  ['a ninth network', Array.from({ length: 8 }, (_, index) => network(`N${index}`)), 'at most 8 networks'],
  [
    'an unknown country',
    [
      {
        operation: 'merge',
        target: '/air-muster-wireless:wireless',
        value: { 'air-muster-wireless:wireless': { country: 'XX' } },
      },
    ],
    'country XX is not known',
  ],
  [
    'a radio that it does not have',
    [{ operation: 'delete', target: '/air-muster-wireless:wireless/radio=6' }],
    'nothing to delete',
  ],
  ['a path that is none', [{ operation: 'delete', target: '/a:b//c' }], 'not a step'],
  ['a key that is not encoded', [{ operation: 'delete', target: '/a:b/network=%zz' }], 'not percent-encoded'],
])('refuses %s', (_name, edits, words) => {
  expect(() => carryOut(boxed(), edits)).toThrow(words)
})

it('refuses what its firmware does not know, and keeps rates in its own steps', () => {
  const older = boxed(ostrelO20)
  expect(() => carryOut(older, [network('A', { 'rate-shared': 1024 })])).toThrow('rate-shared is not known')
  carryOut(older, [network('A', { 'rate-per-client': 1500 })])
  expect(older.configured.networks.at(-1)?.clientRate).toBe(1024)
})

it('loses what was not applied when its power is cut, and keeps what was', async () => {
  const unit = boxed()
  unit.powerOn()
  carryOut(unit, [network('Staged')])
  expect(unit.changes.standing).toBe('waiting')
  unit.powerOff()
  expect(names(unit)).toEqual(['Ostrel'])
  unit.powerOn()
  await expect.poll(() => unit.phase).toBe('up')
  carryOut(unit, [network('Applied')])
  unit.apply()
  await expect.poll(() => unit.phase === 'up' && unit.changes.standing).toBe('none')
  unit.powerOff()
  expect(names(unit)).toEqual(['Ostrel', 'Applied'])
})

it('keeps over a power cut what it was told to save, where that is a step of its own', async () => {
  const unit = boxed({ ...ostrelO40, applies: 'at-once', saves: 'on-command' })
  unit.powerOn()
  await expect.poll(() => unit.phase).toBe('up')
  carryOut(unit, [network('Saved')])
  expect(unit.changes).toEqual({ standing: 'none', saved: false })
  unit.save()
  carryOut(unit, [network('Lost')])
  unit.powerOff()
  expect(names(unit)).toEqual(['Ostrel', 'Saved'])
})

it('is as in its box after ten seconds on the button, and not after five', () => {
  const unit = boxed()
  unit.powerOn()
  carryOut(unit, [network('Mine')])
  unit.pressReset(5)
  expect(names(unit)).toHaveLength(2)
  unit.pressReset(10)
  expect(names(unit)).toHaveLength(1)
  expect(unit.lights).toBe('slow white')
})

it('reads paths with keys that need encoding, each step in its module', () => {
  expect(parsePath(`/a:b/c=${encodeURIComponent('x, y/z=%')}/a:d/e:f=1,2`)).toEqual([
    { name: 'a:b', list: '/b', keys: [] },
    { name: 'c', list: 'b/c', keys: ['x, y/z=%'] },
    { name: 'd', list: 'c/d', keys: [] },
    { name: 'e:f', list: 'd/f', keys: ['1', '2'] },
  ])
})
