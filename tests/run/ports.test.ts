/** Ports that somebody else takes between the look and the start. */
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
// @ts-expect-error the same
import { startChild, until } from '../../scripts/lib/child.mjs'
// @ts-expect-error the same
import { onFreePort } from '../../scripts/lib/free-port.mjs'
// @ts-expect-error the same
import { buildSiteIfStale } from '../../scripts/lib/site.mjs'
// @ts-expect-error the same
import { startPages } from '../../scripts/lib/stack.mjs'

interface Pages {
  readonly url: string
  readonly child: { stop(): Promise<unknown> }
}

let folder: string
const ends: (() => unknown)[] = []
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-ports-'))
})
afterEach(async () => {
  for (const end of ends.splice(0)) await end()
  rmSync(folder, { recursive: true, force: true })
})

const serve = (port: number): Promise<Server> =>
  new Promise((resolve) => {
    const server = createServer((_request, response) => response.end('somebody else')).listen(port, '127.0.0.1', () =>
      resolve(server),
    )
    ends.push(() => server.close())
  })
const startAt = async (port: number): Promise<number> => {
  const script = `require('node:http').createServer((_, r) => r.end('ours')).listen(${port}, '127.0.0.1')`
  const child = startChild(process.execPath, ['-e', script], { cwd: folder, logFile: join(folder, `${port}.log`) })
  ends.push(() => child.stop())
  await until(
    child,
    'It',
    async () =>
      (await fetch(`http://127.0.0.1:${port}`)
        .then((reply) => reply.text())
        .catch(() => '')) === 'ours',
  )
  return port
}

it('gives way to whoever was faster, and tries another', async () => {
  const tried: number[] = []
  const port = await onFreePort(0, async (free: number) => {
    if (tried.length === 0) await serve(free)
    tried.push(free)
    return startAt(free)
  })
  expect(tried).toHaveLength(2)
  expect(port).toBe(tried[1])
})

it('does not try again what fails for another reason', async () => {
  let tries = 0
  const start = () => {
    tries += 1
    return Promise.reject(new Error('no disk'))
  }
  await expect(onFreePort(0, start)).rejects.toThrow('no disk')
  expect(tries).toBe(1)
})

it('lets two installations start at once for the same port, each with its own pages', async () => {
  await bundleIfStale()
  buildSiteIfStale()
  const { port } = (await serve(0)).address() as { port: number }
  await ends.pop()?.()
  // The database of neither is there: that is not what they wait for.
  const env = {
    AIR_MUSTER_DB: 'mariadb://air_muster:x@127.0.0.1:1/air_muster',
    AIR_MUSTER_VAULT_FILE: join(folder, 'vault.key'),
    NODE_ENV: 'production',
  }
  mkdirSync(join(folder, 'logs'), { recursive: true })
  const pages: Pages[] = await Promise.all([1, 2].map(() => startPages({ folder, env, wantedPort: port })))
  for (const { child } of pages) ends.unshift(() => child.stop())
  const words = await Promise.all(
    pages.map(async ({ url }) => ((await (await fetch(`${url}/api/health`)).json()) as { started: string }).started),
  )
  expect(new Set(words).size).toBe(2)
  expect(new Set(pages.map(({ url }) => url)).size).toBe(2)
})
