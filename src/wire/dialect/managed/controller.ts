/** What is asked of a controller for the access points that it manages. */
import type { Dialect } from '../dialect'
import type { Edit } from '../yang/edits'

export interface Controller extends Dialect {
  /** Its networks, and what it was told of one access point, as JSON has it (RFC 7951). */
  configured(mac: string): Promise<Record<string, unknown>>
  /** Its networks, and what it sees of one access point. */
  state(mac: string): Promise<Record<string, unknown>>
  /** All of it or none. */
  change(edits: readonly Edit[]): Promise<void>
}

/** Uses the one session with a controller: one after the other, whoever asks. */
export type UseController = <T>(work: (controller: Controller) => Promise<T>) => Promise<T>
