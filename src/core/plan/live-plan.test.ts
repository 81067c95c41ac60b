import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeEach, describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { cards, countryOf } from '../../../tests/support/data'
import { jobDocumentSchema } from '../job/job-document'
import type { Unit } from '../kit/unit'
import { radioId } from '../radio/channels/radio-request'
import { overlapOf } from '../radio/channels/span'
import { coverage, wantedDbm } from '../radio/coverage/coverage'
import { emptySite, floorSchema, type Site } from '../radio/propagation/floor'
import { situated } from '../radio/propagation/situation'
import { explainPlan, type LivePlan, planLive, radiosOnAir } from './live-plan'
import { makePlan, type PlanInput, type PlannedBefore, plannedNothing, type UnitPlan } from './plan'
import { channelProblemOf } from './plan-radios'

const whole = jobDocumentSchema.parse(
  parse(readFileSync(join(import.meta.dirname, '../../../data/demo/port-ellery-whole.yaml'), 'utf8')),
)
const input: PlanInput = {
  brief: whole.brief,
  units: whole.units,
  cards,
  country: countryOf('NZ'),
  before: new Map(),
  site: whole.site,
  effort: 'quick',
}
let live: LivePlan
beforeEach(() => {
  live = planLive(input)
})
const setBy = (plans: readonly UnitPlan[]): PlanInput['before'] =>
  new Map(
    plans.map(({ unit, address, radios }) => [
      unit,
      {
        ...plannedNothing,
        address,
        set: Object.fromEntries(radios.map(({ band, channel, width }) => [band, { channel, width }])),
      },
    ]),
  )

describe('the plan of a whole site', () => {
  it('gives every unit of nine models an address, and every radio a channel, with no fault', () => {
    expect(live.faults).toEqual([])
    expect(live.plans).toHaveLength(36)
    expect(new Set(live.plans.map((plan) => plan.address)).size).toBe(36)
    for (const { unit, radios } of live.plans) {
      const card = cards.get(whole.units.find((each) => each.id === unit)?.model ?? '')
      const wanted = card?.role === 'link-end' ? 1 : card?.radios.filter((radio) => radio.band !== '6').length
      expect(radios, unit).toHaveLength(wanted ?? -1)
    }
  })

  it('gives the controller the lowest address, and both ends of the link one channel off those around them', () => {
    const of = (id: string) => live.plans.find((plan) => plan.unit === id)
    expect(of('control-01')?.address).toBe('10.44.8.20')
    expect(of('link-quay')?.radios).toEqual(of('link-light')?.radios)
    const [link] = of('link-quay')?.radios ?? []
    const near = of('quay-01')?.radios.find((radio) => radio.band === '5')
    expect(link && near && link.lowMhz < near.lowMhz + near.width && near.lowMhz < link.lowMhz + link.width).toBe(false)
  })

  it('is explained radio by radio, at the cost that it was planned with', () => {
    const planned = live.plans.flatMap(({ unit, radios }) =>
      unit.startsWith('link') ? [] : radios.map(({ band }) => radioId(unit, band)),
    )
    expect([...live.reasons.keys()].sort()).toEqual(planned.sort())
    expect(explainPlan(input, live.plans).cost).toBeCloseTo(live.cost, 6)
  })

  it('moves nobody to another address, and makes nothing worse, when it is planned again', () => {
    const again = makePlan({ ...input, before: setBy(live.plans) })
    expect(again.plans.map(({ unit, address }) => [unit, address])).toEqual(
      live.plans.map(({ unit, address }) => [unit, address]),
    )
    // What an option costs by itself counts beside what it disturbs: bandwidth that is given up, radar.
    const requests = whole.units.flatMap((unit) => {
      const card = cards.get(unit.model)
      return card ? [{ unit: unit.id, card, locks: {}, set: {} }] : []
    })
    const { problem } = channelProblemOf(input.country, whole.brief.radio, requests, whole.site)
    const total = (plans: readonly UnitPlan[], cost: number): number =>
      problem.radios.reduce((sum, { id, options }) => {
        const chosen = plans.flatMap(({ unit, radios }) => radios.filter(({ band }) => radioId(unit, band) === id))[0]
        const own = options.find(({ channel, width }) => channel === chosen?.channel && width === chosen.width)
        return sum + (own?.price ?? 0)
      }, cost)
    expect(total(again.plans, again.cost)).toBeLessThanOrEqual(total(live.plans, live.cost) + 1e-6)
  })

  it('keeps the addresses of the others when units leave and come', () => {
    const fewer = whole.units.filter((unit) => !unit.id.startsWith('booth'))
    const again = makePlan({
      ...input,
      units: [
        { ...whole.units[2], id: 'fresh', name: 'fresh', mac: '02:4f:52:aa:aa:aa' } as (typeof fewer)[number],
        ...fewer,
      ],
      before: setBy(live.plans),
    })
    for (const { unit, address } of again.plans)
      if (unit !== 'fresh') expect(address).toBe(live.plans.find((plan) => plan.unit === unit)?.address)
  })

  it('gives the others theirs when one unit has a fault', () => {
    const { plans, faults } = makePlan({
      ...input,
      before: new Map([['hall-01', { ...plannedNothing, locks: { '5': 13 } }]]),
    })
    expect(plans).toHaveLength(35)
    expect(faults.map((fault) => fault.unit)).toEqual(['hall-01'])
  })

  it('knows where its radios are on air, as loud as they are set', () => {
    const onAir = radiosOnAir('2.4', whole.site, new Map(live.plans.map((plan) => [plan.unit, plan])))
    expect(onAir).toHaveLength(whole.site.placements.length)
    expect(onAir.find((radio) => radio.id === 'hall-01')).toMatchObject({
      x: 8,
      y: 7,
      powerDbm: 11,
      gain: 3,
      floor: { id: 'hall' },
    })
    for (const band of ['2.4', '5'] as const)
      for (const { id, centreMhz } of radiosOnAir(
        band,
        whole.site,
        new Map(live.plans.map((plan) => [plan.unit, plan])),
      )) {
        const radio = live.plans.find(({ unit }) => unit === id)?.radios.find((each) => each.band === band)
        expect(centreMhz, id).toBe((radio?.lowMhz ?? 0) + (radio?.width ?? 0) / 2)
      }
  })

  it('leaves out what hangs on no floor, and what has no plan', () => {
    const [plan] = live.plans.filter(({ unit }) => unit === 'hall-01')
    const placements = ['hall-01', 'nobody'].flatMap((unit) =>
      ['hall', 'nowhere'].map((floor) => ({ unit, floor, x: 1, y: 2 })),
    )
    const onAir = radiosOnAir('5', { ...whole.site, placements }, new Map(plan ? [['hall-01', plan]] : []))
    expect(onAir.map(({ id, floor, x, y }) => [id, floor.id, x, y])).toEqual([['hall-01', 'hall', 1, 2]])
  })
})

describe('a plan with units that are too many at 2.4 GHz', () => {
  const hall = floorSchema.parse({
    ...{ id: 'hall', name: 'Hall', storey: 0, heightM: 4, environment: 'indoor', widthM: 100, depthM: 20 },
    ...{ drawing: null, walls: [] },
  })
  const yard = { ...hall, id: 'yard', name: 'Yard', origin: { x: 5000, y: 0, turn: 0 } }
  const ids = ['a', 'b', 'c', 'd']
  const units = ids.map((id) => ({ ...(whole.units[2] as Unit), id, name: id, model: 'Ostrel O-40' }))
  const site: Site = {
    ...emptySite,
    floors: [{ ...hall, origin: { x: 0, y: 0, turn: 0 } }, yard],
    placements: ids.map((unit, at) => ({ unit, floor: 'hall', x: 4 + 6.5 * at, y: 10 })),
  }
  const planned = (locks: PlannedBefore['locks'], part: Partial<PlanInput> = {}) =>
    planLive({
      ...{ ...input, units, site, brief: { ...whole.brief, radio: { ...whole.brief.radio, crowded24: 'stay-on' } } },
      before: new Map(ids.map((unit) => [unit, { ...plannedNothing, locks }])),
      ...part,
    })

  it('says which could be off, and how much of all floors is covered with them and without', () => {
    const { crowded, plans } = planned({ '2.4': 1 })
    expect(crowded?.units).toEqual(['d'])
    const radios = radiosOnAir('2.4', site, new Map(plans.map((plan) => [plan.unit, plan])))
    const squares = (on: typeof radios): number => {
      const [here] = [...situated(site.floors).values()]
      return here ? coverage('2.4', here, on, 2).dbm.filter((dbm) => dbm >= wantedDbm).length : 0
    }
    const ofAll = 2 * 50 * 10
    expect(crowded?.coveredNow).toBeCloseTo(squares(radios) / ofAll, 9)
    expect(crowded?.coveredWithout).toBeCloseTo(squares(radios.slice(0, 3)) / ofAll, 9)
    expect(crowded?.coveredWithout).toBeLessThan((crowded?.coveredNow ?? 0) - 0.02)
    expect(crowded?.coveredNow).toBeLessThan(0.5)
  })

  it('says nothing of it where each finds a channel that is quiet enough', () => {
    expect(planned({}).crowded).toBeUndefined()
  })

  it('counts no floors where there are none', () => {
    const measured = ids.flatMap((a, at) => ids.slice(at + 1).map((b) => ({ a, b, band: '2.4' as const, dbm: -50 })))
    const { crowded } = planned({ '2.4': 1 }, { site: { ...emptySite, measured } })
    expect(crowded).toEqual({ units: ['d'], coveredNow: 0, coveredWithout: 0 })
  })

  it('offers nobody a channel that is shut for it', () => {
    const next = (of: LivePlan) => of.reasons.get('a 5')?.next?.option
    const free = next(planned({}))
    const shut = new Map([['a', [{ band: '5' as const, lowMhz: free?.lowMhz ?? 0, highMhz: free?.highMhz ?? 0 }]]])
    const other = next(planned({}, { shut }))
    expect(free && other && overlapOf(free, other)).toBe(0)
  })
})
