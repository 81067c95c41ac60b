import { expect, it } from 'vitest'
import { cards } from '../../tests/support/data'
import { loopbackLane } from '../../tests/support/loopback-lane'
import { type DirectCard, isDirect } from '../core/kit/kit-card'
import { dialectOf, partsMissing } from './registry'

const open = async (card: DirectCard) =>
  (await dialectOf(card.dialect.kind))(loopbackLane('02:00:00:00:00:01'), card, async () => {})
const direct = [...cards.values()].filter(isDirect)

it('every card in the box asks of its dialect only what that has parts for', async () => {
  for (const card of direct) {
    const dialect = await open(card)
    expect(partsMissing(card, dialect), card.model).toEqual([])
    dialect.close()
  }
})

it('refuses a session whose card says that changes wait, and whose dialect has no words to apply them', async () => {
  const card = direct.find(({ dialect }) => dialect.kind === 'netconf')
  if (!card) throw new Error('no card speaks netconf')
  const staged = { ...card, does: { ...card.does, applies: 'staged' } } as DirectCard
  await expect(open(staged)).rejects.toMatchObject({
    kind: 'rejected',
    told: { code: 'card-asks-without-words', params: { parts: 'applies: staged' } },
  })
})
