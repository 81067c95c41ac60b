import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cardOf, cards, countryOf, regulatory } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { sentence } from '../../words/en/sentence'
import { type RadioPolicy, radioPolicySchema } from '../brief/policies'
import { highestLegalStep } from '../radio/channels/power'
import { isScanningChannel } from '../radio/channels/radio-options'
import type { RadioRequest } from '../radio/channels/radio-request'
import { emptySite, type Floor, plainFloor, type Site } from '../radio/propagation/floor'
import { judgeChannel, legalBlocks } from '../regulatory/legal'
import { planRadios } from './plan-radios'

const requests = (count: number, model = 'Ostrel O-40', part: Partial<RadioRequest> = {}): RadioRequest[] =>
  Array.from({ length: count }, (_, index) => ({ unit: `u${index}`, card: cardOf(model), locks: {}, set: {}, ...part }))
const policy = (part: object = {}): RadioPolicy =>
  radioPolicySchema.parse({
    environment: 'indoor',
    bands: [
      { band: '2.4', width: 20 },
      { band: '5', width: 40 },
    ],
    radar: 'avoid',
    narrower: 'never',
    ...part,
  })
const floor = (part: Partial<Floor> = {}): Floor => ({
  id: 'g',
  name: 'Ground',
  storey: 0,
  heightM: 3,
  environment: 'indoor',
  widthM: 60,
  depthM: 30,
  drawing: null,
  walls: [],
  ...plainFloor,
  ...part,
})
const channels = (of: ReturnType<typeof planRadios>, band: string): (number | undefined)[] =>
  [...of.plans.values()].map((radios) => radios.find((radio) => radio.band === band)?.channel)

describe('channels and power', () => {
  it('lie below 5725 MHz where there are 25 mW above, unless the brief wants those too', () => {
    const many = { bands: [{ band: '5', width: 20 }], radar: 'avoid' }
    const highest = (part: object): number =>
      Math.max(
        ...channels(planRadios(countryOf('DE'), policy({ ...many, ...part }), requests(9), emptySite), '5').map(Number),
      )
    expect(highest({})).toBeLessThan(149)
    expect(highest({ shortRange: 'used' })).toBeGreaterThanOrEqual(149)
    // Whoever locks one has it, and New Zealand's are no such channels.
    const locked = planRadios(
      countryOf('DE'),
      policy(many),
      requests(1, 'Ostrel O-40', { locks: { '5': 149 } }),
      emptySite,
    )
    expect(channels(locked, '5')).toEqual([149])
    expect(
      Math.max(...channels(planRadios(countryOf('NZ'), policy(many), requests(9), emptySite), '5').map(Number)),
    ).toBeGreaterThan(148)
  })

  it('differ between neighbours on the list for as long as there are some, before any floor is drawn', () => {
    const plan = planRadios(countryOf('NZ'), policy(), requests(4), emptySite)
    expect(plan.faults).toEqual([])
    expect(new Set(channels(plan, '5')).size).toBe(4)
    expect(new Set(channels(plan, '2.4').slice(0, 3))).toEqual(new Set([1, 6, 11]))
  })

  it('are reused where places say that nobody is disturbed, whatever the order of the list', () => {
    const site: Site = {
      ...emptySite,
      floors: [floor({ widthM: 4000 })],
      placements: [0, 1900, 3800].map((x, index) => ({ unit: `u${index}`, floor: 'g', x, y: 5 })),
    }
    const plan = planRadios(countryOf('NZ'), policy(), requests(3), site)
    expect(plan.cost).toBe(0)
    expect(new Set(channels(plan, '5')).size).toBe(1)
  })

  it('heed a measured level before what places would give', () => {
    const site: Site = {
      ...emptySite,
      floors: [floor({ widthM: 4000 })],
      placements: [0, 3000].map((x, index) => ({ unit: `u${index}`, floor: 'g', x, y: 5 })),
      measured: [{ a: 'u0', b: 'u1', band: '5', dbm: -60 }],
    }
    expect(new Set(channels(planRadios(countryOf('NZ'), policy(), requests(2), site), '5')).size).toBe(2)
  })

  it('lie where they were priced at 2.4 GHz, where one primary may be paired upwards or downwards', () => {
    const wide = policy({ bands: [{ band: '2.4', width: 40 }] })
    const lying = (heardChannel: number): number | undefined => {
      const heard = [
        { ssid: 'Next door', band: '2.4' as const, channel: heardChannel, width: 20 as const, dbm: -50, unit: null },
      ]
      const locked = requests(1, 'Ostrel O-40', { locks: { '2.4': 6 } })
      return planRadios(countryOf('NZ'), wide, locked, { ...emptySite, heard }).plans.get('u0')?.[0]?.lowMhz
    }
    expect(lying(11)).toBe(2407)
    expect(lying(1)).toBe(2427)
  })

  it('give way to the networks of neighbours, heard everywhere or at one unit', () => {
    const site: Site = {
      ...emptySite,
      heard: [
        { ssid: 'Next door', unit: 'u0', band: '2.4', channel: 1, width: 20, dbm: -60 },
        { ssid: 'Over the way', unit: null, band: '2.4', channel: 6, width: 20, dbm: -60 },
      ],
    }
    expect(channels(planRadios(countryOf('NZ'), policy(), requests(1), site), '2.4')).toEqual([11])
  })

  it('stay off radar where they can, and take it where it is welcome and disturbs less', () => {
    const of = (radar: string) =>
      [...planRadios(countryOf('NZ'), policy({ radar }), requests(12), emptySite).plans.values()].flat()
    expect(of('avoid').some((radio) => radio.radar)).toBe(false)
    expect(of('welcome').some((radio) => radio.radar)).toBe(true)
  })

  it('are narrower only where the policy lets them, where that pays, and say so', () => {
    const crowd = (narrower: string) => {
      const site: Site = {
        ...emptySite,
        floors: [floor()],
        placements: Array.from({ length: 8 }, (_, index) => ({ unit: `u${index}`, floor: 'g', x: 2 * index, y: 5 })),
      }
      return planRadios(countryOf('NZ'), policy({ narrower, bands: [{ band: '5', width: 80 }] }), requests(8), site)
    }
    const kept = [...crowd('never').plans.values()].flat()
    const made = [...crowd('allowed').plans.values()].flat()
    expect(kept.map((radio) => radio.narrowedFrom)).toEqual(kept.map(() => null))
    expect(made.filter((radio) => radio.narrowedFrom === 80).length).toBeGreaterThan(0)
    expect(crowd('allowed').cost).toBeLessThan(crowd('never').cost)
  })

  it('are as wide as the radio can be when the policy is wider, and leave out a band that it does not have', () => {
    const wide = planRadios(
      countryOf('NZ'),
      policy({
        bands: [
          { band: '5', width: 160 },
          { band: '6', width: 80 },
        ],
      }),
      requests(1),
      emptySite,
    )
    expect(wide.plans.get('u0')).toMatchObject([{ band: '5', width: 80 }])
  })

  it('use 1, 5, 9, 13 where that is wanted and legal, else 1, 6, 11', () => {
    const of = (code: string) =>
      new Set(channels(planRadios(countryOf(code), policy({ raster24: '1-5-9-13' }), requests(4), emptySite), '2.4'))
    expect(of('GB')).toEqual(new Set([1, 5, 9, 13]))
    expect([...of('US')].every((channel) => [1, 6, 11].includes(channel ?? 0))).toBe(true)
  })

  it('may be any at 6 GHz where a radio beside announces them', () => {
    const bands = [
      { band: '5', width: 20 },
      { band: '6', width: 20 },
    ]
    const plan = planRadios(countryOf('GB'), policy({ bands, radar: 'welcome' }), requests(9, 'Tarnhelm T2'), emptySite)
    expect(new Set(channels(plan, '6')).size).toBe(9)
    expect(channels(plan, '6').every((channel) => isScanningChannel(channel ?? 0))).toBe(false)
  })

  it('use preferred scanning channels at 6 GHz', () => {
    const plan = planRadios(
      countryOf('GB'),
      policy({ bands: [{ band: '6', width: 20 }] }),
      requests(5, 'Tarnhelm T2'),
      emptySite,
    )
    expect(channels(plan, '6').every((channel) => channel !== undefined && isScanningChannel(channel))).toBe(true)
    expect([5, 21, 229].every(isScanningChannel) && ![1, 6, 233].some(isScanningChannel)).toBe(true)
  })

  it('are quieter at 2.4 GHz by the figure of the policy, on a step that the model has', () => {
    const [radios] = planRadios(
      countryOf('NZ'),
      policy({ power: { clientDbm: 18, lowerAt24Db: 6 } }),
      requests(1),
      emptySite,
    ).plans.values()
    expect(radios?.map((radio) => radio.power)).toEqual([
      { limit: 36, limitOf: 'eirp', off: 3, gain: 3, chainsDb: 0, most: 20, target: 12, set: 11 },
      { limit: 30, limitOf: 'eirp', off: 5, gain: 5, chainsDb: 0, most: 23, target: 18, set: 17 },
    ])
  })
})

describe('what cannot be planned', () => {
  it('is refused by the name of the rule: a lock that is not legal', () => {
    const { faults } = planRadios(
      countryOf('US'),
      policy(),
      requests(1, 'Ostrel O-40', { locks: { '2.4': 13 } }),
      emptySite,
    )
    expect(faults.map(sentence)).toEqual([
      'Ostrel O-40 finds channel 13 at 2.4 GHz neither legal in US nor within its own powers. Channel 13 at ' +
        '20 MHz is not legal in US: no rule covers 2462 to 2482 MHz.',
    ])
  })

  it('is refused for a unit whose country is locked', () => {
    const { faults } = planRadios(countryOf('NZ'), policy(), requests(1, 'Ostrel O-20 US'), emptySite)
    expect(faults).toMatchObject([{ code: 'locked-to-another-country', unit: expect.any(String) }])
    expect(faults.map(sentence)).toEqual([
      'Ostrel O-20 US is locked to United States: it cannot be used in New Zealand.',
    ])
  })
})

describe('in every country of the database', () => {
  it('no planned block or power breaks a rule, and every broken one is refused by the name of a rule', () => {
    expect(regulatory.size).toBeGreaterThanOrEqual(182)
    const models = ['Ostrel O-40', 'Brackwater B7', 'Tarnhelm T2', 'Tarnhelm T3']
    fc.assert(
      fc.property(
        fc.constantFrom(...regulatory.keys()),
        fc.constantFrom('indoor' as const, 'outdoor' as const),
        fc.constantFrom('avoid' as const, 'welcome' as const),
        fc.constantFrom(20, 40, 80),
        fc.integer({ min: 0, max: 30 }),
        fc.option(fc.constantFrom(1, 13, 36, 52, 100, 144, 149, 165, 37, 93), { nil: undefined }),
        (code, environment, radar, width, clientDbm, lock) => {
          const country = countryOf(code)
          const wanted = policy({
            environment,
            radar,
            power: { clientDbm, lowerAt24Db: 0 },
            bands: [
              { band: '2.4', width: 20 },
              { band: '5', width },
              { band: '6', width },
            ],
          })
          const band = lock === undefined ? '5' : lock <= 13 ? '2.4' : lock === 37 || lock === 93 ? '6' : '5'
          const asked = models.map(
            (model, index): RadioRequest => ({
              unit: `u${index}`,
              card: cardOf(model),
              locks: lock === undefined ? {} : { [band]: lock },
              set: {},
            }),
          )
          const { plans, faults } = planRadios(country, wanted, asked, emptySite, 'quick')
          for (const [unit, radios] of plans) {
            const card = asked.find((each) => each.unit === unit)?.card
            for (const radio of radios) {
              const judgement = judgeChannel(country, radio.band, radio.channel, radio.width)
              expect(judgement.legal).toBe(true)
              const own = card?.radios.find((each) => each.band === radio.band)
              if (!judgement.legal || !own) return
              expect(radio.power.set).toBeLessThanOrEqual(highestLegalStep(judgement.block, own, 'area') ?? -1)
              expect(own.steps).toContain(radio.power.set)
              expect(own.leftOut).not.toContain(radio.channel)
              if (environment === 'outdoor' || card?.environment === 'outdoor')
                expect(judgement.block.indoor).toBe(false)
            }
            // A radio has a plan or its unit has a fault, never neither.
            const missing = card?.radios.some((own) => !radios.some((radio) => radio.band === own.band))
            if (missing) expect(faults.some((fault) => fault.unit === unit)).toBe(true)
          }
        },
      ),
      { numRuns: 100 },
    )
  })

  it('every block that is not legal is refused with its channel and country', () => {
    for (const country of regulatory.values()) {
      const legal = new Set(legalBlocks(country).map((block) => `${block.band} ${block.channel} ${block.width}`))
      for (const [band, channel] of [
        ['5', 144],
        ['2.4', 14],
        ['6', 1],
        ['5', 177],
      ] as const) {
        if (legal.has(`${band} ${channel} 20`)) continue
        const judgement = judgeChannel(country, band, channel, 20)
        expect(english(judgement.legal ? '' : judgement.refusal.reason)).toContain(
          `Channel ${channel} at 20 MHz is not legal in ${country.country}: `,
        )
      }
    }
  })

  it('has a card for each model that is planned here', () => expect(cards.size).toBe(11))
})

// In Germany channels 149 to 165 allow 13.97 dBm EIRP: with 5 dBi the O-40 is left 8 dBm of 17 that are wanted.
describe('a block on which a radio is quieter than wanted', () => {
  const eight = requests(8)
  const wanted = policy({
    bands: [{ band: '5', width: 40 }],
    radar: 'avoid',
    shortRange: 'used',
    power: { clientDbm: 17, lowerAt24Db: 0 },
  })
  const inARow = (of: readonly RadioRequest[], apartM: number): Site => ({
    ...emptySite,
    floors: [floor({ widthM: 1000 })],
    placements: of.map(({ unit }, at) => ({ unit, floor: 'g', x: apartM * at, y: 10 })),
  })
  const faint = (hall: Site): number =>
    [...planRadios(countryOf('DE'), wanted, eight, hall, 'quick').plans.values()]
      .flat()
      .filter(({ power }) => power.set < 17).length

  it('costs what it is quieter: who hardly hears the others shares a channel that is loud enough', () => {
    // 60 m apart in a row, the next are heard at about -83 dBm, which costs as much as 9 dB.
    const row = inARow(eight, 60)
    expect(faint(row)).toBeLessThanOrEqual(2)
  })

  it('is taken where others would be heard louder than that', () => {
    const close = inARow(eight, 8)
    expect(faint(close)).toBeGreaterThan(0)
  })
})
