/** The clock port: what time it is, and how to wait. */
import { rest } from '../../store/rest'

export interface Clock {
  /** ms, never set and never going back; it may stand still while the laptop sleeps. */
  monotonic(): number
  /** ms since 1970, as the laptop has it: people and time servers set it. */
  wall(): number
  /** Resolves after so many ms, or as soon as the signal is given; it never throws. */
  rest(ms: number, signal?: AbortSignal): Promise<void>
}

const never = new AbortController().signal

export const systemClock: Clock = {
  monotonic: () => performance.now(),
  wall: () => Date.now(),
  rest: (ms, signal = never) => rest(ms, signal),
}
