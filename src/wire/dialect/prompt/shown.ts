/**
 * What a terminal would show of what a unit sent (ECMA-48, 5th edition): lines that were written over, rubbed out or
 * erased are not there any more, and what only moves or colours is left out.
 */
import { stripVTControlCharacters } from 'node:util'

/** Stands for the erasure of a line from the cursor on. */
const erase = '\uE000'
/** Erase in line (8.3.41, EL): from the cursor on, or whole. */
const erasures = ['\x1b[K', '\x1b[0K', '\x1b[2K']

/**
 * @param raw  text as it came
 * @returns    lines with `\n` between; the last one is what stands before the cursor, the others end in no space
 */
export function shownOn(raw: string): string {
  const lines: string[] = []
  let line: string[] = []
  let column = 0
  const marked = erasures.reduce((text, each) => text.replaceAll(each, erase), raw.replaceAll(erase, ''))
  for (const sign of stripVTControlCharacters(marked)) {
    if (sign === '\n') {
      lines.push(line.join('').trimEnd())
      line = []
      column = 0
    } else if (sign === '\r') column = 0
    else if (sign === '\b') column = Math.max(0, column - 1)
    else if (sign === erase) line.length = column
    else if (sign >= ' ' || sign === '\t') {
      line[column] = sign
      column += 1
    }
  }
  return [...lines, line.slice(0, column).join('')].join('\n')
}
