/** Networks in rows whose key is asked for only while one is added, in Chromium against pages of a small server. */
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, afterEach, beforeEach, expect, it } from 'vitest'
import { parse, stringify } from 'yaml'
import { compare } from '../../src/core/config/compare'
import type { Clear, Config } from '../../src/core/config/unit-config'
import { firstCard } from '../../src/core/kit/bare-card'
import { type DirectCard, readKitCard } from '../../src/core/kit/kit-card'
import { endBrowser } from '../../src/wire/browser/chromium'
import { dialectOf } from '../../src/wire/registry'
import { longIt } from '../support/long'
import { loopbackLane } from '../support/loopback-lane'

const openPages = await dialectOf('pages')
const basic = { user: 'admin', password: 'boxed' }
let server: Server
/** Key by name, as the box keeps them. */
let kept: Map<string, string>
/** Whether the page on which one is added asks for a key. */
let asksForKey: boolean
let added: number
/** How long it takes to answer a press, ms. */
let takesMs: number

const page = (path: string): string => {
  if (path === '/new')
    return (
      '<form action="/add"><label>Name <input ' +
      `name="n"></label>${asksForKey ? '<label>Key <input name="k"></label>' : ''}<button>Save</button></form>`
    )
  if (path.startsWith('/open'))
    return (
      '<form action="/rename"><label>Name <input name="n" ' +
      `value="${new URL(path, 'http://x').searchParams.get('n')}"></label><button>Save</button></form>`
    )
  const rows = [...kept.keys()].map(
    (name) =>
      `<tr><td>${name}</td><td><a href="/open?n=${name}">Open</a> <a href="/remove?n=${name}">Remove</a></td></tr>`,
  )
  return `<h1>Networks</h1><p>All is kept</p><table><tbody>${rows.join('')}</tbody></table><a href="/new">Add</a>`
}

beforeEach(async () => {
  kept = new Map([['crew', 'of before']])
  ;[asksForKey, added, takesMs] = [true, 0, 0]
  server = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://x')
    const [name, key] = [searchParams.get('n') ?? '', searchParams.get('k') ?? '']
    if (pathname === '/add') {
      kept.set(name, key)
      added += 1
    }
    if (pathname === '/remove') kept.delete(name)
    const answer = (): void => void response.setHeader('content-type', 'text/html').end(page(request.url ?? '/'))
    if (pathname === '/add') setTimeout(answer, takesMs)
    else answer()
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
})
afterEach(() => void server.close())
afterAll(() => endBrowser())

const at = (use: string, by: object) => ({ use, by: [by] })
const cardOf = (port: number): DirectCard => {
  const card = parse(firstCard('Bench rows')) as Record<string, unknown>
  const reading = readKitCard(
    stringify({
      ...card,
      factory: { address: '127.0.0.1', prefix: 8, addressing: 'static', login: basic, port },
      can: { 'network.ssid': null, 'network.bands': null, 'network.passphrase': { readable: 'no' } },
      dialect: {
        ...{ kind: 'pages', engine: 'browser', scheme: 'http', signIn: { by: 'basic', page: '/' } },
        says: { saved: at('show', { text: 'All is kept' }) },
        pages: [{ path: '/', fields: {} }],
        networksAre: { 'network.bands': ['2.4', '5'] },
        rows: {
          ...{ path: '/', row: 'tbody tr', name: { at: 'td:nth-child(1)' } },
          ...{ add: at('press', { text: 'Add' }), open: at('press', { text: 'Open' }) },
          remove: { press: at('press', { text: 'Remove' }) },
          fields: {
            'network.ssid': { at: at('type', { label: 'Name' }) },
            'network.passphrase': { at: at('type', { label: 'Key' }) },
          },
          press: at('press', { text: 'Save' }),
        },
      },
    }),
  )
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
  return reading.card as DirectCard
}

const asked: Config<Clear> = {
  unit: {},
  networks: { crew: { 'network.ssid': 'crew', 'network.passphrase': 'of-today-7', 'network.bands': ['2.4', '5'] } },
  radios: {},
}

async function written(): Promise<void> {
  const { port } = server.address() as AddressInfo
  const unit = openPages(loopbackLane('02:63:75:00:00:01'), cardOf(port), async () => {}, asked)
  try {
    await unit.signIn(basic)
    await unit.write(compare(asked, await unit.read('configured')), asked)
  } finally {
    unit.close()
  }
}

it('are made anew where a key is asked for only while one is added', async () => {
  await written()
  expect([...kept]).toEqual([['crew', 'of-today-7']])
})

it('stay as they are where nothing asks for a key', async () => {
  asksForKey = false
  await expect(written()).rejects.toMatchObject({ kind: 'garbled' })
  expect([...kept]).toEqual([['crew', 'of before']])
  expect(added).toBe(0)
})

longIt('are waited for where a press is answered after longer than any page takes', async () => {
  takesMs = 12_000
  await written()
  expect([...kept]).toEqual([['crew', 'of-today-7']])
})
