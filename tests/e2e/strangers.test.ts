/** What the pages answer to strangers, to odd requests and to large files: over HTTP, without a browser. */

import { createHash, randomBytes } from 'node:crypto'
import { readFileSync, rmSync } from 'node:fs'
import { request as httpRequest } from 'node:http'
import { connect } from 'node:net'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
// @ts-expect-error the same
import { loadDemoJob } from '../../scripts/lib/demo-job.mjs'
// @ts-expect-error the same
import { buildSiteIfStale } from '../../scripts/lib/site.mjs'
// @ts-expect-error the same
import { startStack } from '../../scripts/lib/stack.mjs'
import { asTold, type Message } from '../../src/core/message/message'
import { pulseSchema } from '../../src/core/muster/pulse'
import { emptySite, plainFloor } from '../../src/core/radio/propagation/floor'
import { deleteJob } from '../../src/jobs/delete-job'
import { exportJob } from '../../src/jobs/export-job'
import { loadJob } from '../../src/jobs/load-job'
import { appendEvents } from '../../src/store/events'
import { findJob } from '../../src/store/jobs'
import { openStore, type Store } from '../../src/store/open'
import { loadSite, saveSite } from '../../src/store/sites'
import { demoJob } from '../support/bench'
import { english } from '../support/english'
import { passingFolder } from '../support/passing-folder'
import { patienceMs } from '../support/patience'
import type { Stack } from '../support/site'

const root = join(import.meta.dirname, '../..')
let folder: string
let stack: Stack
let store: Store
let cookie: string
let withoutJobs: string
beforeAll(async () => {
  await bundleIfStale()
  buildSiteIfStale()
  folder = passingFolder('air-muster-strangers-')
  stack = await startStack({ folder, pace: 60, wantedPort: 0 })
  cookie = ''
  cookie = (await ask(`/?key=${stack.key}`)).headers.get('set-cookie')?.split(';')[0] ?? ''
  withoutJobs = await (await ask('/')).text()
  await loadDemoJob(stack.env, ['port-ellery'])
  store = openStore({ url: stack.env.AIR_MUSTER_DB ?? '', vaultKeyFile: stack.env.AIR_MUSTER_VAULT_FILE ?? '' })
})
afterAll(async () => {
  await store.close()
  await stack.stop()
  rmSync(folder, { recursive: true, force: true })
})

// Each request has a connection of its own: the server may close an idle one while a large body is put together here.
const connection = 'close'
const ask = (path: string, init: RequestInit = {}) =>
  fetch(`${stack.url}${path}`, { redirect: 'manual', ...init, headers: { connection, cookie, ...init.headers } })
const job = async () => {
  const found = await findJob(store, 'port-ellery')
  if (!found) throw new Error('no job')
  return found
}

it('begins with an empty database, and none of its parts complains', () => {
  for (const name of ['web.log', 'runner.log'])
    expect(readFileSync(join(folder, 'logs', name), 'utf8'), name).not.toMatch(/error|"level":[45]0/i)
})

const withoutCookie = { headers: { cookie: '' } }

describe('whoever comes without the key of this start', () => {
  it.each([
    '/',
    '/jobs/port-ellery/brief',
    '/api/jobs/port-ellery/as-built.csv',
    '/api/events?after=port-ellery:0',
    '/_next/static/nothing.js',
    '/api/upload/job-file',
    '/nowhere',
  ])('gets 401 and the sentence where to find it: %s', async (path) => {
    // Another sign in the middle: the last sign of base64 has bits that tell nothing.
    const half = Math.floor(cookie.length / 2)
    const forged = `${cookie.slice(0, half)}${cookie[half] === 'x' ? 'y' : 'x'}${cookie.slice(half + 1)}`
    for (const headers of [{ cookie: '' }, { cookie: forged }, { cookie: 'air-muster-80=' }]) {
      const reply = await ask(path, { headers, method: path.includes('upload') ? 'POST' : 'GET' })
      expect(reply.status).toBe(401)
      expect(await reply.text()).toContain('Open it at the whole address that its terminal printed')
    }
  })

  it('is let in by it once, by a cookie after that, and the key leaves the address', async () => {
    const reply = await ask(`/jobs/port-ellery/bench?key=${stack.key}&unit=hall-01`, withoutCookie)
    expect(reply.status).toBe(200)
    const page = await reply.text()
    expect(page).toContain('<meta http-equiv="refresh" content="0;url=/jobs/port-ellery/bench?unit=hall-01">')
    expect(page).not.toContain(stack.key)
    const odd = await (await ask(`/jobs/"><script>x?key=${stack.key}&a="><b>`, withoutCookie)).text()
    expect(odd).not.toMatch(/<script|<b>|""/)
    expect(reply.headers.get('set-cookie')).toMatch(/^air-muster-\d+=[\w-]{24}; Path=\/; HttpOnly; SameSite=Strict$/)
    expect((await ask('/?key=wrong', withoutCookie)).status).toBe(401)
    expect((await ask('/')).status).toBe(200)
  })

  it('is told whether the pages answer, and nothing else', async () => {
    expect(await (await ask('/api/health', withoutCookie)).json()).toEqual({
      ready: true,
      started: expect.stringMatching(/^[0-9a-f]{24}$/),
    })
  })

  it.each([
    ['a name that was made to point here', { host: 'evil.example' }],
    ["another site's page", { origin: 'http://evil.example' }],
  ])('is refused with 403 as %s, key or not', async (_what, headers) => {
    for (const path of ['/', '/api/upload/job-file']) {
      const status = await new Promise<number | undefined>((resolve) => {
        httpRequest(
          `${stack.url}${path}`,
          { method: path === '/' ? 'GET' : 'POST', headers: { cookie, ...headers } },
          (reply) => resolve(reply.resume().statusCode),
        ).end()
      })
      expect(status, path).toBe(403)
    }
  })
})

describe('every page', () => {
  it('says that there are no jobs, or not this one, and what to do', async () => {
    expect(withoutJobs).toContain('There are none yet. Begin one, or take one in from a file.')
    expect(await (await ask('/jobs/nowhere/bench')).text()).toContain('There is no such job.')
  })

  it.each(['/', '/jobs/port-ellery/plan', '/jobs/nowhere/brief', '/nowhere/at/all'])(
    'says what it may load, with a word that no other answer has: %s',
    async (path) => {
      const [first, second] = await Promise.all([ask(path), ask(path)])
      const policy = first.headers.get('content-security-policy') ?? ''
      expect(policy).toMatch(/script-src 'self' 'nonce-[A-Za-z0-9+/=]{24}' 'strict-dynamic'/)
      for (const rule of [
        "default-src 'self'",
        "object-src 'none'",
        "base-uri 'none'",
        "frame-ancestors 'none'",
        "form-action 'self'",
      ])
        expect(policy).toContain(rule)
      expect(policy).not.toBe(second.headers.get('content-security-policy'))
      expect(first.headers.get('x-content-type-options')).toBe('nosniff')
    },
  )

  it('answers odd paths and methods in their own terms, never with 500', async () => {
    const paths = [
      '/jobs/..%2f..%2fetc',
      '/jobs/%00/brief',
      '/jobs/port-ellery/%ff',
      '/jobs/%',
      '/%',
      '/jobs/port-ellery/nowhere',
      '/api/jobs/port-ellery/drawing/%2e%2e',
      '/api/jobs/%5B/as-built.csv',
      `/jobs/${'a'.repeat(3000)}`,
      '/api/events?after=x:y,port-ellery:99999999999,:::',
      '/api/jobs/port-ellery/addresses/__proto__',
      '/api/jobs/port-ellery/addresses/constructor',
    ]
    const methods = ['GET', 'HEAD', 'POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS']
    // Each method at a page and at a route, and each path by the two that read and change.
    for (const [index, path] of paths.entries())
      for (const method of index === 5 || index === 10 ? methods : ['GET', 'POST']) {
        const reply = await ask(path, {
          method,
          signal: AbortSignal.timeout(patienceMs),
          ...(method === 'POST' ? { body: 'x=1', headers: { 'content-type': 'text/plain' } } : {}),
        })
        await reply.body?.cancel()
        expect(reply.status, `${method} ${path}`).toBeLessThan(500)
      }
    const action = await ask('/jobs/port-ellery/brief', {
      method: 'POST',
      headers: { 'next-action': '00'.repeat(20), 'content-type': 'text/plain' },
      body: '[',
    })
    expect(action.status).toBeLessThan(500)
  })

  it('takes no TRACE and no second Host, and keeps no trace of an upload without the key', async () => {
    const host = `${new URL(stack.url).host}`
    const raw = (...lines: string[]): Promise<string> =>
      new Promise((resolve, reject) => {
        const { hostname, port } = new URL(stack.url)
        const socket = connect(Number(port), hostname, () => socket.write(`${lines.join('\r\n')}\r\n\r\n`))
        let reply = ''
        socket.setEncoding('latin1').on('data', (text) => {
          reply += text
        })
        socket.once('error', reject).once('close', () => resolve(reply))
      })
    const kept = [`Cookie: ${cookie}`, 'Connection: close']
    expect(await raw('TRACE / HTTP/1.1', `Host: ${host}`, ...kept)).toMatch(/^HTTP\/1\.1 405 /)
    expect(await raw('TRACE /api/health HTTP/1.1', `Host: ${host}`, ...kept)).toMatch(/^HTTP\/1\.1 405 /)
    for (const hosts of [
      [host, 'elsewhere.example'],
      ['elsewhere.example', host],
      [host, host],
    ])
      expect(await raw('GET / HTTP/1.1', ...hosts.map((each) => `Host: ${each}`), ...kept)).toMatch(/^HTTP\/1\.1 400 /)
    const log = join(folder, 'logs', 'web.log')
    const before = readFileSync(log).length
    for (const path of ['/api/upload/job-file', '/api/upload/jobs/port-ellery/drawing/hall']) {
      const reply = await ask(path, { ...withoutCookie, method: 'POST', body: new Uint8Array(8_000_000) }).catch(
        () => undefined,
      )
      // It may be answered before it has sent all of it.
      expect([401, undefined]).toContain(reply?.status)
    }
    expect((await ask('/')).status).toBe(200)
    expect(readFileSync(log).subarray(before).toString('utf8')).toBe('')
  })
})

describe('an action that is sent what no page of ours sends', () => {
  it('fails with a sentence, whatever its arguments are', async () => {
    const manifest = join(root, '.next/server/server-reference-manifest.json')
    const { node } = JSON.parse(readFileSync(manifest, 'utf8')) as { node: Record<string, { workers: object }> }
    const actions = Object.entries(node)
    expect(actions.length).toBeGreaterThan(20)
    const odd = [[1], [null, null, null, null], ['port-ellery', {}, {}, 'x'], ['port-ellery', -1, null, [[]]]]
    const replies = actions.flatMap(([id, { workers }]) =>
      odd.map(async (given) => {
        const [page = ''] = Object.keys(workers)
        const path = page.replace(/^app|\/page$/g, '').replace('[job]', 'port-ellery')
        const reply = await ask(path || '/', {
          method: 'POST',
          headers: { 'next-action': id, origin: stack.url, 'content-type': 'text/plain;charset=UTF-8' },
          body: JSON.stringify(given),
        })
        await reply.text()
        return `${reply.status} ${JSON.stringify(given)} ${id}`
      }),
    )
    expect((await Promise.all(replies)).filter((each) => !each.startsWith('200 '))).toEqual([])
  })
})

/** Reads a stream of events until these words and a whole pulse have come: it comes in pieces of any size. */
async function read(reply: Response, words: string): Promise<string> {
  const reader = reply.body?.getReader()
  const decoder = new TextDecoder()
  let streamed = ''
  while (!(streamed.includes(words) && /event: pulse\ndata: .*\n/.test(streamed)))
    streamed += decoder.decode((await reader?.read())?.value, { stream: true })
  await reader?.cancel()
  return streamed
}

describe('the stream of events', () => {
  it('brings every event after the one that a browser saw last, of each job that it names, and a pulse', async () => {
    const reply = await ask('/api/events?after=port-ellery:0,nothing:0')
    expect(reply.headers.get('content-type')).toBe('text/event-stream')
    const streamed = await read(reply, '"seq":1,')
    expect(streamed).toContain('{"job":"port-ellery","events":[{"seq":1,')
    const pulse = pulseSchema.parse(JSON.parse(/event: pulse\ndata: (.*)/.exec(streamed)?.[1] ?? ''))
    expect(pulse).toMatchObject({
      database: 'answers',
      wire: 'works',
      disk: 'has-room',
      parts: [{ name: 'database' }, { name: 'lab' }, { name: 'runner' }, { name: 'pages' }],
    })
  })
})

describe('a row that cannot be read', () => {
  it('of one job keeps the stream of another going, and does not pass for a database that is away', async () => {
    const broken = await loadJob(store, { ...demoJob(), slug: 'broken', name: 'Broken' }, new Date())
    await appendEvents(store, broken, [{ at: new Date(), event: { kind: 'log', unit: 'hall-01', told: asTold('x') } }])
    await store.db.execute(`update events set event = '{}' where job_id = ${broken}`)
    const reply = await ask('/api/events?after=broken:0,port-ellery:0')
    expect(await read(reply, '"job":"port-ellery"')).toContain('"database":"answers"')
    expect(await (await ask('/')).text()).toContain('A row of events.event cannot be read')
    expect((await ask('/jobs/broken/muster')).status).toBe(200)
    await deleteJob(store, broken, 'Broken', new Date())
  })
})

describe('a large file', () => {
  const megabytes = 1024 * 1024
  const drawing = (size: number) =>
    Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), randomBytes(size - 8)])
  const send = (floor: string, body: Buffer, type = 'image/png') =>
    ask(`/api/upload/jobs/port-ellery/drawing/${floor}`, {
      method: 'POST',
      body: new Uint8Array(body),
      headers: { 'content-type': type, 'x-file-name': 'Gr%C3%BCnplan.png' },
    })
  const kept = async () => {
    const [rows] = (await store.db.execute(
      'select count(*) as files, coalesce(sum(size), 0) as size from files',
    )) as unknown as [[{ files: number; size: string }]]
    return { files: Number(rows[0].files), size: Number(rows[0].size) }
  }

  const floor = (id: string) => ({
    ...{ id, name: id, storey: 0, heightM: 3, environment: 'indoor' as const, widthM: 30, depthM: 20 },
    ...{ drawing: null, walls: [], ...plainFloor },
  })
  beforeAll(async () => {
    const { id } = await job()
    const { version } = await loadSite(store, id)
    await saveSite(store, id, { ...emptySite, floors: ['hall', 'yard'].map(floor) }, version)
  })

  it('of 5 MB is taken as a drawing, kept once for two floors, and comes back as it was', async () => {
    const png = drawing(5 * megabytes)
    const before = await kept()
    for (const floor of ['hall', 'yard']) expect(english(await (await send(floor, png)).json())).toEqual({ ok: true })
    expect(await kept()).toEqual({ files: before.files + 1, size: before.size + png.length })
    const reply = await ask('/api/jobs/port-ellery/drawing/yard')
    expect(
      createHash('sha256')
        .update(Buffer.from(await reply.arrayBuffer()))
        .digest('hex'),
    ).toBe(createHash('sha256').update(png).digest('hex'))
    expect(
      (
        await ask('/api/jobs/port-ellery/drawing/yard', {
          headers: { 'if-none-match': reply.headers.get('etag') ?? '' },
        })
      ).status,
    ).toBe(304)
  })

  it('beyond 25 MB, or of another kind than it says, is refused in words and leaves nothing', async () => {
    const before = await kept()
    expect(english(await (await send('hall', drawing(25 * megabytes + 1))).json())).toEqual({
      ok: false,
      told: 'Grünplan.png is too large: it has more than 25 MB. Save it smaller.',
    })
    expect(english(await (await send('hall', Buffer.from('no picture'))).json())).toMatchObject({
      ok: false,
      told: 'Grünplan.png says that it is image/png, and its content is something else.',
    })
    expect(english(await (await send('hall', drawing(100), 'text/html')).json())).toMatchObject({
      ok: false,
      told: expect.stringContaining('is not a drawing that can be shown'),
    })
    for (const none of ['cellar', 'no%20floor', '%00'])
      expect(english(await (await send(none, drawing(100))).json())).toMatchObject({ ok: false })
    expect((await kept()).size - before.size).toBeLessThan(100)
  })

  it('comes with its job, and goes into no log', async () => {
    const png = drawing(4 * megabytes)
    for (const each of ['hall', 'yard']) await send(each, png)
    const file = Buffer.from(
      JSON.stringify({ ...(await exportJob(store, await job(), undefined)), slug: 'with-drawing' }),
    )
    // Base64 takes a third more.
    expect(file.length).toBeGreaterThan(5 * megabytes)
    const reply = await ask('/api/upload/job-file', {
      method: 'POST',
      body: new Uint8Array(file),
      headers: { 'content-type': 'application/json' },
    })
    expect(await reply.json()).toEqual({ ok: true, value: 'with-drawing' })
    // A job that the database refuses is refused in words, and its content is in no log either.
    for (const name of ['web.log', 'runner.log'])
      expect(readFileSync(join(folder, 'logs', name)).length, name).toBeLessThan(megabytes)
  })
})

describe('a job file', () => {
  const send = async (text: string, passphrase = '') =>
    (await (
      await ask('/api/upload/job-file', {
        method: 'POST',
        body: text,
        headers: { 'x-passphrase': encodeURIComponent(passphrase) },
      })
    ).json()) as {
      ok: boolean
      told?: Message
      field?: string
      value?: string
    }
  const jobs = async () => {
    const [rows] = (await store.db.execute(
      'select count(*) as jobs, (select count(*) from units) as units from jobs',
    )) as unknown as [[Record<string, number>]]
    return rows[0]
  }

  it('with a doubled MAC is refused with the place, and leaves no half of a job', async () => {
    const before = await jobs()
    const twin = demoJob((document) => {
      const [first, second] = document.units
      if (first && second) second.mac = first.mac
    })
    expect(english(await send(JSON.stringify(twin)))).toEqual({
      ok: false,
      told: 'This job file cannot be taken:\nunits.1.mac: hall-02 has the same MAC as hall-01: 02:4f:52:10:6a:2c',
    })
    expect(await jobs()).toEqual(before)
  })

  it('asks for its passphrase where its secrets are sealed, in whatever letters', async () => {
    const sealed = JSON.stringify({
      ...(await exportJob(store, await job(), 'Grüße vom Kai')),
      slug: 'sealed',
      drawings: [],
    })
    expect(await send(sealed, 'another one')).toMatchObject({ ok: false, field: 'passphrase' })
    expect(await send(sealed, 'Grüße vom Kai')).toEqual({ ok: true, value: 'sealed' })
  })

  it.each([
    ['nothing', '', 'This is not a job file: it is not JSON'],
    ['a tower of brackets', '['.repeat(200_000), 'This is not a job file: it is more than 64 levels deep.'],
    ['another file', '{"format":"else"}', 'this is not a job file: its format is not "air-muster-job"'],
    [
      'a card that would keep us busy',
      JSON.stringify({ ...demoJob(), slug: 'x', cards: ['! '.repeat(200_000)] }),
      'kit cards have 256 kB altogether at the most',
    ],
  ])('that is %s is refused', async (_what, text, words) => {
    expect(english((await send(text)).told)).toContain(words)
  })
})
