import { expect, it } from 'vitest'
import type { PlacedEvent } from '../../core/muster/events'
import { type Follower, NewsDesk, type NewsSource } from './news-desk'

const event = (seq: number) => ({ seq }) as PlacedEvent
const pulse = { now: 0, database: 'answers', failed: {} } as never

/** A source whose clock moves only as it is told to, and the looks that it was asked for. */
function source(kept: Map<string, number>) {
  const looks: string[] = []
  const rests: (() => void)[] = []
  let now = 0
  const of: NewsSource = {
    newsOf: async (slug, seq) => {
      looks.push(`${slug} ${seq}`)
      return Array.from({ length: Math.max(0, (kept.get(slug) ?? 0) - seq) }, (_, at) => event(seq + 1 + at))
    },
    orAway: (looking) =>
      looking.then(
        () => 'answers',
        () => 'away',
      ),
    pulse: async (_slugs, database) => ({ ...(pulse as object), database }) as never,
    rest: () => new Promise((resolve) => rests.push(resolve)),
    now: () => now,
  }
  const goOn = async (ms: number) => {
    await expect.poll(() => rests.length).toBe(1)
    now += ms
    rests.shift()?.()
  }
  return { of, looks, rests, goOn }
}

function browser(...jobs: [string, number][]) {
  const told: string[] = []
  let pulses = 0
  const follower: Follower = {
    followed: new Map(jobs),
    tell: (slug, events) => told.push(`${slug} ${events.map(({ seq }) => seq).join(',')}`),
    pulse: () => {
      pulses += 1
    },
  }
  return { follower, told, pulses: () => pulses, ends: new AbortController() }
}

it('looks once for all browsers, and tells each what it has not had', async () => {
  const kept = new Map([['hall', 3]])
  const { of, looks, rests, goOn } = source(kept)
  const desk = new NewsDesk(of)
  const [one, two] = [browser(['hall', 3]), browser(['hall', 1], ['mill', 0])]
  for (const each of [one, two]) desk.follow(each.follower, each.ends.signal)
  await expect.poll(() => rests.length).toBe(1)
  expect(looks).toEqual(['hall 3'])
  await goOn(200)
  await expect.poll(() => two.told).toEqual(['hall 2,3'])
  expect(one.told).toEqual([])
  kept.set('hall', 4)
  await goOn(200)
  await expect.poll(() => [one.told, two.told]).toEqual([['hall 4'], ['hall 2,3', 'hall 4']])
  expect(looks.filter((look) => look.startsWith('hall'))).toEqual(['hall 3', 'hall 1', 'hall 3'])
  for (const each of [one, two]) each.ends.abort()
  await goOn(200)
})

it('pulses each second, at once for whoever comes, and rests when nobody follows any more', async () => {
  const { of, looks, rests, goOn } = source(new Map())
  const desk = new NewsDesk(of)
  const one = browser(['hall', 0])
  desk.follow(one.follower, one.ends.signal)
  await goOn(500)
  await goOn(600)
  await expect.poll(one.pulses).toBe(2)
  const two = browser(['hall', 0])
  desk.follow(two.follower, two.ends.signal)
  await goOn(10)
  await expect.poll(two.pulses).toBe(1)
  one.ends.abort()
  two.ends.abort()
  await goOn(10)
  const asked = looks.length
  await new Promise((resolve) => setImmediate(resolve))
  expect([looks.length, rests.length]).toEqual([asked, 0])
  // Whoever comes later opens it again.
  const three = browser(['hall', 0])
  desk.follow(three.follower, three.ends.signal)
  await expect.poll(three.pulses).toBe(1)
  three.ends.abort()
  await goOn(10)
})

it('goes on for the others when one cannot be told', async () => {
  const { of, rests, goOn } = source(new Map([['hall', 1]]))
  const desk = new NewsDesk(of)
  const [gone, one] = [browser(['hall', 0]), browser(['hall', 0])]
  gone.follower.tell = () => {
    throw new TypeError('its stream is closed')
  }
  for (const each of [gone, one]) desk.follow(each.follower, each.ends.signal)
  await expect.poll(() => one.told).toEqual(['hall 1'])
  one.ends.abort()
  await goOn(10)
  await new Promise((resolve) => setImmediate(resolve))
  expect(rests).toHaveLength(0)
})
