/**
 * Runs where the laptop of a bench is: opens a real lane to each box and hands its connections on through a Unix
 * socket, so that a test outside that network namespace speaks to boxes at one address. What comes first on a
 * connection is the port, on a line of its own.
 *
 * Words: socket of the helper, folder for the sockets, address of the boxes, their MACs.
 */
import { createServer, type Socket } from 'node:net'
import { join } from 'node:path'
import { linuxHost } from '../../../src/wire/host/linux'

const [helper = '', folder = '', address = '', ...macs] = process.argv.slice(2)
const host = linuxHost(helper)
const lanes = await Promise.all(macs.map((mac) => host.openLane({ mac, address, prefix: 24 })))

for (const [index, lane] of lanes.entries()) {
  const server = createServer((near: Socket) => {
    near.on('error', () => near.destroy())
    near.once('data', (chunk) => {
      const end = chunk.indexOf(10)
      near.pause()
      lane.connect(Number(chunk.subarray(0, end).toString())).then(
        (far) => {
          near.on('close', () => far.destroy())
          far.write(chunk.subarray(end + 1))
          far.on('error', () => near.destroy())
          far.on('close', () => near.end())
          near.pipe(far).pipe(near)
        },
        () => near.destroy(),
      )
    })
  })
  await new Promise<void>((resolve) => server.listen(join(folder, `lane${index}.sock`), resolve))
}
process.stdout.write('ready\n')
