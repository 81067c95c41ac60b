/** What one radio is planned to do. */
import type { Band, Width } from '../../regulatory/blocks'
import type { PowerSum, RadioUse } from './power'

export interface RadioPlan {
  readonly band: Band
  readonly channel: number
  readonly width: Width
  readonly lowMhz: number
  readonly radar: boolean
  /** How long it listens for radar before it is on air, s; 0 where it need not. */
  readonly listenSeconds: number
  readonly power: PowerSum
  /** Chosen by the user: planning again leaves it alone. */
  readonly locked: boolean
  /** What it is for, by which its power was judged. */
  readonly use: RadioUse
  /** Where it hangs, by which it was judged. */
  readonly environment: 'indoor' | 'outdoor'
  /** Width that the policy wanted, MHz, where the plan made the radio narrower to lower the interference. */
  readonly narrowedFrom: Width | null
}
