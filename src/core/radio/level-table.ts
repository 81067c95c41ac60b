/** Tables of levels as people and programs save them: columns by their headings, in any order, units written or not. */
import Papa from 'papaparse'

/** What tables call the level. */
const levelHeadings: Readonly<Record<string, string>> = { level: 'dbm', signal: 'dbm', rssi: 'dbm' }

export interface TableRow {
  /** `line 3`, as whoever wrote the table counts. */
  readonly where: string
  readonly cells: Readonly<Record<string, string | undefined>>
}

/** @param headings  further names of columns, in small letters, by which they are known here */
export function tableRows(text: string, headings: Readonly<Record<string, string>>): TableRow[] {
  const names = { ...levelHeadings, ...headings }
  const { data } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, '').trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: (heading) => names[heading.trim().toLowerCase()] ?? heading.trim().toLowerCase(),
  })
  return data.map((cells, at) => ({ where: `line ${at + 2}`, cells }))
}

/** `5` of `5 GHz`. */
export function bandCell(text: string | undefined): string {
  return (text ?? '').replace(/\s*ghz/i, '')
}

/** -71 of `-71 dBm`; not a number where nothing stands there. */
export function dbmCell(text: string | undefined): number {
  return text?.trim() ? Number(text.replace(/\s*dbm/i, '')) : Number.NaN
}
