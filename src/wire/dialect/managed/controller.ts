/** What is asked of a controller for the access points that it manages. */
import type { Dialect } from '../dialect'
import type { Edit } from '../yang/edits'

export interface Controller extends Dialect {
  /** All that it was told, as JSON has it (RFC 7951). */
  configured(): Promise<Record<string, unknown>>
  /** All that it is and sees. */
  state(): Promise<Record<string, unknown>>
  /** All of it or none. */
  change(edits: readonly Edit[]): Promise<void>
}

/** Uses the one session with a controller: one after the other, whoever asks. */
export type UseController = <T>(work: (controller: Controller) => Promise<T>) => Promise<T>
