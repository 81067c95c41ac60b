/** Frequencies that a unit may not use for a while, since it heard radar there. */
import type { Band } from '../../regulatory/blocks'

export interface ShutSpan {
  readonly band: Band
  readonly lowMhz: number
  readonly highMhz: number
}
/** By unit. */
export type ShutChannels = ReadonlyMap<string, readonly ShutSpan[]>
