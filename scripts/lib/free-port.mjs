import { createServer } from 'node:net'

/** A free port on loopback: the wanted one, or any. */
async function freePort(wanted = 0) {
  return (await tryPort(wanted)) ?? (await tryPort(0))
}

/**
 * Starts something on a free port. A port that is free now may be somebody else's by the time the child takes it: then
 * another one is tried.
 *
 * @template T
 * @param {number} wanted  the port to try first; 0 for any
 * @param {(port: number) => Promise<T>} start  throws with the words of the child where its port was taken
 * @returns {Promise<T>}
 */
export async function onFreePort(wanted, start, attempts = 4) {
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await start(await freePort(attempt === 1 ? wanted : 0))
    } catch (error) {
      if (attempt === attempts || !/EADDRINUSE|address already in use/i.test(String(error))) throw error
    }
  }
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
