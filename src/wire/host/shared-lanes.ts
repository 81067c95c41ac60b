/**
 * Lanes are shared: a sweep and a muster that go to the same unit have one lane under them, which is closed when the
 * last of them has let it go. Neither closes it under the other, and none is left open.
 */
import type { Host, Lane, LaneTarget } from './host'

interface Open {
  readonly lane: Promise<Lane>
  users: number
}

export function sharedLanes(host: Host): Host {
  const open = new Map<string, Open>()
  return {
    name: host.name,
    interruptions: () => host.interruptions(),
    laptop: () => host.laptop(),
    canAsk: (address) => host.canAsk(address),
    onLink: (mac) => host.onLink(mac),
    arp: (address) => host.arp(address),
    neighbours: (subnets) => host.neighbours(subnets),
    resolve: (names, servers) => host.resolve(names, servers),
    heard: () => host.heard(),
    keepOff: (ranges) => host.keepOff(ranges),
    lend: (to) => host.lend(to),
    reachVlans: (vlans) => host.reachVlans(vlans),
    restore: () => host.restore(),
    openLane: async (target) => {
      const key = keyOf(target)
      const shared = open.get(key) ?? { lane: host.openLane(target), users: 0 }
      open.set(key, shared)
      shared.users += 1
      let held = true
      const letGo = async (): Promise<void> => {
        if (!held) return
        held = false
        shared.users -= 1
        if (shared.users > 0) return
        if (open.get(key) === shared) open.delete(key)
        await (await shared.lane).close()
      }
      try {
        const lane = await shared.lane
        return { ...lane, old: target.old, close: letGo }
      } catch (error) {
        held = false
        if (open.get(key) === shared) open.delete(key)
        throw error
      }
    },
  }
}

const keyOf = ({ mac, address, prefix }: LaneTarget): string => `${mac} ${address}/${prefix}`
