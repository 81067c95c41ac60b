/** How a page says that it was saved: words that stood there after it was, and not before. */
import type { Described } from '../kit/page-element'
import type { Act } from './act'

/** What is pressed to save something, and right after it. */
interface Pressed {
  readonly press: Act | undefined
  readonly confirms: readonly Act[]
}

/** The last press of each: what appears after it is the answer. */
export const pressesOf = ({ press, confirms }: Pressed): Act[] => {
  const last = confirms.at(-1) ?? press
  return last ? [last] : []
}

const saying = /\b(saved|stored|noted|kept|success\w*|done|updated|applied|added|changed|created|deleted|removed)\b/i
const says = ({ by }: Described): boolean =>
  by.some(
    ({ text, part, role }) =>
      role === 'status' || role === 'alert' || saying.test(text ?? '') || saying.test(part ?? ''),
  )

/**
 * The words that stood there after most of these presses.
 * @returns undefined where there were none that say so, nor any that came each time
 */
export function savedWords(presses: readonly Act[]): Described | undefined {
  const counts = new Map<string, { at: Described; times: number }>()
  for (const { appeared } of presses)
    for (const at of appeared) {
      const key = JSON.stringify(at)
      counts.set(key, { at, times: (counts.get(key)?.times ?? 0) + 1 })
    }
  const [most] = [...counts.values()].toSorted((a, b) => Number(says(b.at)) - Number(says(a.at)) || b.times - a.times)
  if (!most || !(says(most.at) || (most.times > 1 && most.times === presses.length))) return undefined
  const { use, by } = most.at
  const told = by.filter(({ text, part, role }) => (text ?? part ?? role) !== undefined)
  return { use, by: told.length > 0 ? told : by }
}

/** What these presses are answered with, where that is not what most are. */
export function saidBy(presses: readonly Act[], common: Described | undefined): { saved?: Described } {
  const key = JSON.stringify(common)
  if (common && presses.some(({ appeared }) => appeared.some((each) => JSON.stringify(each) === key))) return {}
  const own = savedWords(presses)
  return own ? { saved: own } : {}
}
