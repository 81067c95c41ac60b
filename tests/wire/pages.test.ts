/** The pages dialect against a stand-in that renders and takes its pages with code of its own, over real sockets. */

import { createServer, type IncomingMessage, type Server } from 'node:http'
import { type AddressInfo, connect } from 'node:net'
import fc from 'fast-check'
import { afterAll, afterEach, beforeEach, describe, expect, it } from 'vitest'
import { compare, stepOf } from '../../src/core/config/compare'
import { desiredOf } from '../../src/core/config/compile'
import { type Clear, type Config, keyText } from '../../src/core/config/unit-config'
import type { DirectCard } from '../../src/core/kit/kit-card'
import { asTold } from '../../src/core/message/message'
import { Lab } from '../../src/lab/lab'
import { endBrowser } from '../../src/wire/browser/chromium'
import type { Dialect } from '../../src/wire/dialect/dialect'
import { WireError } from '../../src/wire/errors/wire-error'
import type { Lane } from '../../src/wire/host/host'
import { dialectOf } from '../../src/wire/registry'
import { sentence } from '../../src/words/en/sentence'
import { anyBrief } from '../support/any-brief'
import { askingFor, valuesIn } from '../support/config'
import { cardOf, demoBrief, regulatory } from '../support/data'
import { labLane } from '../support/lab-lane'
import { loopbackLane } from '../support/loopback-lane'

const mac = '02:50:36:00:00:01'
const model = 'Pellworth P6'
const factory = { user: 'owner', password: 'owner' }
const card = cardOf(model) as DirectCard & { dialect: { kind: 'pages' } }
const openPages = await dialectOf('pages')
const turnedBy = (engine: 'forms' | 'browser') => ({ ...card, dialect: { ...card.dialect, engine } }) as typeof card
const kindOf = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'no error',
    (error: unknown) => (error instanceof WireError ? error.kind : String(error)),
  )

let lab: Lab
const opened: Dialect[] = []
const newLane = (): Lane => labLane(() => lab, mac, { address: '192.168.50.1', source: '192.168.50.254' })
let lane: Lane
const open = (desired: Config<Clear> | undefined, engine: 'forms' | 'browser' = 'forms', over = lane): Dialect => {
  const dialect = openPages(over, turnedBy(engine), async () => {}, desired)
  opened.push(dialect)
  return dialect
}
const device = () => lab.plugged(mac).unit
/** As a muster does it, step by step. */
async function muster(unit: Dialect, desired: Config<Clear>): Promise<void> {
  for (const step of ['country', 'clock', 'networks', 'radios', 'services', 'address'] as const) {
    const differences = compare(desired, await unit.read('configured')).filter((each) => stepOf(each) === step)
    if (differences.length > 0) await unit.write(differences, desired)
  }
}
/** What it shows otherwise than asked; what it never shows is told by its own memory. */
const left = async (unit: Dialect, desired: Config<Clear>): Promise<string[]> => {
  const observed = await unit.read('configured')
  const hidden = new Set<string>(['network.passphrase', 'clock.time', 'unit.firmware'])
  return compare(desired, observed).flatMap((each) =>
    each.kind === 'value' ? (hidden.has(each.id) ? [] : [keyText(each)]) : [sentence(each)],
  )
}

async function openLab(pace: number): Promise<void> {
  lab = await Lab.open({ pace, regulatory, shelf: [{ model, mac, serial: 'P6-1' }] })
  lab.plugInAll()
  lane = newLane()
  await expect.poll(() => device().serviceIsUp).toBe(true)
}
beforeEach(() => openLab(1000))
afterEach(async () => {
  for (const dialect of opened.splice(0)) dialect.close()
  await lab.close()
})
afterAll(() => endBrowser())

const desired = desiredOf(askingFor(model))
const signedIn = async (engine: 'forms' | 'browser' = 'forms'): Promise<Dialect> => {
  const unit = open(desired, engine)
  await unit.signIn(factory)
  return unit
}

describe.each(['forms', 'browser'] as const)('turned by %s', (engine) => {
  // A browser turns so many pages a second, and a session that nobody uses ends after five minutes of the lab's.
  beforeEach(async () => {
    if (engine === 'forms') return
    await lab.close()
    await openLab(60)
  })

  it('answers what it asks at the first time, speaks HTTPS from then on, and keeps all that is written', async () => {
    expect(lab.plugged(mac).front.loopbackPort(443)).toBeUndefined()
    const unit = open(desired, engine)
    expect(await unit.identify()).toEqual({ title: 'Pellworth P6' })
    await unit.signIn(factory)
    expect(device().configured.country).toBe('NZ')
    await muster(unit, desired)
    expect(await left(unit, desired)).toEqual([])
    const [network] = Object.values(desired.networks)
    for (const { passphrase, on } of device().configured.networks)
      expect({ passphrase, on }).toEqual({ passphrase: network?.['network.passphrase'], on: true })
    expect(await unit.staging?.standing()).toBe('waiting')
  })

  it('says what the unit says where it refuses, and changes nothing', async () => {
    const unit = await signedIn(engine)
    const observed = await unit.read('configured')
    const named = { ...desired, unit: { ...desired.unit, 'management.address': 'no address' } }
    const differences = compare(named, observed).filter(
      (each) => each.kind === 'value' && each.id === 'management.address',
    )
    const refusal = await unit.write(differences, named).catch((error: unknown) => error)
    expect(refusal).toMatchObject({ kind: 'rejected', told: asTold('no address is no address.') })
    expect(device().configured.wired.address).toBe('192.168.50.1')
  })
})

it('takes nothing that a brief can hold for markup, and reads it back as it was', async () => {
  const unit = await signedIn()
  const nasty = [
    '"><script>alert(1)</script>',
    "it's & co",
    '</form>',
    '&quot;',
    ' lead and trail ',
    'Ünïcödé 東京',
    '{{slot}}',
  ]
  for (const ssid of nasty) {
    const [id = ''] = Object.keys(desired.networks)
    const network = { ...desired.networks[id], 'network.ssid': ssid, 'network.passphrase': '"> &amp; <b>\\' }
    const asked = { ...desired, networks: { [id]: network } }
    const again = open(asked)
    unit.close()
    await again.signIn(factory)
    await again.write(compare(asked, await again.read('configured')), asked)
    expect(device().configured.networks.map(({ name, passphrase }) => ({ name, passphrase }))).toEqual(
      network['network.bands']?.map(() => ({ name: ssid, passphrase: '"> &amp; <b>\\' })),
    )
    expect(valuesIn(await again.read('configured')).networks[id]?.['network.ssid']).toBe(ssid)
    again.close()
  }
})

it('whatever the brief: all that the model can is kept, and read back from its pages', async () => {
  // Its sessions end by themselves: a slow machine gets as long as a person would take.
  await lab.close()
  await openLab(60)
  await fc.assert(
    fc.asyncProperty(anyBrief, async (brief) => {
      const carried = brief.networks.filter(({ security }) => card.limits.security.includes(security))
      const asked = desiredOf(askingFor(model, { ...brief, networks: carried }))
      device().pressReset(10)
      await expect.poll(() => device().serviceIsUp, { interval: 5 }).toBe(true)
      const unit = open(asked, 'forms', newLane())
      await unit.signIn(factory)
      await muster(unit, asked)
      // Under DHCP the address is the server's to give.
      const rest = (await left(unit, asked)).filter(
        (each) => brief.addressing === 'static' || !each.startsWith('management.'),
      )
      expect(rest).toEqual([])
      expect(device().configured.networks.every(({ mode, meantOpen }) => mode !== 'open' || meantOpen)).toBe(true)
      unit.close()
    }),
    { numRuns: 5 },
  )
})

it('knows two networks of one name apart by their bands', async () => {
  const [crew] = demoBrief.networks
  if (!crew) throw new Error('the demo has a network')
  const networks = [
    { ...crew, id: 'low', ssid: 'Ellery', bands: ['2.4' as const] },
    { ...crew, id: 'high', ssid: 'Ellery', bands: ['5' as const], security: 'wpa3-personal' as const, vlan: 47 },
  ]
  const asked = desiredOf(askingFor(model, { ...demoBrief, networks }))
  const unit = open(asked)
  await unit.signIn(factory)
  await muster(unit, asked)
  expect(await left(unit, asked)).toEqual([])
  expect(
    device()
      .configured.networks.map(({ bands, mode }) => [bands[0], mode])
      .sort(),
  ).toEqual([
    ['2.4', 'wpa2-personal'],
    ['5', 'wpa3-personal'],
  ])
})

it('sends no password of the job over plain HTTP', async () => {
  const unit = open(desired)
  expect(await kindOf(unit.signIn({ user: 'owner', password: 'of the job' }))).toBe('refused')
  await unit.signIn(factory)
  expect(await kindOf(open(desired, 'forms', newLane()).signIn({ user: 'owner', password: 'wrong' }))).toBe('refused')
})

it('waits for its own session to be left, and says where somebody else has one', async () => {
  const first = await signedIn()
  const elsewhere = open(desired, 'forms', newLane())
  expect(await kindOf(elsewhere.signIn(factory))).toBe('occupied')
  first.close()
  const second = open(desired)
  await second.signIn(factory)
  expect(await second.staging?.standing()).toBe('none')
})

it('signs in again where its session has ended in the middle', async () => {
  const unit = await signedIn()
  await unit.read('configured')
  // Idle for five minutes of its own.
  await new Promise((resolve) => setTimeout(resolve, 350))
  await muster(unit, desired)
  expect(await left(unit, desired)).toEqual([])
})

it('changes the password: the old one opens nothing any more', async () => {
  const unit = await signedIn()
  await unit.changePassword('owner', 'A new passw0rd')
  unit.close()
  expect(await kindOf(open(desired).signIn(factory))).toBe('refused')
  const again = open(desired)
  await again.signIn({ user: 'owner', password: 'A new passw0rd' })
  expect(await again.copies?.backup()).not.toMatch(/A new passw0rd|Secret of/)
})

it('applies what was saved, and restarts when it is told to', async () => {
  const unit = await signedIn()
  await muster(unit, desired)
  const mark = await unit.staging?.revision?.()
  await unit.staging?.apply()
  await expect.poll(() => device().effective.name).toBe('hall-01')
  expect(device().effective.wired.address).toBe(desired.unit['management.address'])
  await expect.poll(() => device().serviceIsUp).toBe(true)
  const back = open(desired, 'forms', newLane())
  await back.signIn(factory)
  expect(await back.staging?.revision?.()).toBe(mark)
  // It starts faster than a busy machine looks.
  const phases: string[] = []
  const told = device().onPhase
  device().onPhase = (phase) => {
    phases.push(phase)
    told(phase)
  }
  await back.restart?.()
  await expect.poll(() => phases).toContain('starting')
})

/** A unit that answers at its plain port, and a lane to it. */
async function serving(
  page: string | ((request: IncomingMessage, body: string) => string),
): Promise<{ lane: Lane; close: () => Promise<unknown> }> {
  const unit = createServer((request, response) => {
    let body = ''
    request.on('data', (part) => {
      body += part
    })
    request.on('end', () => {
      const text = typeof page === 'string' ? page : page(request, body)
      response.writeHead(200, { 'content-type': 'text/html' }).end(text)
    })
  })
  await new Promise<void>((resolve) => unit.listen(0, '127.0.0.1', resolve))
  return {
    lane: {
      ...newLane(),
      connect: async (asked) => {
        if (asked !== 80) throw new WireError('unreachable', 'shut')
        return connect((unit.address() as AddressInfo).port, '127.0.0.1')
      },
    },
    close: () => {
      unit.closeAllConnections()
      return new Promise((resolve) => unit.close(resolve))
    },
  }
}

it('fetches what no script draws, sends its form, and opens what is not as it is meant', async () => {
  const asked: string[] = []
  let [kept, ledBy] = ['box', '']
  const field = (value: string) => `<input name="n" value="${value}">`
  const pages: Readonly<Record<string, () => string>> = {
    '/': () => 'here',
    '/plain': () => `<form method="post">${field(kept)}<button>Keep</button></form>`,
    // Its card is wrong about this one.
    '/late': () => `<script>setTimeout(() => document.body.innerHTML = '${field('by script')}', 300)</script>`,
  }
  const unit = await serving((request, body) => {
    // Sent with what a browser opens, and with nothing else.
    const how = 'upgrade-insecure-requests' in request.headers ? 'opened' : 'fetched'
    asked.push(`${request.method} ${request.url} ${how}`)
    if (request.method === 'POST') ledBy = request.headers.referer ?? ''
    if (request.method === 'POST') kept = new URLSearchParams(body).get('n') ?? ''
    const said = request.method === 'POST' ? '<b class="saved">Saved</b>' : ''
    return `<title>Pellworth P6</title><body>${said}${pages[request.url ?? '']?.() ?? ''}`
  })
  const page = (path: string, id: string) => ({
    ...{ path, per: 'unit', reach: [], ready: [], fills: [], confirms: [], press: 'button', radios: {} },
    ...{ clears: [], resetsOthers: false, fields: { [id]: { at: 'input[name=n]' } } },
  })
  const plain = {
    ...card,
    dialect: {
      ...{ ...card.dialect, scheme: 'http', engine: 'browser', scripted: [], mac: undefined, state: undefined },
      ...{ signIn: { by: 'basic', page: '/' }, says: { saved: '.saved' }, signOut: undefined },
      pages: [page('/plain', 'unit.name'), { ...page('/late', 'unit.location'), ready: ['input[name=n]'] }],
    } as unknown as (typeof card)['dialect'],
  }
  const dialect = openPages(unit.lane, plain, async () => {}, desired)
  opened.push(dialect)
  await dialect.signIn(factory)
  const { 'unit.name': name, 'unit.location': location } = valuesIn(await dialect.read('configured')).unit
  expect({ name, location }).toEqual({ name: 'box', location: 'by script' })
  expect(asked).toContain('GET /plain fetched')
  expect(asked).not.toContain('GET /plain opened')
  expect(asked).toContain('GET /late opened')
  const difference = { kind: 'value', id: 'unit.name', of: '', ...asTold('') } as const
  await dialect.write([difference], desired)
  expect(kept).toBe(desired.unit['unit.name'])
  expect(asked).toContain('POST /plain fetched')
  expect(ledBy).toMatch(/\/plain$/)
  await unit.close()
})

describe('a browser on a lane', () => {
  let elsewhere: Server
  let heard: string[] = []
  beforeEach(async () => {
    heard = []
    elsewhere = createServer((request, response) => {
      heard.push(request.url ?? '')
      response.end('here')
    })
    await new Promise<void>((resolve) => elsewhere.listen(0, '127.0.0.1', resolve))
  })
  afterEach(() => new Promise<unknown>((resolve) => elsewhere.close(resolve)))

  it('never leaves it: what a page says of another host gets nothing', async () => {
    const { port } = elsewhere.address() as AddressInfo
    const there = `127.0.0.1:${port}`
    const page = `<!doctype html><title>Pellworth P6</title><img src="http://${there}/image">
      <script src="http://${there}/script"></script>
      <link rel="stylesheet" href="http://${there}/style"><iframe src="http://${there}/frame"></iframe>
      <script>fetch('http://${there}/fetch').catch(() => {}); navigator.sendBeacon('http://${there}/beacon', 'x');
      new WebSocket('ws://${there}/socket'); location.hash = 'done'</script>
      <form id="enter"><input name="who"><input name="word" type="password"><button>go</button></form>`
    const unit = await serving(page)
    const dialect = open(desired, 'browser', unit.lane)
    expect(await dialect.identify()).toEqual({ title: 'Pellworth P6' })
    await new Promise((resolve) => setTimeout(resolve, 500))
    expect(heard).toEqual([])
    // The server that nobody may reach is there all the same.
    expect(await (await fetch(`http://${there}/direct`)).text()).toBe('here')
    dialect.close()
    await unit.close()
  })

  it('waits for a page whose root is not there yet, as between two pages', async () => {
    const page = `<!doctype html><title>Pellworth P6</title><form id="enter"><input name="who"></form>
      <script>const root = document.documentElement; root.remove()
      setTimeout(() => document.append(root), 400)</script>`
    const unit = await serving(page)
    expect(await open(desired, 'browser', unit.lane).identify()).toEqual({ title: 'Pellworth P6' })
    await unit.close()
  })

  it('ends with the certificate that is not the pinned one, before a byte of a page is asked for', async () => {
    const first = await signedIn('browser')
    first.close()
    const pin = async (): Promise<void> => {
      throw new WireError('untrusted', 'another certificate')
    }
    const again = openPages(newLane(), turnedBy('browser'), pin, desired)
    opened.push(again)
    expect(await kindOf(again.identify())).toBe('untrusted')
  })
})

it('takes no page that is shown while it starts again for its settings', async () => {
  let [kept, away] = ['1', 0]
  const server = createServer((request, response) => {
    const answer = (body: string) => response.setHeader('content-type', 'text/html').end(body)
    if (request.method !== 'POST') {
      if (away === 0)
        return void answer(`<i>${mac}</i><form method="post"><input name="jobs" value="${kept}"><button>Keep</button>`)
      away -= 1
      return void answer('<p>One moment, please')
    }
    let text = ''
    request.on('data', (part) => {
      text += part
    })
    request.on('end', () => {
      kept = new URLSearchParams(text).get('jobs') ?? ''
      away = 2
      answer('<b class="kept">Kept')
    })
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  try {
    const plain: typeof card = {
      ...card,
      factory: { ...card.factory, port: (server.address() as AddressInfo).port },
      dialect: {
        ...card.dialect,
        scheme: 'http',
        signIn: { by: 'basic', page: '/' },
        mac: { page: '/', at: 'i' },
        says: { saved: '.kept', refused: '.refused' },
        first: [],
        pages: [
          {
            ...{ path: '/', per: 'unit', reach: [], ready: [], fills: [], confirms: [], press: 'button', radios: {} },
            resetsOthers: false,
            fields: { 'unit.name': { at: 'input[name=jobs]' } },
          },
        ],
        state: undefined,
        signOut: undefined,
      } as unknown as (typeof card)['dialect'],
    }
    const asked = { unit: { 'unit.name': '7' }, networks: {}, radios: {} } as Config<Clear>
    const unit = openPages(loopbackLane(mac), plain, async () => {}, asked)
    opened.push(unit)
    await unit.signIn(factory)
    await unit.write(compare(asked, await unit.read('configured')), asked)
    expect(valuesIn(await unit.read('configured'))).toEqual(asked)
  } finally {
    server.close()
  }
})
