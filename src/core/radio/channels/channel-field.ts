/**
 * The channel problem of one band in flat arrays: what each block would cost each radio, kept current move by move.
 *
 * A block is a stretch of frequencies that at least one radio may use. Options that differ in the primary channel
 * alone are one block.
 */
// biome-ignore-all lint/style/noNonNullAssertion: indexes into arrays of known length, in the innermost loops
import { usualListenSeconds } from '../../regulatory/radar-listening'
import {
  type ChannelOption,
  type ChannelProblem,
  costOfMeeting,
  isLocked,
  listenSecondsIn,
  meetingOf,
  noiseOf,
  type ProblemRadio,
  pairsOf,
  weightOf,
} from './channel-problem'

/**
 * Among equals: first no wait for radar, and a short one before a long one, then what is set already, then the widest.
 * Small enough to outweigh no real difference of cost, each step a hundredth of the one before.
 */
const preference = { radar: 1e-4, change: 1e-6, narrower: 1e-8 } as const

/** Cells of a neighbour's row that a move changes, and by how much. */
interface Change {
  readonly changed: Int32Array
  readonly delta: Float64Array
}

export class ChannelField {
  readonly radios: readonly ProblemRadio[]
  /** Number of distinct blocks. */
  readonly blocks: number
  /** Overlap of two blocks, 0 to 1, `blocks` by `blocks`. */
  readonly overlap: Float64Array
  /** Loss between two blocks that do not overlap, dB, `blocks` by `blocks`; infinite where nothing is counted. */
  readonly #lossDb: Float64Array
  /** For each block those that do not overlap it and are reached by its mask. */
  readonly #beside: readonly Int32Array[]
  /** Pairs of less weight than this reach no block beside their own. */
  readonly #leastLossDb: number
  /** Option behind each block of each radio, -1 where it may not use it. */
  readonly optionAt: Int32Array
  /** Blocks that each radio may use; one where it is locked. */
  readonly choices: readonly Int32Array[]
  /** Neighbours of radio r: `neighbour[start[r]]` to `neighbour[start[r + 1] - 1]`, with weights. */
  readonly start: Int32Array
  readonly neighbour: Int32Array
  readonly weight: Float64Array
  /** What each block would cost each radio as the others stand now, with the preference of equals. */
  readonly price: Float64Array
  /** Block of each radio, -1 before it has one. */
  readonly block: Int32Array
  /** Work done so far: cells of `price` that were changed or looked at. */
  work = 0

  constructor({ radios, hears, others, adjacent }: ChannelProblem) {
    this.radios = radios
    const index = new Map(radios.map((radio, at) => [radio.id, at]))
    const spans: { lowMhz: number; highMhz: number }[] = []
    const spanIndex = new Map<string, number>()
    const blockOf = ({ lowMhz, highMhz }: ChannelOption): number => {
      const key = `${lowMhz} ${highMhz}`
      const known = spanIndex.get(key)
      if (known !== undefined) return known
      spanIndex.set(key, spans.length)
      return spans.push({ lowMhz, highMhz }) - 1
    }
    for (const radio of radios) for (const option of radio.options) blockOf(option)
    this.blocks = spans.length
    this.overlap = new Float64Array(this.blocks * this.blocks)
    this.#lossDb = new Float64Array(this.blocks * this.blocks)
    let leastLossDb = Number.POSITIVE_INFINITY
    this.#beside = spans.map((a, i) =>
      Int32Array.from(
        spans.flatMap((b, j) => {
          const { overlap, lossDb } = meetingOf(a, b, adjacent)
          this.overlap[i * this.blocks + j] = overlap
          this.#lossDb[i * this.blocks + j] = lossDb
          if (overlap > 0 || lossDb === Number.POSITIVE_INFINITY) return []
          leastLossDb = Math.min(leastLossDb, lossDb)
          return [j]
        }),
      ),
    )
    this.#leastLossDb = leastLossDb
    this.optionAt = new Int32Array(radios.length * this.blocks).fill(-1)
    this.price = new Float64Array(radios.length * this.blocks)
    this.block = new Int32Array(radios.length).fill(-1)
    this.choices = radios.map((radio, at) => this.#choicesOf(radio, at, blockOf))
    for (const { radio, dbm, ...span } of others) {
      const at = index.get(radio)
      if (at === undefined || weightOf(dbm) === 0) continue
      for (const block of this.choices[at] ?? [])
        this.price[at * this.blocks + block]! += costOfMeeting(meetingOf(spans[block]!, span, adjacent), weightOf(dbm))
    }
    const pairs = pairsOf(radios, hears)
    this.start = new Int32Array(radios.length + 1)
    for (let pair = 0; pair < pairs.count; pair += 1) {
      this.start[pairs.first[pair]! + 1]! += 1
      this.start[pairs.second[pair]! + 1]! += 1
    }
    for (let at = 0; at < radios.length; at += 1) this.start[at + 1]! += this.start[at]!
    this.neighbour = new Int32Array(pairs.count * 2)
    this.weight = new Float64Array(pairs.count * 2)
    const next = this.start.slice()
    const join = (from: number, to: number, w: number): void => {
      this.neighbour[next[from]!] = to
      this.weight[next[from]!++] = w
    }
    for (let pair = 0; pair < pairs.count; pair += 1) {
      join(pairs.first[pair]!, pairs.second[pair]!, pairs.weight[pair]!)
      join(pairs.second[pair]!, pairs.first[pair]!, pairs.weight[pair]!)
    }
  }

  #choicesOf(radio: ProblemRadio, at: number, blockOf: (option: ChannelOption) => number): Int32Array {
    const { locked } = radio
    const widest = Math.max(...radio.options.map((option) => option.width))
    const found: number[] = []
    radio.options.forEach((option, optionIndex) => {
      if (locked !== null && !isLocked(option, locked)) return
      const block = blockOf(option)
      const cell = at * this.blocks + block
      const changes = radio.set !== null && !isLocked(option, radio.set)
      const preferred =
        option.price +
        preference.radar * (listenSecondsIn(option) / usualListenSeconds) +
        (changes ? preference.change : 0) +
        preference.narrower * (widest / option.width - 1)
      const known = this.optionAt[cell]!
      if (known === -1) found.push(block)
      // Of several primaries of one block the one that is set stays, else the first.
      if (known !== -1 && this.price[cell]! <= preferred) return
      this.optionAt[cell] = optionIndex
      this.price[cell] = preferred
    })
    return Int32Array.from(found)
  }

  /** Moves a radio to a block; -1 takes it off air. */
  move(radio: number, block: number): void {
    const { blocks, price, neighbour, weight } = this
    const before = this.block[radio]!
    if (before === block) return
    this.block[radio] = block
    const { changed, delta } = this.#changeOf(before, block)
    for (let edge = this.start[radio]!; edge < this.start[radio + 1]!; edge += 1) {
      const w = weight[edge]!
      const row = neighbour[edge]! * blocks
      // Cells that the neighbour may not use are kept current too: cheaper than to ask.
      for (let k = 0; k < changed.length; k += 1) price[row + changed[k]!]! += w * delta[k]!
      if (w <= this.#leastLossDb) continue
      if (before !== -1) this.#reachBeside(row, before, w, -1)
      if (block !== -1) this.#reachBeside(row, block, w, 1)
    }
    this.work += 1 + (this.start[radio + 1]! - this.start[radio]!) * changed.length
  }

  /** What the mask of a block lets through to the blocks beside it, put on a row of prices or taken off. */
  #reachBeside(row: number, block: number, w: number, sign: 1 | -1): void {
    const cells = this.#beside[block]!
    const from = block * this.blocks
    for (let k = 0; k < cells.length; k += 1) {
      const cell = cells[k]!
      this.price[row + cell]! += sign * noiseOf(w, this.#lossDb[from + cell]!)
    }
    this.work += cells.length
  }

  /** What a pair of so much weight costs on two blocks. */
  costBetween(block: number, other: number, w: number): number {
    const cell = block * this.blocks + other
    const overlap = this.overlap[cell]!
    return overlap > 0 ? overlap * w : noiseOf(w, this.#lossDb[cell]!)
  }

  readonly #changes = new Map<number, Change>()

  /** What a move from one block to another changes for a neighbour, at a weight of 1: most blocks are not touched. */
  #changeOf(before: number, block: number): Change {
    const { blocks, overlap } = this
    const key = (before + 1) * (blocks + 1) + block + 1
    const known = this.#changes.get(key)
    if (known) return known
    const changed: number[] = []
    const delta: number[] = []
    for (let cell = 0; cell < blocks; cell += 1) {
      const by =
        (block === -1 ? 0 : overlap[cell * blocks + block]!) - (before === -1 ? 0 : overlap[cell * blocks + before]!)
      if (by === 0) continue
      changed.push(cell)
      delta.push(by)
    }
    const made = { changed: Int32Array.from(changed), delta: Float64Array.from(delta) }
    this.#changes.set(key, made)
    return made
  }

  /** The cheapest block of a radio as the others stand; the one that it has, where none is cheaper. */
  cheapest(radio: number): number {
    const row = radio * this.blocks
    const choice = this.choices[radio]!
    let best = this.block[radio]!
    let bestPrice = best === -1 ? Number.POSITIVE_INFINITY : this.price[row + best]! - 1e-12
    for (let k = 0; k < choice.length; k += 1) {
      const cell = choice[k]!
      const price = this.price[row + cell]!
      if (price < bestPrice) {
        best = cell
        bestPrice = price
      }
    }
    this.work += choice.length
    return best
  }

  /** The first block of a radio whose option is such; undefined where none is. */
  blockWhere(radio: number, isSuch: (option: ChannelOption) => boolean): number | undefined {
    const { options } = this.radios[radio]!
    return this.choices[radio]!.find((block) => isSuch(options[this.optionAt[radio * this.blocks + block]!]!))
  }

  priceNow(radio: number): number {
    return this.price[radio * this.blocks + this.block[radio]!]!
  }

  /** Option that a radio has now. */
  optionOf(radio: number): ChannelOption {
    const option = this.radios[radio]!.options[this.optionAt[radio * this.blocks + this.block[radio]!]!]
    if (!option) throw new RangeError(`radio ${this.radios[radio]?.id} has no channel yet`)
    return option
  }
}
