/** The one session of a muster with a controller, for all the access points that it manages: one after the other. */
import pLimit from 'p-limit'
import type { Clear, Config } from '../../core/config/unit-config'
import type { DirectCard } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import type { Credentials } from '../../core/secrets/credentials'
import type { Discovered } from '../../wire/capwap/discovery'
import type { Controller } from '../../wire/dialect/managed/controller'
import { WireError } from '../../wire/errors/wire-error'
import type { Host, Lane } from '../../wire/host/host'
import type { Sessions } from '../../wire/sessions'
import type { SnmpUser } from '../../wire/snmp/answer'
import type { CarriedAnswer } from '../../wire/snmp/capwap-dot11-mib'
import type { WtpAnswer } from '../../wire/snmp/capwap-mib'
import { pinCheck } from '../../wire/trust/pin'
import type { AwakeClock } from '../ports/awake-clock'
import type { Records } from '../ports/records'

const discoveryMs = 2000

/** How a controller has its access points; undefined where its card does not say, or nobody speaks to it. */
export function showsUnitsAs({ dialect }: Pick<DirectCard, 'dialect'>): 'data' | 'rows' | undefined {
  if (dialect.kind === 'netconf') return 'data'
  return (dialect.kind === 'pages' || dialect.kind === 'prompt') && dialect.units ? 'rows' : undefined
}

export interface ControllerLinkInput {
  readonly records: Records
  readonly host: Host
  readonly sessions: Sessions
  readonly clock: AwakeClock
  /** Asked when its turn has come: another runner may have the order by then. */
  readonly mayAct: () => Promise<void>
  readonly jobId: number
  readonly unit: Unit
  readonly card: DirectCard
  /** What the first of its access points is to be. */
  readonly desired: Config<Clear>
  /** Where it has proven itself. */
  readonly address: string
  readonly prefix: number
  readonly login: Credentials
  /** The SNMP user that its agent answers; undefined where the brief has none. */
  readonly snmpUser: SnmpUser | undefined
}

export class ControllerLink {
  readonly #input: ControllerLinkInput
  readonly #inTurn = pLimit(1)
  #lane: Lane | undefined
  #session: Controller | undefined

  constructor(input: ControllerLinkInput) {
    this.#input = input
  }

  get name(): string {
    return this.#input.unit.name
  }

  get address(): string {
    return this.#input.address
  }

  get showsUnitsAs(): 'data' | 'rows' {
    return showsUnitsAs(this.#input.card) ?? 'data'
  }

  /** @throws WireError, CalledOff; where the session went, it is opened anew the next time */
  use<T>(work: (controller: Controller) => Promise<T>): Promise<T> {
    return this.#inTurn(async () => {
      await this.#input.mayAct()
      try {
        return await work(await this.#open())
      } catch (error) {
        if (error instanceof WireError && error.kind !== 'rejected') this.#drop()
        throw error
      }
    })
  }

  async #open(): Promise<Controller> {
    if (this.#session) return this.#session
    const { unit, card, desired, login, records, sessions, clock, jobId } = this.#input
    const lane = await this.#laneTo()
    const pin = pinCheck((fingerprint) => records.pinOnFirstSight(jobId, unit.mac, fingerprint, clock.date()))
    const session = await sessions.controller(lane, card, pin, desired)
    try {
      await session.signIn(login)
    } catch (error) {
      session.close()
      throw error
    }
    this.#session = session
    return session
  }

  /** What it answers to a discovery (RFC 5415); undefined where it does not. */
  async discovered(): Promise<Discovered | undefined> {
    const lane = await this.#laneTo()
    try {
      return await this.#input.sessions.discover(lane, discoveryMs)
    } catch (error) {
      if (error instanceof WireError) return undefined
      throw error
    }
  }

  /** Is its SNMP agent asked how its access points stand? */
  get asksAgent(): boolean {
    const { card, snmpUser } = this.#input
    return card.dialect.kind === 'netconf' && card.dialect.joinsBy === 'snmp' && snmpUser !== undefined
  }

  /** How an access point stands, as its SNMP agent has it; undefined where that is not asked. */
  async standing(mac: string, how: 'as-is' | 'with-name'): Promise<WtpAnswer | undefined> {
    const { snmpUser } = this.#input
    if (!this.asksAgent || snmpUser === undefined) return undefined
    const lane = await this.#laneTo()
    try {
      return await this.#input.sessions.wtpStanding(lane, snmpUser, mac, how)
    } catch (error) {
      if (error instanceof WireError) return { kind: 'silent' }
      throw error
    }
  }

  /** The networks on each radio of an access point, as its SNMP agent has it. @param profile  the access point's own */
  async carried(profile: number, radios: number): Promise<CarriedAnswer> {
    const { snmpUser } = this.#input
    if (snmpUser === undefined) return { kind: 'silent' }
    const lane = await this.#laneTo()
    return this.#input.sessions.carriedNetworks(lane, snmpUser, profile, radios)
  }

  async #laneTo(): Promise<Lane> {
    const { host, unit, card, address, prefix } = this.#input
    this.#lane ??= await host.openLane({ mac: unit.mac, address, prefix, by: card.does.reachedBy, old: card.does.old })
    return this.#lane
  }

  #drop(): void {
    this.#session?.close()
    this.#session = undefined
  }

  async close(): Promise<void> {
    this.#drop()
    await this.#lane?.close()
    this.#lane = undefined
  }
}
