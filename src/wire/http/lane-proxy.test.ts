import { get } from 'node:http'
import { type AddressInfo, createServer, type Server } from 'node:net'
import { afterEach, expect, it } from 'vitest'
import { loopbackLane } from '../../../tests/support/loopback-lane'
import { LaneProxy } from './lane-proxy'

let unit: Server
let proxy: LaneProxy
afterEach(() => {
  proxy.close()
  unit.close()
})

/** Asks through the proxy as a browser does. @returns the text, or why there is none */
const asked = (port: number): Promise<string> =>
  new Promise((resolve) => {
    const through = new URL(proxy.url)
    const path = `http://127.0.0.1:${port}/page`
    const request = get({ host: through.hostname, port: through.port, path }, (reply) => {
      let text = ''
      reply.on('data', (chunk) => {
        text += chunk
      })
      reply.on('end', () => resolve(text))
      reply.on('error', (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message))
    })
    request.on('error', (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message))
  })

it('waits for nothing that a unit has left half said', async () => {
  unit = createServer((socket) => {
    socket.on('error', () => socket.destroy())
    socket.once('data', () => socket.end('HTTP/1.1 200 OK\r\ncontent-length: 100\r\n\r\nhalf'))
  })
  await new Promise<void>((resolve) => unit.listen(0, '127.0.0.1', resolve))
  proxy = await LaneProxy.open(loopbackLane('02:00:00:00:00:01'), async () => {})
  expect(await asked((unit.address() as AddressInfo).port)).toBe('ECONNRESET')
})
