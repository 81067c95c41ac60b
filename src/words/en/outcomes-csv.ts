/** What became of each setting of each unit, a line each, as CSV (RFC 4180). */

import Papa from 'papaparse'
import { keyText } from '../../core/config/unit-config'
import type { AsBuiltRow } from '../../core/handover/as-built'
import { outcomeNames, settingWords } from './outcomes'
import { sentence } from './sentence'

export function outcomesCsv(rows: readonly AsBuiltRow[]): string {
  const records = rows.flatMap((row) =>
    row.outcomes.map((each) => {
      const { outcome } = each
      const done = row.byHand.find(({ setting }) => keyText(setting) === keyText(each))?.done
      return {
        unit: row.name,
        mac: row.mac,
        id: each.id,
        of: each.of,
        setting: settingWords(each),
        asked: each.asked,
        outcome: outcomeNames[outcome.kind],
        'read back': outcome.kind === 'proven' ? outcome.value : '',
        why: outcome.kind === 'by-hand' || outcome.kind === 'not-for-it' ? sentence(outcome.why) : '',
        'what to do': outcome.kind === 'by-hand' ? sentence(outcome.hands) : '',
        'seen to by': done?.who ?? '',
        'seen to at': done ? new Date(done.at).toISOString() : '',
      }
    }),
  )
  return `${Papa.unparse(records, { escapeFormulae: true, newline: '\r\n' })}\r\n`
}
