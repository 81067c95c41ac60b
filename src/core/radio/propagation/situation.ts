/**
 * Where the floors of a site lie: each has its own drawing, and its place in one plan of the whole site.
 *
 * Storeys that nobody has aligned lie over each other with their corners; further drawings of one storey lie side by
 * side, since two places cannot be one.
 */
import { type Message, message } from '../../message/message'
import type { Floor, Origin } from './floor'

/** A floor with its place in the site. */
export interface SituatedFloor extends Floor {
  readonly at: Origin
  /** Height of its ground above that of storey 0, m: the heights of the storeys in between. */
  readonly elevationM: number
}

export function situated(floors: readonly Floor[]): ReadonlyMap<string, SituatedFloor> {
  const heights = new Map<number, number>()
  for (const { storey, heightM } of floors) heights.set(storey, Math.max(heights.get(storey) ?? 0, heightM))
  /** Right edge of what lies side by side on a storey so far, m. */
  const taken = new Map<number, number>()
  return new Map(
    floors.map((floor) => {
      const edge = taken.get(floor.storey)
      const at = floor.origin ?? { x: edge ?? 0, y: 0, turn: 0 }
      taken.set(floor.storey, Math.max(edge ?? 0, at.x + floor.widthM))
      return [floor.id, { ...floor, at, elevationM: elevationOf(floor, heights) }]
    }),
  )
}

/** The heights of the storeys between it and storey 0; one that is not drawn is taken to be as high as it is. */
function elevationOf({ storey, heightM }: Floor, heights: ReadonlyMap<number, number>): number {
  let sum = 0
  for (let each = Math.min(0, storey); each < Math.max(0, storey); each += 1) sum += heights.get(each) ?? heightM
  return storey < 0 ? -sum : sum
}

export interface Point {
  readonly x: number
  readonly y: number
}

/** From metres of a drawing to metres of the site. */
export function toSite({ at }: Pick<SituatedFloor, 'at'>, { x, y }: Point): Point {
  const [cos, sin] = turned(at.turn)
  return { x: at.x + x * cos - y * sin, y: at.y + x * sin + y * cos }
}

/** The way back. */
export function fromSite({ at }: Pick<SituatedFloor, 'at'>, { x, y }: Point): Point {
  const [cos, sin] = turned(at.turn)
  const [dx, dy] = [x - at.x, y - at.y]
  return { x: dx * cos + dy * sin, y: dy * cos - dx * sin }
}

function turned(degrees: number): [cos: number, sin: number] {
  // Most drawings are not turned at all, and stay exact.
  if (degrees === 0) return [1, 0]
  const angle = (degrees * Math.PI) / 180
  return [Math.cos(angle), Math.sin(angle)]
}

/** Do two floors lie over each other, seen from above? A turned drawing is taken with the box around it. */
export function liesOver(a: SituatedFloor, b: SituatedFloor): boolean {
  const [one, other] = [boxOf(a), boxOf(b)]
  return one.left < other.right && other.left < one.right && one.top < other.bottom && other.top < one.bottom
}

function boxOf(floor: SituatedFloor): { left: number; right: number; top: number; bottom: number } {
  const { widthM, depthM } = floor
  const corners = [
    { x: 0, y: 0 },
    { x: widthM, y: 0 },
    { x: 0, y: depthM },
    { x: widthM, y: depthM },
  ].map((corner) => toSite(floor, corner))
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)]
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) }
}

/** Two points on one drawing, and the same two on another. */
export interface Common {
  readonly here: readonly [Point, Point]
  readonly there: readonly [Point, Point]
}

/** How far two scales may be apart, as a share. */
const mostMismatch = 0.03

/**
 * Aligns a drawing with another that lies somewhere already, by two points that both show.
 *
 * @returns  its place in the site, or what is wrong with the points
 */
export function aligned(
  { here, there }: Common,
  other: SituatedFloor,
): { readonly ok: true; readonly origin: Origin } | { readonly ok: false; readonly fault: Message } {
  const far = ([a, b]: readonly [Point, Point]): number => Math.hypot(b.x - a.x, b.y - a.y)
  const [one, two] = [far(here), far(there)]
  if (Math.min(one, two) < 1) return { ok: false, fault: message('points-too-near') }
  if (Math.abs(one / two - 1) > mostMismatch)
    return {
      ok: false,
      fault: message('points-differ', { here: one.toFixed(1), there: two.toFixed(1) }),
    }
  const site = there.map((point) => toSite(other, point)) as [Point, Point]
  const angle = ([a, b]: readonly [Point, Point]): number => Math.atan2(b.y - a.y, b.x - a.x)
  const degrees = ((angle(site) - angle(here)) * 180) / Math.PI
  const whole = Math.round(degrees * 10) / 10
  // Hands do not click to a tenth of a degree: what is nearly straight is straight.
  const turn = Math.abs(whole - 90 * Math.round(whole / 90)) < 2 ? 90 * Math.round(whole / 90) : whole
  const middle = ([a, b]: readonly [Point, Point]): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })
  const from = toSite({ at: { x: 0, y: 0, turn } }, middle(here))
  const to = middle(site)
  const cents = (value: number): number => Math.round(value * 100) / 100
  return { ok: true, origin: { x: cents(to.x - from.x), y: cents(to.y - from.y), turn: (turn + 360) % 360 } }
}
