/** What the server hands to the pages of a job. */

import type { Brief } from '../../core/brief/brief'
import type { KitCard } from '../../core/kit/kit-card'
import type { RosterFault } from '../../core/kit/roster'
import type { Unit } from '../../core/kit/unit'
import type { Message } from '../../core/message/message'
import type { Roll } from '../../core/muster/roll'
import type { PlannedBefore, Planning, UnitPlan } from '../../core/plan/plan'
import type { Site } from '../../core/radio/propagation/floor'
import type { CountryRules } from '../../core/regulatory/database'
import type { Weakness } from '../../core/secrets/weakness'

export interface JobData {
  readonly job: {
    readonly id: number
    readonly slug: string
    readonly name: string
    readonly brief: Brief
    readonly version: number
  }
  readonly units: readonly (Unit & { readonly version: number })[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  /** What planning again starts from: addresses, channels and locks. */
  readonly before: ReadonlyMap<string, PlannedBefore>
  readonly cards: ReadonlyMap<string, KitCard>
  readonly roll: Roll
  /** Radio rules of the country; undefined where there are none. */
  readonly country: CountryRules | undefined
  readonly countryName: string
  /** Where the radio rules are from, in words. */
  readonly rulesOrigin: Message
  /** How many things are to be mended in the brief. */
  readonly briefFaults: number
  readonly rosterFaults: readonly RosterFault[]
  readonly planFaults: Planning['faults']
  /** When each secret that the vault holds was last changed, by its name; never the secrets. */
  readonly secretTimes: ReadonlyMap<string, string>
  /** Secrets that can be guessed, by name. */
  readonly weak: ReadonlyMap<string, Weakness>
  readonly site: Site
  readonly siteVersion: number
}
