/** Tables of levels as people and programs save them: columns by their headings, in any order, units written or not. */
import Papa from 'papaparse'
import type { z } from 'zod'
import { fromText, type Message, message } from '../../message/message'

/** What tables call the level. */
const levelHeadings: Readonly<Record<string, string>> = { level: 'dbm', signal: 'dbm', rssi: 'dbm' }

export interface TableRow {
  /** As whoever wrote the table counts. */
  readonly where: Message<'line-number'>
  readonly cells: Readonly<Record<string, string | undefined>>
}

/** @param headings  further names of columns, in small letters, by which they are known here */
export function tableRows(text: string, headings: Readonly<Record<string, string>>): TableRow[] {
  const names = { ...levelHeadings, ...headings }
  const { data } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    transformHeader: (heading) => {
      const written = heading.trim().toLowerCase()
      return names[written] ?? written
    },
  })
  // Empty lines are none, and are counted all the same.
  return data
    .map((cells, at) => ({ where: message('line-number', { line: at + 2 }), cells }))
    .filter(({ cells }) => Object.values(cells).some((cell) => cell !== ''))
}

/** What is wrong with a row, and in which column. */
export function rowFault(where: Message, { issues: [issue] }: z.ZodError): Message<'row-unfit'> {
  const told = fromText(issue?.message ?? '')
  return message('row-unfit', { where, column: issue?.path.join('.') ?? '', told })
}

/** `5` of `5 GHz`. */
export function bandCell(text: string | undefined): string | undefined {
  return text?.replace(/ghz/i, '').trim()
}

/** -71 of `-71 dBm`; not a number where nothing stands there. */
export function dbmCell(text: string | undefined): number {
  return text?.trim() ? Number(text.replace(/dbm/i, '')) : Number.NaN
}
