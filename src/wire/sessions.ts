/**
 * The session port: how units and controllers are spoken to once there is a lane to them. One implementation speaks
 * real protocols (`wire-sessions.ts`); the simulation has one that speaks none.
 */
import type { Clear, Config } from '../core/config/unit-config'
import type { DirectCard } from '../core/kit/kit-card'
import type { Discovered } from './capwap/discovery'
import type { Dialect } from './dialect/dialect'
import type { Controller, ManagedUnit, UseController } from './dialect/managed/controller'
import type { ManagedDialect } from './dialect/managed/managed-dialect'
import type { Lane } from './host/host'
import type { SnmpAnswer, SnmpUser } from './snmp/answer'
import type { CarriedAnswer } from './snmp/capwap-dot11-mib'
import type { WtpAnswer } from './snmp/capwap-mib'
import type { PinCheck } from './trust/pin'

export interface Sessions {
  /**
   * A session in the dialect that the card names; not signed in yet.
   * @param desired  what the unit is to be, where that is known: some units tell by it which network is which
   */
  unit(lane: Lane, card: DirectCard, pin: PinCheck, desired?: Config<Clear>): Promise<Dialect>
  /**
   * A session with a controller; not signed in yet.
   * @param desired  what the first of its access points is to be: networks are known by it
   */
  controller(lane: Lane, card: DirectCard, pin: PinCheck, desired: Config<Clear>): Promise<Controller>
  /** An access point as its controller has it: as data, or as rows of what it shows. */
  managed(unit: ManagedUnit, use: UseController, shows: 'data' | 'rows'): ManagedDialect
  /** CAPWAP discovery (RFC 5415). @throws WireError @returns undefined where nobody answers within so many ms */
  discover(lane: Lane, withinMs: number): Promise<Discovered | undefined>
  /** SNMPv3. @throws WireError */
  snmpAsUser(lane: Lane, user: SnmpUser, objects: readonly string[]): Promise<SnmpAnswer>
  /** SNMPv2c. @throws WireError */
  snmpInClear(lane: Lane, community: string, objects: readonly string[]): Promise<SnmpAnswer>
  /** How an access point stands, as its controller's agent has it (RFC 5833). @throws WireError */
  wtpStanding(lane: Lane, user: SnmpUser, mac: string, how: 'as-is' | 'with-name'): Promise<WtpAnswer>
  /** Networks on each radio of an access point, as its controller's agent has it (RFC 5834). @throws WireError */
  carriedNetworks(lane: Lane, user: SnmpUser, profile: number, radios: number): Promise<CarriedAnswer>
}
