/** TCP connections of a lane. */

import { connect, type Socket } from 'node:net'
import { messageText } from '../../core/message/message'
import { WireError } from '../errors/wire-error'

const patienceMs = 5000
/** Whoever listens on a link answers at once. */
const linkPatienceMs = 2000

/**
 * @param localAddress  of the laptop: it decides which unit of an address is reached
 * @throws WireError unreachable
 */
export function dial(host: string, port: number, localAddress: string): Promise<Socket> {
  return opened(connect({ host, port, localAddress, noDelay: true }), `${host} port ${port}`, patienceMs)
}

/** @param host  link-local, with its zone @throws WireError unreachable */
export function dialLinkLocal(host: string, port: number): Promise<Socket> {
  return opened(connect({ host, port, noDelay: true }), `${host} port ${port}`, linkPatienceMs)
}

function opened(socket: Socket, what: string, withinMs: number): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const fail = (cause: Error): void => {
      socket.destroy()
      reject(new WireError('unreachable', `${what}: ${cause.message}`, { cause }))
    }
    socket.setTimeout(withinMs, () => fail(new Error(messageText('no-answer-in-time'))))
    socket.once('error', fail)
    socket.once('connect', () => {
      socket.setTimeout(0)
      socket.removeListener('error', fail)
      resolve(socket)
    })
  })
}
