/** A unit that speaks to its controller alone: nothing listens on it. */
import type { Front } from './front'

export class SilentFront implements Front {
  loopbackPort(): undefined {
    return undefined
  }

  dropConnections(): void {
    // There are none.
  }

  async renewIdentity(): Promise<void> {
    // It has none to show.
  }

  async close(): Promise<void> {
    // Nothing is open.
  }
}
