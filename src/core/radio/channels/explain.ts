/**
 * Why a radio has the channel that it has: what it hears worst, and what the next best channel would cost.
 *
 * In: the problem that was solved and the plan. Out: for one radio, figures to put into a sentence.
 */
import {
  type ChannelOption,
  type ChannelProblem,
  costOfMeeting,
  listenSecondsIn,
  type Meeting,
  meetingOf,
  type ProblemRadio,
  weightOf,
} from './channel-problem'
import { overlapOf, type Span } from './span'

export interface HeardRadio extends Meeting {
  /** Radio of the site, or undefined for a network of somebody else. */
  readonly radio: string | undefined
  /** As loud as it is on its own channel. */
  readonly dbm: number
}

/** A channel as a radio would find it. */
export interface Priced {
  readonly option: ChannelOption
  readonly cost: number
  /** Whom it would hear worst there; undefined where it hears nobody. */
  readonly worst: HeardRadio | undefined
  /** How many would take turns there, itself among them. */
  readonly sharing: number
}

export interface RadioReason {
  readonly radio: string
  /** What it pays for its channel: its own part of the cost. */
  readonly cost: number
  /** How many take turns on its channel, itself among them. */
  readonly sharing: number
  /** Who disturbs it most on its channel; undefined where nobody does. */
  readonly worst: HeardRadio | undefined
  /** Whom it hears loudest at all, on whatever channel. */
  readonly loudest: HeardRadio | undefined
  /** The best of its other channels. */
  readonly next: Priced | undefined
  /** The best without a wait for radar, where its own has one of so many seconds. */
  readonly withoutRadar: (Priced & { readonly listens: number }) | undefined
  /** Where it should go when radar is heard on its own: nothing of it is shut by that. */
  readonly afterRadar: Priced | undefined
}

/** From here on a radio waits for another to end, dBm: the preamble of IEEE 802.11-2020, 17.3.10.6, at 20 MHz. */
const waitsForDbm = -82

export function explainRadios(
  problem: ChannelProblem,
  chosen: ReadonlyMap<string, ChannelOption>,
): Map<string, RadioReason> {
  const heard = new Map<string, Around[]>(problem.radios.map(({ id }) => [id, []]))
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
      return own ? [[radio.id, reasonOf(radio, own, around, problem.adjacent)] as const] : []
    }),
  )
}

/** Somebody who is heard, wherever. */
interface Around {
  readonly radio: string | undefined
  readonly span: Span
  readonly dbm: number
}

function reasonOf(
  radio: ProblemRadio,
  own: ChannelOption,
  around: readonly Around[],
  adjacent: ChannelProblem['adjacent'],
): RadioReason {
  const cheapest = (a: Priced, b: Priced): number =>
    a.cost - b.cost || listenSecondsIn(a.option) - listenSecondsIn(b.option)
  const priced = radio.options
    // As wide as its own: less bandwidth would be another bargain.
    .filter((option) => option.width === own.width && option.lowMhz !== own.lowMhz)
    .map((option) => pricedAt(option, around, adjacent))
    .sort(cheapest)
  const here = pricedAt(own, around, adjacent)
  const loudest = around.toSorted((a, b) => b.dbm - a.dbm)[0]
  const quiet = own.radar ? priced.find(({ option }) => !option.radar) : undefined
  return {
    radio: radio.id,
    cost: here.cost,
    sharing: here.sharing,
    worst: here.worst,
    loudest: loudest && { radio: loudest.radio, dbm: loudest.dbm, ...meetingOf(own, loudest.span, adjacent) },
    next: priced[0],
    withoutRadar: quiet && { ...quiet, listens: listenSecondsIn(own) },
    afterRadar: own.radar ? priced.find(({ option }) => overlapOf(option, own) === 0) : undefined,
  }
}

function pricedAt(option: ChannelOption, around: readonly Around[], adjacent: ChannelProblem['adjacent']): Priced {
  const costOfOne = (each: HeardRadio): number => costOfMeeting(each, weightOf(each.dbm))
  const disturbing = around
    .map(({ radio, span, dbm }): HeardRadio => ({ radio, dbm, ...meetingOf(option, span, adjacent) }))
    .filter((each) => costOfOne(each) > 0)
  return {
    option,
    cost: disturbing.reduce((sum, each) => sum + costOfOne(each), 0),
    worst: disturbing.toSorted((a, b) => costOfOne(b) - costOfOne(a))[0],
    // Nobody waits for what comes through from a channel beside: it is noise, no frame that could be read.
    sharing: 1 + disturbing.filter(({ dbm, overlap }) => overlap > 0 && dbm >= waitsForDbm).length,
  }
}
