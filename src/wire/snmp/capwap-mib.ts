/**
 * How an access point stands with its controller, as the controller's SNMP agent has it: CAPWAP-BASE-MIB (RFC 5833),
 * capwapBaseWtpStateTable, and the access point's name out of capwapBaseWtpProfileTable.
 */
import type { DatagramPath } from '../host/host'
import { type NotTold, type SnmpUser, type SnmpValue, textOf } from './answer'
import { askAsUser } from './snmp'

const wtps = '1.3.6.1.2.1.196.1.2'
/** capwapBaseWtpProfileWtpName, by the profile's number. */
const profileName = `${wtps}.1.1.5`
const stateColumn = (number: number): string => `${wtps}.2.1.${number}`
const columns = { addressType: 2, address: 3, state: 7, profile: 9 } as const

/** Values of capwapBaseWtpState, from 1 on; `unknown` is one that is prepared and never asked yet. */
const states = ['dtls', 'join', 'image', 'configure', 'data-check', 'run', 'reset', 'dtls-teardown', 'unknown'] as const
export type WtpState = (typeof states)[number]

/** InetAddressType (RFC 4001). */
const ipv4 = 1

export interface WtpStanding {
  readonly state: WtpState
  /** IPv4; undefined where it has none yet. */
  readonly address: string | undefined
  readonly name: string | undefined
  /** Number of its own profile. */
  readonly profile: number | undefined
}

export type WtpAnswer =
  | { readonly kind: 'told'; readonly standing: WtpStanding }
  /** Its agent has no such table, or nobody of this MAC in it. */
  | { readonly kind: 'not-listed' }
  | NotTold

/**
 * @param mac  of the access point, `02:4f:52:00:00:01`
 * @param how  its name takes a question of its own
 */
export async function wtpStanding(
  path: DatagramPath,
  user: SnmpUser,
  mac: string,
  how: 'as-is' | 'with-name' = 'with-name',
): Promise<WtpAnswer> {
  const at = indexOf(mac)
  const asked = [columns.state, columns.addressType, columns.address, columns.profile]
  const row = await askAsUser(
    path,
    user,
    asked.map((column) => `${stateColumn(column)}.${at}`),
  )
  if (row.kind !== 'told') return row
  const [state, addressType, address, profile] = row.values
  const known = stateOf(state)
  if (known === undefined) return { kind: 'not-listed' }
  const number = typeof profile === 'number' ? profile : undefined
  const name = number === undefined || how === 'as-is' ? undefined : await nameOf(path, user, number)
  return { kind: 'told', standing: { state: known, address: addressOf(addressType, address), name, profile: number } }
}

/** CapwapBaseWtpIdTC as an index: its length, which may be 6 or 8, and its octets (RFC 2578, 7.7). */
function indexOf(mac: string): string {
  const octets = mac.split(':').map((octet) => Number.parseInt(octet, 16))
  return [octets.length, ...octets].join('.')
}

function stateOf(value: SnmpValue | undefined): WtpState | undefined {
  return typeof value === 'number' ? states[value - 1] : undefined
}

function addressOf(type: SnmpValue | undefined, octets: SnmpValue | undefined): string | undefined {
  if (type !== ipv4 || !(octets instanceof Uint8Array) || octets.length !== 4) return undefined
  const address = octets.join('.')
  return address === '0.0.0.0' ? undefined : address
}

async function nameOf(path: DatagramPath, user: SnmpUser, profile: number): Promise<string | undefined> {
  const told = await askAsUser(path, user, [`${profileName}.${profile}`])
  const name = told.kind === 'told' ? told.values[0] : undefined
  return name === undefined ? undefined : textOf(name)
}
