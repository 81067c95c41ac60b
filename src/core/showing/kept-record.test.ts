import { expect, it } from 'vitest'
import type { Act } from './act'
import { keptRecord, recordIn } from './kept-record'
import { nothingShown, type ShownRecord } from './record'

const at = { use: 'type', by: [{ label: 'Channel', heading: '5 GHz' }] } as const
const act = (number: number, does: Act['does']): Act => ({
  ...{
    number,
    for: 'itself',
    path: '/#/radios',
    at: { ...at, by: [...at.by] },
    label: 'Channel, 5 GHz',
    after: 0,
    appeared: [],
  },
  does,
})
const record: ShownRecord = {
  ...nothingShown,
  login: 'digest',
  acts: [
    act(1, {
      kind: 'puts',
      value: { kind: 'setting', id: 'radio.channel', of: '5', how: { shows: '^(?<value>[0-9]+)$' } },
      stood: false,
      offered: ['36', '40'],
    }),
    act(2, {
      kind: 'puts',
      value: { kind: 'tick-of', id: 'network.bands', of: 'crew', tick: '5' },
      stood: true,
      offered: [],
    }),
    act(3, { kind: 'puts', value: { kind: 'unknown' }, stood: false, offered: [] }),
    act(4, { kind: 'press', role: 'saves', row: { each: 'tr', name: 'td' } }),
  ],
  rows: { '/#/nets': { each: 'tr', name: 'td' } },
  came: { path: '/#/radios', since: 2, by: { 'press Edit': 1 } },
  named: { Crew: '/#/nets' },
  texts: { 3: 'what is it?' },
}

it('comes back as it was kept', () => {
  expect(recordIn(keptRecord(record))).toEqual(record)
  expect(recordIn(keptRecord(nothingShown))).toEqual(nothingShown)
})

it('is nothing where nothing is kept, or another release kept it otherwise', () => {
  expect(recordIn(undefined)).toBeUndefined()
  expect(recordIn('{')).toBeUndefined()
  const [first] = record.acts
  expect(recordIn(JSON.stringify({ ...record, acts: [{ ...first, does: { kind: 'waves' } }] }))).toBeUndefined()
})
