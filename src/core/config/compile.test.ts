import { describe, expect, it } from 'vitest'
import { cardOf, countryOf, demoBrief as demo, setUpOverTheAir } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { sentence } from '../../words/en/sentence'
import type { Brief } from '../brief/brief'
import type { KitCard } from '../kit/kit-card'
import type { Unit } from '../kit/unit'
import { asText, type Message } from '../message/message'
import { makePlan, plannedNothing } from '../plan/plan'
import { compare } from './compare'
import { compile } from './compile'
import { asObserved, type Clear, type Config, type ObservedConfig } from './unit-config'

const today = new Date('2026-11-25')

const card = cardOf('Ostrel O-40')
const unit: Unit = {
  id: 'hall-01',
  name: 'hall-01',
  location: '',
  model: 'Ostrel O-40',
  mac: '02:4f:52:10:6a:2c',
  serial: '',
  port: 1,
  siteSwitch: '',
  sitePort: '',
}
const cards = new Map([['Ostrel O-40', card]])
const secrets = new Map([
  ['network/crew/passphrase', 'eight or more'],
  ['admin/password', 'Strong-password-1'],
])
const compileWith = (brief: Brief, locks = {}, given = secrets, model: string | KitCard = card) => {
  const used = typeof model === 'string' ? cardOf(model) : model
  const country = countryOf(brief.country)
  const { plans, faults } = makePlan({
    brief,
    units: [unit],
    cards: new Map([['Ostrel O-40', used]]),
    country,
    before: new Map([['hall-01', { ...plannedNothing, locks }]]),
  })
  const [plan] = plans
  if (!plan) throw new Error(faults.map(sentence).join())
  return compile({ brief, unit, plan, card: used, country, secrets: given, today })
}
const reasons = (compilation: ReturnType<typeof compile>) => (compilation.ok ? [] : english(compilation.reasons))
const demoPlan = () => {
  const [plan] = makePlan({ brief: demo, units: [unit], cards, country: countryOf('NZ'), before: new Map() }).plans
  if (!plan) throw new Error('no plan')
  return plan
}
const demoConfig = () => {
  const compilation = compileWith(demo)
  if (!compilation.ok) throw new Error(asText(compilation.reasons[0] as Message))
  return compilation.compiled.config
}

describe('compile', () => {
  it('says what one unit is to be', () => {
    expect(demoConfig()).toMatchObject({
      unit: {
        'unit.country': 'NZ',
        'unit.name': 'hall-01',
        'management.method': 'static',
        'management.address': '10.44.8.20',
        'management.prefix': 24,
        'management.gateway': '10.44.8.1',
        'services.https-only': true,
        'services.syslog': null,
      },
      networks: {
        crew: {
          'network.ssid': 'Ellery Crew',
          'network.enabled': true,
          'network.security': 'wpa2-personal',
          'network.passphrase': 'eight or more',
          'network.vlan': 46,
        },
      },
      radios: {
        '2.4': { 'radio.channel': 1, 'radio.width': 20, 'radio.power': 11, 'radio.enabled': true },
        '5': { 'radio.channel': 36, 'radio.width': 40, 'radio.power': 17, 'radio.enabled': true },
      },
    })
  })

  it('refuses an address outside the subnet, a gateway outside it, and the address of the gateway', () => {
    const country = countryOf('NZ')
    const [plan] = makePlan({ brief: demo, units: [unit], cards, country, before: new Map() }).plans
    if (!plan) throw new Error('no plan')
    const at = (address: string, management = demo.management) =>
      reasons(
        compile({ brief: { ...demo, management }, unit, plan: { ...plan, address }, card, country, secrets, today }),
      )
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
      '"Ellery Crew" has no security: no open network is put on air unless its name is typed a second time ' +
        'in the brief.',
    ])
    const said = { ...open, networks: open.networks.map((network) => ({ ...network, openConfirmation: network.ssid })) }
    const compilation = compileWith(said)
    expect(compilation.ok && compilation.compiled.config.networks.crew).toMatchObject({ 'network.security': 'open' })
    expect(compilation.ok && compilation.compiled.config.networks.crew).not.toHaveProperty(['network.passphrase'])
  })

  it('stops a network whose security the model does not know, and leaves out one that it has no radio for', () => {
    const of = (part: object) => ({ ...demo, networks: demo.networks.map((network) => ({ ...network, ...part })) })
    expect(reasons(compileWith(of({ security: 'wpa3-personal' }), {}, secrets, 'Ostrel O-20'))).toEqual([
      'Ostrel O-20 cannot carry "Ellery Crew": it does not know WPA3-Personal.',
    ])
    const sixOnly = compileWith(of({ security: 'wpa3-personal', bands: ['6'] }))
    expect(sixOnly.ok && sixOnly.compiled.config.networks).toEqual({})
  })

  it('stops a unit whose name or password its model does not take, and a card of another country', () => {
    const own = (more: object) => ({ ...card, ...more })
    const stopped = (more: object) => reasons(compileWith(demo, {}, secrets, own(more)))
    expect(stopped({ limits: { ...card.limits, namePattern: '^[A-Z]+$' } })).toEqual([
      'Ostrel O-40 does not take the name "hall-01": small letters, digits and dashes only.',
    ])
    expect(stopped({ limits: { ...card.limits, passwordRules: [{ pattern: '#', words: 'a hash' }] } })).toEqual([
      'Ostrel O-40 takes an admin password with a hash only.',
    ])
    const planned = demoPlan()
    const locked = { brief: demo, unit, plan: planned, country: countryOf('NZ'), secrets, today }
    expect(reasons(compile({ ...locked, card: cardOf('Ostrel O-20 US') }))).toEqual([
      'Ostrel O-20 US is locked to the country US, and the brief says NZ.',
    ])
    expect(reasons(compile({ ...locked, card: setUpOverTheAir(card) }))[0]).toContain('its own network')
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
    expect(
      english(
        plan && reasons(compile({ brief: { ...demo, country: 'US' }, unit, plan, card, country, secrets, today })),
      ),
    ).toEqual(['Channel 13 at 20 MHz is not legal in US: no rule covers 2462 to 2482 MHz.'])
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
    expect(locked.ok && locked.compiled.config.radios['5']?.['radio.channel']).toBe(60)
    expect(() => compileWith({ ...demo, country: 'JP' }, { '5': 149 })).toThrow(
      'finds channel 149 at 5 GHz neither legal in JP nor within its own powers. Channel 149 at 20 MHz is ' +
        'not legal in JP: no rule covers 5735 to 5755 MHz.',
    )
  })

  it('uses no indoor channel outdoors', () => {
    const outdoors: Brief = {
      ...demo,
      country: 'GB',
      radio: { ...demo.radio, environment: 'outdoor', bands: [{ band: '5', width: 20 }] },
    }
    const compilation = compileWith(outdoors)
    expect(compilation.ok && compilation.compiled.config.radios['5']).toMatchObject({ 'radio.channel': 100 })
  })
})

/** A configuration as it was read, changed at single places. */
const read = (config: Config<Clear>, change: (observed: Changeable) => void = () => {}): ObservedConfig => {
  const observed = structuredClone(asObserved(config)) as unknown as Changeable
  change(observed)
  return observed as unknown as ObservedConfig
}
type Values = Record<string, { kind: string; value?: unknown }>
interface Changeable {
  unit: Values
  networks: Record<string, Values>
  radios: Record<string, Values>
}
const is = (value: unknown) => ({ kind: 'value', value })

describe('compare', () => {
  it('finds nothing between a configuration and itself', () => {
    expect(compare(demoConfig(), read(demoConfig()))).toEqual([])
  })

  it('says each difference in a sentence, and no secret in any', () => {
    const differences = compare(
      demoConfig(),
      read(demoConfig(), ({ unit: whole, networks, radios }) => {
        whole['unit.country'] = is('US')
        whole['management.gateway'] = is(null)
        for (const radio of Object.values(radios)) radio['radio.enabled'] = is(false)
        Object.assign(networks.crew ?? {}, { 'network.passphrase': is('another one') })
        networks.old = { 'network.ssid': is('Left over') }
      }),
    )
    expect(differences.map(sentence)).toEqual([
      'Network "Left over" is on the unit and not in the brief.',
      'Country is US, to be NZ.',
      'Gateway is none, to be 10.44.8.1.',
      'Network "Ellery Crew": passphrase differs.',
      'At 5 GHz: radio is off, to be on.',
      'At 2.4 GHz: radio is off, to be on.',
    ])
    expect(JSON.stringify(differences)).not.toMatch(/eight or more|another one/)
  })

  it('calls a passphrase that the unit hides different, unless it is the one that was written last', () => {
    const hidden = read(demoConfig(), ({ networks }) => {
      Object.assign(networks.crew ?? {}, { 'network.passphrase': { kind: 'unreadable' } })
    })
    expect(compare(demoConfig(), hidden).map(sentence)).toEqual([
      'Network "Ellery Crew": passphrase is not shown by the unit, and not what was written last.',
    ])
    expect(compare(demoConfig(), hidden, ({ id, of }) => id === 'network.passphrase' && of === 'crew')).toEqual([])
  })

  it('knows a network by its id: one that was renamed is the same, and one name may stand twice', () => {
    const renamed = read(demoConfig(), ({ networks }) => {
      Object.assign(networks.crew ?? {}, { 'network.ssid': is('Old name') })
    })
    expect(compare(demoConfig(), renamed).map(sentence)).toEqual([
      'Network "Ellery Crew": name on air is Old name, to be Ellery Crew.',
    ])
  })

  it('does not take a setting that the unit does not know for one that is right', () => {
    const without = read(demoConfig(), ({ unit: whole }) => delete whole['services.syslog'])
    expect(compare(demoConfig(), without).map(sentence)).toEqual(['Syslog server is not known to the unit.'])
  })
})

describe('an address that DHCP gave', () => {
  const desired = (method: 'static' | 'dhcp'): Config<Clear> => ({
    unit: { 'management.method': method, 'management.address': '10.44.8.20', 'management.prefix': 24 },
    networks: {},
    radios: {},
  })
  const differing = (to: Config<Clear>, from: Config<Clear>): string[] =>
    compare(to, asObserved(from)).flatMap((each) => (each.kind === 'value' ? [each.id] : []))

  it('is written with the method, though it looks the same: the unit would be left with one of its own', () => {
    expect(differing(desired('static'), desired('dhcp'))).toEqual([
      'management.method',
      'management.address',
      'management.prefix',
    ])
  })

  it('is left alone where the method is right', () => {
    expect(differing(desired('static'), desired('static'))).toEqual([])
    expect(differing(desired('dhcp'), desired('dhcp'))).toEqual([])
  })
})
