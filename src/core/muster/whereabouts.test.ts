import { describe, expect, it } from 'vitest'
import { cardOf } from '../../../tests/support/data'
import { whereWords } from '../../words/en/whereabouts'
import { bareCard } from '../kit/bare-card'
import type { Unit } from '../kit/unit'
import { type Heard, nothingHeard, type Sighting } from './events'
import { emptyRoll, emptyRow, type Roll } from './roll'
import { type Whereabouts, whereaboutsOf } from './whereabouts'

const mac = '02:4f:52:00:00:01'
const card = cardOf('Ostrel O-40')
const unit: Unit = {
  id: 'a',
  name: 'hall-01',
  location: 'hall',
  model: 'Ostrel O-40',
  mac,
  serial: 'S',
  port: 7,
  siteSwitch: '',
  sitePort: '',
}
const at: Sighting = {
  ...{
    mac,
    address: '192.168.77.1',
    model: 'Ostrel O-40',
    by: [],
    unit: 'a',
    seen: 'at-factory-address',
    answers: 'service',
  },
}
const began = 1_000_000
const laptop = {
  ...{ interfaceName: 'wired0', lanes: 0, vlans: [], silentVlans: [], vlanFault: null, pace: 1 },
  addresses: [{ cidr: '10.44.8.250/24', origin: 'own' as const }],
}
const found = (sightings: Sighting[], heard: Partial<Heard> = {}, more: { now?: number; roll?: Partial<Roll> } = {}) =>
  whereaboutsOf({
    ...{ unit, card, now: more.now ?? began },
    roll: { ...emptyRoll, laptop, sightings, heard: { ...nothingHeard, ...heard }, ...more.roll },
  })
const starting: Sighting = { ...at, model: null, answers: 'arp-only', since: began }
const late = began + (card.timing.start + 46) * 1000
const stray = { ...at, mac: '02:4f:52:00:00:99', unit: null }

describe('where a unit is', () => {
  it.each<[string, Whereabouts, Whereabouts['kind'], RegExp]>([
    ['that answers', found([at]), 'ready', /^ready to muster$/],
    ['that starts', found([starting]), 'starting', /^starting up$/],
    ['whose service stays shut', found([starting], {}, { now: late }), 'shut', /ten seconds. If port 443/],
    ['with another certificate', found([{ ...at, answers: 'untrusted' }]), 'untrusted', /muster it to see/],
    [
      'that was set up before',
      found([{ ...at, seen: 'elsewhere', address: '10.44.8.77' }]),
      'set-up-before',
      /reset it\. Hold/,
    ],
    ['of which there are two', found([at, { ...at, address: '10.44.8.9' }]), 'twice', /compare the labels/],
    ['that asks DHCP in vain', found([], { asking: [{ mac, says: null }] }), 'asks-dhcp', /Plug in the router/],
    ['in another subnet', found([], { onLink: [{ mac, address: '192.168.1.20' }] }), 'other-subnet', /^Reset it\. /],
    [
      'that does not answer',
      found([], { onLink: [{ mac, address: '10.44.8.30' }] }),
      'layer-2-only',
      /Give it a minute/,
    ],
    ['without an address', found([], { onLink: [{ mac, address: null }] }), 'no-address', /no address, reset it/],
    ['whose label is not as listed', found([stray]), 'other-label', /02:4f:52:00:00:99/],
    ['of which there is no sign', found([]), 'silent', /^Plug it into port 7$/],
  ])('%s has its own sentence', (_what, where, kind, move) => {
    expect(where.kind).toBe(kind)
    const words = whereWords(where, { unit, card })
    expect([words.move, ...(words.more ?? [])].join('. ')).toMatch(move)
    if (kind !== 'ready') expect(words.is).not.toBe('')
  })

  it('leaves one that no muster sets to hands, wherever it is', () => {
    for (const address of ['192.168.1.20', '10.44.8.30']) {
      const roll = { ...emptyRoll, laptop, heard: { ...nothingHeard, onLink: [{ mac, address }] } }
      const where = whereaboutsOf({ unit, card: bareCard('Hearth H1'), roll, now: began })
      expect(where).toEqual({ kind: 'for-hands', address })
      expect(whereWords(where, { unit, card: bareCard('Hearth H1') }).more).toHaveLength(1)
    }
  })

  it('says of each something else', () => {
    const all: Whereabouts[] = [
      ...[found([starting]), found([starting], {}, { now: late }), found([{ ...at, answers: 'untrusted' }])],
      ...[found([at, { ...at, address: '10.44.8.9' }]), found([], { asking: [{ mac, says: null }] }), found([stray])],
      ...[found([], { onLink: [{ mac, address: '192.168.1.20' }] }), found([]), found([at])],
      ...[found([], { onLink: [{ mac, address: '10.44.8.30' }] }), found([], { onLink: [{ mac, address: null }] })],
    ]
    const said = all.map((where) => JSON.stringify(whereWords(where, { unit, card })))
    expect(new Set(said).size).toBe(all.length)
  })

  it('counts its start by the pace of the wire, from when it was seen first', () => {
    const lab = { roll: { laptop: { ...laptop, pace: 60 } } }
    expect(found([starting], {}, lab)).toEqual({ kind: 'starting', until: began + (card.timing.start * 1000) / 60 })
    expect(found([starting], {}, { ...lab, now: began + 3000 })).toMatchObject({ kind: 'shut', port: 443 })
    // A sweep of before does not say since when.
    expect(found([{ ...starting, since: undefined }], {}, { now: late })).toMatchObject({ kind: 'starting' })
  })

  it('is not taken for set up before where it has proven itself', () => {
    const elsewhere: Sighting = { ...at, seen: 'elsewhere', address: '10.44.8.77' }
    const rows = new Map([['a', { ...emptyRow, proven: {} as never }]])
    expect(found([elsewhere], {}, { roll: { rows } }).kind).toBe('ready')
  })

  it('is in one place while it is mustered, though it is seen at two', () => {
    expect(found([at, { ...at, address: '10.44.8.9' }], {}, { roll: { muster: 'working' } }).kind).toBe('ready')
  })

  it('waits for an address where somebody gives them', () => {
    const server = { mac: '02:00:00:00:00:07', vlan: null, address: '10.44.8.1', controllers: [] }
    const heard = { asking: [{ mac, says: null }], servers: [server] }
    expect(whereWords(found([], heard), { unit, card })).toMatchObject({ tone: 'waiting' })
    expect(whereWords(found([], heard), { unit, card }).is).toMatch(/answers nowhere yet/)
  })

  it('needs a router, not a reset, where the model asks DHCP first', () => {
    const dhcpFirst = { unit, card: cardOf('Ostrel O-20') }
    expect(whereWords({ kind: 'no-address', lends: true }, dhcpFirst).move).toMatch(/^Plug in the router/)
    // What this laptop cannot do is not advised.
    const more = (lends: boolean) => whereWords({ kind: 'no-address', lends }, dhcpFirst).more
    expect([more(true)?.length, more(false)?.length]).toEqual([1, 0])
  })
})
