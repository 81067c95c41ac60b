/**
 * The host port of a Linux laptop: lanes, ARP and echoes through the wire helper, connections by itself.
 */

import { connect, type Socket } from 'node:net'
import type { Lending } from '../../core/addressing/bench-subnet'
import type { AddressRange } from '../../core/brief/subnet'
import { message } from '../../core/message/message'
import { interfaces } from '../helper/ip-command'
import { type HelperVerbs, helperVerbs } from '../helper/verbs'
import { dial, dialLinkLocal } from './dial'
import { type Host, HostAwayError, type Lane, type LaneTarget } from './host'
import { LinkLocals } from './link-locals'
import { noLane } from './no-lane'
import { type Asking, askOver, QuestionRefused } from './questions'
import { resolveNames } from './resolve'

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
  const { ask: askOnce, losses } = askHelper(socket)
  const linkLocals = new LinkLocals()
  let askedAt = Number.NEGATIVE_INFINITY
  const setting: {
    ranges?: readonly AddressRange[]
    vlans?: readonly number[]
    lending?: Lending | null
    told: number
  } = { told: losses() }
  let vlanFault: string | null = null
  const reachVlans = async (vlans: readonly number[]): Promise<void> => {
    // Which of them it reaches is told with the laptop: a kernel that has no tagged VLANs stops nobody else's work.
    vlanFault = await askOnce('reach-vlans', { vlans: [...vlans] }).then(
      () => null,
      (error: unknown) => {
        if (error instanceof QuestionRefused) return error.message
        throw error
      },
    )
  }
  const lend = async (to: Lending | null): Promise<void> => {
    await askOnce('lend-addresses', { to: to && { macs: [...to.macs], cidr: to.cidr } })
  }
  /** A helper that was started again has forgotten what it was told: it is told once more, before anything is asked. */
  const ask: typeof askOnce = async (question, what) => {
    if (setting.told !== losses()) {
      setting.told = losses()
      if (setting.vlans) await reachVlans(setting.vlans)
      if (setting.lending) await lend(setting.lending)
      if (setting.ranges) await askOnce('keep-off', { ranges: [...setting.ranges] })
    }
    return askOnce(question, what)
  }
  const standing = async () => {
    const stands = await ask('standing', {})
    linkLocals.on([stands.interfaceName, ...stands.vlans.map(({ dev }) => dev)])
    return stands
  }
  return {
    name: 'linux',
    interruptions: losses,
    canAsk: async () => true,
    onLink: async () => undefined,
    laptop: async () => {
      const { interfaceName, added, lanes, vlans } = await standing()
      const addresses = (await addressesOn(interfaceName, vlans)).map((cidr) => ({
        cidr,
        origin: added.includes(cidr) ? ('added' as const) : ('own' as const),
      }))
      const reaches = ({ origin, heardAt }: (typeof vlans)[number]): boolean =>
        origin === 'own' || (heardAt !== null && Date.now() - heardAt < countsMs)
      return {
        interfaceName,
        addresses,
        lanes,
        vlans: vlans.filter(reaches).map(({ vlan }) => vlan),
        silentVlans: vlans.filter((each) => !reaches(each)).map(({ vlan }) => vlan),
        vlanFault,
        pace: 1,
      }
    },
    arp: async (address) => (await ask('arp', { address })).macs,
    neighbours: async (subnets) => (await ask('neighbours', { subnets: [...subnets] })).found,
    resolve: resolveNames,
    heard: async () => {
      const now = Date.now()
      const askForDhcp = now - askedAt > askForDhcpEveryMs ? 'now' : 'no'
      if (askForDhcp === 'now') askedAt = now
      const { servers, asking, talking, neighbours, dhcp } = await ask('heard', { askForDhcp })
      const isRecent = ({ at }: { at: number }): boolean => Date.now() - at < countsMs
      const [end] = neighbours.filter(isRecent).toReversed()
      await standing()
      const onLink = (await linkLocals.everybody()).map((mac) => ({ mac, address: null }))
      return {
        servers: servers
          .filter(isRecent)
          .map(({ mac, vlan, address, controllers }) => ({ mac, vlan, address, controllers })),
        asking: asking
          .filter(isRecent)
          .map(({ mac, hostName, vendorClass }) => ({ mac, says: vendorClass ?? hostName })),
        onLink: [
          ...dhcp.leases.map(({ mac, address }) => ({ mac, address })),
          ...talking.filter(isRecent).map(({ mac, address }) => ({ mac, address })),
          ...onLink,
        ],
        lending: dhcp,
        introductions: neighbours
          .filter(isRecent)
          .flatMap(({ mac, words }) => (words === undefined ? [] : [{ mac, words }])),
        named: [],
        cableEnd: end ? { name: end.name ?? end.chassis, port: end.portWords ?? end.port } : null,
      }
    },
    keepOff: async (ranges) => {
      setting.ranges = ranges
      await ask('keep-off', { ranges: [...ranges] })
    },
    lend: async (to) => {
      await lend(to)
      setting.lending = to
    },
    reachVlans: async (vlans) => {
      setting.vlans = vlans
      await reachVlans(vlans)
    },
    openLane: async (target) => {
      if (lanes !== 'gateway' && target.by !== 'ipv4') await standing()
      return laneOf(target, linkLocals, ask, lanes)
    },
    restore: async () => {
      delete setting.vlans
      delete setting.lending
      await ask('restore', {})
    },
  }
}

/** IPv4 addresses of the wired interface and of those for VLANs on top of it. */
async function addressesOn(name: string, vlans: readonly { readonly dev: string }[]): Promise<string[]> {
  const all = await interfaces()
  const here = all.find(({ ifname }) => ifname === name)
  if (!here) throw new HostAwayError(message('wire-interface-gone', { name }))
  return [here, ...all.filter(({ ifname }) => vlans.some(({ dev }) => dev === ifname))].flatMap(({ addr_info }) =>
    addr_info.flatMap(({ family, local, prefixlen }) => (family === 'inet' ? [`${local}/${prefixlen}`] : [])),
  )
}

/**
 * A lane goes by link-local where the unit listens there: nothing is added to the laptop for it, and it outlives the
 * change of the IPv4 address. Else, and where that is not answered, by a gateway lane.
 */
async function laneOf(
  target: LaneTarget,
  linkLocals: LinkLocals,
  ask: Asking<HelperVerbs>['ask'],
  lanes: 'link-local-first' | 'gateway',
): Promise<Lane> {
  const { mac, address, prefix, by = 'ipv4' } = target
  const asked = { mac, address, prefix }
  const direct = lanes === 'gateway' || by === 'ipv4' ? undefined : await linkLocals.find(mac)
  // A helper that was started again has taken its lanes away: this one is opened once more.
  const gateway = async (): Promise<string> => (await ask('open-lane', asked).catch(noLane)).source
  let opened = false
  const open = (): Promise<string> => {
    opened = true
    return gateway()
  }
  const source = direct === undefined ? await open() : (direct.own ?? '')
  return {
    ...target,
    source,
    connect: async (port) => {
      if (direct !== undefined)
        try {
          return await dialLinkLocal(direct.address, port)
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
