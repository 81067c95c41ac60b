/** The as-built sheet in words: its remarks, what is missing, and the sheet as CSV. */
import Papa from 'papaparse'
import type { SettingOutcome } from '../../core/config/outcomes'
import type { AsBuiltRow, Gap } from '../../core/handover/as-built'
import { remarkWords as remarksIn } from '../sheet-words'
import { englishPapers } from './papers'

/** What a row's remarks say, in one line; empty where there are none. */
export const remarkWords = (row: Pick<AsBuiltRow, 'remarks'>): string => remarksIn(englishPapers, row)

/** What is missing before the papers are complete, as a sentence. */
export function gapWords(gap: Gap): string {
  switch (gap.kind) {
    case 'held':
      return `${gap.row.name} is held. ${remarkWords(gap.row)}`
    case 'changed':
      return `${gap.row.name} was changed since it was mustered. ${remarkWords(gap.row)} Muster it again.`
    case 'not-mustered':
      return together(gap.rows, 'has not been mustered', 'have not been mustered')
    case 'by-hand':
      return together(gap.rows, 'has settings to be seen to by hand', 'have settings to be seen to by hand')
  }
}

function together(rows: readonly [AsBuiltRow, ...AsBuiltRow[]], one: string, many: string): string {
  const names = rows.map(({ name }) => name).join(', ')
  return rows.length === 1 ? `${names} ${one}.` : `${rows.length} units ${many}: ${names}.`
}

/** The sheet for other programs: as it is, with its remarks in words. */
export const forPrograms = (rows: readonly AsBuiltRow[]) =>
  rows.map(({ remarks, ...row }) => ({ ...row, remark: remarkWords({ remarks }) }))

/** The sheet as CSV (RFC 4180). Cells that a spreadsheet would take for a formula are quoted with an apostrophe. */
export function asBuiltCsv(rows: readonly AsBuiltRow[]): string {
  const bandsUsed = [...new Set(rows.flatMap((row) => row.radios.map((radio) => radio.band)))].sort()
  const records = rows.map((row) => ({
    name: row.name,
    location: row.location,
    model: row.model,
    mac: row.mac,
    serial: row.serial,
    'site switch': row.siteSwitch,
    'site port': row.sitePort,
    address: row.address,
    ...Object.fromEntries(
      bandsUsed.flatMap((band) => {
        const radio = row.radios.find((each) => each.band === band)
        return [
          [`channel ${band} GHz`, radio?.channel ?? ''],
          [`planned channel ${band} GHz, before radar`, radio?.plannedChannel ?? ''],
          [`width ${band} GHz (MHz)`, radio?.width ?? ''],
          [`power ${band} GHz, as set (dBm)`, radio?.powerDbm ?? ''],
          [`power ${band} GHz, conducted (dBm)`, radio?.conductedDbm ?? ''],
          [`EIRP ${band} GHz (dBm)`, radio?.eirpDbm ?? ''],
          [`antenna ${band} GHz (dBi)`, radio?.gainDbi ?? ''],
          [`BSSID ${band} GHz`, bssidsOf(row, band)],
        ]
      }),
    ),
    networks: row.networks.join('; '),
    firmware: row.firmware,
    state: row.state,
    'settings proven': count(row, 'proven'),
    'settings written, not readable': count(row, 'written'),
    'settings by hand': count(row, 'by-hand'),
    'settings open': count(row, 'open'),
    'proven at': row.provenAt === undefined ? '' : new Date(row.provenAt).toISOString(),
    'proven by': row.provenBy ?? '',
    'open as it came (s)': row.shippedOpen?.seconds ?? '',
    remark: remarkWords(row),
  }))
  return `${Papa.unparse(records, { escapeFormulae: true, newline: '\r\n' })}\r\n`
}

/** `02:00:00:00:00:01 Harbour Office; …` */
const bssidsOf = ({ cells }: AsBuiltRow, band: string): string =>
  cells
    .filter((each) => each.band === band)
    .map(({ bssid, ssid }) => `${bssid} ${ssid}`)
    .join('; ')

const count = (row: AsBuiltRow, kind: SettingOutcome['outcome']['kind']): number =>
  row.outcomes.filter(({ outcome }) => outcome.kind === kind).length
