/**
 * A kit list from a CSV file or a pasted sheet, as people really have them: any column order, any separator, a byte
 * order mark, Windows line ends, MACs in any notation.
 *
 * In: the text and the list as it is. Out: a preview by line: what is added, what changes, what is wrong. Nothing is
 * changed by it.
 */

import Papa from 'papaparse'
import { parseMac } from '../address/mac'
import { type Message, message } from '../message/message'
import type { KitCard } from './kit-card'
import { matchModel, modelOfMac } from './model-match'
import { type Cells, type Column, cellsOf, columns, columnTitles, emptyCells, readCells, rowId } from './sheet-row'
import type { Unit } from './unit'

/** What is wrong with one cell, or with the line as a whole. */
export type CellFault = Message & { readonly column: Column | 'list' }

export interface ImportLine {
  /** Line in the file, from 1. */
  readonly line: number
  readonly kind: 'adds' | 'changes' | 'same' | 'fault'
  readonly id: string
  readonly cells: Cells
  /** What the row had before, where it changes. */
  readonly before: Cells | undefined
  /** The password on its label; empty where the file says none. It is sealed, and stands in no cell. */
  readonly password: string
  readonly faults: readonly CellFault[]
}

/** What a column of a file may mean: a cell of the list, or what is sealed beside it. */
export const importColumns = [...columns, 'password'] as const
export type ImportColumn = (typeof importColumns)[number]
export const importTitles: Readonly<Record<ImportColumn, string>> = {
  ...columnTitles,
  password: 'Password on its label',
}

export interface ImportPreview {
  readonly lines: readonly ImportLine[]
  /** Column of the file for each of ours, from 0; by choice, by its heading, or by what stands in it. */
  readonly found: Readonly<Partial<Record<ImportColumn, number>>>
  /** Heading of each column of the file, or the first thing that stands in it. */
  readonly headings: readonly string[]
  /** What is wrong with the file as a whole. */
  readonly faults: readonly Message[]
}

/** Longest file that is read, characters: some ten thousand units. */
const longest = 2_000_000

/** What a person says that a column of the file means, by its place from 0; null for nothing. */
export type ChosenColumns = ReadonlyMap<number, ImportColumn | null>

/** Headings that people write, plain: small letters and digits. */
const knownHeadings: Readonly<Record<ImportColumn, readonly string[]>> = {
  name: ['name', 'unit', 'unitname', 'hostname', 'host', 'device', 'devicename', 'apname', 'ap', 'label'],
  location: ['location', 'place', 'room', 'where', 'area', 'position', 'site'],
  model: ['model', 'type', 'product', 'modell', 'devicetype', 'makermodel', 'partnumber'],
  mac: [
    'mac',
    'macaddress',
    'macaddr',
    'ethernetmac',
    'hwaddress',
    'hardwareaddress',
    'ethernetaddress',
    'wiredmac',
    'macid',
  ],
  serial: ['serial', 'serialnumber', 'serialno', 'sn', 'snr', 'seriennummer'],
  port: ['port', 'benchport', 'switchport', 'swport', 'interface', 'portno', 'portnumber'],
  siteSwitch: ['siteswitch', 'switch', 'switchname', 'closet', 'accessswitch', 'uplinkswitch'],
  sitePort: ['siteport', 'uplinkport', 'patchport', 'outlet', 'wallport'],
  password: ['password', 'labelpassword', 'defaultpassword', 'factorypassword', 'adminpassword', 'loginpassword'],
}

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '')

export function previewImport(
  text: string,
  units: readonly Unit[],
  cards: ReadonlyMap<string, KitCard>,
  chosen: ChosenColumns = new Map(),
): ImportPreview {
  const nothing = { lines: [], found: {}, headings: [] }
  if (text.length > longest)
    return {
      ...nothing,
      faults: [message('file-too-long', { count: text.length, longest })],
    }
  const records = readRecords(text)
  const [first] = records
  if (!first) return { ...nothing, faults: [message('file-empty')] }
  const named = findByHeading(first.values)
  const headed = named.name !== undefined || named.mac !== undefined || !first.values.some((value) => parseMac(value))
  const body = headed ? records.slice(1) : records
  const rows = body.map((record) => record.values)
  // A MAC is known by its looks, whatever stands above it.
  const looks: FoundColumns = headed && named.mac !== undefined ? {} : findByContent(rows, cards)
  const told = headed ? { ...(looks.mac === undefined ? {} : { mac: looks.mac }), ...named } : looks
  const found = withChosen(told, chosen)
  const headings = columnsOf(records, headed)
  if (found.mac === undefined)
    return {
      ...nothing,
      found,
      headings,
      faults: [message('no-mac-column')],
    }
  return { lines: compareLines(body, found, units, cards), found, headings, faults: [] }
}

/** What a person chose goes before what was found; one column of the file means one thing. */
function withChosen(found: FoundColumns, chosen: ChosenColumns): FoundColumns {
  const kept = Object.entries(found).filter(([, place]) => !chosen.has(place))
  const said = [...chosen].flatMap(([place, column]) => (column === null ? [] : [[column, place] as const]))
  return Object.fromEntries([...kept, ...said])
}

/** The columns of a file by their headings; where it has none, by the first thing in them. */
function columnsOf(records: readonly CsvRecord[], headed: boolean): string[] {
  const width = Math.max(...records.map(({ values }) => values.length))
  return Array.from({ length: width }, (_, place) => {
    const heading = headed ? records[0]?.values[place] : ''
    return heading || (records.find(({ values }) => values[place])?.values[place] ?? '')
  })
}

interface CsvRecord {
  readonly line: number
  readonly values: readonly string[]
}

/** Records with the line that each begins on; empty ones are left out. */
function readRecords(text: string): CsvRecord[] {
  const clean = text.replace(/^\uFEFF/, '').replace(/^sep=(.)\r?\n/i, '')
  const skipped = text.replace(/^\uFEFF/, '').length === clean.length ? 0 : 1
  const firstLine = clean.split(/\r?\n/).find((line) => line.trim() !== '') ?? ''
  const separator = [';', '\t', ',', '|']
    .map((sign) => ({ sign, count: firstLine.split(sign).length }))
    .sort((a, b) => b.count - a.count)[0]
  const records: CsvRecord[] = []
  let line = 1 + skipped
  let read = 0
  Papa.parse<string[]>(clean, {
    delimiter: separator && separator.count > 1 ? separator.sign : ',',
    step: ({ data, meta }) => {
      const values = data.map((value) => value.replace(/\s+/g, ' ').trim())
      if (values.some((value) => value !== '')) records.push({ line, values })
      line += clean.slice(read, meta.cursor).split('\n').length - 1
      read = meta.cursor
    },
  })
  return records
}

type FoundColumns = Partial<Record<ImportColumn, number>>

function findByHeading(values: readonly string[]): FoundColumns {
  const found: FoundColumns = {}
  values.forEach((value, index) => {
    const column = importColumns.find((each) => knownHeadings[each].includes(plain(value)))
    if (column && found[column] === undefined) found[column] = index
  })
  return found
}

/** Without headings: a column is what most of its cells look like; what is left is the name, then the location. */
function findByContent(rows: readonly (readonly string[])[], cards: ReadonlyMap<string, KitCard>): FoundColumns {
  const width = Math.max(0, ...rows.map((row) => row.length))
  const looks: readonly [Column, (value: string) => boolean][] = [
    ['mac', (value) => parseMac(value) !== undefined],
    ['model', (value) => cards.has(matchModel(value, cards))],
    ['port', (value) => /^\d{1,3}$/.test(value)],
    ['serial', (value) => /^(?=.*\d)[A-Z0-9-]{6,40}$/.test(value)],
  ]
  const found: FoundColumns = {}
  const taken = new Set<number>()
  for (const [column, like] of looks) {
    const best = Array.from({ length: width }, (_, index) => index)
      .filter((index) => !taken.has(index))
      .map((index) => ({
        index,
        share: rows.filter((row) => like(row[index] ?? '')).length / Math.max(1, rows.length),
      }))
      .sort((a, b) => b.share - a.share)[0]
    if (best && best.share > 0.5) {
      found[column] = best.index
      taken.add(best.index)
    }
  }
  for (const column of ['name', 'location'] as const) {
    const free = Array.from({ length: width }, (_, index) => index).find((index) => !taken.has(index))
    if (free === undefined) break
    found[column] = free
    taken.add(free)
  }
  return found
}

function compareLines(
  body: readonly CsvRecord[],
  found: FoundColumns,
  units: readonly Unit[],
  cards: ReadonlyMap<string, KitCard>,
): ImportLine[] {
  const byMac = new Map(units.map((unit) => [unit.mac, unit]))
  const bySerial = new Map(units.filter((unit) => unit.serial !== '').map((unit) => [unit.serial.toLowerCase(), unit]))
  const taken = new Set(units.map((unit) => unit.id))
  const firstLine = {
    mac: new Map<string, number>(),
    name: new Map<string, number>(),
    serial: new Map<string, number>(),
  }
  const claimed = new Set<string>()
  return body.map(({ line, values }): ImportLine => {
    const value = (column: ImportColumn): string => (found[column] === undefined ? '' : (values[found[column]] ?? ''))
    const mac = parseMac(value('mac'))
    const model = matchModel(value('model'), cards)
    const typed: Cells = {
      name: value('name'),
      location: value('location'),
      model: model === '' && mac ? (modelOfMac(mac, cards) ?? '') : model,
      mac: mac ?? value('mac'),
      serial: value('serial'),
      port: value('port').replace(/^(?:port|eth|p)\s*/i, ''),
      siteSwitch: value('siteSwitch'),
      sitePort: value('sitePort'),
    }
    const there = (mac && byMac.get(mac)) || (mac ? undefined : bySerial.get(typed.serial.toLowerCase()))
    const before = there && cellsOf(there)
    // A column that the file lacks leaves what is there alone.
    const cells = before ? merge(before, typed, found) : { ...emptyCells, ...typed }
    const id = there?.id ?? rowId(cells.name, taken)
    taken.add(id)
    const reading = readCells(id, cells)
    const faults: CellFault[] = reading.ok
      ? []
      : reading.faults.map(({ column, code, params }) => ({ column, code, params }))
    for (const column of ['mac', 'name', 'serial'] as const) {
      const key = cells[column].toLowerCase()
      const other = key === '' ? undefined : firstLine[column].get(key)
      if (other !== undefined)
        faults.push({
          column,
          ...message('line-same', { line: other, what: column, value: cells[column] }),
        })
      else firstLine[column].set(key, line)
    }
    const namesake = units.find(
      (unit) => unit.name.toLowerCase() === cells.name.toLowerCase() && unit.id !== id && !claimed.has(unit.id),
    )
    if (namesake && !there)
      faults.push({ column: 'name', ...message('on-the-list-already', { name: namesake.name, mac: namesake.mac }) })
    // A model without a card is set by hand. One whose MAC is known is more likely misspelt.
    const known = mac && cells.model !== '' && !cards.has(cells.model) ? modelOfMac(mac, cards) : undefined
    if (known !== undefined)
      faults.push({
        column: 'model',
        ...message('no-card-for-mac', { model: cells.model, known }),
      })
    if (cells.model === '') faults.push({ column: 'model', ...message('model-missing') })
    if (there) claimed.add(there.id)
    const password = value('password')
    const same = before && password === '' && columns.every((column) => before[column] === cells[column])
    return {
      line,
      id,
      cells,
      before,
      password,
      faults,
      kind: faults.length > 0 ? 'fault' : same ? 'same' : before ? 'changes' : 'adds',
    }
  })
}

function merge(before: Cells, typed: Cells, found: FoundColumns): Cells {
  const merged = { ...before }
  for (const column of columns) if (found[column] !== undefined && typed[column] !== '') merged[column] = typed[column]
  return merged
}
