import { describe, expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { bareCard, firstCard, withBareCards } from './bare-card'
import { isMustered, modelName, readKitCard } from './kit-card'

describe('a model that nobody has described', () => {
  it.each(['Nobody N1', 'Box', 'A "quoted" one: with # and {signs}', 'Éole 3000 Ü', '- x', 'null null', '12 34'])(
    'has a card to begin with, whatever it is called: %s',
    (model) => {
      const reading = readKitCard(firstCard(model))
      expect(reading).toMatchObject({ ok: true })
      if (reading.ok) expect(modelName(reading.card)).toBe(model.includes(' ') ? model : `${model} ${model}`)
    },
  )

  it('is set by hand, goes by its own name, and is another than one that a card leaves to hands', () => {
    const bare = bareCard('Nobody N1')
    expect(modelName(bare)).toBe('Nobody N1')
    expect(isMustered(bare)).toBe(false)
    expect(bare.isBare).toBe(true)
    const reading = readKitCard(firstCard('Nobody N1'))
    if (!reading.ok) throw new Error('no card')
    expect(isMustered(reading.card)).toBe(false)
    expect(reading.card.isBare).toBeUndefined()
  })

  it('takes nothing from the models that have a card', () => {
    const units = [{ model: 'Ostrel O-40' }, { model: 'Nobody N1' }, { model: '' }]
    const all = withBareCards(cards, units)
    expect(all.size).toBe(cards.size + 1)
    expect(all.get('Ostrel O-40')).toBe(cards.get('Ostrel O-40'))
    expect(withBareCards(cards, units.slice(0, 1))).toBe(cards)
  })
})
