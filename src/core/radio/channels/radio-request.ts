/** A unit's radios as they are asked for, and each of them as the plan wants it. */
import type { CardRadio } from '../../kit/card-parts'
import type { KitCard } from '../../kit/kit-card'
import type { Band } from '../../regulatory/blocks'
import type { LegalBlock } from '../../regulatory/legal'
import type { ChannelChoice } from './channel-problem'
import type { ShutSpan } from './shut-span'

export interface RadioRequest {
  readonly unit: string
  readonly card: KitCard
  /** Channel by band that the user has set. */
  readonly locks: Readonly<Partial<Record<Band, number>>>
  /** What it may not use now, since it heard radar there. */
  readonly shut?: readonly ShutSpan[]
  /** What was planned before. */
  readonly set: Readonly<Partial<Record<Band, ChannelChoice>>>
}

/** Name of a radio in the problem. */
export function radioId(unit: string, band: Band): string {
  return `${unit} ${band}`
}

/** One radio with the blocks that it may be on. */
export interface Wanted {
  readonly request: RadioRequest
  readonly radio: CardRadio
  readonly band: Band
  readonly options: readonly LegalBlock[]
  readonly environment: 'indoor' | 'outdoor'
}
