import { expect, it } from 'vitest'
import { newestInTurn } from './in-turn'

const moment = (): Promise<void> => new Promise((resolve) => setImmediate(resolve))

it('ends with the newest, however long each takes', async () => {
  const done: number[] = []
  const ends = new Map<number, () => void>()
  const give = newestInTurn(async (value: number) => {
    await new Promise<void>((resolve) => ends.set(value, resolve))
    done.push(value)
  })
  for (const value of [1, 2, 3]) give(value)
  // Only the first is under way, and the second will never be.
  expect([...ends.keys()]).toEqual([1])
  ends.get(1)?.()
  await moment()
  expect([...ends.keys()]).toEqual([1, 3])
  ends.get(3)?.()
  await moment()
  expect(done).toEqual([1, 3])
})

it('goes on after one that failed', async () => {
  const done: string[] = []
  const give = newestInTurn(async (value: string) => {
    if (value === 'bad') throw new Error('no picture')
    done.push(value)
  })
  give('bad')
  await moment()
  give('good')
  await moment()
  expect(done).toEqual(['good'])
})
