import { connect } from 'node:net'
import { WireError } from '../../src/wire/errors/wire-error'
import type { Lane } from '../../src/wire/host/host'

/** A lane to services of this machine's own loopback, which pass for one unit. */
export function loopbackLane(mac: string): Lane {
  return {
    ...{ mac, address: '127.0.0.1', prefix: 8, source: '127.0.0.2' },
    connect: (port) =>
      new Promise((resolve, reject) => {
        const socket = connect(port, '127.0.0.1', () => resolve(socket))
        socket.once('error', (cause) => reject(new WireError('unreachable', cause.message)))
      }),
    datagrams: () => Promise.reject(new Error('it takes none')),
    ping: async () => true,
    close: async () => {},
  }
}
