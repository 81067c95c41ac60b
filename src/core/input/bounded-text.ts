/**
 * Bounds for text that people bring, looked at before a parser does: some parsers take seconds, or all memory, over a
 * few kilobytes that were made for it.
 *
 * In: YAML or JSON. Out: a fault with its line, or that it is fit to be parsed. One pass each, linear in the text.
 */
import { asTold, type Message, message } from '../message/message'

export interface TextFault {
  readonly line: number
  readonly reason: Message
}

export interface YamlBounds {
  /** UTF-16 units. */
  readonly size: number
  readonly lines: number
  /** Levels of brackets within each other. */
  readonly depth: number
  /** Spaces before the first word of a line. */
  readonly indent: number
  /** Tags, anchors and aliases together. */
  readonly marks: number
  /** Colons, commas and dashes that may begin an entry. */
  readonly entries: number
}

/** A kit card has 2 to 4 kB; these leave it room for dialogues. */
export const cardBounds: YamlBounds = { size: 32 * 1024, lines: 1500, depth: 16, indent: 60, marks: 20, entries: 4000 }
/** A job as YAML, from the command line. */
export const jobYamlBounds: YamlBounds = {
  size: 8 * 1024 * 1024,
  lines: 200_000,
  depth: 16,
  indent: 60,
  marks: 20,
  entries: 2_000_000,
}

/** @returns the first place where YAML goes beyond its bounds */
export function yamlFault(text: string, bounds: YamlBounds): TextFault | undefined {
  if (text.length > bounds.size)
    return {
      line: 1,
      reason: message('text-too-large', { size: kilobytes(text.length), most: kilobytes(bounds.size) }),
    }
  let depth = 0
  let marks = 0
  let entries = 0
  const lines = text.split(/\r\n|\r|\n/)
  if (lines.length > bounds.lines)
    return { line: bounds.lines, reason: message('text-too-many-lines', { count: lines.length, most: bounds.lines }) }
  /** Column of the key whose text stands in the lines below it; undefined outside such a text. */
  let textOf: number | undefined
  for (const [index, whole] of lines.entries()) {
    const line = index + 1
    const indent = whole.search(/[^ \t]/)
    if (textOf !== undefined) {
      // Lines of text that are farther in than their key hold no structure.
      if (indent < 0 || indent > textOf) continue
      textOf = undefined
    }
    if (indent > bounds.indent)
      return { line, reason: message('text-indent-too-deep', { indent, most: bounds.indent }) }
    // What stands in quotes and behind a comment sign is no structure.
    const bare = whole.replace(/"(?:[^"\\]|\\.)*"|'(?:[^']|'')*'/g, '_').replace(/(^|\s)#.*$/, '')
    for (const character of bare) {
      if (character === '[' || character === '{') depth += 1
      else if (character === ']' || character === '}') depth -= 1
      else if (character === ':' || character === ',') entries += 1
      if (Math.abs(depth) > bounds.depth)
        return { line, reason: message('text-brackets-too-deep', { depth: bounds.depth }) }
    }
    const dashes = /^\s*((?:[-?]\s+)*)/.exec(bare)?.[1]?.match(/[-?]/g)?.length ?? 0
    if (dashes > bounds.depth) return { line, reason: message('text-lists-too-deep', { depth: bounds.depth }) }
    entries += dashes
    marks += bare.match(/(?:^|[\s,[{:-])[!&*](?=\S|\s|$)/g)?.length ?? 0
    if (marks > bounds.marks) return { line, reason: message('text-too-many-marks', { most: bounds.marks }) }
    if (depth === 0 && /[:-]\s+[|>][+-]?\s*$/.test(bare)) textOf = bare.search(/[^ \t?-]/)
    if (entries > bounds.entries) return { line, reason: message('text-too-many-entries', { most: bounds.entries }) }
  }
  return undefined
}

/** Levels of a job file are fewer than ten. */
const deepestJson = 64

export type JsonReading =
  | { readonly ok: true; readonly value: unknown }
  | { readonly ok: false; readonly reason: Message }

/**
 * Parses JSON of a bounded size and depth.
 *
 * @param size  UTF-16 units at the most
 */
export function parseJson(text: string, size: number): JsonReading {
  if (text.length > size)
    return { ok: false, reason: message('text-too-large', { size: kilobytes(text.length), most: kilobytes(size) }) }
  if (deeperThan(text, deepestJson))
    return { ok: false, reason: message('text-levels-too-deep', { most: deepestJson }) }
  try {
    return { ok: true, value: JSON.parse(text) }
  } catch (error) {
    return { ok: false, reason: message('text-not-json', { reason: plain(error) }) }
  }
}

/** Some parsers quote what they met, and with it all of a long line. */
const plain = (error: unknown): Message =>
  error instanceof Error ? asTold(error.message.replace(/\s+/g, ' ').slice(0, 120)) : message('unknown-reason')

function deeperThan(text: string, most: number): boolean {
  let depth = 0
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at)
    if (code === quote) at = endOfString(text, at)
    else if (code === openBracket || code === openBrace) {
      depth += 1
      if (depth > most) return true
    } else if (code === closeBracket || code === closeBrace) depth -= 1
  }
  return false
}

const [quote, backslash, openBracket, openBrace, closeBracket, closeBrace] = [...'"\\[{]}'].map((character) =>
  character.charCodeAt(0),
)

/** Place of the quote that ends the string which begins at `from`. */
function endOfString(text: string, from: number): number {
  let at = text.indexOf('"', from + 1)
  while (at > 0) {
    let slashes = 0
    while (text.charCodeAt(at - 1 - slashes) === backslash) slashes += 1
    if (slashes % 2 === 0) return at
    at = text.indexOf('"', at + 1)
  }
  return text.length
}

const kilobytes = (units: number): number => Math.ceil(units / 1024)
