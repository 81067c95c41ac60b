import { describe, expect, it } from 'vitest'
import { cardOf, cards } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { sentence } from '../../words/en/sentence'
import { drawAtSource, poeLoads, reviewPoe } from './poe'
import { reviewRoster } from './roster'
import type { Unit } from './unit'

const unit = (part: Partial<Unit> & { id: string }): Unit => ({
  name: part.id,
  location: '',
  model: 'Ostrel O-40',
  mac: `02:4f:52:00:00:${part.id.slice(-2)}`,
  serial: '',
  port: null,
  siteSwitch: '',
  sitePort: '',
  ...part,
})
const sentences = (units: readonly Unit[]): string[] => reviewRoster(units, cards).map(sentence)
const l24 = unit({ id: 'switch-99', model: 'Lowbeam L24', mac: '02:10:24:00:00:99', name: 'bench' })

describe('the kit list', () => {
  it('finds the same MAC, name, serial or port twice, an unknown model, and a name that it does not take', () => {
    const first = unit({ id: 'hall-01', serial: 'S1', port: 1 })
    expect(
      english(sentences([first, { ...first, id: 'b', model: 'Ostrel O-99' }, unit({ id: 'c-2f', name: 'Hall 3' })])),
    ).toEqual([
      'hall-01 has the same name as hall-01: hall-01.',
      'hall-01 has the same MAC as hall-01: 02:4f:52:00:00:01.',
      'hall-01 has the same serial number as hall-01: S1.',
      'hall-01 has the same bench port as hall-01: 1.',
      'There is no kit card for "Ostrel O-99", and the MAC of hall-01 is that of Ostrel O-40.',
      'Ostrel O-40 does not take the name "Hall 3": small letters, digits and dashes only.',
    ])
  })

  it('has one unit at a port of a switch on site, whatever the case of its name', () => {
    const at = (id: string, siteSwitch: string, sitePort: string) => unit({ id, siteSwitch, sitePort })
    const faults = reviewRoster(
      [at('a-01', 'closet', '1'), at('a-02', 'Closet', '1'), at('a-03', 'loft', '1'), at('a-04', 'loft', '')],
      cards,
    )
    expect(faults.map(({ code, unit: of, field }) => [code, of, field])).toEqual([
      ['same-site-port', 'a-02', 'sitePort'],
    ])
  })

  it('keeps a row out only for what the list cannot hold twice', () => {
    const first = unit({ id: 'hall-01', serial: 'S1', port: 1 })
    const faults = reviewRoster([first, { ...first, id: 'hall-02' }], cards)
    expect(faults.map(({ field, weight }) => [field, weight])).toEqual([
      ['name', 'row'],
      ['mac', 'row'],
      ['serial', 'mend'],
      ['port', 'mend'],
    ])
  })

  it('sees by its MAC that a box is another model than it is listed as', () => {
    expect(sentences([unit({ id: 'x-01', mac: '02:b7:1c:00:00:01' })])).toEqual([
      'x-01 is listed as Ostrel O-40, and its MAC 02:b7:1c:00:00:01 is that of a Brackwater B7.',
    ])
  })

  it('misses the controller of units that are set through one, and counts what it manages', () => {
    const t2 = (index: number): Unit =>
      unit({
        id: `t-${String(index).padStart(2, '0')}`,
        model: 'Tarnhelm T2',
        mac: `02:7a:02:00:00:${index.toString(16).padStart(2, '0')}`,
      })
    expect(sentences([t2(1)])).toEqual(['t-01 is set through a controller (Tarnhelm C1), and none is on the list.'])
    const c1 = unit({ id: 'c-01', model: 'Tarnhelm C1', mac: '02:7a:c1:00:00:01' })
    expect(sentences([c1, ...Array.from({ length: 33 }, (_, index) => t2(index))])).toEqual([
      'c-01 manages 32 units at the most; 33 are on the list.',
    ])
  })
})

describe('power over Ethernet', () => {
  it('adds up by what is drawn and by what a switch sets aside for each class', () => {
    const units = [l24, unit({ id: 'a-01' }), unit({ id: 'b-02', model: 'Ostrel O-20', mac: '02:4f:32:00:00:02' })]
    // 13.5 and 9.5 W at the units: what the cable takes is the switch's to give.
    expect(poeLoads(units, cards)).toEqual([
      { switches: ['bench'], budgetWatts: 370, byClassWatts: 45.4, byDrawWatts: 25.2, poweredUnits: 2 },
    ])
    expect(sentences(units)).toEqual([])
  })

  it('says when the classes ask for more than there is, and when the draw does', () => {
    const many = (count: number, model: string, prefix: string): Unit[] =>
      Array.from({ length: count }, (_, index) =>
        unit({
          id: `u-${String(index).padStart(2, '0')}`,
          model,
          mac: `${prefix}:00:00:${index.toString(16).padStart(2, '0')}`,
        }),
      )
    expect(sentences([l24, ...many(13, 'Ostrel O-40', '02:4f:52')])).toEqual([
      'By their classes bench sets 390 W aside and has 370 W; the units take 189.3 W at the most. Let it ' +
        'budget by what is drawn, or plug in fewer at a time.',
    ])
    expect(sentences([l24, ...many(17, 'Brackwater B7', '02:b7:1c')])[0]).toBe(
      'The units may take 427.8 W out of bench, which gives 370 W: the last ports stay dark. Plug in fewer ' +
        'at a time, or bring another switch.',
    )
  })

  it('counts 12.95, 25.5, 51 and 71.3 W at a unit as 15.4, 30, 60 and 90 W at the switch', () => {
    for (const [watts, powerClass, atSwitch] of [
      [12.95, 3, 15.4],
      [25.5, 4, 30],
      [51, 6, 60],
      [71.3, 8, 90],
    ] as const)
      expect(drawAtSource(watts, powerClass)).toBeCloseTo(atSwitch, 1)
    expect(drawAtSource(0, 3)).toBe(0)
  })

  it('has each unit at its own switch where the list says which: the others share the bench', () => {
    const loft = unit({ id: 'switch-98', model: 'Lowbeam L24', mac: '02:10:24:00:00:98', name: 'loft' })
    const at = (id: string, siteSwitch: string) => unit({ id, siteSwitch })
    const loads = poeLoads([l24, loft, at('a-01', 'Loft'), at('a-02', 'cellar'), at('a-03', '')], cards)
    expect(loads.map(({ switches, poweredUnits }) => [switches.join(), poweredUnits])).toEqual([
      ['loft', 1],
      ['bench', 2],
    ])
  })

  it('tells both types of 802.3bt apart', () => {
    const t3 = unit({ id: 't-03', model: 'Tarnhelm T3', mac: '02:7a:03:00:00:03' })
    const with90 = { ...cardOf('Tarnhelm T3'), power: { ...cardOf('Tarnhelm T3').power, class: 8 } }
    const l24Card = cardOf('Lowbeam L24')
    const giving = (most: number) => ({
      ...l24Card,
      supplies: { ports: 24, poe: '802.3bt' as const, class: most, watts: 740 },
    })
    const faults = (most: number): string[] =>
      reviewPoe([l24, t3], new Map([...cards, ['Tarnhelm T3', with90], ['Lowbeam L24', giving(most)]])).map(sentence)
    expect(faults(8)).toEqual([])
    expect(faults(6)).toEqual([
      't-03 (Tarnhelm T3) needs 802.3bt type 4; the ports of bench give 802.3bt type 3 at the most.',
    ])
  })

  it('says when a port gives too little, or is not there', () => {
    const c1 = unit({ id: 'c-01', model: 'Tarnhelm C1', mac: '02:7a:c1:00:00:01' })
    expect(
      sentences([l24, c1, unit({ id: 't-03', model: 'Tarnhelm T3', mac: '02:7a:03:00:00:03', port: 25 })]),
    ).toEqual([
      't-03 (Tarnhelm T3) needs 802.3bt type 3; the ports of bench give 802.3at at the most.',
      't-03 is to be in port 25; bench has 24 ports.',
    ])
  })
})
