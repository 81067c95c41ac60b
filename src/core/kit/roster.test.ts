import { describe, expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { poeLoad } from './poe'
import { reviewRoster } from './roster'
import type { Unit } from './unit'

const unit = (part: Partial<Unit> & { id: string }): Unit => ({
  name: part.id,
  place: '',
  model: 'Ostrel O-40',
  mac: `02:4f:52:00:00:${part.id.slice(-2)}`,
  serial: '',
  port: null,
  ...part,
})
const sentences = (units: readonly Unit[]): string[] => reviewRoster(units, cards).map((fault) => fault.sentence)
const l24 = unit({ id: 'switch-99', model: 'Lowbeam L24', mac: '02:10:24:00:00:99', name: 'bench' })

describe('the kit list', () => {
  it('finds the same MAC, name, serial and port twice, an unknown model and a name that the model does not take', () => {
    const first = unit({ id: 'hall-01', serial: 'S1', port: 1 })
    expect(
      sentences([first, { ...first, id: 'b', model: 'Ostrel O-99' }, unit({ id: 'c-2f', name: 'Hall 3' })]),
    ).toEqual([
      'hall-01 has the same name as hall-01: hall-01.',
      'hall-01 has the same MAC as hall-01: 02:4f:52:00:00:01.',
      'hall-01 has the same serial number as hall-01: S1.',
      'hall-01 has the same switch port as hall-01: 1.',
      'There is no kit card for "Ostrel O-99".',
      'Ostrel O-40 does not take the name "Hall 3": small letters, digits and dashes only.',
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
    expect(poeLoad(units, cards)).toEqual({
      switchName: 'bench',
      budgetWatts: 370,
      byClassWatts: 45.4,
      byDrawWatts: 23,
      poweredUnits: 2,
    })
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
      'By their classes bench sets 390 W aside and has 370 W; the units draw 175.5 W at the most. Let it budget by what is drawn, or plug in fewer at a time.',
    ])
    expect(sentences([l24, ...many(17, 'Brackwater B7', '02:b7:1c')])[0]).toBe(
      'The units may draw 374 W and bench gives 370 W: the last ports stay dark. Plug in fewer at a time, or bring another switch.',
    )
  })

  it('says when a port gives too little, or is not there', () => {
    const c1 = unit({ id: 'c-01', model: 'Tarnhelm C1', mac: '02:7a:c1:00:00:01' })
    expect(
      sentences([l24, c1, unit({ id: 't-03', model: 'Tarnhelm T3', mac: '02:7a:03:00:00:03', port: 25 })]),
    ).toEqual([
      't-03 (Tarnhelm T3) needs 802.3bt; the ports of bench give 802.3at at the most.',
      't-03 is to be in port 25; bench has 24 ports.',
    ])
  })
})
