/**
 * The walls of a floor, filed by squares, so that a way across a large floor is held only against walls near it.
 *
 * In: walls. Out: the loss on the straight line between two points, dB.
 */
import type { Band } from '../../regulatory/blocks'
import type { Wall } from './floor'
import { crosses, wallDb } from './propagation'

/** Below this a list is faster than a grid. */
const fewWalls = 24

export class WallIndex {
  readonly #walls: readonly Wall[]
  readonly #squareM: number
  readonly #squares: ReadonlyMap<number, readonly number[]> | undefined
  /** Number of the way on which each wall was looked at last: one that lies in several squares counts once. */
  readonly #seen: Int32Array
  #way = 0

  constructor(walls: readonly Wall[]) {
    this.#walls = walls
    this.#seen = new Int32Array(walls.length)
    const length = walls.reduce((sum, wall) => sum + Math.hypot(wall.x2 - wall.x1, wall.y2 - wall.y1), 0)
    this.#squareM = Math.max(2, Math.min(20, length / Math.max(1, walls.length)))
    this.#squares = walls.length > fewWalls ? this.#file() : undefined
  }

  /**
   * Loss of all walls that are crossed.
   *
   * @param enough  where the loss comes to this much, the rest need not be counted; the answer is then at least this
   */
  loss(band: Band, ax: number, ay: number, bx: number, by: number, enough: number): number {
    let sum = 0
    if (!this.#squares) {
      for (const wall of this.#walls) {
        if (!crosses(ax, ay, bx, by, wall)) continue
        sum += wallDb[wall.material][band]
        if (sum >= enough) return sum
      }
      return sum
    }
    this.#way += 1
    for (const key of this.#squaresOn(ax, ay, bx, by)) {
      for (const at of this.#squares.get(key) ?? []) {
        const wall = this.#walls[at]
        if (!wall || this.#seen[at] === this.#way) continue
        this.#seen[at] = this.#way
        if (!crosses(ax, ay, bx, by, wall)) continue
        sum += wallDb[wall.material][band]
        if (sum >= enough) return sum
      }
    }
    return sum
  }

  #file(): ReadonlyMap<number, readonly number[]> {
    const squares = new Map<number, number[]>()
    this.#walls.forEach((wall, at) => {
      for (const key of this.#squaresOn(wall.x1, wall.y1, wall.x2, wall.y2)) {
        const there = squares.get(key)
        if (there) there.push(at)
        else squares.set(key, [at])
      }
    })
    return squares
  }

  /** Squares that a straight line passes, one after the other (J. Amanatides and A. Woo, 1987). */
  *#squaresOn(ax: number, ay: number, bx: number, by: number): Generator<number> {
    const size = this.#squareM
    let [column, row] = [Math.floor(ax / size), Math.floor(ay / size)]
    const [lastColumn, lastRow] = [Math.floor(bx / size), Math.floor(by / size)]
    const [stepX, stepY] = [Math.sign(lastColumn - column), Math.sign(lastRow - row)]
    const [acrossX, acrossY] = [size / Math.abs(bx - ax), size / Math.abs(by - ay)]
    let nextX = stepX === 0 ? Number.POSITIVE_INFINITY : ((column + (stepX > 0 ? 1 : 0)) * size - ax) / (bx - ax)
    let nextY = stepY === 0 ? Number.POSITIVE_INFINITY : ((row + (stepY > 0 ? 1 : 0)) * size - ay) / (by - ay)
    yield keyOf(column, row)
    while (column !== lastColumn || row !== lastRow) {
      if ((nextX <= nextY && column !== lastColumn) || row === lastRow) {
        column += stepX
        nextX += acrossX
      } else {
        row += stepY
        nextY += acrossY
      }
      yield keyOf(column, row)
    }
  }
}

/** One number for a square; floors reach 10 km each way, squares are 2 m at the least. */
function keyOf(column: number, row: number): number {
  return (column + 16384) * 65536 + row + 16384
}

const indexes = new WeakMap<readonly Wall[], WallIndex>()

/** The index of a list of walls, made once for each list. */
export function indexOfWalls(walls: readonly Wall[]): WallIndex {
  const known = indexes.get(walls)
  if (known) return known
  const made = new WallIndex(walls)
  indexes.set(walls, made)
  return made
}
