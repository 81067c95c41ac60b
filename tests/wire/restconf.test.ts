import { createServer, type Server } from 'node:https'
import type { AddressInfo } from 'node:net'
import { connect } from 'node:net'
import { generate } from 'selfsigned'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { compare } from '../../src/core/config/compare'
import { asObserved, type Clear, type Config } from '../../src/core/config/unit-config'
import { Lab } from '../../src/lab/lab'
import { loadRegulatory } from '../../src/store/regulatory-file'
import type { Dialect } from '../../src/wire/dialect/dialect'
import { restconf } from '../../src/wire/dialect/restconf/restconf'
import { WireError } from '../../src/wire/errors/wire-error'
import type { Lane } from '../../src/wire/host/host'
import { desiredFor, valuesIn } from '../support/config'
import { mixedBrief } from '../support/whole-brief'

const mac = '02:4f:52:00:00:01'
const anyPin = async (): Promise<void> => {}
const kindOf = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'no error',
    (error: unknown) => (error instanceof WireError ? error.kind : String(error)),
  )
const laneTo = (port: number): Lane => ({
  mac,
  address: '192.168.77.1',
  prefix: 24,
  source: '192.168.77.254',
  connect: async () => connect(port, '127.0.0.1'),
  datagrams: () => Promise.reject(new Error('it takes none')),
  ping: async () => true,
  close: async () => {},
})

describe('the restconf dialect with an Ostrel O-40', () => {
  let lab: Lab
  let unit: Dialect
  let fingerprint = ''

  beforeEach(async () => {
    lab = await Lab.open({
      // It applies for a third of a second: long enough to be asked meanwhile, also on a busy machine.
      pace: 300,
      regulatory: loadRegulatory(),
      shelf: [{ model: 'Ostrel O-40', mac, serial: 'S-1' }],
    })
    lab.plugInAll()
    unit = restconf(laneTo(lab.plugged(mac).front.loopbackPort(443) ?? 0), {
      port: 443,
      managementInterface: 'uplink',
      pin: async (shown) => {
        fingerprint = shown
      },
    })
  })
  afterEach(async () => {
    unit.close()
    await lab.close()
  })

  const signedIn = async (): Promise<Config<Clear>> => {
    await unit.signIn({ user: 'setup', password: 'setup' })
    return valuesIn(await unit.read('configured'))
  }
  const writeTo = async (wanted: Config<Clear>): Promise<void> =>
    unit.write(compare(wanted, await unit.read('configured')), wanted)

  it('learns who answers before it signs in, and sees its certificate', async () => {
    expect(await unit.identify()).toEqual({ realm: 'Ostrel O-40' })
    expect(fingerprint).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/)
  })

  it('is refused with a wrong password', async () => {
    expect(await kindOf(unit.signIn({ user: 'setup', password: 'wrong' }))).toBe('refused')
  })

  it('sends nothing to a unit whose certificate is not the pinned one', async () => {
    const other = restconf(laneTo(lab.plugged(mac).front.loopbackPort(443) ?? 0), {
      port: 443,
      managementInterface: 'uplink',
      pin: async () => {
        throw new WireError('untrusted', 'changed')
      },
    })
    expect(await kindOf(other.signIn({ user: 'setup', password: 'setup' }))).toBe('untrusted')
    other.close()
  })

  it('notices that another unit answers on its lane', async () => {
    const other = restconf(
      { ...laneTo(lab.plugged(mac).front.loopbackPort(443) ?? 0), mac: '02:4f:52:00:00:02' },
      { port: 443, managementInterface: 'uplink', pin: anyPin },
    )
    expect(await kindOf(other.signIn({ user: 'setup', password: 'setup' }))).toBe('wrong-unit')
    other.close()
  })

  it('writes over nothing that somebody else has changed since it was read', async () => {
    const found = await signedIn()
    const other = restconf(laneTo(lab.plugged(mac).front.loopbackPort(443) ?? 0), {
      port: 443,
      managementInterface: 'uplink',
      pin: anyPin,
    })
    await other.signIn({ user: 'setup', password: 'setup' })
    const named = (name: string): Config<Clear> => ({ ...found, unit: { ...found.unit, 'unit.name': name } })
    await other.write(compare(named('theirs'), await other.read('configured')), named('theirs'))
    other.close()
    const late = unit.write(compare(named('ours'), asObserved(found)), named('ours'))
    expect(await kindOf(late)).toBe('overtaken')
    expect(valuesIn(await unit.read('configured')).unit['unit.name']).toBe('theirs')
    await writeTo(named('ours'))
    expect(valuesIn(await unit.read('configured')).unit['unit.name']).toBe('ours')
  })

  it('finds channels and powers reset after a change of country', async () => {
    const found = await signedIn()
    expect(found.radios['5']).toMatchObject({ 'radio.channel': 36, 'radio.width': 80, 'radio.power': 17 })
    await writeTo({ ...found, unit: { ...found.unit, 'unit.country': 'JP' } })
    const after = valuesIn(await unit.read('configured'))
    expect(after.unit['unit.country']).toBe('JP')
    expect(after.radios['5']).toMatchObject({ 'radio.channel': 36, 'radio.width': 20, 'radio.power': 5 })
  })

  it('reads back all that it wrote, and shows no key of SNMP or RADIUS', async () => {
    await signedIn()
    const wanted = desiredFor('Ostrel O-40', mixedBrief)
    await writeTo({ ...wanted, radios: {} })
    await writeTo(wanted)
    const left = compare(wanted, await unit.read('configured')).map((each) => each.kind === 'value' && each.id)
    // The clock is right once its time server is in effect; what is hidden is told apart by marks.
    expect(left).toEqual([
      'clock.time',
      'admin.further-passwords',
      'services.snmp-authentication',
      'services.snmp-privacy',
      'network.radius-secret',
    ])
    expect(await unit.staging?.standing()).toBe('waiting')
    expect(await unit.copies?.backup()).not.toContain('Secret of snmp')
  })

  it('tells on which side of its primary the second channel of 2.4 GHz lies', async () => {
    const found = await signedIn()
    const low = { ...found.radios['2.4'], 'radio.channel': 6, 'radio.width': 40, 'radio.secondary': 'below' as const }
    await writeTo({ ...found, radios: { ...found.radios, '2.4': low } })
    const after = valuesIn(await unit.read('configured'))
    expect(after.radios['2.4']).toMatchObject({ 'radio.width': 40, 'radio.secondary': 'below' })
  })

  it('gives the unit’s own reason for a channel that its country forbids, and leaves all as it was', async () => {
    const found = await signedIn()
    const wanted = {
      unit: { ...found.unit, 'unit.name': 'changed' },
      networks: found.networks,
      radios: { ...found.radios, '2.4': { ...found.radios['2.4'], 'radio.channel': 13 } },
    }
    const rejection = await writeTo(wanted).catch((error: unknown) => error)
    expect(rejection).toMatchObject({ kind: 'rejected' })
    expect(String(rejection)).toContain('Channel 13 at 20 MHz is not legal in US')
    const after = valuesIn(await unit.read('configured'))
    expect({ ...after.unit, 'clock.time': 0 }).toEqual({ ...found.unit, 'clock.time': 0 })
    expect(after.radios).toEqual(found.radios)
  })

  it('changes the password at once: the old one is refused in the next session', async () => {
    await signedIn()
    await unit.changePassword('setup', 'a-new-password')
    expect(await kindOf(unit.signIn({ user: 'setup', password: 'setup' }))).toBe('refused')
    expect(await kindOf(unit.signIn({ user: 'setup', password: 'a-new-password' }))).toBe('no error')
    expect(await unit.copies?.backup()).not.toContain('a-new-password')
  })

  it('is refused changes while it applies, and answers at the new address after', async () => {
    const found = await signedIn()
    await writeTo({ ...found, unit: { ...found.unit, 'management.address': '10.44.8.20' } })
    const late = { ...found, unit: { ...found.unit, 'unit.name': 'late' } }
    // It applies for a moment at this pace: nothing is read in between.
    const differences = compare(late, asObserved(found))
    await unit.staging?.apply()
    expect(await kindOf(unit.write(differences, late))).toBe('rejected')
    await expect.poll(() => lab.wire.arp('10.44.8.20')).toEqual([mac])
    expect(lab.wire.arp('192.168.77.1')).toEqual([])
  })
})

describe('a device that answers as none should', () => {
  let server: Server
  let answer: { status: number; body: string; hang?: true } = { status: 200, body: '' }
  /** What it says of itself; undefined for the same as to everything. */
  let hostMeta: string | undefined
  const asked: string[] = []
  afterEach(() => {
    hostMeta = undefined
    asked.length = 0
  })

  beforeAll(async () => {
    const { private: key, cert } = await generate([{ name: 'commonName', value: 'x' }], {
      keyType: 'ec',
      algorithm: 'sha256',
    })
    server = createServer({ key, cert }, (request, response) => {
      asked.push(request.url ?? '')
      if (hostMeta !== undefined && request.url === '/.well-known/host-meta') return void response.end(hostMeta)
      response.writeHead(answer.status, { 'content-type': 'application/yang-data+json' })
      if (answer.hang) response.write('{')
      else response.end(answer.body)
    })
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  })
  afterAll(() => {
    server.closeAllConnections()
    server.close()
  })

  const ask = async (): Promise<unknown> => {
    const device = restconf(laneTo((server.address() as AddressInfo).port), {
      port: 443,
      managementInterface: 'uplink',
      pin: anyPin,
    })
    try {
      return await device.read('configured').catch((error: unknown) => error)
    } finally {
      device.close()
    }
  }

  it.each([
    ['its own', '<XRD><Link rel="restconf" href="/management/api"/></XRD>', '/management/api'],
    ['with a slash at its end', '<XRD><Link rel="lrdd" href="/x"/><Link rel="restconf" href="/api/"/></XRD>', '/api'],
    ['on another host', '<XRD><Link rel="restconf" href="https://elsewhere.example/restconf"/></XRD>', '/restconf'],
    ['of none', '<XRD><Link rel="lrdd" href="/x"/></XRD>', '/restconf'],
    ['of a page for people', '<html><body>Welcome', '/restconf'],
  ])('is asked below the root that it tells: %s', async (_name, told, root) => {
    hostMeta = told
    await ask()
    expect(asked).toEqual(['/.well-known/host-meta', `${root}/data?content=config`])
  })

  it.each([
    ['no JSON', { status: 200, body: '<html>' }, 'garbled'],
    ['JSON of another kind', { status: 200, body: '{"ietf-restconf:data":[1]}' }, 'garbled'],
    [
      'networks that are none',
      { status: 200, body: '{"ietf-restconf:data":{"air-muster-wireless:wireless":{"network":[{"ssid":5}]}}}' },
      'garbled',
    ],
    [
      'a channel that is none',
      {
        status: 200,
        body: '{"ietf-restconf:data":{"air-muster-wireless:wireless":{"radio":[{"band":"5","channel":"x"}]}}}',
      },
      'garbled',
    ],
    ['far too much', { status: 200, body: 'x'.repeat(2 * 1024 * 1024) }, 'garbled'],
    ['a fault of its own', { status: 500, body: 'oops' }, 'garbled'],
    [
      'a rejection',
      {
        status: 400,
        body:
          '{"ietf-restconf:errors":{"error":[{"error-type":"application","error-tag":"invalid-value",' +
          '"error-message":"no\\u0007way"}]}}',
      },
      'rejected',
    ],
    ['an answer without end', { status: 200, body: '', hang: true as const }, 'timeout'],
  ])('%s', async (_name, given, kind) => {
    answer = given
    const error = await ask()
    expect(error).toMatchObject({ kind })
    expect(String(error)).not.toContain('\u0007')
  })
})
