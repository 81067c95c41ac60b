/**
 * The host port of the lab: the lab maps the address of a stand-in to a socket on loopback.
 */
import { connect, type Socket } from 'node:net'
import { type LabAnswer, type LabAsk, type LabQuestion, labTokenHeader, labWire } from '../../core/rehearsal/lab-wire'
import { WireError } from '../wire-error'
import { type Host, HostAwayError, type Lane, type LaneTarget } from './host'

export interface LabAddress {
  /** `http://127.0.0.1:port` of the lab's control server. */
  readonly url: string
  readonly token: string
}

const patienceMs = 5000

/** The laptop of the lab. */
export function labHost(lab: LabAddress): Host {
  const ask = <Q extends LabQuestion>(question: Q, body: LabAsk<Q>): Promise<LabAnswer<Q>> =>
    askLab(lab, question, body)
  return {
    name: 'lab',
    laptop: () => ask('laptop', {}),
    arp: async (address) => (await ask('arp', { address })).macs,
    neighbours: async (subnets) => (await ask('neighbours', { subnets: [...subnets] })).found,
    openLane: async (target) => {
      const { source } = await ask('open-lane', target)
      return laneOf(target, source, ask)
    },
    restore: async () => {
      await ask('restore', {})
    },
  }
}

type Ask = <Q extends LabQuestion>(question: Q, body: LabAsk<Q>) => Promise<LabAnswer<Q>>

function laneOf(target: LaneTarget, source: string, ask: Ask): Lane {
  const { mac, address, prefix } = target
  return {
    ...target,
    source,
    connect: async (port) => {
      const question = { mac, address, prefix, port }
      let { loopbackPort } = await ask('dial', question)
      if (loopbackPort === null) {
        // A lab that was started again knows of no lanes: this one is opened once more.
        await ask('open-lane', target)
        loopbackPort = (await ask('dial', question)).loopbackPort
      }
      if (loopbackPort === null) throw new WireError('unreachable', `no answer from ${address} port ${port} (${mac})`)
      return dial(loopbackPort, `${address} port ${port}`)
    },
    ping: async () => (await ask('ping', { mac, address, prefix })).answers,
    close: async () => {
      await ask('close-lane', { mac, address, prefix })
    },
  }
}

function dial(port: number, what: string): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host: '127.0.0.1', port, noDelay: true })
    const fail = (cause: Error): void => {
      socket.destroy()
      reject(new WireError('unreachable', `${what}: ${cause.message}`, { cause }))
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

async function askLab<Q extends LabQuestion>(lab: LabAddress, question: Q, body: LabAsk<Q>): Promise<LabAnswer<Q>> {
  try {
    const reply = await fetch(`${lab.url}/wire/${question}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', [labTokenHeader]: lab.token },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(patienceMs),
    })
    if (!reply.ok) throw new Error(`the lab answered ${reply.status}`)
    return labWire[question].answer.parse(await reply.json()) as LabAnswer<Q>
  } catch (cause) {
    throw new HostAwayError(`the wire does not work: ${cause instanceof Error ? cause.message : String(cause)}`, {
      cause,
    })
  }
}
