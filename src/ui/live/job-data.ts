/** What the server hands to the pages of a job. */

import type { Brief } from '../../core/brief/brief'
import type { BriefFault } from '../../core/brief/review'
import type { Planning, UnitPlan } from '../../core/config/plan'
import type { KitCard } from '../../core/kit/kit-card'
import type { RosterFault } from '../../core/kit/roster'
import type { Unit } from '../../core/kit/unit'
import type { Roll } from '../../core/muster/roll'

export interface JobData {
  readonly job: { readonly id: number; readonly slug: string; readonly name: string; readonly brief: Brief; readonly version: number }
  readonly units: readonly (Unit & { readonly version: number })[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  readonly cards: ReadonlyMap<string, KitCard>
  readonly roll: Roll
  readonly countryName: string
  readonly regulatoryDate: string
  readonly briefFaults: readonly BriefFault[]
  readonly rosterFaults: readonly RosterFault[]
  readonly planFaults: Planning['faults']
  /** Names of the secrets that the vault holds; never the secrets. */
  readonly secretNames: readonly string[]
}
