/**
 * Solves a channel problem: the least disturbance that can be found with a bounded amount of work.
 *
 * In: the problem. Out: an option for every radio, and the cost worked out anew from the problem itself.
 */
import { anneal } from './anneal'
import { ChannelField } from './channel-field'
import { type ChannelOption, type ChannelProblem, costOf, isLocked } from './channel-problem'
import { placeLoudestFirst, searchAll, searchLocally, seeded, settle } from './channel-search'
import { colourBySaturation } from './dsatur'
import { type Effort, smallField, workFor } from './search-effort'

export interface ChannelPlan {
  readonly chosen: ReadonlyMap<string, ChannelOption>
  readonly cost: number
}

export function planChannels(problem: ChannelProblem, effort: Effort = 'thorough'): ChannelPlan {
  const chosen = new Map<string, ChannelOption>()
  for (const band of new Set(problem.radios.map((radio) => radio.band))) {
    const radios = problem.radios.filter((radio) => radio.band === band)
    // Whoever hears a radio of another band is passed over.
    const part: ChannelProblem = { ...problem, radios }
    const found = planOf(part, (field) => solve(field, effort))
    // A search by chance may end a little above what is planned already: whoever plans again is never worse off.
    const isSet = effort !== 'greedy' && radios.length <= smallField && radios.some(({ set }) => set !== null)
    const kept = isSet ? planOf(part, keepSet) : undefined
    const better = kept && withBandwidth(kept) < withBandwidth(found) ? kept : found
    for (const [id, option] of better.chosen) chosen.set(id, option)
  }
  return { chosen, cost: costOf(problem, chosen) }
}

/** What is disturbed, and the bandwidth that is given up for it: what two plans of one problem are compared by. */
export function withBandwidth({ chosen, cost }: ChannelPlan): number {
  return [...chosen.values()].reduce((sum, { price }) => sum + price, cost)
}

function planOf(problem: ChannelProblem, work: (field: ChannelField) => void): ChannelPlan {
  const field = new ChannelField(problem)
  work(field)
  const chosen = new Map(problem.radios.map((radio, at) => [radio.id, field.optionOf(at)]))
  return { chosen, cost: costOf(problem, chosen) }
}

/** What is planned already, put right only where it can be put right radio by radio. */
function keepSet(field: ChannelField): void {
  placeLocked(field)
  placeSet(field)
  placeLoudestFirst(field)
  settle(field)
}

function placeLocked(field: ChannelField): void {
  for (const [at, radio] of field.radios.entries()) if (radio.locked !== null) field.move(at, field.cheapest(at))
}

function solve(field: ChannelField, effort: Effort): void {
  placeLocked(field)
  // What is set already is a start as good as it was planned; it only has to give way where something changed.
  if (effort === 'quick') placeSet(field)
  if (effort === 'greedy') {
    colourBySaturation(field)
    return
  }
  placeLoudestFirst(field)
  settle(field)
  const work = workFor(field.radios.length, effort)
  const random = seeded(field.radios.length * 7919 + field.neighbour.length)
  if (field.radios.length <= smallField) searchAll(field, work, random)
  else {
    if (effort === 'thorough') anneal(field, work, random)
    // What annealing leaves comes further down, neighbourhood by neighbourhood.
    searchLocally(field, workFor(field.radios.length, 'quick'), random)
  }
}

/** Radios without a block go where they are set to be, if that is still one of their options. */
function placeSet(field: ChannelField): void {
  field.radios.forEach(({ set }, at) => {
    if (set === null || field.block[at] !== -1) return
    const block = field.blockWhere(at, (option) => isLocked(option, set))
    if (block !== undefined) field.move(at, block)
  })
}
