import { describe, expect, it } from 'vitest'
import { sentence } from '../../words/en/sentence'
import type { Brief } from '../brief/brief'
import type { Unit } from '../kit/unit'
import { asTold } from '../message/message'
import type { MusterEvent } from './events'
import { heldFor } from './held'
import { steps } from './procedure'
import { foldRoll } from './roll'
import { type Standing, type Standings, standings } from './stages'

const unitOf = (id: string): Unit => ({
  ...{ id, name: id, location: '', model: 'Ostrel O-40', mac: `02:4f:52:00:00:0${id}`, serial: '', port: 1 },
  ...{ siteSwitch: '', sitePort: '' },
})
const [one, two] = [unitOf('1'), unitOf('2')]
const answersFor = (unit: string): MusterEvent[] =>
  steps.map((step) => ({ kind: 'step', unit, step, state: { kind: 'done' } }))
const waitsFor = (unit: string): MusterEvent => ({
  ...{ kind: 'step', unit, step: 'reach' },
  state: heldFor('set-by-hand', { why: asTold('no card') }),
})
const brief = (networks: number): Brief =>
  ({ country: 'NZ', networks: Array.from({ length: networks }) }) as unknown as Brief
const stand = (events: readonly MusterEvent[], more: Partial<Standings> = {}) =>
  standings({
    ...{ brief: brief(1), countryName: 'New Zealand', units: [one, two], planned: 2 },
    faults: { brief: 0, kit: 0, plan: 0 },
    roll: foldRoll(events.map((event, index) => ({ seq: index + 1, at: index, event }))),
    ...more,
  })

const worded = ({ told, mark }: Standing): [string, string] => [sentence(told), mark]

describe('a unit that hands are to set', () => {
  const called = [one]

  it('is counted beside those that answer, and alarms nobody', () => {
    const { muster } = stand([...answersFor('1'), waitsFor('2')], { called })
    expect(worded(muster)).toEqual(['1 of 2 answer, 1 by hand', 'none'])
    expect(worded(stand([...answersFor('1')], { called }).muster)).toEqual(['1 of 2 answer, 1 by hand', 'none'])
  })

  it('lets the papers open, which say what is missing, once all others answer', () => {
    expect(stand([waitsFor('2')], { called }).handover.mark).toBe('none')
    expect(stand([...answersFor('1'), waitsFor('2')], { called }).handover.mark).toBe('done')
    expect(stand([...answersFor('1'), waitsFor('2')], { called, incomplete: () => true }).handover.mark).toBe(
      'attention',
    )
  })

  it('is one of those that answer once it does', () => {
    const { muster } = stand([...answersFor('1'), ...answersFor('2')], { called })
    expect(worded(muster)).toEqual(['2 of 2 answer', 'done'])
  })
})

describe('a muster', () => {
  it('is not done before everybody who is called answers', () => {
    expect(worded(stand(answersFor('1')).muster)).toEqual(['1 of 2 answer', 'none'])
    expect(stand(answersFor('1')).handover.mark).toBe('none')
    expect(sentence(stand([]).muster.told)).toBe('0 of 2 answer')
  })

  it('of nobody is never done', () => {
    const none = stand([], { units: [], planned: 0 })
    expect([none.muster.mark, none.handover.mark, none.plan.mark, none.kit.mark]).toEqual([
      ...['none', 'none', 'none', 'attention'],
    ])
  })

  it('of a unit that is held wants somebody', () => {
    const held: MusterEvent = { kind: 'step', unit: '2', step: 'reach', state: heldFor('went-wrong', {}) }
    expect(worded(stand([...answersFor('1'), held]).muster)).toEqual(['1 of 2 answer, 1 held', 'attention'])
  })
})

describe('a brief', () => {
  it('without a network is not done, and nothing is wrong with it', () => {
    expect(worded(stand([], { brief: brief(0) }).brief)).toEqual(['New Zealand, no network yet', 'none'])
    const faulty = { brief: brief(0), faults: { brief: 1, kit: 0, plan: 0 } }
    expect(worded(stand([], faulty).brief)).toEqual(['1 thing to mend', 'attention'])
  })
})

describe('a plan and a bench', () => {
  it('say how many units they lack or have, and who is a stray', () => {
    expect(worded(stand([], { planned: 1 }).plan)).toEqual(['1 unit without a plan', 'attention'])
    expect(stand([]).plan.mark).toBe('done')
    const seen = (mac: string) => ({
      ...{ mac, address: '10.0.0.1', model: null, by: [], unit: null },
      ...({ seen: 'elsewhere', answers: 'arp-only' } as const),
    })
    const swept = (...macs: string[]): MusterEvent => ({
      kind: 'sweep',
      sightings: macs.map(seen),
      heard: { servers: [], asking: [], cableEnd: null, onLink: [], lending: { state: 'off', leases: [] }, named: [] },
    })
    expect(worded(stand([swept(one.mac)]).bench)).toEqual(['1 on the wire', 'none'])
    expect(worded(stand([swept(one.mac, two.mac)]).bench)).toEqual(['2 on the wire', 'done'])
    expect(worded(stand([swept(one.mac, '02:00:00:00:00:99')]).bench)).toEqual(['1 on the wire, 1 stray', 'attention'])
  })
})
