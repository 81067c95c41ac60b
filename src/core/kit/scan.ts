/**
 * A label that was scanned or typed: which row it belongs to.
 *
 * In: the text of the scan, the rows, and the row that the scan before landed on. Out: where it lands. A scanner
 * reads MAC and serial one after the other, or both in one code; both orders work. A code may hold the password of the
 * box beside them, under its name.
 */

import { parseMac } from '../address/mac'
import { type Message, message } from '../message/message'
import type { KitCard } from './kit-card'
import { modelOfMac } from './model-match'
import type { Column, SheetRow } from './sheet-row'

export type Landing =
  /** It is on the list already. */
  (
    | { readonly kind: 'found'; readonly row: string; readonly by: 'mac' | 'serial' }
    /** Cells that it fills on one row. */
    | { readonly kind: 'fills'; readonly row: string; readonly cells: Partial<Record<Column, string>> }
    /** No row waits for it: a new one. */
    | { readonly kind: 'new'; readonly cells: Partial<Record<Column, string>> }
    | { readonly kind: 'nothing'; readonly why: Message }
  ) & {
    /** The password on the label, and of which box: it goes to the vault, and into no row. */
    readonly password?: { readonly mac: string; readonly clear: string }
  }

export interface ScanInput {
  readonly text: string
  readonly rows: readonly SheetRow[]
  /** Row on which the scan before landed. */
  readonly last: string | undefined
  readonly cards: ReadonlyMap<string, KitCard>
}

export function landScan(input: ScanInput): Landing {
  const { rest, password } = withoutPassword(input.text)
  const rowMac = ({ cells }: SheetRow): string | undefined => parseMac(cells.mac)
  const before = input.rows.find(({ id }) => id === input.last)
  // A code of its own: it belongs to the box that was scanned just now.
  if (password !== undefined && rest.trim() === '') {
    const mac = before && rowMac(before)
    return before && mac
      ? { kind: 'found', row: before.id, by: 'mac', password: { mac, clear: password } }
      : { kind: 'nothing', why: message('scan-password-first') }
  }
  const landing = landWithout({ ...input, text: rest })
  if (password === undefined || landing.kind === 'nothing') return landing
  const row = landing.kind === 'new' ? undefined : input.rows.find(({ id }) => id === landing.row)
  const mac = parseMac(('cells' in landing ? landing.cells.mac : undefined) ?? row?.cells.mac ?? '')
  return mac ? { ...landing, password: { mac, clear: password } } : landing
}

/** Named on labels in these ways; what follows up to a space or a semicolon is the password. */
const passwordOnLabel =
  /(?:^|[\s;,|])(?:(?:admin|login|web|default)[ _-]?)?(?:password|passwd|pass|pwd|pw)\s*[:=]\s*([^\s;|]+)/i

function withoutPassword(text: string): { rest: string; password: string | undefined } {
  const found = passwordOnLabel.exec(text)
  return found ? { rest: text.replace(found[0], ' '), password: found[1] } : { rest: text, password: undefined }
}

function landWithout({ text, rows, last, cards }: ScanInput): Landing {
  const { mac, serial } = readLabel(text)
  if (!mac && !serial) return { kind: 'nothing', why: message('scan-unknown', { text: text.trim() }) }
  const rowMac = (row: SheetRow): string | undefined => parseMac(row.cells.mac)
  const byMac = mac && rows.find((row) => rowMac(row) === mac)
  if (byMac)
    return serial && byMac.cells.serial === ''
      ? { kind: 'fills', row: byMac.id, cells: { serial } }
      : { kind: 'found', row: byMac.id, by: 'mac' }
  const bySerial = serial && rows.find((row) => row.cells.serial.toLowerCase() === serial.toLowerCase())
  if (bySerial)
    return mac && bySerial.cells.mac === ''
      ? { kind: 'fills', row: bySerial.id, cells: { mac } }
      : { kind: 'found', row: bySerial.id, by: 'serial' }

  const cells = { ...(mac ? { mac } : {}), ...(serial ? { serial } : {}) }
  // The other half of the label that was scanned just now.
  const before = rows.find((row) => row.id === last)
  if (before && !(mac && serial) && before.cells[mac ? 'mac' : 'serial'] === '')
    return { kind: 'fills', row: before.id, cells }
  const model = mac && modelOfMac(mac, cards)
  const waiting = rows.find(
    (row) =>
      row.cells.mac.trim() === '' &&
      row.cells.serial.trim() === '' &&
      (!model || row.cells.model === '' || row.cells.model === model),
  )
  if (waiting)
    return {
      kind: 'fills',
      row: waiting.id,
      cells: { ...cells, ...(model && waiting.cells.model === '' ? { model } : {}) },
    }
  return { kind: 'new', cells: { ...cells, ...(model ? { model } : {}) } }
}

/** What a label says: a MAC anywhere in the text, and what is left as the serial number. */
function readLabel(text: string): { mac: string | undefined; serial: string | undefined } {
  const parts = text
    .trim()
    .split(/[\s,;|]+/)
    .map((part) => part.replace(/^(mac|sn|s\/n|serial)[:=#]?/i, ''))
    .filter((part) => part !== '')
  const whole = parseMac(text)
  if (whole) return { mac: whole, serial: undefined }
  const mac = parts.map(parseMac).find((each) => each !== undefined)
  const serial = parts.find(
    (part) => parseMac(part) === undefined && /^[A-Za-z0-9][A-Za-z0-9./-]{2,39}$/.test(part) && /\d/.test(part),
  )
  return { mac, serial }
}
