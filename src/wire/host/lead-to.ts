/** A port of this machine that leads to one port of a unit, for programs that know nothing of lanes. */
import { type AddressInfo, createServer, type Socket } from 'node:net'
import type { Lane } from './host'

export interface LeadingPort {
  readonly address: string
  readonly port: number
  close(): void
}

/**
 * Each connection to the local port becomes one to the unit's.
 * @param address  of loopback: cookies know no ports, so pages of two units want two of them
 * @param used     told each time that somebody connects
 */
export async function leadTo(
  lane: Pick<Lane, 'connect'>,
  port: number,
  address: string,
  used: () => void = () => {},
): Promise<LeadingPort> {
  const sockets = new Set<Socket>()
  const server = createServer((here) => {
    used()
    sockets.add(here)
    here.on('error', () => here.destroy()).on('close', () => sockets.delete(here))
    lane.connect(port).then(
      (there) => {
        sockets.add(there)
        there.on('error', () => here.destroy()).on('close', () => sockets.delete(there))
        here.pipe(there).pipe(here)
      },
      () => here.destroy(),
    )
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(0, address, resolve)
  })
  const close = (): void => {
    for (const socket of sockets) socket.destroy()
    server.close()
  }
  return { address, port: (server.address() as AddressInfo).port, close }
}
