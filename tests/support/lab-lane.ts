/** A lane to one stand-in of a lab in this process: no wire between. */
import { connect } from 'node:net'
import type { Lab } from '../../src/lab/lab'
import { WireError } from '../../src/wire/errors/wire-error'
import type { Lane } from '../../src/wire/host/host'

/** @param lab  the one that is open when somebody connects */
export function labLane(lab: () => Lab, mac: string, { address, source }: Pick<Lane, 'address' | 'source'>): Lane {
  return {
    ...{ mac, address, prefix: 24, source },
    connect: (port) => {
      const behind = lab().plugged(mac).front.loopbackPort(port)
      if (behind === undefined) throw new WireError('unreachable', `port ${port} is shut`)
      return new Promise((resolve, reject) => {
        const socket = connect(behind, '127.0.0.1', () => resolve(socket))
        socket.once('error', (cause) => reject(new WireError('unreachable', cause.message)))
      })
    },
    datagrams: () => Promise.reject(new Error('it takes none')),
    ping: async () => true,
    close: async () => {},
  }
}
