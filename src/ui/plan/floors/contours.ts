/** Lines between the steps of a picture, where each may be labelled, and what of it is too faint. */
import type { Coverage } from '../../../core/radio/coverage/coverage'
import { type PictureStep, stepAt } from './level-steps'

export interface Contours {
  /** Path along the borders of squares, in squares. */
  readonly lines: string
  /** Path around what is below the wanted level. */
  readonly faint: string
  /** One place for each step that has a line, the nearest to the middle of the floor. */
  readonly labels: readonly { readonly step: number; readonly x: number; readonly y: number }[]
}

/** @param wanted  dBm */
export function contoursOf(
  { columns, rows }: Pick<Coverage, 'columns' | 'rows'>,
  levels: Float32Array,
  steps: readonly PictureStep[],
  wanted: number,
): Contours {
  const step = Array.from(levels, (level) => stepAt(steps, level) ?? steps.length)
  const lines: string[] = []
  const labels = new Map<number, { step: number; x: number; y: number; away: number }>()
  const border = (at: number, other: number, x: number, y: number, path: string): void => {
    const [a, b] = [step[at] ?? 0, step[other] ?? 0]
    if (a === b) return
    lines.push(path)
    // The line is the lower bound of the louder of both.
    const louder = Math.min(a, b)
    const away = Math.hypot(x - columns / 2, y - rows / 2)
    const known = labels.get(louder)
    if (louder < steps.length && (!known || away < known.away)) labels.set(louder, { step: louder, x, y, away })
  }
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1) {
      const at = row * columns + column
      if (column + 1 < columns) border(at, at + 1, column + 1, row + 0.5, `M${column + 1} ${row}v1`)
      if (row + 1 < rows) border(at, at + columns, column + 0.5, row + 1, `M${column} ${row + 1}h1`)
    }
  return {
    lines: lines.join(''),
    faint: faintOf(columns, rows, levels, wanted),
    labels: [...labels.values()].map(({ step: of, x, y }) => ({ step: of, x, y })),
  }
}

/** Runs of squares below a level, row by row. */
function faintOf(columns: number, rows: number, levels: Float32Array, wanted: number): string {
  const runs: string[] = []
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; ) {
      const begin = column
      while (column < columns && (levels[row * columns + column] ?? 0) < wanted) column += 1
      if (column > begin) runs.push(`M${begin} ${row}h${column - begin}v1h${begin - column}z`)
      else column += 1
    }
  return runs.join('')
}
