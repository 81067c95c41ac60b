/**
 * Which networks each radio of an access point carries, as its controller's SNMP agent has it: the radio's interface
 * (CAPWAP-BASE-MIB, RFC 5833, capwapBaseWirelessBindingTable), the profiles bound to it (CAPWAP-DOT11-MIB, RFC 5834,
 * capwapDot11WlanBindTable), and the name of each (IEEE802dot11-MIB, IEEE 802.11-2020 Annex C, dot11DesiredSSID).
 */
import type { DatagramPath } from '../host/host'
import type { NotTold, SnmpUser, SnmpValue } from './answer'
import { askAsUser } from './snmp'

const radioInterface = '1.3.6.1.2.1.196.1.2.4.1.2'
const profileInterface = '1.3.6.1.2.1.195.1.1.1.2'
const boundAs = '1.3.6.1.2.1.195.1.2.1.1'
const desiredSsid = '1.2.840.10036.1.1.1.9'

/** Objects of one question: an answer of so many stays within a datagram. */
const atOnce = 16
/** Profiles with greater numbers are not looked for. */
const mostProfiles = 64
const longestSsid = 32

export type CarriedAnswer =
  /** By radio, from the first on: names in the order of their profiles. */
  { readonly kind: 'told'; readonly radios: readonly (readonly string[])[] } | NotTold

/**
 * @param profile  the access point's own (capwapBaseWtpProfileId)
 * @param radios   how many it has; they are numbered from 1 (CapwapBaseRadioIdTC)
 */
export async function carriedNetworks(
  path: DatagramPath,
  user: SnmpUser,
  profile: number,
  radios: number,
): Promise<CarriedAnswer> {
  const get = async (objects: readonly string[]): Promise<(SnmpValue | undefined)[]> => {
    const values: (SnmpValue | undefined)[] = []
    for (let from = 0; from < objects.length; from += atOnce) {
      const answer = await askAsUser(path, user, objects.slice(from, from + atOnce))
      if (answer.kind !== 'told') throw new NotToldError(answer)
      values.push(...answer.values)
    }
    return values
  }
  try {
    const names = await namesOfProfiles(get)
    const interfaces = await get(count(radios).map((radio) => `${radioInterface}.${profile}.${radio}`))
    const carried: string[][] = []
    for (const at of interfaces) {
      const bound = typeof at === 'number' ? await get([...names.keys()].map((wlan) => `${boundAs}.${at}.${wlan}`)) : []
      carried.push([...names.values()].filter((_, index) => typeof bound[index] === 'number'))
    }
    return { kind: 'told', radios: carried }
  } catch (error) {
    if (error instanceof NotToldError) return error.answer
    throw error
  }
}

class NotToldError extends Error {
  override readonly name = 'NotToldError'
  constructor(readonly answer: NotTold) {
    super(answer.kind)
  }
}

type Get = (objects: readonly string[]) => Promise<(SnmpValue | undefined)[]>

/** Names of the networks by the number of their profiles: asked for in runs, until a run has none. */
async function namesOfProfiles(get: Get): Promise<Map<number, string>> {
  const names = new Map<number, string>()
  for (let from = 1; from <= mostProfiles; from += atOnce) {
    const profiles = count(atOnce).map((at) => from + at - 1)
    const found = await get(profiles.map((each) => `${profileInterface}.${each}`))
    const there = profiles.flatMap((each, at) => (typeof found[at] === 'number' ? [{ each, at: found[at] }] : []))
    if (there.length === 0) break
    const told = await get(there.map(({ at }) => `${desiredSsid}.${at}`))
    for (const [index, { each }] of there.entries()) names.set(each, nameIn(told[index]))
  }
  return names
}

const nameIn = (value: SnmpValue | undefined): string =>
  value instanceof Uint8Array ? Buffer.from(value.subarray(0, longestSsid)).toString('utf8') : ''
const count = (many: number): number[] => Array.from({ length: many }, (_, at) => at + 1)
