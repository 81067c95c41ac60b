import { describe, expect, it } from 'vitest'
import { AwakeClock } from './awake-clock'
import { systemClock } from './clock'

/** Clocks that are turned by hand, ms. */
function hands() {
  const at = { monotonic: 5000, wall: 1_000_000 }
  const clock = new AwakeClock({ ...systemClock, monotonic: () => at.monotonic, wall: () => at.wall })
  const pass = (ms: number): void => {
    for (let left = ms; left > 0; left -= 500) {
      at.monotonic += Math.min(500, left)
      at.wall += Math.min(500, left)
      clock.now()
    }
  }
  return { at, clock, pass }
}

describe('the clock that waits are measured by', () => {
  it('tells the time that passes while somebody looks', () => {
    const { clock, pass } = hands()
    const deadline = clock.deadline(10_000)
    pass(9000)
    expect([clock.now(), deadline.hasPassed(), deadline.leftMs(), clock.disturbances]).toEqual([9000, false, 1000, 0])
    pass(1500)
    expect([deadline.hasPassed(), deadline.leftMs()]).toEqual([true, 0])
  })

  it.each([
    ['ten minutes ahead', 600_000],
    ['ten minutes back', -600_000],
  ])('is not moved by a wall clock that is set %s, and notices it', (_words, by) => {
    const { at, clock, pass } = hands()
    const deadline = clock.deadline(10_000)
    pass(2000)
    at.wall += by
    pass(2000)
    expect([clock.now(), deadline.hasPassed(), clock.disturbances]).toEqual([4000, false, 1])
  })

  it('stands still while the laptop sleeps, where its monotonic clock goes on', () => {
    const { at, clock, pass } = hands()
    const deadline = clock.deadline(60_000)
    pass(1000)
    at.monotonic += 3_600_000
    at.wall += 3_600_000
    expect(deadline.hasPassed()).toBe(false)
    expect(clock.now()).toBeLessThan(5000)
    expect(clock.disturbances).toBe(1)
  })

  it('notices a sleep in which the monotonic clock stood still too', () => {
    const { at, clock, pass } = hands()
    pass(1000)
    at.wall += 3_600_000
    expect([clock.now(), clock.disturbances]).toEqual([1000, 1])
  })
})
