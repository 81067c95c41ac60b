import { describe, expect, it } from 'vitest'
import { cardOf, countryOf, demoBrief as demo } from '../../../tests/support/data'
import type { Brief } from '../brief/brief'
import type { Unit } from '../kit/unit'
import { makePlan, plannedNothing } from '../plan/plan'
import { compare, withoutSecret } from './compare'
import { compile } from './compile'

const card = cardOf('Ostrel O-40')
const unit: Unit = {
  id: 'hall-01',
  name: 'hall-01',
  place: '',
  model: 'Ostrel O-40',
  mac: '02:4f:52:10:6a:2c',
  serial: '',
  port: 1,
}
const cards = new Map([['Ostrel O-40', card]])
const secrets = new Map([
  ['network/crew/passphrase', 'eight or more'],
  ['admin/password', 'Strong-password-1'],
])
const compileWith = (brief: Brief, locks = {}, given = secrets) => {
  const country = countryOf(brief.country)
  const { plans, faults } = makePlan({
    brief,
    units: [unit],
    cards,
    country,
    before: new Map([['hall-01', { ...plannedNothing, locks }]]),
  })
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
      networks: [
        {
          ssid: 'Ellery Crew',
          enabled: true,
          security: { mode: 'wpa2-personal', passphrase: 'eight or more' },
          vlan: 46,
        },
      ],
      radios: [
        { band: '2.4', channel: 1, width: 20, powerDbm: 11, enabled: true },
        { band: '5', channel: 36, width: 40, powerDbm: 17, enabled: true },
      ],
    })
  })

  it('refuses an address outside the subnet, a gateway outside it, and the address of the gateway', () => {
    const country = countryOf('NZ')
    const [plan] = makePlan({ brief: demo, units: [unit], cards, country, before: new Map() }).plans
    if (!plan) throw new Error('no plan')
    const at = (address: string, management = demo.management) =>
      reasons(compile({ brief: { ...demo, management }, unit, plan: { ...plan, address }, card, country, secrets }))
    expect(at('10.44.8.20')).toEqual([])
    expect(at('10.99.0.20')).toEqual(['Its planned address 10.99.0.20 is not one of 10.44.8.0/24: plan again.'])
    expect(at('10.44.8.255')).toEqual(['Its planned address 10.44.8.255 is not one of 10.44.8.0/24: plan again.'])
    expect(at('10.44.8.1')).toEqual(['Its planned address 10.44.8.1 is that of the gateway: plan again.'])
    expect(at('10.44.8.20', { ...demo.management, gateway: '10.44.9.1' })).toEqual([
      'The gateway 10.44.9.1 is not in 10.44.8.0/24: the unit could not reach it. Correct the brief.',
    ])
  })

  it('stops an open network, whatever else is right', () => {
    const open = { ...demo, networks: demo.networks.map((network) => ({ ...network, security: 'open' as const })) }
    expect(reasons(compileWith(open))).toEqual([
      '"Ellery Crew" has no security: no open network is put on air unless its name is typed a second time in the brief.',
    ])
    const said = { ...open, networks: open.networks.map((network) => ({ ...network, openConfirmation: network.ssid })) }
    const compilation = compileWith(said)
    expect(compilation.ok && compilation.compiled.config.networks[0]?.security).toEqual({
      mode: 'open',
      passphrase: null,
    })
  })

  it('stops a network whose security the model does not know, and leaves out one that it has no radio for', () => {
    const of = (part: object) => ({ ...demo, networks: demo.networks.map((network) => ({ ...network, ...part })) })
    expect(reasons(compileWith(of({ security: 'wpa3-personal' })))).toEqual([
      'Ostrel O-40 cannot carry "Ellery Crew": it does not know WPA3-Personal.',
    ])
    const sixOnly = compileWith(of({ security: 'wpa3-personal', bands: ['6'] }))
    expect(sixOnly.ok && sixOnly.compiled.config.networks).toEqual([])
  })

  it('refuses a channel that the country forbids, by the rule that forbids it', () => {
    const country = countryOf('US')
    const { plans } = makePlan({
      brief: demo,
      units: [unit],
      cards,
      country: countryOf('NZ'),
      before: new Map([['hall-01', { ...plannedNothing, locks: { '2.4': 13 } }]]),
    })
    const [plan] = plans
    expect(plan && reasons(compile({ brief: { ...demo, country: 'US' }, unit, plan, card, country, secrets }))).toEqual(
      ['Channel 13 at 20 MHz is not legal in US: no rule covers 2462 to 2482 MHz.'],
    )
  })

  it.each([
    ['no passphrase', new Map([['admin/password', 'Strong-password-1']]), '"Ellery Crew": There is no passphrase yet.'],
    [
      'a short passphrase',
      new Map([...secrets, ['network/crew/passphrase', 'short']]),
      '"Ellery Crew": The passphrase has 5 characters; WPA2 needs 8 at least.',
    ],
    [
      'no admin password',
      new Map([['network/crew/passphrase', 'eight or more']]),
      'There is no admin password for this unit yet: have one made in the brief.',
    ],
    [
      'a short admin password',
      new Map([...secrets, ['admin/password', 'short']]),
      'Ostrel O-40 takes an admin password of 8 to 64 characters.',
    ],
  ])('says that there is %s', (_name, given, reason) => {
    expect(reasons(compileWith(demo, {}, given))).toEqual([reason])
  })
})

describe('the plan', () => {
  it('leaves a radar channel to whoever locks it, and says when a lock is not legal', () => {
    const locked = compileWith(demo, { '5': 60 })
    expect(locked.ok && locked.compiled.config.radios[1]?.channel).toBe(60)
    expect(() => compileWith({ ...demo, country: 'JP' }, { '5': 149 })).toThrow(
      'finds channel 149 at 5 GHz neither legal in JP nor within its own powers. Channel 149 at 20 MHz is not legal in JP: no rule covers 5735 to 5755 MHz.',
    )
  })

  it('uses no indoor channel outdoors', () => {
    const outdoors: Brief = {
      ...demo,
      country: 'GB',
      radio: { ...demo.radio, place: 'outdoor', bands: [{ band: '5', width: 20 }] },
    }
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
    found.networks.push({
      ssid: 'Left over',
      enabled: true,
      hidden: false,
      security: { mode: 'open', passphrase: null },
      vlan: null,
      isolation: false,
      bands: ['5'],
    })
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
    expect(compare(demoConfig(), found).map((difference) => difference.sentence)).toEqual([
      'Network "Ellery Crew": security is open, to be wpa2-personal.',
    ])
  })
})
