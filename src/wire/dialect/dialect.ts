/**
 * How a unit is spoken to, whatever it speaks. Each method may throw a WireError, and nothing else on purpose.
 */
import type { Difference } from '../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../core/config/unit-config'
import type { Evidence } from '../../core/kit/recognise'
import type { Credentials } from '../../core/secrets/credentials'
import type { PagePicture } from '../page-elements/picture'

export interface NetworkOnAir {
  readonly id: string
  readonly ssid: string
  readonly security: string
  /** As in `02:00:00:00:00:01`, where the unit tells. */
  readonly bssid?: string | undefined
}

export interface RadioOnAir {
  readonly band: string
  readonly condition: 'off' | 'listening' | 'on-air'
  /** Seconds more that it listens for radar, as the unit counts them. */
  readonly listensFor: number
  readonly channel: number | undefined
  readonly width: number | undefined
  /** The channel that it is set to, where it heard radar on it and has left it by itself. */
  readonly leftForRadar: number | undefined
  /** Known by their id where the unit has one, else by their name. */
  readonly networks: readonly NetworkOnAir[]
}

/** How far written changes are in effect. */
export type Standing = 'none' | 'waiting' | 'applying'

/** Written changes wait until they are applied together. */
export interface Staging {
  standing(): Promise<Standing>
  /** Puts written changes into effect. The unit may restart and answer at another address. */
  apply(): Promise<void>
  /**
   * Names what the unit is configured to be: another name for any other configuration, secrets included. What was
   * written and lost again, by a power cut before it took effect, is told by it alone where the unit shows no secrets.
   * Left out where no unit of the kind has one; undefined where this one tells none.
   */
  revision?(): Promise<string | undefined>
}

/** A restart loses what is in effect until the unit is told to save. */
export interface Saving {
  isSaved(): Promise<boolean>
  /** @returns whether the unit says that it is saved */
  save(): Promise<boolean>
}

/** A move takes itself back unless it is confirmed at the new address. */
export interface ConfirmedMove {
  confirm(desired: Config<Clear>): Promise<void>
}

export interface Copies {
  /** The whole configuration in the unit's own form, to be kept. It may hold secrets. */
  backup(): Promise<string>
}

export interface Firmware {
  /**
   * Gives it an image, which it checks and installs; it restarts by itself afterwards.
   * @throws WireError `rejected` where it does not take this one
   */
  install(image: Image): Promise<void>
}

/** What the unit was told to be, or what it is: where changes are staged, the two differ until they are applied. */
export type Reading = 'configured' | 'in-effect'

/** What a unit is to run. */
export interface Image {
  /** Of all its bytes, hexadecimal. */
  readonly sha256: string
  /** Its bytes in order, from the beginning with each call. */
  readonly parts: () => AsyncIterable<Uint8Array>
}

/** Waits while nobody may change the unit; throws where it is somebody else's to change. */
export type MayChange = () => Promise<void>
export const always: MayChange = async () => undefined

export interface Dialect {
  /** What it lets out of itself before anybody signs in. */
  identify(): Promise<Evidence>
  /**
   * @param toBe  the login that it is given where nobody has made it one yet
   * @throws WireError `refused` where the login is not accepted, `wrong-unit` where another unit answers
   */
  signIn(credentials: Credentials, toBe?: Credentials): Promise<void>
  /** The login that was made at sign-in and has opened the session; left out where no unit of the kind asks for one. */
  madeLogin?(): Credentials | undefined
  read(reading: Reading): Promise<ObservedConfig>
  /**
   * Writes what differs.
   * @param desired    the whole that the differences lead to, for what is only written whole
   * @param mayChange  asked before each part of what is written in parts: another runner may have the unit by then
   */
  write(differences: readonly Difference[], desired: Config<Clear>, mayChange?: MayChange): Promise<void>
  changePassword(user: string, password: string): Promise<void>
  /** Parts that units of a kind have, or have not. */
  readonly staging?: Staging | undefined
  readonly saving?: Saving | undefined
  readonly confirmedMove?: ConfirmedMove | undefined
  readonly copies?: Copies | undefined
  readonly firmware?: Firmware | undefined
  restart?(): Promise<void>
  /** What its radios really do. */
  air(): Promise<readonly RadioOnAir[]>
  /**
   * Who else has changed it since this was asked last, as `chief from 10.44.8.9`; left out where no unit of the kind
   * tells.
   */
  othersWhoChanged?(): readonly string[]
  /** A picture of what it shows now, without these secrets; left out where units of the kind show nothing. */
  picture?(secrets: readonly string[]): Promise<PagePicture | undefined>
  /** Lets go of the session and its connection. */
  close(): void
}

/** How far written changes are in effect; a unit without staging has none that wait. */
export async function standingOf({ staging }: Pick<Dialect, 'staging'>): Promise<Standing> {
  return staging ? staging.standing() : 'none'
}
