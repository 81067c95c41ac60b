import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { landScan } from './scan'
import { clearCells, fillDown, pasteBlock, sheetChanges, sortRows } from './sheet-edit'
import { cellsOf, emptyCells, readSheet, type SheetRow } from './sheet-row'
import type { Unit } from './unit'

const unit = (number: number, part: Partial<Unit> = {}): Unit => ({
  id: `hall-0${number}`,
  name: `hall-0${number}`,
  location: '',
  model: 'Ostrel O-40',
  mac: `02:4f:52:00:00:0${number}`,
  serial: `S-${number}`,
  port: number,
  siteSwitch: '',
  sitePort: '',
  ...part,
})
const row = (of: Unit): SheetRow => ({ id: of.id, cells: cellsOf(of) })
const draft = (id: string, cells: Partial<SheetRow['cells']>): SheetRow => ({ id, cells: { ...emptyCells, ...cells } })

describe('the sheet', () => {
  it('keeps rows that are whole and says what the others lack, by column', () => {
    const reading = readSheet(
      [
        row(unit(1)),
        draft('x', { name: 'x', mac: '02:4f', model: 'Ostrel O-40' }),
        draft('y', { name: 'hall-01', mac: '02:4f:52:00:00:09', model: 'Ostrel O-40' }),
      ],
      cards,
    )
    expect(reading.units.map((each) => each.id)).toEqual(['hall-01'])
    expect(reading.faults.map(({ row: of, column, weight }) => [of, column, weight])).toEqual([
      ['x', 'mac', 'row'],
      ['y', 'name', 'row'],
    ])
  })

  it('takes a block from a spreadsheet where the cell is, adds rows that are missing, and tidies what it takes', () => {
    const rows = pasteBlock(
      [row(unit(1))],
      { row: 0, column: 2 },
      [
        ['o-40', '024F.5200.0001'],
        ['brackwater b7', '02-B7-1C-00-00-02', 'B7-1', '9', 'closet', 'A9', 'too far right'],
      ],
      cards,
    )
    expect(rows.map(({ cells }) => [cells.name, cells.model, cells.mac, cells.serial, cells.port])).toEqual([
      ['hall-01', 'Ostrel O-40', '02:4f:52:00:00:01', 'S-1', '1'],
      ['', 'Brackwater B7', '02:b7:1c:00:00:02', 'B7-1', '9'],
    ])
  })

  it("fills down: names and ports count on, MACs and serials stay each box's own", () => {
    const rows = [
      draft('a', {
        name: 'gate-09',
        location: 'gates',
        model: 'Ostrel O-40',
        mac: '02:4f:52:00:00:01',
        port: '9',
        siteSwitch: 'loft',
        sitePort: 'A7',
      }),
      draft('b', {}),
      draft('c', { mac: '02:4f:52:00:00:03' }),
    ]
    expect(fillDown(rows, { top: 0, bottom: 2, left: 0, right: 7 }).map(({ cells }) => Object.values(cells))).toEqual([
      ['gate-09', 'gates', 'Ostrel O-40', '02:4f:52:00:00:01', '', '9', 'loft', 'A7'],
      ['gate-10', 'gates', 'Ostrel O-40', '', '', '10', 'loft', 'A8'],
      ['gate-11', 'gates', 'Ostrel O-40', '02:4f:52:00:00:03', '', '11', 'loft', 'A9'],
    ])
  })

  it('sorts numbers by their value, and empty cells last either way', () => {
    const rows = ['hall-10', '', 'hall-9'].map((name, index) => draft(`r${index}`, { name }))
    expect(sortRows(rows, 'name', 'up').map((each) => each.cells.name)).toEqual(['hall-9', 'hall-10', ''])
    expect(sortRows(rows, 'name', 'down').map((each) => each.cells.name)).toEqual(['hall-10', 'hall-9', ''])
  })

  it('empties a range and nothing beside it', () => {
    expect(
      clearCells([row(unit(1)), row(unit(2))], { top: 1, bottom: 1, left: 4, right: 5 }).map(({ cells }) => [
        cells.serial,
        cells.port,
      ]),
    ).toEqual([
      ['S-1', '1'],
      ['', ''],
    ])
  })

  it('tells the store just what has changed: rows added, changed, gone, and the order where it differs', () => {
    const kept = [1, 2, 3].map((number) => ({ ...unit(number), version: number }))
    const rows = [row(unit(3)), row(unit(1, { location: 'desk' })), draft('new', cellsOf(unit(4)))]
    const changes = sheetChanges(rows, readSheet(rows, cards).units, kept)
    expect(changes).toMatchObject({
      add: [{ id: 'new' }],
      change: [{ id: 'hall-01', location: 'desk', version: 1 }],
      remove: ['hall-02'],
      order: ['hall-03', 'hall-01', 'new'],
    })
    expect(sheetChanges(kept.map(row), kept, kept)).toBeUndefined()
  })

  it("keeps the store's row while what stands in the sheet is not whole yet", () => {
    const kept = [{ ...unit(1), version: 1 }]
    const rows = [draft('hall-01', { ...cellsOf(unit(1)), mac: 'half' })]
    expect(sheetChanges(rows, readSheet(rows, cards).units, kept)).toBeUndefined()
  })

  it('never loses a cell in a paste, wherever it begins', () => {
    fc.assert(
      fc.property(
        fc.nat(5),
        fc.array(fc.array(fc.stringMatching(/^[a-z]{1,6}$/), { minLength: 1, maxLength: 6 }), {
          minLength: 1,
          maxLength: 6,
        }),
        (top, block) => {
          const before = [1, 2, 3].map((number) => row(unit(number)))
          const after = pasteBlock(before, { row: Math.min(top, 3), column: 0 }, block, cards)
          const corner = Math.min(top, 3)
          block.forEach((line, down) => {
            expect(Object.values(after[corner + down]?.cells ?? {}).slice(0, line.length)).toEqual(line)
          })
          before.slice(0, corner).forEach((each, index) => {
            expect(after[index]).toEqual(each)
          })
          expect(new Set(after.map((each) => each.id)).size).toBe(after.length)
        },
      ),
    )
  })
})

describe('a label that is scanned', () => {
  const rows = [
    row(unit(1)),
    draft('a', { name: 'yard-01', model: 'Brackwater B7' }),
    draft('b', { name: 'hall-02', model: 'Ostrel O-40' }),
  ]
  const scan = (text: string, last?: string) => landScan({ text, rows, last, cards })

  it('lands on the next row that waits for a box of its model', () => {
    expect(scan('024F52000008')).toEqual({ kind: 'fills', row: 'b', cells: { mac: '02:4f:52:00:00:08' } })
    expect(scan('MAC:02-B7-1C-00-00-01')).toEqual({ kind: 'fills', row: 'a', cells: { mac: '02:b7:1c:00:00:01' } })
  })

  it('takes MAC and serial from one code, or one after the other', () => {
    expect(scan('S/N:OS4-99;MAC:024f52000008')).toEqual({
      kind: 'fills',
      row: 'b',
      cells: { mac: '02:4f:52:00:00:08', serial: 'OS4-99' },
    })
    const half = [...rows.slice(0, 2), draft('b', { name: 'hall-02', model: 'Ostrel O-40', mac: '02:4f:52:00:00:08' })]
    expect(landScan({ text: 'OS4-99', rows: half, last: 'b', cards })).toEqual({
      kind: 'fills',
      row: 'b',
      cells: { serial: 'OS4-99' },
    })
  })

  it.each([
    ['MAC:02-B7-1C-00-00-01;PW:x9,K2', 'x9,K2'],
    ['S/N B7-12 02b71c000001 Default password = hunter-7!', 'hunter-7!'],
    ['admin_pwd:1234 | 02:b7:1c:00:00:01', '1234'],
  ])('takes the password of the box out of it: %s', (text, clear) => {
    const landing = scan(text)
    expect(landing).toMatchObject({ kind: 'fills', row: 'a', password: { mac: '02:b7:1c:00:00:01', clear } })
    expect(JSON.stringify('cells' in landing && landing.cells)).not.toContain(clear)
  })

  it('takes a password that has a code of its own for the box that was scanned just now', () => {
    expect(scan('Password: q7', 'hall-01')).toMatchObject({
      kind: 'found',
      row: 'hall-01',
      password: { mac: '02:4f:52:00:00:01', clear: 'q7' },
    })
    // Nobody knows whose it is: it is not repeated either.
    const nobodys = scan('Password: q7')
    expect(nobodys.kind).toBe('nothing')
    expect(JSON.stringify(nobodys)).not.toContain('q7')
  })

  it('finds the row that has it already', () => {
    expect(scan('02:4f:52:00:00:01')).toEqual({ kind: 'found', row: 'hall-01', by: 'mac' })
    expect(scan('s-1')).toEqual({ kind: 'found', row: 'hall-01', by: 'serial' })
  })

  it('begins a row where none waits, with the model that the MAC tells', () => {
    expect(landScan({ text: '02:7a:c1:00:00:01', rows: [row(unit(1))], last: undefined, cards })).toEqual({
      kind: 'new',
      cells: { mac: '02:7a:c1:00:00:01', model: 'Tarnhelm C1' },
    })
  })

  it('says that it is neither, and changes nothing', () => {
    expect(english(scan('hello there'))).toEqual({
      kind: 'nothing',
      why: '"hello there" is neither a MAC nor a serial number.',
    })
  })
})
