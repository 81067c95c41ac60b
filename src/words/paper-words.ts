/** What the papers that a client gets take from a language: the sheet, what is left to others, the settings by unit. */
import type { SettingId } from '../core/catalogue/catalogue'
import type { SecurityMode } from '../core/catalogue/security-mode'
import type { Outcome } from '../core/config/outcomes'
import type { AsBuiltRow } from '../core/handover/as-built'
import type { Message } from '../core/message/message'
import type { CheckCode } from '../core/muster/check'
import type { Held } from '../core/muster/held'
import type { Step } from '../core/muster/procedure'

export interface PaperWords {
  /** For dates, BCP 47. */
  readonly locale: string
  readonly sentence: (message: Message) => string
  readonly stepTitles: Readonly<Record<Step, string>>
  readonly checkNames: Readonly<Record<CheckCode, string>>
  readonly outcomeNames: Readonly<Record<Outcome['kind'], string>>
  readonly states: Readonly<Record<AsBuiltRow['state'], string>>
  readonly whyHeld: (held: Pick<Held, 'code' | 'params'>) => string
  readonly settingName: (id: SettingId) => string
  readonly securityWords: (mode: SecurityMode) => string
  readonly countryName: (code: string) => string
  /** Remarks, a sentence each. */
  readonly cameOpen: (ssid: string, seconds: number) => string
  readonly itOffers: (old: readonly string[]) => string
  readonly serviceFound: (check: string, found: string) => string
  readonly notAsked: (check: string, found: string) => string
  readonly none: string
  readonly sheet: {
    readonly about: (site: string, country: string) => string
    readonly proven: (date: string, zone: string) => string
    readonly management: string
    readonly gateway: string
    readonly networks: (count: number) => string
    readonly columns: readonly [
      unit: string,
      location: string,
      address: string,
      mac: string,
      port: string,
      channels: string,
      state: string,
    ]
    readonly firmware: (version: string) => string
    readonly planned: (channel: number) => string
    readonly provenBy: (machine: string) => string
    readonly settings: string
    readonly nothingPlanned: string
    readonly seenToBy: (who: string) => string
    readonly secrets: string
  }
  readonly pictures: {
    readonly title: string
    readonly about: (fitted: boolean) => string
    /** Six steps of level, the loudest first. */
    readonly levels: readonly string[]
    readonly hatched: (dbm: number) => string
    readonly of: (floor: string, band: string) => string
  }
  readonly site: {
    readonly title: string
    readonly about: string
    readonly subnets: readonly [
      subnet: string,
      vlan: string,
      addresses: string,
      gateway: string,
      pool: string,
      dns: string,
      networks: string,
      talks: string,
    ]
    readonly untagged: string
    readonly range: (first: string, last: string) => string
    readonly noneOfTheOthers: string
    readonly unserved: (vlans: readonly number[]) => string
    readonly ports: readonly [siteSwitch: string, port: string, unit: string, native: string, tagged: string]
    readonly managementOnPort: string
  }
}
