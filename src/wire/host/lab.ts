/**
 * The host port of the lab: the lab maps the address of a stand-in to a socket on loopback.
 */

import { request } from 'node:http'
import type { Duplex } from 'node:stream'
import { message, messageText } from '../../core/message/message'
import { type Heard, nothingHeard } from '../../core/muster/events'
import { type LabWire, labTokenHeader, labWire, labWireProtocol } from '../../core/rehearsal/lab-wire'
import { WireError } from '../errors/wire-error'
import { dial } from './dial'
import { type Host, type Lane, type LaneTarget, lendsNothing } from './host'
import { noLane } from './no-lane'
import { type Asking, askOver } from './questions'

export interface LabAddress {
  /** `http://127.0.0.1:port` of the lab's control server. */
  readonly url: string
  readonly token: string
}

const patienceMs = 5000

/** The laptop of the lab. */
export function labHost(lab: LabAddress): Host {
  const { ask, losses } = askOver(labWire, () => openWire(lab))
  let isToLend = false
  const lendingBeside = (servers: readonly unknown[]): Heard['lending'] =>
    servers.length === 0 ? lendsNothing : { state: isToLend ? 'another-serves' : 'off', leases: [] }
  return {
    name: 'lab',
    interruptions: losses,
    laptop: () => ask('laptop', {}),
    canAsk: async () => true,
    onLink: async () => undefined,
    arp: async (address) => (await ask('arp', { address })).macs,
    neighbours: async (subnets) => (await ask('neighbours', { subnets: [...subnets] })).found,
    // Its site has no name servers.
    resolve: async () => [],
    heard: async () => {
      const { found, introductions, servers } = await ask('on-link', {})
      return { ...nothingHeard, servers, onLink: found, introductions, lending: lendingBeside(servers) }
    },
    // The laptop of the lab lends none itself; where its site has a server, no laptop would.
    lend: async (to) => {
      isToLend = to !== null
    },
    reachVlans: async () => {
      // Which ones its laptop reaches is the lab's to say.
    },
    keepOff: async (ranges) => {
      await ask('keep-off', { ranges: [...ranges] })
    },
    openLane: async (target) => {
      const { source } = await ask('open-lane', wireOf(target)).catch(noLane)
      return laneOf(target, source, ask)
    },
    restore: async () => {
      await ask('restore', {})
    },
  }
}

const wireOf = ({ mac, address, prefix }: LaneTarget) => ({ mac, address, prefix })

function laneOf(target: LaneTarget, source: string, ask: Asking<LabWire>['ask']): Lane {
  const { mac, address, prefix } = target
  return {
    ...target,
    source,
    connect: async (port) => {
      const question = { mac, address, prefix, port }
      let { loopbackPort } = await ask('dial', question)
      if (loopbackPort === null) {
        // A lab that was started again knows of no lanes: this one is opened once more.
        await ask('open-lane', wireOf(target))
        loopbackPort = (await ask('dial', question)).loopbackPort
      }
      if (loopbackPort === null) throw new WireError('unreachable', message('lab-no-answer', { address, port, mac }))
      return dial('127.0.0.1', loopbackPort, '127.0.0.1')
    },
    datagrams: async (port) => {
      const { loopbackPort } = await ask('datagrams', { mac, address, prefix, port })
      if (loopbackPort === null)
        throw new WireError('unreachable', message('lab-takes-no-datagrams', { address, port }))
      return { host: '127.0.0.1', port: loopbackPort, source: '127.0.0.1' }
    },
    ping: async () => (await ask('ping', { mac, address, prefix })).answers,
    close: async () => {
      await ask('close-lane', { mac, address, prefix })
    },
  }
}

/** A connection to the lab that questions go over. */
function openWire({ url, token }: LabAddress): Promise<Duplex> {
  return new Promise((resolve, reject) => {
    const headers = { connection: 'Upgrade', upgrade: labWireProtocol, [labTokenHeader]: token }
    const asked = request(`${url}/wire`, { headers, timeout: patienceMs, agent: false })
    asked.once('upgrade', (_, socket) => resolve(socket.setNoDelay(true)))
    asked.once('response', (reply) => {
      reply.destroy()
      reject(new Error(messageText('lab-answered', { status: reply.statusCode ?? null })))
    })
    asked.once('timeout', () => asked.destroy(new Error(messageText('lab-silent'))))
    asked.once('error', reject)
    asked.end()
  })
}
