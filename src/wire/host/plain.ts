/**
 * The host port of an ordinary user: the machine's own addresses and link-local lanes, no privilege. Units that listen
 * on IPv6 are worked side by side by their link-local addresses; others one at a time, where the laptop shares their
 * subnet. Nothing is added to the laptop.
 */

import { createSocket } from 'node:dgram'
import { connect } from 'node:net'
import { networkInterfaces } from 'node:os'
import { setTimeout as pause } from 'node:timers/promises'
import { hostsOf, parseCidr, sameSubnet } from '../../core/address/ipv4'
import { asTold, message } from '../../core/message/message'
import { nothingHeard } from '../../core/muster/events'
import { WireError } from '../errors/wire-error'
import { echoes } from '../helper/echo'
import { interfaces, neighboursShown, vlansOn } from '../helper/ip-command'
import { dial, dialLinkLocal } from './dial'
import { type Host, HostAwayError, type Lane, type LaneTarget, lendsNothing, type Neighbour } from './host'
import { type FoundByLink, LinkLocals } from './link-locals'
import { resolveNames } from './resolve'

const discardPort = 9
const settleMs = 250
/** Datagrams between two pauses, so that a small unit is not drowned. */
const burst = 64
const largestSubnet = 1024
const mostLooks = 4

/** @param interfaceName  the wired one to the bench */
export function plainHost(interfaceName: string): Host {
  const linkLocals = new LinkLocals()
  linkLocals.on([interfaceName])
  /** Interfaces for tagged VLANs on top of it that the laptop has of its own: by VLAN. */
  let vlans: ReadonlyMap<number, string> = new Map()
  let lanes = 0

  const names = (): string[] => [interfaceName, ...vlans.values()]
  const own = (): { address: string; cidr: string; prefix: number }[] =>
    names().flatMap((name) =>
      (networkInterfaces()[name] ?? []).flatMap(({ family, address, cidr }) =>
        family === 'IPv4' && cidr ? [{ address, cidr, prefix: Number(cidr.split('/')[1]) }] : [],
      ),
    )
  const sharing = (address: string) => own().find((each) => sameSubnet(each.address, address, each.prefix))
  const ask = async (addresses: readonly string[]): Promise<Neighbour[]> => {
    await touch(addresses)
    const asked = new Set(addresses)
    const isThere = async (address: string): Promise<boolean> => (await echoes(address)) || (await answersTcp(address))
    const shown = names().map((name) => neighboursShown(name, 'ipv4'))
    const found = (
      await Promise.all(shown).catch((cause: Error) => {
        throw new HostAwayError(message('wire-broken', { told: asTold(cause.message) }), { cause })
      })
    ).flat()
    // The kernel remembers neighbours for a while after they are gone: what it did not hear of now is asked itself.
    const checked = await Promise.all(
      found
        .filter(({ address }) => asked.has(address))
        .map(async (each) => (each.heard === 'now' || (await isThere(each.address)) ? each : undefined)),
    )
    return checked.flatMap((each) => (each ? [{ mac: each.mac, address: each.address }] : []))
  }

  return {
    name: 'plain',
    interruptions: () => 0,
    laptop: async () => {
      if (!(interfaceName in networkInterfaces()))
        throw new HostAwayError(message('wire-interface-down', { name: interfaceName }))
      const addresses = own().map(({ cidr }) => ({ cidr, origin: 'own' as const }))
      return { interfaceName, addresses, lanes, vlans: [...vlans.keys()], silentVlans: [], vlanFault: null, pace: 1 }
    },
    canAsk: async (address) => sharing(address) !== undefined,
    onLink: async (mac) => (await linkLocals.find(mac)) !== undefined,
    arp: async (address) => {
      // A slow unit takes its time, and silence is believed only when it lasts.
      for (let look = 1; sharing(address); look += 1) {
        const found = await ask([address])
        if (found.length > 0 || look === mostLooks) return found.map(({ mac }) => mac)
      }
      return []
    },
    neighbours: async (subnets) => ask(subnets.flatMap(hostsToAsk).filter((address) => sharing(address) !== undefined)),
    resolve: resolveNames,
    heard: async () => {
      const everybody = await linkLocals.everybody()
      const onLink = everybody.map((mac) => ({ mac, address: null }))
      return { ...nothingHeard, introductions: [], onLink, lending: lendsNothing }
    },
    keepOff: async () => {},
    lend: async () => {
      // That takes privilege.
    },
    reachVlans: async (asked) => {
      // Only where there is `ip` can it be told which of the interfaces those are.
      const shown = await interfaces().catch(() => [])
      vlans = new Map(
        vlansOn(interfaceName, shown)
          .filter(({ vlan, flags }) => asked.includes(vlan) && flags.includes('UP'))
          .map(({ vlan, ifname }) => [vlan, ifname]),
      )
      linkLocals.on(names())
    },
    openLane: async (target) => {
      lanes += 1
      return laneOf(target, await linkLocals.find(target.mac), sharing(target.address)?.address, () => {
        lanes -= 1
      })
    },
    restore: async () => {
      // Nothing was added.
    },
  }
}

function laneOf(
  target: LaneTarget,
  direct: FoundByLink | undefined,
  ownIpv4: string | undefined,
  closed: () => void,
): Lane {
  const { address, by = 'ipv4' } = target
  const byLink = by === 'ipv4' ? undefined : direct
  let open = true
  return {
    ...target,
    source: (byLink === undefined ? ownIpv4 : byLink.own) ?? '',
    connect: async (port) => {
      if (byLink !== undefined) return dialLinkLocal(byLink.address, port)
      if (ownIpv4 !== undefined) return dial(address, port, ownIpv4)
      throw new WireError('unreachable', message('no-address-no-helper', { address }))
    },
    datagrams: async (port) => {
      if (ownIpv4 === undefined) throw new WireError('unreachable', message('no-address-in-subnet', { address }))
      return { host: address, port, source: ownIpv4 }
    },
    ping: () => echoes(address),
    close: async () => {
      if (open) closed()
      open = false
    },
  }
}

/** Does it say anything over TCP, be it no? */
function answersTcp(host: string): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect({ host, port: discardPort })
    const end = (answers: boolean): void => {
      socket.destroy()
      resolve(answers)
    }
    socket.setTimeout(1000, () => end(false))
    socket.once('connect', () => end(true))
    socket.once('error', (error: NodeJS.ErrnoException) => end(error.code === 'ECONNREFUSED'))
  })
}

/** The kernel asks who has each of them. */
async function touch(addresses: readonly string[]): Promise<void> {
  const socket = createSocket('udp4')
  socket.on('error', () => undefined)
  for (const [index, address] of addresses.entries()) {
    socket.send('', discardPort, address, () => undefined)
    if (index % burst === burst - 1) await pause(20)
  }
  await pause(settleMs)
  socket.close()
}

function hostsToAsk(cidr: string): string[] {
  const subnet = parseCidr(cidr)
  return !subnet || subnet.lastHost - subnet.firstHost >= largestSubnet ? [] : hostsOf(subnet)
}
