/** Which press brought an element onto its page: so a page without an address of its own is come to again. */
import type { ElementFacts } from '../kit/page-element'
import type { Act } from './act'
import type { Noted } from './noted'

/** What stands on the page that is shown, and since which act. */
export interface Came {
  readonly path: string
  /** The last act before this page was there. */
  readonly since: number
  /** By what an element goes by: number of the press after which it was seen first; 0: it came with its page. */
  readonly by: Readonly<Record<string, number>>
}
export const nothingCame: Came = { path: '', since: 0, by: {} }

const keyOf = ({ use, name, id, label, text, hint, heading, row }: ElementFacts): string =>
  [use, name, id, label, text, hint, heading, row].join('\n')

/** What is read only is never acted on. */
const isHandled = ({ use }: ElementFacts): boolean => use !== 'show'

export function cameWith({ path, since, by }: Came, noted: Pick<Noted, 'path' | 'facts'>, acts: readonly Act[]): Came {
  const isSamePage = path === noted.path
  const pressed = acts.findLast(({ does }) => does.kind === 'press')?.number ?? 0
  const from = isSamePage ? since : (acts.at(-1)?.number ?? 0)
  const brought = pressed > from ? pressed : 0
  const now = noted.facts
    .filter(isHandled)
    .map(keyOf)
    .map((key): [string, number] => [key, (isSamePage ? by[key] : 0) ?? brought])
  return { path: noted.path, since: from, by: Object.fromEntries(now) }
}

export const broughtBy = ({ by }: Came, element: ElementFacts): number => by[keyOf(element)] ?? 0

/** A way of more presses is none that anybody would go. */
const mostPresses = 8

/** The presses that bring an element onto its page, the first of them first. */
export function wayTo(acts: readonly Act[], { path, after }: Act): Act[] {
  const way: Act[] = []
  for (let at = after; at > 0 && way.length < mostPresses; ) {
    const by = acts.find(({ number }) => number === at)
    if (by?.does.kind !== 'press' || by.does.role !== 'way' || by.path !== path || by.after >= at) break
    way.unshift(by)
    at = by.after
  }
  return way
}
