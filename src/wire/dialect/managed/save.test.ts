import pLimit from 'p-limit'
import { expect, it } from 'vitest'
import { cardOf } from '../../../../tests/support/data'
import type { Controller } from './controller'
import { managed } from './managed'

it('what another unit of the same controller changes at once after its save is not counted against it', async () => {
  let isSaved = false
  const controller = {
    saving: {
      save: async () => {
        isSaved = true
        return isSaved
      },
      isSaved: async () => isSaved,
    },
  } as unknown as Controller
  const turns = pLimit(1)
  const point = { mac: '02:7a:02:00:00:01', serial: '', card: cardOf('Tarnhelm T2') }
  const unit = managed(point, (work) => turns(() => work(controller)), 'data')
  const own = unit.saving?.save()
  const others = turns(async () => {
    isSaved = false
  })
  expect(await own).toBe(true)
  await others
  expect(await unit.saving?.isSaved()).toBe(false)
})
