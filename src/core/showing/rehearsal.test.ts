import { expect, it } from 'vitest'
import { desiredFor } from '../../../tests/support/config'
import type { ObservedConfig } from '../config/unit-config'
import { readBack } from './rehearsal'

it('tells of each setting whether it is read as asked, and of a secret never what it is', () => {
  const desired = desiredFor('Ostrel O-40')
  const [network = ''] = Object.keys(desired.networks)
  const observed: ObservedConfig = {
    unit: {
      'unit.name': { kind: 'value', value: desired.unit['unit.name'] ?? '' },
      'unit.location': { kind: 'value', value: 'elsewhere' },
    },
    networks: { [network]: { 'network.passphrase': { kind: 'value', value: 'another one' } } },
    radios: {},
  }
  const read = new Map(readBack(desired, observed).map((each) => [`${each.id} ${each.of}`.trim(), each]))
  expect(read.get('unit.name')).toMatchObject({ result: 'as-asked' })
  expect(read.get('unit.location')).toMatchObject({ result: 'otherwise', seen: 'elsewhere' })
  expect(read.get('unit.country')).toMatchObject({ result: 'not-readable' })
  expect(read.get(`network.passphrase ${network}`)).toMatchObject({ result: 'otherwise' })
  expect(JSON.stringify([...read.values()])).not.toContain('another one')
})
