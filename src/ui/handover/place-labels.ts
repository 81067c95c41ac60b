/**
 * Where the names of points are written on a picture, so that they do not lie over each other.
 *
 * In: points with their text, and the size of the letters, in units of the picture. Out: the middle of each text's base
 * line: above its point where there is room, else below, else farther off.
 */
export interface Label {
  readonly key: string
  readonly text: string
  readonly x: number
  readonly y: number
}

/** Base lines from the point, in letter sizes, in the order in which they are tried. */
const offsets = [-0.6, 1.3, -1.7, 2.4, -2.8, 3.5] as const
/** Width of a letter of the monospaced type, in letter sizes. */
const letterWidth = 0.62

export function placeLabels(points: readonly Label[], size: number): Label[] {
  const placed: Label[] = []
  for (const point of points) {
    const places = offsets.map((offset) => ({ ...point, y: point.y + offset * size }))
    const free = places.find((place) => placed.every((other) => !overlaps(place, other, size)))
    placed.push(free ?? (places[0] as Label))
  }
  return placed
}

function overlaps(a: Label, b: Label, size: number): boolean {
  const halfWidths = ((a.text.length + b.text.length) / 2 + 1) * letterWidth * size
  return Math.abs(a.x - b.x) < halfWidths && Math.abs(a.y - b.y) < size
}
