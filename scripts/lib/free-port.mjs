import { createServer } from 'node:net'

/** A free port on loopback: the wanted one, or any. */
export async function freePort(wanted = 0) {
  return (await tryPort(wanted)) ?? (await tryPort(0))
}

function tryPort(port) {
  return new Promise((resolve) => {
    const server = createServer()
    server.once('error', () => resolve(undefined))
    server.listen({ port, host: '127.0.0.1' }, () => {
      const { port: found } = server.address()
      server.close(() => resolve(found))
    })
  })
}
