/** A stretch of frequencies, and how much two of them share. */
export interface Span {
  readonly lowMhz: number
  readonly highMhz: number
}

/** Shared bandwidth divided by that of the narrower, 0 to 1. */
export function overlapOf(a: Span, b: Span): number {
  const shared = Math.min(a.highMhz, b.highMhz) - Math.max(a.lowMhz, b.lowMhz)
  return shared <= 0 ? 0 : shared / Math.min(a.highMhz - a.lowMhz, b.highMhz - b.lowMhz)
}
