/**
 * Makes a plan of channels better, move by move, until the work allowed is done. The same problem always gives the
 * same plan: chance comes from a seed, and the end from counted work, not from a clock.
 *
 * Small fields are searched with a memory of what was just undone (tabu search), large ones by shaking one
 * neighbourhood at a time and keeping what is no worse.
 */
// biome-ignore-all lint/style/noNonNullAssertion: indexes into arrays of known length, in the innermost loops
import type { ChannelField } from './channel-field'

/** A source of even chance, 0 to 1, from a seed (the mulberry32 generator). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
  }
}

/** Gives every radio without a block its cheapest one, the loudest radios first. */
export function placeLoudestFirst(field: ChannelField): void {
  const { start, weight } = field
  const loudness = Float64Array.from(field.radios, (_, radio) =>
    weight.subarray(start[radio]!, start[radio + 1]!).reduce((sum, w) => sum + w, 0),
  )
  const order = [...field.radios.keys()]
    .filter((radio) => field.block[radio] === -1)
    .sort((a, b) => loudness[b]! - loudness[a]! || a - b)
  for (const radio of order) field.move(radio, field.cheapest(radio))
}

/** Lets every radio that would be better off move, until none would. */
export function settle(
  field: ChannelField,
  from: Iterable<number> = field.radios.keys(),
  moved?: (radio: number, before: number) => void,
): void {
  const queue = [...from]
  const queued = new Set(queue)
  for (let at = 0; at < queue.length; at += 1) {
    const radio = queue[at]!
    queued.delete(radio)
    const best = field.cheapest(radio)
    const before = field.block[radio]!
    if (best === before) continue
    field.move(radio, best)
    moved?.(radio, before)
    for (let edge = field.start[radio]!; edge < field.start[radio + 1]!; edge += 1) {
      const other = field.neighbour[edge]!
      if (queued.has(other)) continue
      queued.add(other)
      queue.push(other)
    }
  }
}

/** Total of a field, each pair once, with the preferences among equals. */
export function total(field: ChannelField): number {
  let sum = 0
  for (let radio = 0; radio < field.radios.length; radio += 1) {
    sum += field.priceNow(radio)
    for (let edge = field.start[radio]!; edge < field.start[radio + 1]!; edge += 1) {
      const other = field.neighbour[edge]!
      if (other > radio) sum -= field.costBetween(field.block[radio]!, field.block[other]!, field.weight[edge]!)
    }
  }
  return sum
}

/** Tabu search over the radios that are disturbed. Leaves the field at the best plan found. */
export function searchAll(field: ChannelField, work: number, random: () => number): void {
  const { blocks, price, choices } = field
  const count = field.radios.length
  const until = field.work + work
  const forbidden = new Float64Array(count * blocks)
  let now = total(field)
  let best = now
  let bestBlocks = field.block.slice()
  let since = 0
  for (let turn = 1; field.work < until; turn += 1) {
    let chosen = -1
    let chosenBlock = -1
    let chosenGain = Number.POSITIVE_INFINITY
    let equals = 0
    let disturbed = 0
    for (let radio = 0; radio < count; radio += 1) {
      const row = radio * blocks
      const own = price[row + field.block[radio]!]!
      if (own < 1e-9) continue
      disturbed += 1
      const choice = choices[radio]!
      field.work += choice.length
      for (let k = 0; k < choice.length; k += 1) {
        const block = choice[k]!
        if (block === field.block[radio]) continue
        const gain = price[row + block]! - own
        if (gain > chosenGain) continue
        if (forbidden[row + block]! > turn && now + gain >= best - 1e-9) continue
        if (gain === chosenGain) {
          equals += 1
          if (random() * equals >= 1) continue
        } else equals = 1
        chosen = radio
        chosenBlock = block
        chosenGain = gain
      }
    }
    if (disturbed === 0) break
    if (chosen === -1) {
      field.work += count
      continue
    }
    forbidden[chosen * blocks + field.block[chosen]!] = turn + 4 + Math.floor(random() * 8) + 0.4 * disturbed
    field.move(chosen, chosenBlock)
    now += chosenGain
    since += 1
    if (now < best - 1e-9) {
      best = now
      bestBlocks = field.block.slice()
      since = 0
    } else if (since > 200 + 20 * count) {
      // Nothing new for long: from the best once more, with a part of it shaken.
      since = 0
      restore(field, bestBlocks)
      const shaken = 2 + Math.floor(random() * Math.max(2, count / 5))
      for (let turnOf = 0; turnOf < shaken; turnOf += 1) {
        const radio = Math.floor(random() * count)
        field.move(radio, choices[radio]![Math.floor(random() * choices[radio]!.length)]!)
      }
      now = total(field)
    }
  }
  restore(field, bestBlocks)
  settle(field)
}

export function restore(field: ChannelField, blocks: Int32Array): void {
  for (let radio = 0; radio < blocks.length; radio += 1) field.move(radio, blocks[radio]!)
}

/** Shakes one neighbourhood at a time; what comes out worse is taken back. */
export function searchLocally(field: ChannelField, work: number, random: () => number): void {
  const until = field.work + work
  const count = field.radios.length
  const { blocks, price, choices, start, neighbour, weight } = field
  const log: { radio: number; before: number }[] = []
  let change = 0
  /** Moves and keeps account: the total changes by what the mover gains, since pairs count once. */
  const move = (radio: number, block: number): void => {
    const before = field.block[radio]!
    change += price[radio * blocks + block]! - price[radio * blocks + before]!
    field.move(radio, block)
    log.push({ radio, before })
  }
  while (field.work < until) {
    const radio = Math.floor(random() * count)
    field.work += 4
    const choice = choices[radio]!
    if (choice.length < 2 || field.priceNow(radio) < 1e-3) continue
    log.length = 0
    change = 0
    const block = choice[Math.floor(random() * choice.length)]!
    if (block === field.block[radio]) continue
    // Off with it to another block, and whoever is disturbed there gives way, in a queue that the first mover stays out
    // of.
    move(radio, block)
    const queue: number[] = []
    for (let edge = start[radio]!; edge < start[radio + 1]!; edge += 1) {
      const other = neighbour[edge]!
      if (field.costBetween(field.block[other]!, block, weight[edge]!) > 0) queue.push(other)
    }
    for (let at = 0; at < queue.length && at < 64; at += 1) {
      const other = queue[at]!
      const cheapest = field.cheapest(other)
      if (cheapest === field.block[other]) continue
      move(other, cheapest)
      for (let edge = start[other]!; edge < start[other + 1]!; edge += 1) {
        const third = neighbour[edge]!
        if (third !== radio && field.costBetween(field.block[third]!, cheapest, weight[edge]!) > 0) queue.push(third)
      }
    }
    const last = field.cheapest(radio)
    if (last !== field.block[radio]) move(radio, last)
    if (change <= 1e-12) continue
    for (let at = log.length - 1; at >= 0; at -= 1) field.move(log[at]!.radio, log[at]!.before)
  }
  settle(field)
}
