import { expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { withBareCards } from '../kit/bare-card'
import { called } from './called'

it('is whoever a muster sets, and nobody who is set by hand, for want of a card or by what it is', () => {
  const listed = withBareCards(cards, [{ model: 'Nobody N2' }])
  const units = ['Ostrel O-40', 'Tarnhelm T2', 'Lowbeam L24', 'Windrow W5', 'Nobody N1', 'Nobody N2'].map((model) => ({
    model,
  }))
  expect(called(units, listed).map(({ model }) => model)).toEqual(['Ostrel O-40', 'Tarnhelm T2', 'Nobody N1'])
})
