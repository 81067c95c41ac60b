/** Hands on a window: they know a page by its words, as people do; the code that is tested does not. */
import { expect } from 'vitest'
import type { Described, Description, ElementUse } from '../../src/core/kit/page-element'
import type { Hand } from '../../src/core/showing/window-talk'

export interface HandsOn {
  readonly act: (hand: Hand) => void
  readonly placeOf: (at: Described) => Promise<{ x: number; y: number; width: number; height: number } | undefined>
}

export function hands({ act, placeOf }: HandsOn) {
  const place = async (use: ElementUse, by: Description): Promise<{ x: number; y: number }> => {
    let found: Awaited<ReturnType<typeof placeOf>>
    // What is still being drawn may move: a hand waits until it stands.
    await expect
      .poll(
        async () => {
          const before = JSON.stringify(found)
          found = await placeOf({ use, by: [by] }).catch(() => undefined)
          return found !== undefined && JSON.stringify(found) === before
        },
        { message: JSON.stringify(by), interval: 120 },
      )
      .toBe(true)
    const { x = 0, y = 0, width = 0, height = 0 } = found ?? {}
    return { x: x + width / 2, y: y + height / 2 }
  }
  const click = async (use: ElementUse, by: Description): Promise<void> => {
    const at = await place(use, by)
    const pointer = { kind: 'pointer', ...at, button: 'left', presses: 1, modifiers: 0 } as const
    act({ ...pointer, phase: 'down' })
    act({ ...pointer, phase: 'up' })
  }
  const key = (name: string, modifiers = 0): void => {
    for (const phase of ['down', 'up'] as const) act({ kind: 'key', phase, key: name, code: '', modifiers })
  }
  return {
    press: (by: Description) => click('press', by),
    tick: (by: Description) => click('tick', by),
    give: (by: Description) => click('give', by),
    /** Until it is no more to be seen. */
    gone: async (use: ElementUse, by: Description): Promise<void> => {
      await expect.poll(() => placeOf({ use, by: [by] })).toBeUndefined()
    },
    sees: async (by: Description): Promise<void> => void (await place('show', by)),
    /** In the place of what stands there. */
    type: async (by: Description, text: string): Promise<void> => {
      await click('type', by)
      key('a', 2)
      if (text === '') key('Delete')
      else act({ kind: 'text', text })
    },
    open: (by: Description) => click('choose', by),
    /** From a list of the page's own making. */
    choose: async (by: Description, option: string): Promise<void> => {
      await click('choose', by)
      await click('press', { text: option, role: 'option' })
    },
  }
}
