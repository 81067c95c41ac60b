/** Reach: find the unit by its MAC at one of the addresses where it could be, and see its service answer. */
import { type Message, message } from '../../core/message/message'
import { switchPortSeconds } from '../../core/muster/whereabouts'
import { WireError } from '../../wire/errors/wire-error'
import { heardOnly, notFound, serviceShut } from '../unit/explain'
import type { UnitRun } from '../unit/unit-run'
import { opens } from './logins'

const wholeSubnetEvery = 4

export async function reach(run: UnitRun): Promise<Message> {
  const { target, access, journal, waits } = run
  const { timing } = target.card
  const applying = journal.doors.address === 'opened'
  const addresses = placesOf(run)
  const wait = applying ? timing.apply + timing.restart : timing.start
  const until = waits.due(wait)
  let told: Message | undefined
  let looks = 0
  let last: Located | undefined
  let heard: { readonly address: string | null } | undefined
  const address = await waits.until(async () => {
    // The whole subnet is asked less often than the places where it is likely, and so is who was heard on the wire.
    const everywhere = looks % wholeSubnetEvery === 0
    if (everywhere) heard = await heardFrom(run)
    const places = heard?.address ? [...addresses, heard.address] : addresses
    const seen = await locate(run, places, everywhere ? 'by-mac-too' : 'there-only')
    const found = seen ?? (everywhere && heard ? await byLinkAlone(run, places[0]) : undefined)
    looks += 1
    last = found
    if (found?.answers === 'service') return found.address
    const waitingFor = found ? message('starting-up') : message('looking-on-wire')
    if (waitingFor.code !== told?.code) {
      told = waitingFor
      await journal.tell('reach', { kind: 'waiting', until, waitingFor })
    }
    return undefined
  }, wait + switchPortSeconds)
  if (address === undefined) {
    if (last) throw serviceShut(target, last.address)
    throw heard ? heardOnly(target, addresses, heard.address) : notFound(target, addresses)
  }
  access.address = address
  journal.say(message('answers-by-lane', { address, source: (await access.lane(address)).source }))
  return message('answers-at', { address })
}

/** Whether it was heard on the wire lately, and from which address, if it has one. */
export async function heardFrom({ host, target }: UnitRun): Promise<{ readonly address: string | null } | undefined> {
  const talking = (await host.heard()).onLink.filter(({ mac }) => mac === target.unit.mac)
  return talking.find(({ address }) => address !== null) ?? talking[0]
}

/**
 * Where it could be, the likelier first: once its new address was written it may be at either. An address that it had
 * before the plan was changed counts too, and one at which the last sweep saw it.
 */
function placesOf({ target, journal }: UnitRun): string[] {
  const { card, plan, formerPlaces, seenAt } = target
  const former = formerPlaces.map((place) => place.address)
  const { address } = card.factory
  const places =
    journal.doors.address === 'shut'
      ? [address, plan.address, ...former, seenAt]
      : [plan.address, ...former, address, seenAt]
  return [...new Set(places.filter((place) => place !== undefined && place !== null))]
}

export interface Located {
  readonly address: string
  readonly answers: 'service' | 'arp-only'
}

/**
 * Where the unit answers now: by ARP with its own MAC, and whether its service takes a connection. What asks DHCP may
 * be anywhere in the subnet: there it is found by its MAC alone.
 */
export async function locate(
  run: UnitRun,
  addresses: readonly string[],
  elsewhere: 'by-mac-too' | 'there-only',
): Promise<Located | undefined> {
  const { target, access, host } = run
  const { mac } = target.unit
  const at = async (address: string): Promise<Located> => ({
    address,
    answers: (await access.takesSessions(address)) ? 'service' : 'arp-only',
  })
  for (const address of addresses) if ((await host.arp(address)).includes(mac)) return at(address)
  // A host that cannot send ARP learns only from the MAC that the unit is there, and the unit tells its address.
  if (await host.onLink(mac)) return at((await toldAddress(run, addresses[0] ?? access.here)) ?? addresses[0] ?? '')
  if (elsewhere === 'there-only') return undefined
  const neighbour = (await host.neighbours(target.subnets)).find((each) => each.mac === mac)
  return neighbour && at(neighbour.address)
}

/**
 * A unit that has no IPv4 address yet, or one in a strange subnet, and is spoken to by its link-local one, which a lane
 * tries first.
 * @param address  which the lane is for once it has that
 */
async function byLinkAlone({ target, access }: UnitRun, address: string | undefined): Promise<Located | undefined> {
  if (address === undefined || target.card.does.reachedBy === 'ipv4') return undefined
  return (await access.takesSessions(address)) ? { address, answers: 'service' } : undefined
}

/** The address that it says it has, where it lets us in with a login that is known. */
async function toldAddress({ target, access, journal }: UnitRun, via: string): Promise<string | undefined> {
  const logins = [target.login, target.card.factory.login]
  for (const login of journal.doors.password === 'shut' ? logins.toReversed() : logins) {
    const session = await access.session(via)
    try {
      if (!(await opens(session, login))) continue
      const address = (await session.read('in-effect')).unit['management.address']
      return address?.kind === 'value' ? address.value : undefined
    } catch (error) {
      if (error instanceof WireError) return undefined
      throw error
    } finally {
      session.close()
    }
  }
  return undefined
}
