/** Our YANG module, and the data that goes over the wire, judged by yanglint and by a server that nobody here wrote. */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
// @ts-expect-error scripts are plain JavaScript
import { compiledModels } from '../../scripts/lib/yang.mjs'
// @ts-expect-error the same
import { shapeOf, treeSchemaText } from '../../scripts/lib/yang-shape.mjs'
import { compare } from '../../src/core/config/compare'
import { LabClock } from '../../src/lab/device/clock'
import { Device } from '../../src/lab/device/device'
import { ostrelO20, ostrelO40 } from '../../src/lab/device/sheet'
import type { StandInSheet } from '../../src/lab/device/stand-in-sheet'
import { carryOut } from '../../src/lab/fronts/yang/carry-out'
import { decode } from '../../src/lab/fronts/yang/decode'
import { encode, encodeOperational } from '../../src/lab/fronts/yang/encode'
import type { Node } from '../../src/lab/fronts/yang/tree'
import { loadRegulatory } from '../../src/store/regulatory-file'
import { editsFor } from '../../src/wire/dialect/yang/edits'
import { toObserved } from '../../src/wire/dialect/yang/read'
import { desiredFor, testMac } from '../support/config'
import { mixedBrief } from '../support/whole-brief'

const model = join(import.meta.dirname, '../../models/air-muster-wireless.yang')
const ietf = '/usr/share/yuma/modules/ietf'
const nmda = '/usr/share/yuma/nmda-modules/ietf'
const modules = [
  `${ietf}/ietf-system@2014-08-06.yang`,
  `${nmda}/ietf-interfaces@2018-02-20.yang`,
  `${nmda}/ietf-ip@2018-02-22.yang`,
  `${nmda}/ietf-routing@2018-03-13.yang`,
  `${nmda}/ietf-ipv4-unicast-routing@2018-03-13.yang`,
  `${ietf}/iana-if-type@2014-05-08.yang`,
  `${ietf}/ietf-netconf-acm@2018-02-14.yang`,
  model,
]
const features = [
  '-F',
  'ietf-system:ntp,local-users,authentication,timezone-name',
  '-F',
  'air-muster-wireless:staged,saving,time-zone-rule',
]
const folder = mkdtempSync(join(tmpdir(), 'air-muster-yang-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

function yanglint(...args: string[]): { good: boolean; words: string } {
  const result = spawnSync('yanglint', ['-p', nmda, '-p', ietf, ...features, ...args], { encoding: 'utf8' })
  return { good: result.status === 0, words: result.stdout + result.stderr }
}

function judge(type: 'config' | 'get', data: unknown): { good: boolean; words: string } {
  const file = join(folder, `${type}.json`)
  writeFileSync(file, JSON.stringify(data))
  return yanglint('-t', type, ...modules, file)
}

const boxed = (sheet: StandInSheet = ostrelO40): Device =>
  new Device(sheet, { mac: testMac, serial: 'S-1' }, new LabClock(1000), loadRegulatory())
const whole = (unit: Device): Node => encode(unit.configured, unit.sheet, 'with')

const wireless = 'air-muster-wireless:wireless'
const services = 'air-muster-wireless:services'
const octets = (text: string) => Buffer.from(text).toString('base64')
const secured = { mode: 'wpa2-personal', passphrase: 'eight or more' }
const network = (more: object = {}) => ({ id: 'crew', ssid: octets('Crew'), band: ['5'], security: secured, ...more })
/** A unit's data with one network more, or something else in the place of its own. */
const withNetwork =
  (...more: object[]) =>
  (tree: Node) => ({
    ...tree,
    [wireless]: { ...(tree[wireless] as Node), network: more },
  })
const withRadio = (more: object) => (tree: Node) => ({
  ...tree,
  [wireless]: {
    ...(tree[wireless] as Node),
    radio: ((tree[wireless] as Node).radio as Node[]).map((each) => (each.band === '5' ? { ...each, ...more } : each)),
  },
})
const withServices = (more: object) => (tree: Node) => ({
  ...tree,
  [services]: { ...(tree[services] as Node), ...more },
})

/** What a careless client would send. */
const wrong: [string, (tree: Node) => unknown][] = [
  ['a network that does not say how it is secured', withNetwork(network({ security: {} }))],
  ['a network without any word of security', withNetwork({ id: 'crew', ssid: octets('Crew'), band: ['5'] })],
  ['WPA2-Personal without a passphrase', withNetwork(network({ security: { mode: 'wpa2-personal' } }))],
  ['a passphrase of seven', withNetwork(network({ security: { mode: 'wpa2-personal', passphrase: 'seven77' } }))],
  [
    'a passphrase that is not ASCII',
    withNetwork(network({ security: { mode: 'wpa2-personal', passphrase: 'café au lait' } })),
  ],
  ['an open network said once', withNetwork(network({ security: { mode: 'open' } }))],
  [
    'an open network with a passphrase',
    withNetwork(network({ security: { mode: 'open', 'open-confirmed': true, passphrase: 'eight or more' } })),
  ],
  [
    'SAE with a key of hexadecimal digits',
    withNetwork(network({ security: { mode: 'wpa3-personal', pmf: 'required', passphrase: 'a'.repeat(64) } })),
  ],
  [
    'WPA3-Personal without protected management frames',
    withNetwork(network({ security: { mode: 'wpa3-personal', pmf: 'off', passphrase: 'eight or more' } })),
  ],
  [
    'WPA3/WPA2 mixed without protected frames',
    withNetwork(network({ security: { mode: 'wpa3-wpa2-mixed', pmf: 'off', passphrase: 'eight or more' } })),
  ],
  ['WPA2-Personal at 6 GHz', withNetwork(network({ band: ['5', '6'] }))],
  [
    'an open network at 6 GHz',
    withNetwork(network({ band: ['6'], security: { mode: 'open', 'open-confirmed': true } })),
  ],
  [
    'fast roaming without a key',
    withNetwork(network({ security: { mode: 'owe' }, 'fast-roaming': true, 'mobility-domain': 7 })),
  ],
  ['OWE without protected frames', withNetwork(network({ security: { mode: 'owe', pmf: 'optional' } }))],
  ['OWE with a passphrase', withNetwork(network({ security: { mode: 'owe', passphrase: 'eight or more' } }))],
  ['WPA3-Enterprise without a server', withNetwork(network({ security: { mode: 'wpa3-enterprise' } }))],
  ['WPA2-Enterprise without a server', withNetwork(network({ security: { mode: 'wpa2-enterprise' } }))],
  [
    'WPA2-Enterprise without a shared secret',
    withNetwork(
      network({ security: { mode: 'wpa2-enterprise', radius: { server: [{ address: '10.0.0.1', port: 1812 }] } } }),
    ),
  ],
  ['TKIP', withNetwork(network({ security: { ...secured, cipher: 'tkip' } }))],
  ['an SSID of 33 octets', withNetwork(network({ ssid: octets('é'.repeat(16).concat('x')) }))],
  ['an SSID of none', withNetwork(network({ ssid: '' }))],
  ['a network without a band', withNetwork(network({ band: [] }))],
  ['one name twice on a band', withNetwork(network(), network({ id: 'again' }))],
  ['VLAN 4095', withNetwork(network({ vlan: 4095 }))],
  ['fast roaming without a mobility domain', withNetwork(network({ 'fast-roaming': true }))],
  ['steering above a signal where nothing is steered', withNetwork(network({ 'steering-above': -70 }))],
  ['hours without a day', withNetwork(network({ hours: { day: [], from: '07:00', to: '22:00' } }))],
  ['half past twenty-four', withNetwork(network({ hours: { day: ['mon'], from: '24:30', to: '22:00' } }))],
  ['a channel of another band', withRadio({ channel: 6 })],
  ['a width that there is not', withRadio({ width: 30 })],
  ['a power that is no decimal', withRadio({ power: 17 })],
  ['a power of an electric kettle', withRadio({ power: '63.0' })],
  ['a beacon every second second', withRadio({ 'beacon-interval': 2000 })],
  ['SNMP without keys', withServices({ snmp: { user: 'watch' } })],
  ['mail to nobody', withServices({ mail: { server: 'mail.example' } })],
  ['a leaf that there is not', withServices({ colour: 'red' })],
  ['a country in small letters', (tree) => ({ ...tree, [wireless]: { ...(tree[wireless] as Node), country: 'nz' } })],
]

describe('yanglint', () => {
  it('accepts our module with the IETF modules that it needs, without a warning', () => {
    expect(yanglint(...modules)).toEqual({ good: true, words: '' })
  })

  it.each([ostrelO40, ostrelO20])('accepts what a boxed $model serves as its configuration and state', (sheet) => {
    const unit = boxed(sheet)
    expect(judge('config', whole(unit))).toMatchObject({ good: true })
    unit.powerOn()
    // What is hidden is not there to be judged: a client sees no passphrase, and no key.
    const shown = encodeOperational({ ...view(unit), configured: unit.configured } as Device)
    expect(judge('get', shown)).toEqual({ good: true, words: '' })
  })

  it('accepts what a unit has after every setting was written', () => {
    const unit = boxed()
    const desired = desiredFor('Ostrel O-40', mixedBrief)
    const read = () =>
      toObserved({
        configured: whole(unit),
        operational: whole(unit),
        asked: 'configured',
        managementInterface: 'uplink',
        admin: 'setup',
        at: 0,
      })
    for (let round = 0; round < 2; round += 1) {
      const place = { managementInterface: 'uplink', admin: 'setup', present: whole(unit) }
      carryOut(unit, editsFor(compare(desired, read()), desired, place))
    }
    expect(judge('config', whole(unit))).toEqual({ good: true, words: '' })
    // No unit shows a password.
    expect(compare(desired, read()).map((each) => each.kind === 'value' && each.id)).toEqual([
      'clock.time',
      'admin.further-passwords',
    ])
  })

  it.each(wrong)('refuses %s, and so does the stand-in', (_what, change) => {
    const unit = boxed()
    const data = change(whole(unit))
    const verdict = judge('config', data)
    expect(verdict.good, JSON.stringify(data)).toBe(false)
    expect(() => decode(data as Node, unit.sheet)).toThrow()
  })

  it('accepts what those are changed from: the judge can say yes', () => {
    const unit = boxed()
    const data = withNetwork(network())(whole(unit))
    expect(judge('config', data)).toEqual({ good: true, words: '' })
    expect(() => decode(data, unit.sheet)).not.toThrow()
  })
})

it('gave the shape and the schema that stand-ins and the netconf dialect go by', () => {
  const models = compiledModels()
  const root = join(import.meta.dirname, '../..')
  expect(JSON.parse(readFileSync(join(root, 'models/shape.json'), 'utf8'))).toEqual(shapeOf(models))
  // As it stands there the formatter has been over it.
  const plain = (text: string): string => text.replaceAll(/[\s,;()"'\\]/g, '')
  const written = readFileSync(join(root, 'models/tree-schema.ts'), 'utf8')
  expect(plain(written) === plain(treeSchemaText(models))).toBe(true)
})

/** A unit that shows all of its secrets, so that the rules on them can be judged. */
function view(unit: Device): object {
  return {
    sheet: { ...unit.sheet, showsPassphrases: true },
    effective: unit.effective,
    wired: unit.wired,
    identity: unit.identity,
    changes: unit.changes,
    time: unit.time,
    air: () => unit.air(),
  }
}
