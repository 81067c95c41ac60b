import { expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { withBareCards } from '../kit/bare-card'
import { called, leftToHands } from './called'
import { emptyRow, type RollRow } from './roll'

it('is whoever a muster sets, and nobody who is set by hand, for want of a card or by what it is', () => {
  const listed = withBareCards(cards, [{ model: 'Nobody N2' }])
  const units = ['Ostrel O-40', 'Tarnhelm T2', 'Lowbeam L24', 'Windrow W5', 'Nobody N1', 'Nobody N2'].map((model) => ({
    model,
  }))
  expect(called(units, listed).map(({ model }) => model)).toEqual(['Ostrel O-40', 'Tarnhelm T2', 'Nobody N1'])
})

it('leaves to hands whoever no muster sets, until it answers', () => {
  const listed = withBareCards(cards, [{ model: 'Nobody N2' }])
  const units = [
    { id: 'a', model: 'Ostrel O-40' },
    { id: 'b', model: 'Nobody N2' },
    { id: 'c', model: 'Windrow W5' },
  ]
  const answering: RollRow = { ...emptyRow, steps: { proof: { kind: 'done' } } }
  expect(leftToHands(units, listed, { rows: new Map() })).toBe(2)
  expect(leftToHands(units, listed, { rows: new Map([['b', answering]]) })).toBe(1)
  expect(leftToHands(units, listed, { rows: new Map([['a', answering]]) })).toBe(2)
})
