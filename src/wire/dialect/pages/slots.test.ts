import { describe, expect, it } from 'vitest'
import type { Clear, Config } from '../../../core/config/unit-config'
import { assign, idOfNetwork, idsOfSlots, type Slot } from './slots'

const network = (ssid: string, bands: ('2.4' | '5' | '6')[]) => ({ 'network.ssid': ssid, 'network.bands': bands })
const desired = (networks: Config<Clear>['networks']): Config<Clear> => ({ unit: {}, networks, radios: {} })
const slots = (...named: [band: string, number: number, ssid: string][]): Slot[] =>
  named.map(([band, number, ssid]) => ({ band, number, ssid }))
const places = (assigned: ReturnType<typeof assign>): unknown =>
  'full' in assigned ? assigned : assigned.map(({ slot, network: id }) => [slot.band, slot.number, id])

describe('networks by the places of radios', () => {
  it('are known again by name and band', () => {
    const both = desired({ low: network('Quay', ['2.4']), high: network('Quay', ['5']), hall: network('Hall', ['5']) })
    expect(idOfNetwork(both, '2.4', 'Quay')).toBe('low')
    expect(idOfNetwork(both, '5', 'Quay')).toBe('high')
    // Nobody can tell which of the two it is on a band that neither is to be on.
    expect(idOfNetwork(both, '6', 'Quay')).toBeUndefined()
    expect(idOfNetwork(both, '2.4', 'Hall')).toBe('hall')
    expect(idOfNetwork(both, '5', 'Pier')).toBeUndefined()
    expect(idOfNetwork(undefined, '5', 'Quay')).toBeUndefined()
  })

  it('are known as a page shows their names, where spaces get lost', () => {
    const spaced = desired({ a: network(' Quay  two ', ['5']) })
    expect(idOfNetwork(spaced, '5', 'Quay two')).toBe('a')
    expect(idOfNetwork(desired({ ...spaced.networks, b: network('Quay two', ['5']) }), '5', 'Quay two')).toBe('b')
  })

  it('have an id of their place where nobody asked for them, and a twin counts once', () => {
    const there = slots(['5', 1, 'Quay'], ['5', 2, 'Quay'], ['5', 3, ''], ['5', 4, 'Factory'])
    const ids = idsOfSlots(desired({ quay: network('Quay', ['5']) }), there)
    expect(there.map((slot) => ids.get(slot))).toEqual(['quay', '5/2', undefined, '5/4'])
  })

  it('keep their places; a new one takes a free one, and what goes is made free first', () => {
    const asked = desired({ quay: network('Quay', ['5']), hall: network('Hall', ['2.4', '5']) })
    const there = slots(['2.4', 1, 'Factory'], ['2.4', 2, ''], ['5', 1, ''], ['5', 2, 'Quay'])
    expect(places(assign(asked, there, new Set(['2.4/1', 'quay', 'hall'])))).toEqual([
      ['2.4', 1, undefined],
      ['5', 2, 'quay'],
      ['2.4', 2, 'hall'],
      ['5', 1, 'hall'],
    ])
  })

  it('take the place of one that goes where no other is left, and say where there is none', () => {
    const asked = desired({ hall: network('Hall', ['5']) })
    const there = slots(['5', 1, 'Factory'])
    expect(places(assign(asked, there, new Set(['5/1', 'hall'])))).toEqual([['5', 1, 'hall']])
    expect(places(assign(asked, there, new Set(['hall'])))).toEqual({ full: '5' })
  })

  it('leave a band that they are no more to be on', () => {
    const asked = desired({ hall: network('Hall', ['5']) })
    const there = slots(['2.4', 1, 'Hall'], ['5', 1, 'Hall'])
    expect(places(assign(asked, there, new Set(['hall'])))).toEqual([
      ['2.4', 1, undefined],
      ['5', 1, 'hall'],
    ])
  })
})
