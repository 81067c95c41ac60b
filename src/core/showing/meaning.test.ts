import { expect, it } from 'vitest'
import { howItIsWritten } from './meaning'

it('tells how a page writes a value that somebody says is the one that was typed', () => {
  expect(howItIsWritten({ id: 'management.prefix', value: 24 }, '255.255.255.0')).toEqual({ as: 'mask' })
  expect(howItIsWritten({ id: 'management.prefix', value: 24 }, '24')).toEqual({})
  expect(
    howItIsWritten({ id: 'clock.ntp-servers', value: ['10.0.0.1', '10.0.0.2'] }, '10.0.0.1; 10.0.0.2'),
  ).toBeUndefined()
  expect(howItIsWritten({ id: 'clock.ntp-servers', value: ['10.0.0.1', '10.0.0.2'] }, '10.0.0.1;10.0.0.2')).toEqual({
    as: 'list',
    separator: ';',
  })
  expect(howItIsWritten({ id: 'unit.name', value: 'hall-01' }, 'hall-02')).toBeUndefined()
})
