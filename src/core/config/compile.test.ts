import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { type Brief, briefSchema } from '../brief/brief'
import { briefMeaning } from '../brief/meaning'
import { reviewBrief } from '../brief/review'
import { readKitCard } from '../kit/kit-card'
import { reviewRoster } from '../kit/roster'
import type { Unit } from '../kit/unit'
import { readRegulatoryDatabase } from '../regulatory/database'
import { compare, withoutSecret } from './compare'
import { compile } from './compile'
import { makePlan } from './plan'

const data = join(import.meta.dirname, '../../../data')
const reading = readKitCard(readFileSync(join(data, 'kit/ostrel-o-40.yaml'), 'utf8'))
if (!reading.ok) throw new Error('the card is faulty')
const { card } = reading
const regulatory = readRegulatoryDatabase(readFileSync(join(data, 'regulatory.db')))
const countryOf = (code: string) => {
  const found = regulatory.get(code)
  if (!found) throw new Error(`no ${code}`)
  return found
}
const demo: Brief = briefSchema.parse(parse(readFileSync(join(data, 'demo/port-ellery.yaml'), 'utf8')).brief)
const unit: Unit = { id: 'hall-01', name: 'hall-01', place: '', model: 'Ostrel O-40', mac: '02:4f:52:10:6a:2c', serial: '', port: 1 }
const cards = new Map([['Ostrel O-40', card]])
const secrets = new Map([
  ['network/crew/passphrase', 'eight or more'],
  ['admin/password', 'Strong-password-1'],
])
const compileWith = (brief: Brief, locks = {}, given = secrets) => {
  const country = countryOf(brief.country)
  const { plans, faults } = makePlan(brief, [unit], cards, country, new Map([['hall-01', { address: undefined, locks }]]))
  const [plan] = plans
  if (!plan) throw new Error(faults.map((fault) => fault.sentence).join())
  return compile({ brief, unit, plan, card, country, secrets: given })
}
const reasons = (compilation: ReturnType<typeof compile>) => (compilation.ok ? [] : compilation.reasons)
const demoConfig = () => {
  const compilation = compileWith(demo)
  if (!compilation.ok) throw new Error(compilation.reasons.join())
  return compilation.compiled.config
}

describe('compile', () => {
  it('says what one unit is to be', () => {
    expect(demoConfig()).toMatchObject({
      country: 'NZ',
      name: 'hall-01',
      management: { method: 'static', address: '10.44.8.20', prefix: 24, gateway: '10.44.8.1' },
      networks: [{ ssid: 'Ellery Crew', enabled: true, security: { mode: 'wpa2-personal', passphrase: 'eight or more' }, vlan: 46 }],
      radios: [
        { band: '2.4', channel: 1, width: 20, powerDbm: 11, enabled: true },
        { band: '5', channel: 36, width: 40, powerDbm: 17, enabled: true },
      ],
    })
  })

  it('stops an open network, whatever else is right', () => {
    const open = { ...demo, networks: demo.networks.map((network) => ({ ...network, security: 'open' as const })) }
    expect(reasons(compileWith(open))).toEqual(['"Ellery Crew" has no security: no open network is put on air.'])
  })

  it('refuses a channel that the country forbids, by the rule that forbids it', () => {
    const country = countryOf('US')
    const { plans } = makePlan(demo, [unit], cards, countryOf('NZ'), new Map([['hall-01', { address: undefined, locks: { '2.4': 13 } }]]))
    const [plan] = plans
    expect(plan && reasons(compile({ brief: { ...demo, country: 'US' }, unit, plan, card, country, secrets }))).toEqual([
      'Channel 13 at 20 MHz is not legal in US: no rule covers 2462 to 2482 MHz.',
    ])
  })

  it.each([
    ['no passphrase', new Map([['admin/password', 'Strong-password-1']]), '"Ellery Crew": There is no passphrase yet.'],
    ['a short passphrase', new Map([...secrets, ['network/crew/passphrase', 'short']]), '"Ellery Crew": The passphrase has 5 characters; WPA2 needs 8 at least.'],
    ['no admin password', new Map([['network/crew/passphrase', 'eight or more']]), 'There is no admin password for this unit yet: have one made in the brief.'],
    ['a short admin password', new Map([...secrets, ['admin/password', 'short']]), 'Ostrel O-40 takes an admin password of 8 to 64 characters.'],
  ])('says that there is %s', (_name, given, reason) => {
    expect(reasons(compileWith(demo, {}, given))).toEqual([reason])
  })
})

describe('the plan', () => {
  it('leaves a radar channel to whoever locks it, and says when a lock is not legal', () => {
    const locked = compileWith(demo, { '5': 60 })
    expect(locked.ok && locked.compiled.config.radios[1]?.channel).toBe(60)
    expect(() => compileWith({ ...demo, country: 'JP' }, { '5': 149 })).toThrow('finds channel 149 at 40 MHz at 5 GHz neither legal in JP nor within its own powers')
  })

  it('uses no indoor channel outdoors', () => {
    const outdoors: Brief = { ...demo, country: 'GB', radio: { ...demo.radio, place: 'outdoor', bands: [{ band: '5', width: 20, targetDbm: 17 }] } }
    const compilation = compileWith(outdoors)
    expect(compilation.ok && compilation.compiled.config.radios.map((radio) => radio.channel)).toEqual([100])
  })
})

describe('compare', () => {
  it('finds nothing between a configuration and itself', () => {
    expect(compare(demoConfig(), demoConfig())).toEqual([])
  })

  it('says each difference in a sentence, and no secret in any', () => {
    const wanted = demoConfig()
    const found = structuredClone(wanted)
    found.country = 'US'
    found.management.gateway = null
    found.radios = found.radios.map((radio) => ({ ...radio, enabled: false }))
    for (const network of found.networks) network.security.passphrase = 'another one'
    found.networks.push({ ssid: 'Left over', enabled: true, hidden: false, security: { mode: 'open', passphrase: null }, vlan: null, isolation: false, bands: ['5'] })
    const differences = compare(wanted, found)
    expect(differences.map((difference) => difference.sentence)).toEqual([
      'Country is US, to be NZ.',
      'Network "Left over" is on the unit and not in the brief.',
      'Network "Ellery Crew": the passphrase differs.',
      'Radio at 2.4 GHz is off, to be on.',
      'Radio at 5 GHz is off, to be on.',
      'Gateway is none, to be 10.44.8.1.',
    ])
    const kept = JSON.stringify(differences.map(withoutSecret))
    expect(kept).not.toContain('eight or more')
    expect(kept).not.toContain('another one')
  })

  it('does not compare a passphrase that the unit does not show, yet sees that security is missing', () => {
    const found = structuredClone(demoConfig())
    for (const network of found.networks) network.security.passphrase = null
    expect(compare(demoConfig(), found)).toEqual([])
    for (const network of found.networks) network.security.mode = 'open'
    expect(compare(demoConfig(), found).map((difference) => difference.sentence)).toEqual(['Network "Ellery Crew": security is open, to be wpa2-personal.'])
  })
})

describe('the brief', () => {
  it('passes as it is in the demo, and says what it means', () => {
    expect(reviewBrief(demo, regulatory)).toEqual([])
    expect(briefMeaning(demo, countryOf('NZ'))).toEqual([
      'In New Zealand at 2.4 GHz: 13 channels of 20 MHz, none must listen for radar.',
      'In New Zealand at 5 GHz: 13 channels of 40 MHz, 8 must listen for radar first.',
      '153 static addresses are free for units in 10.44.8.0/24.',
    ])
  })

  it.each([
    ['a gateway elsewhere', { management: { ...demo.management, gateway: '10.44.9.1' } }, 'The gateway 10.44.9.1 is outside 10.44.8.0/24: units could not reach it.'],
    [
      'a pool that runs backwards',
      { management: { ...demo.management, dhcpPool: { first: '10.44.8.90', last: '10.44.8.80' } } },
      'The DHCP pool begins at 10.44.8.90, above its end 10.44.8.80.',
    ],
    [
      'one name twice',
      { networks: [...demo.networks, ...demo.networks.map((network) => ({ ...network, id: 'two' }))] },
      '"Ellery Crew" is there twice on the same band: clients could not tell them apart.',
    ],
    [
      'guests beside the units',
      { networks: demo.networks.map((network) => ({ ...network, purpose: 'guests' as const, vlan: 44 })) },
      '"Ellery Crew" is on the management VLAN 44: its clients could reach every unit.',
    ],
    [
      'a width that is not legal',
      { country: 'US', radio: { ...demo.radio, bands: [...demo.radio.bands, { band: '6' as const, width: 80 as const, targetDbm: 17 }] } },
      'United States has no legal 80 MHz channel at 6 GHz for an access point.',
    ],
  ])('is told of %s', (_name, part, sentence) => {
    expect(reviewBrief({ ...demo, ...part }, regulatory).map((fault) => fault.sentence)).toContain(sentence)
  })

  it('counts bytes, not letters, of a network name', () => {
    const named = (ssid: string) => briefSchema.safeParse({ ...demo, networks: demo.networks.map((network) => ({ ...network, ssid })) })
    expect(named('é'.repeat(16)).success).toBe(true)
    expect(named('é'.repeat(17)).error?.issues[0]?.message).toContain('is 34 bytes long; a network name holds 32 at the most')
    expect(named(' x').success).toBe(false)
  })
})

describe('kit cards and the kit list', () => {
  it('names line and field of each fault of a card', () => {
    const text = readFileSync(join(data, 'kit/ostrel-o-40.yaml'), 'utf8')
    const faulty = readKitCard(text.replace('prefix: 24', 'prefix: 99').replace('watts: 13.5', 'watts: many'))
    expect(faulty).toMatchObject({
      ok: false,
      faults: [
        { line: 10, field: 'factory.prefix' },
        { line: 16, field: 'power.watts' },
      ],
    })
    expect(readKitCard('maker: [')).toMatchObject({ ok: false, faults: [{ line: expect.any(Number) }] })
  })

  it('finds the same MAC, name and port twice, an unknown model and a name that the model does not take', () => {
    const faults = reviewRoster([unit, { ...unit, id: 'b', model: 'Ostrel O-99' }, { ...unit, id: 'c', name: 'Hall 3', mac: '02:4f:52:10:6a:2f', port: null }], cards)
    expect(faults.map((fault) => fault.sentence)).toEqual([
      'hall-01 has the same name as hall-01: hall-01.',
      'hall-01 has the same MAC as hall-01: 02:4f:52:10:6a:2c.',
      'hall-01 has the same switch port as hall-01: 1.',
      'There is no kit card for "Ostrel O-99".',
      'Ostrel O-40 does not take the name "Hall 3": small letters, digits and dashes only.',
    ])
  })
})
