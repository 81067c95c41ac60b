import { expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { called } from './called'

it('calls whoever a muster sets, and whoever has no card, and nobody who is set by hand', () => {
  const units = ['Ostrel O-40', 'Tarnhelm T2', 'Lowbeam L24', 'Windrow W5', 'Nobody N1'].map((model) => ({ model }))
  expect(called(units, cards).map(({ model }) => model)).toEqual(['Ostrel O-40', 'Tarnhelm T2', 'Nobody N1'])
})
