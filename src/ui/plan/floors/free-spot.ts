/** Where words about a line can stand so that they cover no unit and no other words. Pixels. */

export interface Spot {
  readonly x: number
  readonly y: number
}

export interface Box {
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
}

/** Shares of the way along the line, the middle first. */
const shares = [0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8]

/**
 * @returns the first spot along the line at which a box of this size, centred on it, is free; the middle where none is
 */
export function freeSpot(from: Spot, to: Spot, width: number, height: number, taken: readonly Box[]): Spot {
  const spots = shares.map((share) => ({ x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share }))
  return spots.find((spot) => !taken.some((box) => meet(boxAround(spot, width, height), box))) ?? (spots[0] as Spot)
}

export function boxAround({ x, y }: Spot, width: number, height: number): Box {
  return { left: x - width / 2, right: x + width / 2, top: y - height / 2, bottom: y + height / 2 }
}

function meet(a: Box, b: Box): boolean {
  return a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom
}
