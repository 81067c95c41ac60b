/**
 * Why a radio has the channel that it has: what it hears worst, and what the next best channel would cost.
 *
 * In: the problem that was solved and the plan. Out: for one radio, figures to put into a sentence.
 */
import {
  type ChannelOption,
  type ChannelProblem,
  listenSecondsIn,
  overlapOf,
  type Span,
  weightOf,
} from './channel-problem'

export interface HeardRadio {
  /** Radio of the site, or undefined for a network of somebody else. */
  readonly radio: string | undefined
  readonly dbm: number
  /** 0 to 1. */
  readonly overlap: number
}

export interface RadioReason {
  readonly radio: string
  /** What it pays for its channel: its own part of the cost. */
  readonly cost: number
  /** Who disturbs it most on its channel; undefined where nobody does. */
  readonly worst: HeardRadio | undefined
  /** Whom it hears loudest at all, on whatever channel. */
  readonly loudest: HeardRadio | undefined
  /** The best of its other channels, with what it would pay there. */
  readonly next: { readonly option: ChannelOption; readonly cost: number } | undefined
  /** The best without a wait for radar, where its own has one, of so many seconds. */
  readonly withoutRadar: { readonly option: ChannelOption; readonly cost: number; readonly listens: number } | undefined
}

export function explainRadios(
  problem: ChannelProblem,
  chosen: ReadonlyMap<string, ChannelOption>,
): Map<string, RadioReason> {
  const heard = new Map<string, { radio: string | undefined; span: Span; dbm: number }[]>(
    problem.radios.map(({ id }) => [id, []]),
  )
  for (const { a, b, dbm } of problem.hears) {
    const [one, other] = [chosen.get(a), chosen.get(b)]
    if (!one || !other) continue
    heard.get(a)?.push({ radio: b, span: other, dbm })
    heard.get(b)?.push({ radio: a, span: one, dbm })
  }
  for (const { radio, dbm, ...span } of problem.others) heard.get(radio)?.push({ radio: undefined, span, dbm })
  return new Map(
    problem.radios.flatMap((radio) => {
      const own = chosen.get(radio.id)
      const around = heard.get(radio.id) ?? []
      if (!own) return []
      const costAt = (option: Span): number =>
        around.reduce((sum, each) => sum + overlapOf(option, each.span) * weightOf(each.dbm), 0)
      const priced = radio.options
        // As wide as its own: less bandwidth would be another bargain.
        .filter((option) => option.width === own.width && option.lowMhz !== own.lowMhz)
        .map((option) => ({ option, cost: costAt(option) }))
        .sort((a, b) => a.cost - b.cost || listenSecondsIn(a.option) - listenSecondsIn(b.option))
      const disturbing = around.map(({ radio: other, span, dbm }) => ({
        radio: other,
        dbm,
        overlap: overlapOf(own, span),
      }))
      const worst = disturbing
        .filter((each) => each.overlap > 0 && weightOf(each.dbm) > 0)
        .sort((a, b) => b.overlap * weightOf(b.dbm) - a.overlap * weightOf(a.dbm))[0]
      const quiet = own.radar ? priced.find(({ option }) => !option.radar) : undefined
      const reason: RadioReason = {
        radio: radio.id,
        cost: costAt(own),
        worst,
        loudest: disturbing.toSorted((a, b) => b.dbm - a.dbm)[0],
        next: priced[0],
        withoutRadar: quiet && { ...quiet, listens: listenSecondsIn(own) },
      }
      return [[radio.id, reason]]
    }),
  )
}
