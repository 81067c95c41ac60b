/**
 * A first plan in the order of saturation: next is always the radio with the fewest blocks left that cost nothing
 * (D. Brélaz, 1979), the one with the louder neighbours among equals. It takes its cheapest block and keeps it.
 */
// biome-ignore-all lint/style/noNonNullAssertion: indexes into arrays of known length, in the innermost loops
import type { ChannelField } from './channel-field'

interface Waiting {
  readonly radio: number
  readonly saturation: number
  readonly loudness: number
}

/** Gives every radio without a block one. Radios that have one keep it. */
export function colourBySaturation(field: ChannelField): void {
  const heap = new Heap()
  const loudness = field.radios.map((_, radio) => {
    let sum = 0
    for (let edge = field.start[radio]!; edge < field.start[radio + 1]!; edge += 1) sum += field.weight[edge]!
    return sum
  })
  const saturation = (radio: number): number => {
    const choice = field.choices[radio]!
    let costly = 0
    for (let k = 0; k < choice.length; k += 1) if (field.price[radio * field.blocks + choice[k]!]! > 1e-3) costly += 1
    return costly / choice.length
  }
  const push = (radio: number): void => heap.push({ radio, saturation: saturation(radio), loudness: loudness[radio]! })
  field.radios.forEach((_, radio) => {
    if (field.block[radio] === -1) push(radio)
  })
  for (let next = heap.pop(); next; next = heap.pop()) {
    const { radio } = next
    if (field.block[radio] !== -1 || next.saturation !== saturation(radio)) continue
    field.move(radio, field.cheapest(radio))
    for (let edge = field.start[radio]!; edge < field.start[radio + 1]!; edge += 1) {
      const other = field.neighbour[edge]!
      // Its saturation may have grown: the entry from before is passed over when it comes up.
      if (field.block[other] === -1) push(other)
    }
  }
}

/** A binary heap, greatest saturation first. */
class Heap {
  readonly #items: Waiting[] = []

  push(item: Waiting): void {
    const items = this.#items
    let at = items.push(item) - 1
    while (at > 0) {
      const parent = (at - 1) >> 1
      if (!before(items[at]!, items[parent]!)) return
      ;[items[at], items[parent]] = [items[parent]!, items[at]!]
      at = parent
    }
  }

  pop(): Waiting | undefined {
    const items = this.#items
    const top = items[0]
    const last = items.pop()
    if (!top || !last || items.length === 0) return top
    items[0] = last
    for (let at = 0; ; ) {
      const [left, right] = [2 * at + 1, 2 * at + 2]
      let first = at
      if (left < items.length && before(items[left]!, items[first]!)) first = left
      if (right < items.length && before(items[right]!, items[first]!)) first = right
      if (first === at) return top
      ;[items[at], items[first]] = [items[first]!, items[at]!]
      at = first
    }
  }
}

function before(a: Waiting, b: Waiting): boolean {
  return a.saturation !== b.saturation
    ? a.saturation > b.saturation
    : a.loudness !== b.loudness
      ? a.loudness > b.loudness
      : a.radio < b.radio
}
