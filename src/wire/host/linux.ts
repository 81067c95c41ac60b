/**
 * The host port of a Linux laptop: lanes, ARP and echoes through the wire helper, connections by itself.
 */
import { connect, type Socket } from 'node:net'
import { interfaces } from '../helper/ip-command'
import { type HelperVerbs, helperVerbs } from '../helper/verbs'
import { dial, dialLinkLocal } from './dial'
import { type Host, HostAwayError, type Lane, type LaneTarget } from './host'
import { LinkLocal } from './link-local'
import { noLane } from './no-lane'
import { type Asking, askOver } from './questions'

/** Whoever serves DHCP is asked for seldom: each time every server hears it. */
const askForDhcpEveryMs = 60_000
/** What was heard longer ago counts no more. */
const countsMs = 180_000

/** Questions to the wire helper. @param socket  where it listens */
export function askHelper(socket: string): Asking<HelperVerbs> {
  return askOver(
    helperVerbs,
    () =>
      new Promise<Socket>((resolve, reject) => {
        const stream = connect(socket, () => resolve(stream))
        stream.once('error', reject)
      }),
  )
}

/**
 * @param socket  of the wire helper
 * @param lanes   whether a unit that listens on IPv6 is reached by its link-local address first
 */
export function linuxHost(socket: string, lanes: 'link-local-first' | 'gateway' = 'link-local-first'): Host {
  const { ask, losses } = askHelper(socket)
  let linkLocal: LinkLocal | undefined
  let askedAt = Number.NEGATIVE_INFINITY
  return {
    name: 'linux',
    interruptions: losses,
    canAsk: async () => true,
    onLink: async () => undefined,
    laptop: async () => {
      const { interfaceName, added, lanes } = await ask('standing', {})
      const here = await shownInterface(interfaceName)
      const addresses = here.addr_info
        .filter(({ family }) => family === 'inet')
        .map(({ local, prefixlen }) => `${local}/${prefixlen}`)
        .map((cidr) => ({ cidr, origin: added.includes(cidr) ? ('added' as const) : ('own' as const) }))
      return { interfaceName, addresses, lanes, vlans: [], pace: 1 }
    },
    arp: async (address) => (await ask('arp', { address })).macs,
    neighbours: async (subnets) => (await ask('neighbours', { subnets: [...subnets] })).found,
    heard: async () => {
      const now = Date.now()
      const askForDhcp = now - askedAt > askForDhcpEveryMs ? 'now' : 'no'
      if (askForDhcp === 'now') askedAt = now
      const { servers, asking, talking, neighbours } = await ask('heard', { askForDhcp })
      const isRecent = ({ at }: { at: number }): boolean => Date.now() - at < countsMs
      const [end] = neighbours.filter(isRecent).toReversed()
      linkLocal ??= new LinkLocal((await ask('standing', {})).interfaceName)
      const onLink = [...(await linkLocal.everybody()).keys()].map((mac) => ({ mac, address: null }))
      return {
        servers: servers.filter(isRecent).map(({ mac, address, controllers }) => ({ mac, address, controllers })),
        asking: asking
          .filter(isRecent)
          .map(({ mac, hostName, vendorClass }) => ({ mac, says: vendorClass ?? hostName })),
        onLink: [...talking.filter(isRecent).map(({ mac, address }) => ({ mac, address })), ...onLink],
        introductions: neighbours
          .filter(isRecent)
          .flatMap(({ mac, words }) => (words === undefined ? [] : [{ mac, words }])),
        cableEnd: end ? { name: end.name ?? end.chassis, port: end.portWords ?? end.port } : null,
      }
    },
    keepOff: async (ranges) => {
      await ask('keep-off', { ranges: [...ranges] })
    },
    openLane: async (target) => {
      linkLocal ??= new LinkLocal((await ask('standing', {})).interfaceName)
      return laneOf(target, linkLocal, ask, lanes)
    },
    restore: async () => {
      await ask('restore', {})
    },
  }
}

async function shownInterface(name: string): Promise<Awaited<ReturnType<typeof interfaces>>[number]> {
  const here = (await interfaces()).find(({ ifname }) => ifname === name)
  if (!here) throw new HostAwayError(`the wire does not work: ${name} is gone`)
  return here
}

/**
 * A lane goes by link-local where the unit listens there: nothing is added to the laptop for it, and it outlives the
 * change of the IPv4 address. Else, and where that is not answered, by a gateway lane.
 */
async function laneOf(
  target: LaneTarget,
  linkLocal: LinkLocal,
  ask: Asking<HelperVerbs>['ask'],
  lanes: 'link-local-first' | 'gateway',
): Promise<Lane> {
  const { mac, address, prefix, by = 'ipv4' } = target
  const asked = { mac, address, prefix }
  const direct = lanes === 'gateway' || by === 'ipv4' ? undefined : await linkLocal.find(mac)
  // A helper that was started again has taken its lanes away: this one is opened once more.
  const gateway = async (): Promise<string> => (await ask('open-lane', asked).catch(noLane)).source
  let opened = false
  const open = (): Promise<string> => {
    opened = true
    return gateway()
  }
  const source = direct === undefined ? await open() : (linkLocal.own() ?? '')
  return {
    ...target,
    source,
    connect: async (port) => {
      if (direct !== undefined)
        try {
          return await dialLinkLocal(direct, port)
        } catch (error) {
          if (by === 'link-local') throw error
        }
      return dial(address, port, await open())
    },
    datagrams: async (port) => ({ host: address, port, source: await open() }),
    ping: async () => (await ask('ping', { source: await open(), address })).answers,
    close: async () => {
      if (opened) await ask('close-lane', asked)
    },
  }
}
