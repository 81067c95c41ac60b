/**
 * How a unit is spoken to, whatever it speaks. Each method may throw a WireError, and nothing else on purpose.
 */
import type { Difference } from '../../core/config/compare'
import type { UnitConfig } from '../../core/config/unit-config'

export interface Credentials {
  readonly user: string
  readonly password: string
}

export interface RadioOnAir {
  readonly band: string
  readonly condition: 'off' | 'listening' | 'on-air'
  /** Seconds more that it listens for radar, as the unit counts them. */
  readonly listensFor: number
  readonly channel: number | undefined
  readonly width: number | undefined
  readonly networks: readonly { ssid: string; security: string }[]
}

export interface Dialect {
  /** Who answers, as far as it says so before anybody signs in: `maker model`. */
  identify(): Promise<string>
  /** @throws WireError `refused` where the login is not accepted, `wrong-unit` where another unit answers */
  signIn(credentials: Credentials): Promise<void>
  read(): Promise<UnitConfig>
  /** The whole configuration in the unit's own form, to be kept. It may hold secrets. */
  backup(): Promise<string>
  /** Writes what differs; `wanted` is the whole that the differences lead to, for what is only written whole. */
  write(differences: readonly Difference[], wanted: UnitConfig): Promise<void>
  changePassword(user: string, password: string): Promise<void>
  /** Are there written changes that wait to be applied? */
  changesWait(): Promise<'none' | 'waiting' | 'applying'>
  /** Puts written changes into effect. The unit may restart and answer at another address. */
  apply(): Promise<void>
  /** Makes what is in effect survive a restart, where that is a step of its own. */
  save(): Promise<void>
  restart(): Promise<void>
  /** What its radios really do. */
  air(): Promise<readonly RadioOnAir[]>
  /** Lets go of the session and its connection. */
  close(): void
}
