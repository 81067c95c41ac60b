import { describe, expect, it } from 'vitest'
import { cards } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { sentence } from '../../words/en/sentence'
import { type CellFault, previewImport } from './import-csv'
import { columnTitles } from './sheet-row'
import type { Unit } from './unit'

const there: Unit = {
  id: 'hall-01',
  name: 'hall-01',
  location: 'desk',
  model: 'Ostrel O-40',
  mac: '02:4f:52:00:00:01',
  serial: 'S-1',
  port: 1,
  siteSwitch: '',
  sitePort: '',
}
const faultWords = (fault: CellFault): string =>
  fault.column === 'list' ? sentence(fault) : `${columnTitles[fault.column]}: ${sentence(fault)}`

const told = (text: string, units: readonly Unit[] = []) =>
  previewImport(text, units, cards).lines.map((line) => [line.line, line.kind, ...line.faults.map(faultWords)])

describe('importing a list', () => {
  it(
    'reads a messy file: a byte order mark, semicolons, Windows line ends, any order of columns, MACs in any ' +
      'notation',
    () => {
      const text =
        '\uFEFFSwitch port;Serial No.;MAC-Address;Location;Remarks;Host name;Type\r\nPort ' +
        '3;S-3;02-4F-52-00-00-03;"gate ""A""; ' +
        'left";old;hall-03;o40\r\n\r\n4;S-4;024F.5200.0004;café;;hall-04;OSTREL ' +
        'O-40\r\n;;024f52000005;;;hall-05;\r\n'
      const preview = previewImport(text, [], cards)
      expect(preview.headings[4]).toBe('Remarks')
      expect(Object.values(preview.found)).not.toContain(4)
      expect(preview.lines.map((line) => [line.line, line.kind, line.cells])).toMatchObject([
        [
          2,
          'adds',
          {
            name: 'hall-03',
            location: 'gate "A"; left',
            model: 'Ostrel O-40',
            mac: '02:4f:52:00:00:03',
            serial: 'S-3',
            port: '3',
          },
        ],
        [
          4,
          'adds',
          {
            name: 'hall-04',
            location: 'café',
            model: 'Ostrel O-40',
            mac: '02:4f:52:00:00:04',
            serial: 'S-4',
            port: '4',
          },
        ],
        // The model is told by the MAC where nobody wrote it.
        [
          5,
          'adds',
          { name: 'hall-05', location: '', model: 'Ostrel O-40', mac: '02:4f:52:00:00:05', serial: '', port: '' },
        ],
      ])
    },
  )

  it('tells by their content which columns a file without headings has', () => {
    const text =
      'hall-01\tdesk\t02:4f:52:00:00:01\tOstrel ' +
      'O-40\tOS4-7731-2C\t1\nhall-02\tcafé\t02:4f:52:00:00:02\tOstrel O-40\tOS4-7731-2D\t2\n'
    expect(previewImport(text, [], cards).found).toEqual({ mac: 2, model: 3, port: 5, serial: 4, name: 0, location: 1 })
    expect(told(text)).toEqual([
      [1, 'adds'],
      [2, 'adds'],
    ])
  })

  it('shows what a line changes, and leaves alone what the file does not speak of', () => {
    const preview = previewImport('name,mac,port\nhall-01,02:4f:52:00:00:01,7\n', [there], cards)
    expect(preview.lines[0]).toMatchObject({
      kind: 'changes',
      id: 'hall-01',
      before: { port: '1' },
      cells: { port: '7', location: 'desk', serial: 'S-1' },
    })
    expect(told('name,mac,port\nhall-01,02:4f:52:00:00:01,1\n', [there])).toEqual([[2, 'same']])
  })

  it('takes the word of a person for what a column means, also that it means nothing', () => {
    const text = 'Ident,Hardware,Bezeichnung,place\nhall-02,02:4f:52:00:00:02,Ostrel O-40,desk\n'
    // A MAC is known by its looks, whatever its heading.
    expect(previewImport(text, [], cards).found).toEqual({ mac: 1, location: 3 })
    const chosen = new Map([[0, 'name'] as const, [2, 'siteSwitch'] as const, [3, null] as const])
    expect(previewImport(text, [], cards, chosen).lines).toMatchObject([
      { kind: 'adds', cells: { name: 'hall-02', mac: '02:4f:52:00:00:02', siteSwitch: 'Ostrel O-40', location: '' } },
    ])
  })

  it('tells two lines of one serial number', () => {
    const text =
      'name,mac,model,serial\na,02:4f:52:00:00:02,o40,S-2\nb,02:4f:52:00:00:03,o40,s-2\n' +
      'c,02:4f:52:00:00:04,o40,\nd,02:4f:52:00:00:05,o40,\n'
    const lines = previewImport(text, [], cards).lines
    expect(lines.map(({ line, faults }) => [line, faults.map(({ column }) => column)])).toEqual([
      [2, []],
      [3, ['serial']],
      [4, []],
      [5, []],
    ])
  })

  it('names each fault by its line and column', () => {
    const text =
      'name,mac,model,port\nhall-02,02:4f:52:00:00,Ostrel O-40,2\nhall-03,02:4f:52:00:00:03,Ostrel ' +
      'O-99,many\n,02:4f:52:00:00:04,Ostrel O-40,\nhall-03,02:4f:52:00:00:03,Ostrel ' +
      'O-40,\nhall-01,02:4f:52:00:00:09,Ostrel O-40,\n'
    expect(told(text, [there])).toEqual([
      [
        2,
        'fault',
        'MAC: "02:4f:52:00:00" is not a MAC address: it takes six pairs of 0-9 and a-f, such as 02:4f:52:10:6a:2c',
      ],
      [
        3,
        'fault',
        'Bench port: a switch port is a whole number from 1 to 512',
        'Model: there is no kit card for "Ostrel O-99", and the MAC is that of Ostrel O-40',
      ],
      [4, 'fault', 'Unit: a unit takes a name'],
      [5, 'fault', 'MAC: line 3 has the same MAC: 02:4f:52:00:00:03', 'Unit: line 3 has the same name: hall-03'],
      [6, 'fault', 'Unit: hall-01 is on the list already, with the MAC 02:4f:52:00:00:01'],
    ])
  })

  it('takes the passwords on labels beside the cells, never into one', () => {
    const text = 'name,mac,model,Default password\nhall-01,02:4f:52:00:00:01,Ostrel O-40,k7-x9\n'
    const [line] = previewImport(text, [], cards).lines
    expect(line).toMatchObject({ kind: 'adds', password: 'k7-x9' })
    expect(JSON.stringify(line?.cells)).not.toContain('k7-x9')
    // A unit of which nothing else is new is taken for its password.
    const known = previewImport(text, [{ ...there, location: '', serial: '', port: null }], cards).lines[0]
    expect(known).toMatchObject({ kind: 'changes', password: 'k7-x9' })
  })

  it('counts lines rightly where a cell has several', () => {
    expect(
      told(
        'name,place,mac,model\n"hall-02","first\nfloor",02:4f:52:00:00:02,Ostrel O-40\nhall-03,,nonsense,Ostrel O-40\n',
      ).map(([line, kind]) => [line, kind]),
    ).toEqual([
      [2, 'adds'],
      [4, 'fault'],
    ])
  })

  it('says in a sentence what is wrong with a file as a whole', () => {
    expect(english(previewImport('', [], cards).faults)).toEqual(['The file is empty: it needs a line for each unit.'])
    expect(english(previewImport('name,place\na,b\n', [], cards).faults)).toEqual([
      'No column holds MAC addresses: say which one does. The MAC is what tells one box from another.',
    ])
    expect(english(previewImport('x'.repeat(2_000_001), [], cards).faults[0])).toContain('2000000 are read at the most')
  })
})
