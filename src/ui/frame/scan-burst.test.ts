import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { scanBurst } from './scan-burst'

let scans: string[]
beforeEach(() => {
  vi.useFakeTimers()
  scans = []
  const target = new EventTarget()
  target.addEventListener('air-muster-scan', (event) => scans.push((event as CustomEvent<string>).detail))
  vi.stubGlobal('window', target)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** Keys with so many ms between them; tells which of them were taken for part of a scan. */
const typed = (keys: readonly string[], everyMs: number, act?: () => void): boolean[] => {
  const burst = scanBurst()
  return keys.map((key, index) => {
    const taken = burst.heard({
      key,
      timeStamp: 1000 + index * everyMs,
      repeat: false,
      preventDefault: () => undefined,
    } as KeyboardEvent)
    if (!taken && act) burst.unless(act)
    return taken
  })
}

it('hears a label that is typed as only a scanner types, and gives none of it to a shortcut', () => {
  const act = vi.fn()
  typed([...'024F5210', 'Enter'], 8, act)
  vi.runAllTimers()
  expect(scans).toEqual(['024F5210'])
  expect(act).not.toHaveBeenCalled()
})

it('lets a person have the keys, each of them', () => {
  const act = vi.fn()
  expect(typed(['5'], 0, act)).toEqual([false])
  vi.runAllTimers()
  expect(act).toHaveBeenCalledTimes(1)
  expect(typed([...'rpjk12', 'Enter'], 120)).toEqual(Array.from({ length: 7 }, () => false))
  expect(scans).toEqual([])
})

it('takes two quick keys for a pair of fingers', () => {
  expect(typed(['j', 'j'], 5)).toEqual([false, false])
})

it('is no scan where the label is too short to be one', () => {
  typed([...'123', 'Enter'], 8)
  expect(scans).toEqual([])
})
