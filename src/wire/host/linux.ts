/**
 * The host port of a Linux laptop: lanes, ARP and echoes through the wire helper, connections by itself.
 */
import { connect, type Socket } from 'node:net'
import { interfaces } from '../helper/ip-command'
import { type HelperVerbs, helperVerbs } from '../helper/verbs'
import { WireError } from '../wire-error'
import { type Host, HostAwayError, type Lane, type LaneTarget } from './host'
import { type Asking, askOver, QuestionRefused } from './questions'

const patienceMs = 5000

/** @param socket  of the wire helper */
export function linuxHost(socket: string): Host {
  const { ask } = askOver(
    helperVerbs,
    () =>
      new Promise<Socket>((resolve, reject) => {
        const stream = connect(socket, () => resolve(stream))
        stream.once('error', reject)
      }),
  )
  return {
    name: 'linux',
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
    keepOff: async (ranges) => {
      await ask('keep-off', { ranges: [...ranges] })
    },
    openLane: async (target) => {
      const asked = { mac: target.mac, address: target.address, prefix: target.prefix }
      try {
        const { source } = await ask('open-lane', asked)
        return laneOf(target, source, ask)
      } catch (error) {
        if (error instanceof QuestionRefused) throw new WireError('unreachable', error.message, { cause: error })
        throw error
      }
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

function laneOf(target: LaneTarget, source: string, ask: Asking<HelperVerbs>['ask']): Lane {
  const { mac, address, prefix } = target
  return {
    ...target,
    source,
    connect: async (port) => {
      // A helper that was started again has taken its lanes away: this one is opened once more.
      const { source: now } = await ask('open-lane', { mac, address, prefix })
      return dial(address, port, now)
    },
    ping: async () => (await ask('ping', { source, address })).answers,
    close: async () => {
      await ask('close-lane', { mac, address, prefix })
    },
  }
}

function dial(host: string, port: number, localAddress: string): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port, localAddress, noDelay: true })
    const fail = (cause: Error): void => {
      socket.destroy()
      reject(new WireError('unreachable', `${host} port ${port}: ${cause.message}`, { cause }))
    }
    socket.setTimeout(patienceMs, () => fail(new Error('no answer in time')))
    socket.once('error', fail)
    socket.once('connect', () => {
      socket.setTimeout(0)
      socket.removeListener('error', fail)
      resolve(socket)
    })
  })
}
