/**
 * Where a unit's pages list the access points that are set through it, one in a row, and what stood in the row of the
 * one that hands act for.
 */
import { z } from 'zod'
import { type SaidState, stateByWords } from './join-states'
import type { Noted } from './noted'

/** An access point that is set through the unit that is shown. */
export interface JoinedUnit {
  readonly mac: string
  readonly serial: string
  readonly name: string
}

const words = z.string().max(300)
export const joinedRowSchema = z.object({
  path: z.string().max(4000),
  /** Selector of all rows. */
  each: words,
  /** What a row is known by, and where in it that stands. */
  known: z.object({ by: z.enum(['mac', 'serial']), at: words }),
  name: words.optional(),
  address: words.optional(),
  /** What stood in its other cells so far, by where in the row. */
  cells: z.record(words, z.array(words).max(20)),
})
export type JoinedRow = z.infer<typeof joinedRowSchema>

type RowPart = Noted['rows'][number]
const mostWords = 20
const bare = (text: string): string => text.toLowerCase().replace(/[^0-9a-f]/g, '')

/** @param before  what is known of the list already @returns the same where this page does not show the unit */
export function joinedRowOn(
  { path, rows }: Pick<Noted, 'path' | 'rows'>,
  joined: JoinedUnit | undefined,
  before: JoinedRow | undefined,
): JoinedRow | undefined {
  if (!joined) return before
  const isMac = ({ text }: RowPart): boolean => bare(text) === bare(joined.mac)
  const isSerial = ({ text }: RowPart): boolean => joined.serial !== '' && text === joined.serial
  const row = rowsOf(rows).find((parts) => parts.some(isMac)) ?? rowsOf(rows).find((parts) => parts.some(isSerial))
  const known = row?.find(isMac) ?? row?.find(isSerial)
  if (!row || !known) return before
  const cells = new Map(before?.path === path ? Object.entries(before.cells) : [])
  const name = row.find(({ text }) => text === joined.name)
  const address = row.find(({ text }) => /^\d+\.\d+\.\d+\.\d+$/.test(text))
  for (const part of row) {
    if (part === name || part === address || isMac(part) || isSerial(part)) continue
    const seen = cells.get(part.name) ?? []
    if (!seen.includes(part.text)) cells.set(part.name, [...seen, part.text].slice(-mostWords))
  }
  return {
    path,
    each: known.each,
    known: { by: isMac(known) ? 'mac' : 'serial', at: known.name },
    ...nameAt(name?.name ?? before?.name),
    ...(address ? { address: address.name } : {}),
    cells: Object.fromEntries(cells),
  }
}

const nameAt = (name: string | undefined): { name?: string } => (name === undefined ? {} : { name })

/** What is told of rows, row by row: each begins with what stands in it first. */
function rowsOf(parts: readonly RowPart[]): RowPart[][] {
  const rows: RowPart[][] = []
  for (const part of parts)
    if (part.isFirst) rows.push([part])
    else rows.at(-1)?.push(part)
  return rows
}

export interface StateWords {
  readonly words: string
  /** What somebody has said that they mean, or what they are likely to mean. */
  readonly state: SaidState | undefined
}

/**
 * The words that may say how an access point stands: those of the cell in which most do, or all where none does.
 *
 * @returns where that cell is too; undefined where none says anything
 */
export function statesIn({
  joined,
  states,
}: {
  readonly joined: JoinedRow | undefined
  readonly states: Readonly<Record<string, SaidState>>
}): {
  readonly at: string | undefined
  readonly words: readonly StateWords[]
} {
  const meant = (text: string): StateWords => ({ words: text, state: states[text] ?? stateByWords(text) })
  const cells = Object.entries(joined?.cells ?? {}).map(([at, texts]) => ({ at, words: texts.map(meant) }))
  const telling = ({ words: all }: (typeof cells)[number]): number =>
    all.filter(({ state }) => state !== undefined && state !== 'none').length
  const [most] = cells.toSorted((a, b) => telling(b) - telling(a))
  if (!most || telling(most) === 0) return { at: undefined, words: cells.flatMap((cell) => cell.words) }
  return most
}
