/** A record cut by its presses: what was filled in on a page until it was saved, and what was pressed by itself. */
import type { Act } from './act'
import { wayTo } from './ways'

/** What was filled in on one page until something was pressed. */
export interface Turn {
  readonly path: string
  /** Pressed on the way to it, on the same page. */
  readonly reach: readonly Act[]
  readonly fills: readonly Act[]
  /** Undefined where each field is saved as it is left. */
  readonly press: Act | undefined
  /** Pressed right after it. */
  readonly confirms: readonly Act[]
}
/** What was pressed with nothing filled in. */
export interface Single {
  readonly press: Act
  readonly confirms: readonly Act[]
}

/** @param all  acts that may have led to these, where they are not all of a record */
export function turnsOf(acts: readonly Act[], all = acts): { turns: Turn[]; singles: Single[] } {
  const turns: Turn[] = []
  const singles: Single[] = []
  let fills: Act[] = []
  const save = (press: Act | undefined, confirms: readonly Act[]): void => {
    // Parts of one page that are come to by presses of their own, such as the tabs of a dialog.
    const parts = new Map<string, { reach: Act[]; own: Act[] }>()
    for (const fill of fills) {
      const reach = wayTo(all, fill)
      const key = [fill.path, ...reach.map(({ number }) => number)].join(' ')
      const part = parts.get(key) ?? { reach, own: [] }
      part.own.push(fill)
      parts.set(key, part)
    }
    for (const { reach, own } of parts.values())
      turns.push({ path: own[0]?.path ?? '', reach, fills: own, press, confirms })
    fills = []
  }
  for (let index = 0; index < acts.length; index += 1) {
    const act = acts[index] as Act
    // What was left without a press has saved itself, or was not meant.
    if (fills.length > 0 && fills.at(-1)?.path !== act.path) save(undefined, [])
    if (act.does.kind === 'puts') {
      fills.push(act)
      continue
    }
    const { role } = act.does
    if (role === 'left-out' || role === 'way') continue
    if (role === 'close') {
      if (fills.length > 0) save(undefined, [])
      singles.push({ press: act, confirms: [] })
      continue
    }
    const next = acts[index + 1]
    const confirms = next?.does.kind === 'press' && isConfirm(next) ? [next] : []
    index += confirms.length
    if (fills.length > 0) save(act, confirms)
    else if (role !== 'saves') singles.push({ press: act, confirms })
  }
  if (fills.length > 0) save(undefined, [])
  return { turns, singles }
}

const isConfirm = ({ at }: Act): boolean =>
  at.by.some(({ text }) => text !== undefined && /^(yes|ok|confirm|continue|proceed|go on|sure)\b/i.test(text))
