/**
 * Plans of large fields by annealing: every radio in turn draws its block anew, the cheaper the likelier, while chance
 * cools down. The same field and the same work always give the same plan.
 *
 * A block is drawn by its price with a random share taken off that follows Gumbel's law, which is a draw by Boltzmann
 * weights (heat bath): one pass over a row of prices settles what would take dozens of single proposals, most of which
 * are refused.
 */
// biome-ignore-all lint/style/noNonNullAssertion: indexes into arrays of known length, in the innermost loops
import type { ChannelField } from './channel-field'
import { restore, settle, total } from './channel-search'

/**
 * Chance at the beginning and at the end, as shares of what a radio pays on the average in a plan where none wants to
 * move.
 */
const begins = 0.12
const ends = 0.05

/** Shares that are drawn beforehand: each row of prices begins at another place among them. */
const drawn = 1 << 12

/**
 * Leaves the field no worse than it was, and nobody in it who would rather move.
 *
 * @param field   every radio has a block
 * @param work    cells that may be looked at or changed
 * @param random  even chance, 0 to 1
 */
export function anneal(field: ChannelField, work: number, random: () => number): void {
  const { blocks, block } = field
  const count = field.radios.length
  let paid = 0
  for (let radio = 0; radio < count; radio += 1) paid += field.priceNow(radio)
  const scale = paid / count
  // Nobody is disturbed: there is nothing to make better.
  if (scale < 1e-3) return
  const shares = new Float64Array(drawn + blocks)
  for (let at = 0; at < shares.length; at += 1) shares[at] = -Math.log(-Math.log((1 - 2e-9) * random() + 1e-9))
  const before = total(field)
  const start = block.slice()
  const rows = rowsOf(field)
  const began = field.work
  const until = began + work
  while (field.work < until) {
    const heat = scale * begins * (ends / begins) ** ((field.work - began) / work)
    round(field, rows, shares, heat, random)
  }
  settle(field)
  if (total(field) < before) return
  restore(field, start)
  settle(field)
}

/** Blocks that each radio may use, in one array: those of radio r from `from[r]` to `from[r + 1] - 1`. */
interface Rows {
  readonly from: Int32Array
  readonly cells: Int32Array
}

function rowsOf({ choices }: ChannelField): Rows {
  const from = new Int32Array(choices.length + 1)
  choices.forEach((choice, radio) => {
    from[radio + 1] = from[radio]! + choice.length
  })
  const cells = new Int32Array(from[choices.length]!)
  choices.forEach((choice, radio) => {
    cells.set(choice, from[radio]!)
  })
  return { from, cells }
}

/** Every radio once, with as much chance as the heat lets in. */
function round(
  field: ChannelField,
  { from, cells }: Rows,
  shares: Float64Array,
  heat: number,
  random: () => number,
): void {
  const { blocks, price, block } = field
  const count = from.length - 1
  let looked = 0
  for (let radio = 0; radio < count; radio += 1) {
    const row = radio * blocks
    const begin = from[radio]!
    const end = from[radio + 1]!
    const place = ((random() * drawn) | 0) - begin
    let best = -1
    let bestPrice = Number.POSITIVE_INFINITY
    for (let k = begin; k < end; k += 1) {
      const cell = cells[k]!
      const drawnPrice = price[row + cell]! - heat * shares[place + k]!
      if (drawnPrice < bestPrice) {
        best = cell
        bestPrice = drawnPrice
      }
    }
    looked += end - begin
    if (best !== block[radio]) field.move(radio, best)
  }
  field.work += looked
}
