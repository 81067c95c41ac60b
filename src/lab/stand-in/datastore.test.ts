import { expect, it } from 'vitest'
import { loadRegulatory } from '../../store/regulatory-file'
import { entry, parseResourcePath } from '../../wire/codec/resource-path'
import { LabClock } from '../clock'
import { AccessPoint } from './access-point'
import { ostrelO40 } from './sheet'

const boxed = () =>
  new AccessPoint(ostrelO40, { mac: '02:4f:52:00:00:01', serial: 'S-1' }, new LabClock(1000), loadRegulatory())
const network = (ssid: string, more: object = {}) => ({
  'edit-id': '1',
  operation: 'create' as const,
  target: `/air-muster-wireless:wireless/${entry('network', ssid)}`,
  value: { 'air-muster-wireless:network': [{ ssid, band: ['5'], ...more }] },
})

it('takes edits all or none', () => {
  const unit = boxed()
  const before = unit.configuration
  expect(() => unit.edit([network('Good'), network('Bad', { vlan: 5000 })])).toThrow()
  expect(unit.configuration).toBe(before)
  unit.edit([network('Good')])
  expect(unit.configuration['air-muster-wireless:wireless'].network.map((each) => each.ssid)).toEqual([
    'Ostrel',
    'Good',
  ])
})

it.each([
  ['what is there already', [network('Ostrel')], 'it is there already'],
  [
    'a key that is not the target’s',
    [{ ...network('A'), target: '/air-muster-wireless:wireless/network=B' }],
    'the key in the value',
  ],
  ['an unknown leaf', [network('A', { colour: 'red' })], 'colour'],
  [
    'a secured network without a passphrase',
    [network('A', { security: { mode: 'wpa2-personal' } })],
    'has no passphrase',
  ],
  ['a ninth network', Array.from({ length: 8 }, (_, index) => network(`N${index}`)), 'at most 8 networks'],
  [
    'an unknown country',
    [
      {
        'edit-id': '1',
        operation: 'merge' as const,
        target: '/air-muster-wireless:wireless',
        value: { 'air-muster-wireless:wireless': { country: 'XX' } },
      },
    ],
    'country XX is not known',
  ],
  [
    'a radio that it does not have',
    [{ 'edit-id': '1', operation: 'delete' as const, target: '/air-muster-wireless:wireless/radio=6' }],
    'nothing to delete',
  ],
])('refuses %s', (_name, edits, words) => {
  expect(() => boxed().edit(edits)).toThrow(words)
})

it('loses what was not applied when its power is cut, and keeps what was', async () => {
  const unit = boxed()
  unit.powerOn()
  unit.edit([network('Staged')])
  expect(unit.changesWaiting).toBe(true)
  unit.powerOff()
  expect(unit.configuration['air-muster-wireless:wireless'].network).toHaveLength(1)
  unit.powerOn()
  await expect.poll(() => unit.phase).toBe('up')
  unit.edit([network('Applied')])
  unit.apply()
  await expect.poll(() => unit.phase === 'up' && !unit.changesWaiting).toBe(true)
  unit.powerOff()
  expect(unit.configuration['air-muster-wireless:wireless'].network).toHaveLength(2)
})

it('is as in its box after ten seconds on the button, and not after five', () => {
  const unit = boxed()
  unit.powerOn()
  unit.edit([network('Mine')])
  unit.pressReset(5)
  expect(unit.configuration['air-muster-wireless:wireless'].network).toHaveLength(2)
  unit.pressReset(10)
  expect(unit.configuration['air-muster-wireless:wireless'].network).toHaveLength(1)
  expect(unit.lights).toBe('slow white')
})

it('reads paths with keys that need encoding, and refuses what is none', () => {
  expect(parseResourcePath(`/a:b/${entry('c', 'x, y/z=%')}`)).toEqual([
    { name: 'a:b', keys: [] },
    { name: 'c', keys: ['x, y/z=%'] },
  ])
  for (const path of ['/a//b', '/1x', '/a=%zz']) expect(() => parseResourcePath(path)).toThrow(RangeError)
})
