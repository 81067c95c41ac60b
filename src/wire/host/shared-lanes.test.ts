import { describe, expect, it } from 'vitest'
import { nothingHeard } from '../../core/muster/events'
import type { Host, Lane, LaneTarget } from './host'
import { sharedLanes } from './shared-lanes'

const target: LaneTarget = { mac: '02:4f:52:00:00:01', address: '192.168.77.1', prefix: 24 }

/** A host that writes down what it is told. */
function host() {
  const told: string[] = []
  const opened = async (to: LaneTarget): Promise<Lane> => {
    told.push(`open ${to.address}`)
    return {
      ...to,
      source: '192.168.77.254',
      connect: () => Promise.reject(new Error('no')),
      datagrams: () => Promise.reject(new Error('it takes none')),
      ping: async () => true,
      close: async () => void told.push(`close ${to.address}`),
    }
  }
  const bare: Host = {
    name: 'test',
    interruptions: () => 0,
    laptop: () => Promise.reject(new Error('no')),
    canAsk: async () => true,
    onLink: async () => undefined,
    resolve: async () => [],
    arp: async () => [],
    neighbours: async () => [],
    heard: async () => ({ ...nothingHeard, introductions: [] }),
    reachVlans: async () => undefined,
    keepOff: async () => {},
    lend: async () => {},
    openLane: opened,
    restore: async () => {},
  }
  return { told, lanes: sharedLanes(bare) }
}

describe('a lane that several have', () => {
  it('is opened once, and closed when the last has let it go', async () => {
    const { told, lanes } = host()
    const [sweep, muster] = await Promise.all([lanes.openLane(target), lanes.openLane(target)])
    expect(told).toEqual(['open 192.168.77.1'])
    await sweep.close()
    expect(told).toEqual(['open 192.168.77.1'])
    await muster.close()
    expect(told).toEqual(['open 192.168.77.1', 'close 192.168.77.1'])
  })

  it('is let go by each once, however often it says so', async () => {
    const { told, lanes } = host()
    const sweep = await lanes.openLane(target)
    const muster = await lanes.openLane(target)
    await sweep.close()
    await sweep.close()
    expect(told).toEqual(['open 192.168.77.1'])
    await muster.close()
    await lanes.openLane(target)
    expect(told).toEqual(['open 192.168.77.1', 'close 192.168.77.1', 'open 192.168.77.1'])
  })

  it('is another at another address', async () => {
    const { told, lanes } = host()
    const factory = await lanes.openLane(target)
    await lanes.openLane({ ...target, address: '10.44.8.20' })
    await factory.close()
    expect(told).toEqual(['open 192.168.77.1', 'open 10.44.8.20', 'close 192.168.77.1'])
  })
})
