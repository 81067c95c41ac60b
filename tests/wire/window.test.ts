/** The window on a unit's pages: what hands do reaches them, what they ask is told, and pictures come of it. */
import { createServer, type IncomingMessage, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, afterEach, beforeAll, beforeEach, expect, it } from 'vitest'
import { mostDownloadBytes, type Told } from '../../src/core/showing/window-talk'
import { endBrowser } from '../../src/wire/browser/chromium'
import type { PageFile } from '../../src/wire/window/page-files'
import { UnitWindow } from '../../src/wire/window/unit-window'
import { loopbackLane } from '../support/loopback-lane'

const pages: Readonly<Record<string, string>> = {
  '/': `<title>Unit</title><body style="margin:0">
    <form action="/kept" method="post">
      <input name="name" autofocus style="position:absolute;left:20px;top:20px;width:200px;height:30px">
      <select name="country" style="position:absolute;left:20px;top:80px;width:200px;height:30px">
        <option value="us">United States<option value="nz">New Zealand<option value="xx" disabled>Nowhere
      </select>
      <button style="position:absolute;left:20px;top:140px;width:100px;height:30px">Keep</button>
    </form>
    <button id="ask" style="position:absolute;left:20px;top:200px;width:100px;height:30px"
      onclick="location = confirm('Are you sure?') ? '/sure' : '/not-sure'">Ask</button>
    <a href="/more" target="_blank" style="position:absolute;left:20px;top:260px">more</a>`,
  '/more': '<title>More</title>',
  '/files': `<title>Files</title><body style="margin:0">
    <form action="/given" method="post" enctype="multipart/form-data">
      <input type="file" name="image" style="position:absolute;left:20px;top:20px;width:200px;height:30px">
      <button style="position:absolute;left:20px;top:60px;width:100px;height:30px">Send</button>
    </form>
    <a href="/copy.cfg" download="copy.cfg" style="position:absolute;left:20px;top:120px">keep a copy</a>
    <a href="/huge.cfg" download="huge.cfg" style="position:absolute;left:20px;top:180px">keep more</a>`,
  '/given': '<title>Given</title>',
  '/copy.cfg': 'country nz\n',
  '/busy': '<title>Busy</title><script>setTimeout(() => { for (;;); }, 50)</script>',
  '/loud': '<title>Loud</title><script>setTimeout(() => { for (;;) alert("again") }, 50)</script>',
  '/large': '<title>Large</title><script>for (let n = 0; n < 2e5; n++) document.write("<p>" + n)</script>',
  '/sure': '<title>Sure</title>',
  '/not-sure': '<title>Not sure</title>',
  '/elsewhere':
    '<title>Elsewhere</title><img src="http://127.0.0.3:PORT/spy"><script>fetch("http://127.0.0.3:PORT/spy")</script>',
}

let server: Server
let port: number
const asked: string[] = []
const kept: URLSearchParams[] = []
const given: string[] = []
const bodyOf = async (request: IncomingMessage): Promise<string> => {
  let text = ''
  for await (const part of request) text += part
  return text
}
beforeAll(async () => {
  server = createServer(async (request, response) => {
    const { url = '', headers } = request
    asked.push(`${headers.host} ${url}`)
    if (url === '/huge.cfg') return void response.end(Buffer.alloc(mostDownloadBytes + 1))
    if (url === '/given') given.push(await bodyOf(request))
    else if (request.method === 'POST') kept.push(new URLSearchParams(await bodyOf(request)))
    const login = `Basic ${Buffer.from('admin:word').toString('base64')}`
    if (url === '/locked' && headers.authorization !== login)
      return void response.writeHead(401, { 'www-authenticate': 'Basic realm="the unit"' }).end('no')
    response
      .setHeader('content-type', 'text/html; charset=utf-8')
      .end((pages[url] ?? '<title>Kept</title>').replaceAll('PORT', `${port}`))
  })
  // On every address of loopback: what a page asks of another host would arrive here too.
  await new Promise<void>((resolve) => server.listen(0, resolve))
  port = (server.address() as AddressInfo).port
})
afterAll(async () => {
  server.close()
  await endBrowser()
})

let window: UnitWindow
let told: Told[]
let pictures: Buffer[]
let files: PageFile[]
const trusted = async (): Promise<void> => undefined
const lane = (last: string) => loopbackLane(`02:00:00:00:09:${last}`)
beforeEach(async () => {
  told = []
  pictures = []
  files = []
  const keep = async (file: PageFile): Promise<void> => void files.push(file)
  window = await UnitWindow.open(lane('01'), trusted, { scheme: 'http', port }, keep)
  window.watch({ told: (each) => told.push(each), picture: (jpeg) => void pictures.push(jpeg) })
  await isAt('Unit')
})
afterEach(() => window.close('by-hand'))

const isAt = (title: string) => expect.poll(() => titles().at(-1)).toBe(title)
const titles = () => told.flatMap((each) => (each.kind === 'at' ? [each.title] : []))
const question = async (kind: Told['kind']): Promise<number> => {
  await expect.poll(() => told.some((each) => each.kind === kind)).toBe(true)
  const found = told.findLast((each) => each.kind === kind)
  return found && 'question' in found ? found.question : 0
}
const click = (x: number, y: number): void => {
  for (const phase of ['move', 'down', 'up'] as const)
    window.act({ kind: 'pointer', phase, x, y, button: phase === 'move' ? 'none' : 'left', presses: 1, modifiers: 0 })
}
const press = (key: string, code = key): void => {
  for (const phase of ['down', 'up'] as const) window.act({ kind: 'key', phase, key, code, modifiers: 0 })
}

it('shows a page as pictures, which change with what hands do', async () => {
  await expect.poll(() => pictures.length).toBeGreaterThan(0)
  expect(pictures[0]?.subarray(0, 3)).toEqual(Buffer.from([0xff, 0xd8, 0xff]))
  const before = pictures.length
  press('x', 'KeyX')
  await expect.poll(() => pictures.length).toBeGreaterThan(before)
  // Whoever comes later is shown how it stands.
  const late: Told[] = []
  const seen: Buffer[] = []
  window.watch({ told: (each) => late.push(each), picture: (jpeg) => void seen.push(jpeg) })
  expect(late).toMatchObject([{ kind: 'at', title: 'Unit' }])
  expect(seen).toHaveLength(1)
})

it('takes pointer, keys and text in their order, and chooses from a list that no picture shows', async () => {
  click(60, 35)
  press('B', 'KeyB')
  press('a', 'KeyA')
  press('Backspace')
  window.act({ kind: 'text', text: 'ō“x”' })
  click(60, 95)
  const which = await question('choices')
  expect(told.find((each) => each.kind === 'choices')).toMatchObject({
    multiple: false,
    options: [
      { label: 'United States', chosen: true, disabled: false },
      { label: 'New Zealand', chosen: false, disabled: false },
      { label: 'Nowhere', chosen: false, disabled: true },
    ],
  })
  window.act({ kind: 'choose', question: which, options: [1] })
  click(60, 155)
  await isAt('Kept')
  expect(Object.fromEntries(kept.at(-1) ?? [])).toEqual({ name: 'Bō“x”', country: 'nz' })
  window.act({ kind: 'back' })
  await isAt('Unit')
})

it.each([
  ['yes', 'Sure'],
  ['no', 'Not sure'],
] as const)('tells what the page asks, and answers %s', async (says, title) => {
  click(60, 215)
  const which = await question('asks')
  expect(told.findLast((each) => each.kind === 'asks')).toMatchObject({ of: 'confirm', words: 'Are you sure?' })
  // Hands that come meanwhile hold nothing up.
  press('Escape')
  window.act({ kind: 'answer', question: which, says })
  await isAt(title)
  expect(told.filter((each) => each.kind === 'settled')).toHaveLength(1)
})

it('asks for the login that HTTP wants, and goes without where nobody knows it', async () => {
  window.act({ kind: 'go', address: '/locked' })
  const first = await question('wants-login')
  expect(told.findLast((each) => each.kind === 'wants-login')).toMatchObject({ realm: 'the unit' })
  window.act({ kind: 'login', question: first, user: 'admin', password: 'no' })
  await expect.poll(() => question('wants-login')).toBeGreaterThan(first)
  window.act({ kind: 'login', question: await question('wants-login'), user: 'admin', password: 'word' })
  await isAt('Kept')
})

it('follows a page that opens another, and comes back when that is closed', async () => {
  click(30, 268)
  await isAt('More')
})

it('gives a page a file or none, and keeps what it offers, as far as that is no flood', async () => {
  window.act({ kind: 'go', address: '/files' })
  await isAt('Files')
  click(60, 30)
  await window.give(await question('wants-file'), undefined)
  click(60, 30)
  await expect.poll(() => told.filter(({ kind }) => kind === 'wants-file').length).toBe(2)
  await window.give(await question('wants-file'), { name: '../boot.bin', bytes: Buffer.from('an image') })
  click(60, 75)
  await isAt('Given')
  expect(given.at(-1)).toContain('filename="boot.bin"')
  expect(given.at(-1)).toContain('an image')

  window.act({ kind: 'go', address: '/files' })
  await isAt('Files')
  click(60, 130)
  await expect.poll(() => files).toEqual([{ name: 'copy.cfg', bytes: Buffer.from('country nz\n') }])
  await expect.poll(() => told.at(-1)).toEqual({ kind: 'kept', name: 'copy.cfg', bytes: 11 })
  click(60, 190)
  await expect.poll(() => told.at(-1)).toMatchObject({ kind: 'cannot', what: 'keep-download', name: 'huge.cfg' })
  expect(files).toHaveLength(1)
})

it('shows nothing of another host, whatever the page or its hands ask', async () => {
  window.act({ kind: 'go', address: '/elsewhere' })
  await isAt('Elsewhere')
  for (const address of [
    `http://127.0.0.3:${port}/`,
    'file:///etc/passwd',
    'chrome://version',
    'javascript:alert(1)',
  ]) {
    const before = told.length
    window.act({ kind: 'go', address })
    await expect.poll(() => told.slice(before)).toMatchObject([{ kind: 'failed', code: 'elsewhere' }])
  }
  expect(asked.filter((each) => each.includes('spy') || each.startsWith('127.0.0.3'))).toEqual([])
})

it('is closed though its page never ends, asks without end or is endless, and leaves other windows alone', async () => {
  const other = await UnitWindow.open(lane('02'), trusted, { scheme: 'http', port }, trusted)
  let seen = 0
  other.watch({
    told: () => undefined,
    picture: () => {
      seen += 1
    },
  })
  for (const path of ['/busy', '/loud', '/large']) {
    const hostile = await UnitWindow.open(lane('03'), trusted, { scheme: 'http', port }, trusted)
    const heard: Told[] = []
    hostile.watch({ told: (each) => heard.push(each), picture: () => undefined })
    hostile.act({ kind: 'go', address: path })
    await expect.poll(() => asked.some((each) => each.endsWith(path))).toBe(true)
    for (let answers = 0; path === '/loud' && answers < 3; answers += 1) {
      const asks = () => heard.filter((each) => each.kind === 'asks')
      await expect.poll(() => asks().length).toBeGreaterThan(answers)
      hostile.act({ kind: 'answer', question: asks().at(-1)?.question ?? 0, says: 'yes' })
    }
    const before = seen
    other.act({ kind: 'text', text: 'still here' })
    await expect.poll(() => seen).toBeGreaterThan(before)
    await hostile.close('by-hand')
    expect(heard.at(-1)).toEqual({ kind: 'closed', why: 'by-hand' })
  }
  await other.close('by-hand')
})

it('says why a page cannot be had', async () => {
  window.act({ kind: 'go', address: `http://127.0.0.1:1/` })
  await expect.poll(() => told.at(-1)).toMatchObject({ kind: 'failed', code: 'unreachable' })
})
