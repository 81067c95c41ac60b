import { describe, expect, it } from 'vitest'
import type { Dialect } from '../../wire/dialect/dialect'
import { Contact, MayHaveRestarted } from './contact'
import { guarded } from './guarded'

/** A session that notes what it was asked, a clock that is set by hand, and a unit that takes 30 s to start. */
function bench() {
  const asked: string[] = []
  const time = { monotonic: 0, wall: 0, sleeps: 0 }
  const pass = (seconds: number, by: 'both' | 'wall' = 'both'): void => {
    time.wall += seconds * 1000
    if (by === 'both') time.monotonic += seconds * 1000
  }
  const clock = {
    monotonic: () => time.monotonic,
    wall: () => time.wall,
    rest: async () => undefined,
    get disturbances() {
      return time.sleeps
    },
  }
  let answer: () => void = () => undefined
  const does = (name: string) => async () => {
    asked.push(name)
    answer()
  }
  const session = {
    read: does('read'),
    write: does('write'),
    saving: { save: does('save') },
    changePassword: does('password'),
  } as unknown as Dialect
  let lease: () => void = () => undefined
  const contact = new Contact(clock, 30_000)
  const dialect = guarded(session, async () => lease(), contact)
  const write = () => dialect.write([], {} as never)
  return {
    ...{ asked, pass, contact, dialect, write },
    whileItWaits: (act: () => void) => (lease = act),
    beforeItsAnswer: (act: () => void) => (answer = act),
    sleep: (seconds: number) => {
      time.sleeps += 1
      pass(seconds)
    },
  }
}

describe('a unit that nobody has heard of for as long as it takes to start', () => {
  it('is written nothing before it is read anew', async () => {
    const { asked, pass, contact, dialect, write } = bench()
    await dialect.read('configured')
    pass(29)
    await write()
    pass(31)
    await expect(write()).rejects.toThrow(MayHaveRestarted)
    // That it answers again says nothing of what it has lost.
    await dialect.read('configured')
    await expect(write()).rejects.toThrow(MayHaveRestarted)
    expect(asked).toEqual(['read', 'write', 'read'])
    contact.begins()
    await write()
    expect(asked.at(-1)).toBe('write')
  })

  it('is told by the wall clock too: the other stands still in some sleeps', async () => {
    const { pass, write } = bench()
    pass(31, 'wall')
    await expect(write()).rejects.toThrow(MayHaveRestarted)
  })

  it('may have answered before the laptop slept, and what it said is heard afterwards', async () => {
    const { asked, pass, dialect, write, sleep, beforeItsAnswer } = bench()
    // An answer that takes long is an answer.
    beforeItsAnswer(() => pass(40))
    await dialect.read('configured')
    beforeItsAnswer(() => undefined)
    await write()
    beforeItsAnswer(() => sleep(40))
    await dialect.read('configured')
    await expect(write()).rejects.toThrow(MayHaveRestarted)
    expect(asked).toEqual(['read', 'write', 'read'])
  })

  it('may have been silent while the lease was waited for', async () => {
    const { asked, pass, dialect, write, whileItWaits } = bench()
    whileItWaits(() => pass(31))
    await expect(write()).rejects.toThrow(MayHaveRestarted)
    expect(asked).toEqual([])
    // Nor is a password changed: what a restart put on air again would be on air with it.
    whileItWaits(() => undefined)
    await expect(dialect.changePassword('admin', 'x')).rejects.toThrow(MayHaveRestarted)
    await expect(dialect.saving?.save()).rejects.toThrow(MayHaveRestarted)
    expect(asked).toEqual([])
  })
})
