/**
 * A card with what was shown on another firmware beside what it says already: each element by all ways of describing
 * it, of which those that fit have a vote. So one card serves both, and nothing that it said is lost.
 */
import { parse, stringify } from 'yaml'
import { type Described, describedSchema, mostDescriptions } from '../kit/page-element'

type Tree = Readonly<Record<string, unknown>>
const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value)

/** @returns YAML; the one that was shown where the other is of another kind */
export function mergedCard(kept: string, shown: string): string {
  const [before, more] = [parse(kept) as unknown, parse(shown) as unknown]
  if (!isTree(before) || !isTree(more) || !isTree(before.dialect) || !isTree(more.dialect)) return shown
  if (before.dialect.kind !== 'pages' || more.dialect.kind !== 'pages') return shown
  const can = { ...(isTree(more.can) ? more.can : {}), ...(isTree(before.can) ? before.can : {}) }
  const dialect = mergedTree(before.dialect, more.dialect)
  return `${headOf(kept)}${stringify({ ...before, can, dialect }, { lineWidth: 118, aliasDuplicateObjects: false })}`
}

/** Comments that a card begins with. */
const headOf = (text: string): string => /^(#.*\n)*/.exec(text)?.[0] ?? ''

const described = (value: unknown): Described | undefined => describedSchema.safeParse(value).data

/** All that both say; what one says alone stays, and where they say different things the first counts. */
function merged(before: unknown, more: unknown): unknown {
  if (before === undefined) return more
  const [one, other] = [described(before), described(more)]
  if (one && other && one.use === other.use) {
    const by = new Map([...one.by, ...other.by].map((way) => [JSON.stringify(way), way]))
    return { use: one.use, by: [...by.values()].slice(0, mostDescriptions) }
  }
  if (Array.isArray(before) && Array.isArray(more)) return mergedLists(before, more)
  return isTree(before) && isTree(more) ? mergedTree(before, more) : before
}

const mergedTree = (before: Tree, more: Tree): Tree =>
  Object.fromEntries(
    [...new Set([...Object.keys(before), ...Object.keys(more)])].map((key) => [key, merged(before[key], more[key])]),
  )

/** Parts of a list that are for the same are one; the others of the second come after. */
function mergedLists(before: readonly unknown[], more: readonly unknown[]): unknown[] {
  const left = [...more]
  const same = before.map((part, index) => {
    const at = left.findIndex((each) => each === part || isSamePart(part, each) || isAlike(part, each, index, more))
    return at < 0 ? part : merged(part, left.splice(at, 1)[0])
  })
  return [...same, ...left]
}

/** What a part of a card is for: a page by the settings on it, a fill by its setting. */
function isSamePart(one: unknown, other: unknown): boolean {
  if (!isTree(one) || !isTree(other)) return false
  if ('setting' in one || 'setting' in other) return one.setting === other.setting
  const [ids, others] = [settingsOf(one), settingsOf(other)]
  return ids.length > 0 && ids.some((id) => others.includes(id))
}

/** Elements of a list that say no setting are the same by their place in it. */
const isAlike = (one: unknown, other: unknown, index: number, more: readonly unknown[]): boolean =>
  more.indexOf(other) === index &&
  isTree(one) &&
  isTree(other) &&
  settingsOf(one).length === 0 &&
  settingsOf(other).length === 0 &&
  !('setting' in one) &&
  !('setting' in other)

function settingsOf(part: Tree): string[] {
  const radios = isTree(part.radios)
    ? Object.values(part.radios).flatMap((each) => (isTree(each) ? Object.keys(each) : []))
    : []
  const fields = isTree(part.fields) ? Object.keys(part.fields) : []
  const fills = Array.isArray(part.fills)
    ? part.fills.flatMap((fill) => (isTree(fill) && typeof fill.setting === 'string' ? [fill.setting] : []))
    : []
  return [...fields, ...radios, ...fills]
}
