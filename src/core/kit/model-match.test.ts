import { expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { matchModel, modelOfMac } from './model-match'

it.each([
  ['Ostrel O-40', 'Ostrel O-40'],
  ['ostrel o40', 'Ostrel O-40'],
  ['O-40', 'Ostrel O-40'],
  ['  b7 ', 'Brackwater B7'],
  ['O-20', 'Ostrel O-20'],
  ['O-20 US', 'Ostrel O-20 US'],
  ['Ostrel O-99', 'Ostrel O-99'],
  ['', ''],
])('takes %j for %j', (written, model) => {
  expect(matchModel(written, cards)).toBe(model)
})

it('asks for the maker where two have a model of one name', () => {
  const card = cards.get('Brackwater B7')
  if (!card) throw new Error('no card')
  const two = new Map([...cards, ['Lowbeam B7', { ...card, maker: 'Lowbeam' }]])
  expect(matchModel('B7', two)).toBe('B7')
  expect(matchModel('lowbeam b7', two)).toBe('Lowbeam B7')
})

it('tells the model by the first half of a MAC, where one model alone has it', () => {
  expect(modelOfMac('02:7a:c1:00:00:01', cards)).toBe('Tarnhelm C1')
  expect(modelOfMac('02:ff:ff:00:00:01', cards)).toBeUndefined()
})
