import { expect, it } from 'vitest'
import { helperVerbs } from './verbs'

const takes = (mac: string, address: string): boolean =>
  helperVerbs['open-lane'].ask.safeParse({ mac, address, prefix: 24 }).success

it('a lane leads to one box, at an address that a box can have', () => {
  expect(takes('02:4f:52:10:6a:2c', '192.168.77.1')).toBe(true)
  for (const group of ['ff:ff:ff:ff:ff:ff', '01:00:5e:00:00:01', '33:33:00:00:00:01', '00:00:00:00:00:00'])
    expect(takes(group, '192.168.77.1'), group).toBe(false)
  for (const nobody of ['0.0.0.0', '127.0.0.1', '224.0.0.1', '255.255.255.255'])
    expect(takes('02:4f:52:10:6a:2c', nobody), nobody).toBe(false)
})
