import { describe, expect, it } from 'vitest'
import type { Brief } from '../brief/brief'
import type { Unit } from '../kit/unit'
import type { MusterEvent } from './events'
import { heldFor } from './held'
import { steps } from './procedure'
import { foldRoll } from './roll'
import { type Standings, standings } from './stages'

const unitOf = (id: string): Unit => ({
  ...{ id, name: id, location: '', model: 'Ostrel O-40', mac: `02:4f:52:00:00:0${id}`, serial: '', port: 1 },
  ...{ siteSwitch: '', sitePort: '' },
})
const [one, two] = [unitOf('1'), unitOf('2')]
const answersFor = (unit: string): MusterEvent[] =>
  steps.map((step) => ({ kind: 'step', unit, step, state: { kind: 'done' } }))
const waitsFor = (unit: string): MusterEvent => ({
  ...{ kind: 'step', unit, step: 'reach' },
  state: heldFor('set-by-hand', { why: 'no card' }),
})
const brief = (networks: number): Brief => ({ networks: Array.from({ length: networks }) }) as unknown as Brief
const stand = (events: readonly MusterEvent[], more: Partial<Standings> = {}) =>
  standings({
    ...{ brief: brief(1), countryName: 'New Zealand', units: [one, two], planned: 2 },
    faults: { brief: 0, kit: 0, plan: 0 },
    roll: foldRoll(events.map((event, index) => ({ seq: index + 1, at: index, event }))),
    ...more,
  })

describe('a unit that hands are to set', () => {
  const called = [one]

  it('is counted beside those that answer, and alarms nobody', () => {
    const { muster } = stand([...answersFor('1'), waitsFor('2')], { called })
    expect(muster).toEqual({ words: '1 of 2 answer, 1 by hand', mark: 'none' })
    expect(stand([...answersFor('1')], { called }).muster).toEqual({ words: '1 of 2 answer, 1 by hand', mark: 'none' })
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
    expect(muster).toEqual({ words: '2 of 2 answer', mark: 'done' })
  })
})

describe('a muster', () => {
  it('is not done before everybody who is called answers', () => {
    expect(stand(answersFor('1')).muster).toEqual({ words: '1 of 2 answer', mark: 'none' })
    expect(stand(answersFor('1')).handover.mark).toBe('none')
    expect(stand([]).muster.words).toBe('0 of 2 answer')
  })

  it('of nobody is never done', () => {
    const none = stand([], { units: [], planned: 0 })
    expect([none.muster.mark, none.handover.mark, none.plan.mark, none.kit.mark]).toEqual([
      ...['none', 'none', 'none', 'attention'],
    ])
  })

  it('of a unit that is held wants somebody', () => {
    const held: MusterEvent = { kind: 'step', unit: '2', step: 'reach', state: heldFor('went-wrong', {}) }
    expect(stand([...answersFor('1'), held]).muster).toEqual({ words: '1 of 2 answer, 1 held', mark: 'attention' })
  })
})

describe('a brief', () => {
  it('without a network is not done, and nothing is wrong with it', () => {
    expect(stand([], { brief: brief(0) }).brief).toEqual({ words: 'New Zealand, no network yet', mark: 'none' })
    const faulty = { brief: brief(0), faults: { brief: 1, kit: 0, plan: 0 } }
    expect(stand([], faulty).brief).toEqual({ words: '1 thing to mend', mark: 'attention' })
  })
})

describe('a plan and a bench', () => {
  it('say how many units they lack or have, and who is a stray', () => {
    expect(stand([], { planned: 1 }).plan).toEqual({ words: '1 unit without a plan', mark: 'attention' })
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
    expect(stand([swept(one.mac)]).bench).toEqual({ words: '1 on the wire', mark: 'none' })
    expect(stand([swept(one.mac, two.mac)]).bench).toEqual({ words: '2 on the wire', mark: 'done' })
    expect(stand([swept(one.mac, '02:00:00:00:00:99')]).bench).toEqual({
      ...{ words: '1 on the wire, 1 stray', mark: 'attention' },
    })
  })
})
