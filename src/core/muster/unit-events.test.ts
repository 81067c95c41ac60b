/** What single events make of a unit's row on the roll. */

import { describe, expect, it } from 'vitest'
import { sentence } from '../../words/en/sentence'
import type { Asked } from '../config/asked'
import { asTold, message } from '../message/message'
import type { MusterEvent, PlacedEvent } from './events'
import { heldFor } from './held'
import { emptyRow, foldRoll, heldStep, waitsForHands } from './roll'

const at = (seconds: number, event: MusterEvent): PlacedEvent => ({ seq: seconds, at: 1000 * seconds, event })
const rowAfter = (...events: readonly PlacedEvent[]) => foldRoll(events).rows.get('a')

describe('a network that a unit came with', () => {
  const open = (state: 'found' | 'silenced', ssid = 'box', since?: number): MusterEvent => ({
    ...{ kind: 'shipped-open', unit: 'a', ssid, state },
    ...(since === undefined ? {} : { since }),
  })

  it('is on air from when it was first seen until it is silenced', () => {
    expect(rowAfter(at(2, open('found', 'box', 500)))?.shippedOpen).toEqual({
      ssid: 'box',
      since: 500,
      until: undefined,
    })
    expect(rowAfter(at(2, open('found')))?.shippedOpen?.since).toBe(2000)
    expect(rowAfter(at(2, open('found')), at(5, open('silenced')))?.shippedOpen).toEqual({
      ...{ ssid: 'box', since: 2000, until: 5000 },
    })
    // Silenced, and never told to be found: since then at the latest.
    expect(rowAfter(at(5, open('silenced')))?.shippedOpen).toEqual({ ssid: 'box', since: 5000, until: 5000 })
  })

  it('stood there all the time where it is found again before it was silenced, and anew after', () => {
    expect(rowAfter(at(2, open('found')), at(4, open('found')))?.shippedOpen?.since).toBe(2000)
    const again = rowAfter(at(2, open('found')), at(3, open('silenced')), at(4, open('found')))
    expect(again?.shippedOpen).toEqual({ ssid: 'box', since: 4000, until: undefined })
  })

  it('is another one where it has another name', () => {
    expect(rowAfter(at(2, open('found')), at(4, open('found', 'other')))?.shippedOpen).toEqual({
      ...{ ssid: 'other', since: 4000, until: undefined },
    })
    expect(rowAfter(at(2, open('found')), at(4, open('silenced', 'other')))?.shippedOpen?.since).toBe(4000)
  })
})

describe('a window on a unit', () => {
  const opened: MusterEvent = { kind: 'window', unit: 'a', state: 'opened', by: 'Kea' }
  const closed = (why?: 'idle' | 'lost'): MusterEvent => ({
    ...{ kind: 'window', unit: 'a', state: 'closed', by: 'Kea' },
    ...(why ? { why } : {}),
  })
  const told = (event: MusterEvent) => rowAfter(at(1, event))?.log[0]

  it('is in its log, with who opened it and why it was closed', () => {
    const row = rowAfter(at(1, opened), at(2, closed('idle')))
    expect(row?.log).toEqual([
      { at: 1000, ...message('window-opened', { by: 'Kea' }) },
      { at: 2000, ...message('window-idle') },
    ])
    expect(new Set([opened, closed(), closed('idle'), closed('lost')].map((event) => told(event)?.code)).size).toBe(4)
  })

  it('leaves no more in the log than is kept at hand', () => {
    const all = Array.from({ length: 250 }, (_, index) => at(index + 1, opened))
    expect(rowAfter(...all)?.log).toHaveLength(200)
    expect(rowAfter(...all)?.log[0]?.at).toBe(51_000)
  })
})

it('tells when each copy of a unit was kept', () => {
  const kept = (copy: 'as-found' | 'as-left' | 'from-pages' | 'page-when-held'): MusterEvent => ({
    kind: 'kept',
    unit: 'a',
    copy,
  })
  expect(rowAfter(at(1, kept('as-found')), at(2, kept('as-left')), at(3, kept('from-pages')))?.copies).toEqual({
    ...{ asFound: 1000, asLeft: 2000, fromPages: 3000, pageWhenHeld: undefined },
  })
  expect(rowAfter(at(1, kept('as-left')))?.copies).toEqual({ ...emptyRow.copies, asLeft: 1000 })
  const started: MusterEvent = { kind: 'muster', phase: 'started', units: ['a'] }
  const held = [at(1, kept('as-left')), at(2, kept('page-when-held'))]
  expect(rowAfter(...held)?.copies).toMatchObject({ asLeft: 1000, pageWhenHeld: 2000 })
  // The next muster finds another page.
  expect(rowAfter(...held, at(3, started))?.copies).toEqual({ ...emptyRow.copies, asLeft: 1000 })
})

it('knows what hands have set from what a muster has', () => {
  const asked: Asked = { mac: '02:4f:52:10:6a:2c', password: 'p', config: { unit: {}, networks: {}, radios: {} } }
  const proven: MusterEvent = { kind: 'proven', unit: 'a', asked }
  expect(rowAfter(at(1, { ...proven, how: 'by-hand' }))?.isByHand).toBe(true)
  expect(rowAfter(at(1, { ...proven, how: 'by-hand' }), at(2, proven))?.isByHand).toBe(false)
})

it('waits for hands only where it is held for them', () => {
  const held = (state: MusterEvent & { kind: 'step' }) => rowAfter(at(1, state))
  const step = { kind: 'step', unit: 'a', step: 'reach' } as const
  const byHand = held({ ...step, state: heldFor('set-by-hand', { why: asTold('no card') }) })
  expect([waitsForHands(byHand), heldStep(byHand)]).toEqual([true, 'reach'])
  const wrong = held({ ...step, state: heldFor('went-wrong', {}) })
  expect([waitsForHands(wrong), heldStep(wrong)]).toEqual([false, 'reach'])
  const done = held({ ...step, state: { kind: 'done' } })
  expect([waitsForHands(done), heldStep(done)]).toEqual([false, undefined])
  expect([waitsForHands(undefined), heldStep(undefined)]).toEqual([false, undefined])
})

it('takes no event twice, nor one from before', () => {
  const log = (seconds: number): PlacedEvent => at(seconds, { kind: 'log', unit: 'a', told: asTold(`at ${seconds}`) })
  const roll = foldRoll([log(3), log(3), log(2), log(4)])
  expect(roll.rows.get('a')?.log.map(sentence)).toEqual(['at 3', 'at 4'])
})
