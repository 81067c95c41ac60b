/** A record cut by its presses: what was filled in on a page until it was saved, and what was pressed by itself. */
import type { Act } from './record'

/** What was filled in on one page until something was pressed. */
export interface Turn {
  readonly path: string
  /** Pressed on the way to it, on the same page. */
  readonly reach: readonly Act[]
  readonly fills: readonly Act[]
  readonly press: Act
  /** Pressed right after it, among what had appeared. */
  readonly confirms: readonly Act[]
}
/** What was pressed with nothing filled in. */
export interface Single {
  readonly press: Act
  readonly confirms: readonly Act[]
}

export function turnsOf(acts: readonly Act[]): { turns: Turn[]; singles: Single[] } {
  const turns: Turn[] = []
  const singles: Single[] = []
  let ways: Act[] = []
  let fills: Act[] = []
  for (let index = 0; index < acts.length; index += 1) {
    const act = acts[index] as Act
    if (act.does.kind === 'puts') {
      fills.push(act)
      continue
    }
    const { role } = act.does
    if (role === 'left-out') continue
    const isTurn = fills.length > 0
    const takesMore = isTurn || role === 'effect' || role === 'restart' || role === 'remove'
    if (!takesMore) {
      if (role === 'way') ways.push(act)
      else singles.push({ press: act, confirms: [] })
      continue
    }
    const confirms: Act[] = []
    const next = acts[index + 1]
    if (next?.does.kind === 'press' && next.path === act.path && isConfirm(next)) {
      confirms.push(next)
      index += 1
    }
    const path = fills[0]?.path ?? act.path
    if (isTurn) turns.push({ path, reach: ways.filter((each) => each.path === path), fills, press: act, confirms })
    else singles.push({ press: act, confirms })
    ways = []
    fills = []
  }
  return { turns, singles }
}

const isConfirm = ({ at }: Act): boolean =>
  at.by.some(({ text }) => text !== undefined && /^(yes|ok|confirm|continue|proceed|go on|sure)\b/i.test(text))
