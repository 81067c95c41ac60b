/**
 * Networks of others out of what a laptop or a unit has heard: the text of `iw dev wlan0 scan`, or a table.
 *
 * In: text. Out: networks, each once on its channel with its loudest level, and a fault for each line that is none.
 */
import { asTold, type Message, message } from '../../message/message'
import { type Band, blockOf, type Side } from '../../regulatory/blocks'
import { quietestDbm } from '../channels/channel-problem'
import { heardNetworkSchema, type Site } from '../propagation/floor'
import { bandCell, dbmCell, rowFault, tableRows } from './level-table'

type HeardNetwork = Site['heard'][number]

export interface Scan {
  readonly networks: readonly HeardNetwork[]
  /** Heard so faintly that they disturb nobody. */
  readonly faint: number
  readonly faults: readonly Message[]
}

interface Told {
  readonly where: Message
  readonly network: Record<string, unknown>
}

/** @param unit  where it was heard; null for everywhere */
export function readScan(text: string, unit: string | null): Scan {
  const told = /^BSS [0-9a-f]{2}:/im.test(text) ? fromIw(text) : fromTable(text)
  const found = new Map<string, HeardNetwork>()
  const faults: Message[] = []
  let faint = 0
  for (const { where, network } of told) {
    const parsed = heardNetworkSchema.safeParse({ ...network, unit })
    if (!parsed.success) {
      faults.push(rowFault(where, parsed.error))
      continue
    }
    const { ssid, band, channel, width, secondary, dbm } = parsed.data
    if (!blockOf(band, channel, width, secondary))
      faults.push(message('channel-does-not-exist-at', { where, channel, width, band }))
    else if (dbm <= quietestDbm) faint += 1
    else {
      const key = `${ssid}\n${band}\n${channel}\n${width}\n${secondary}`
      const before = found.get(key)
      if (!before || before.dbm < dbm) found.set(key, parsed.data)
    }
  }
  return { networks: [...found.values()].toSorted((a, b) => b.dbm - a.dbm), faint, faults }
}

/** Blocks that begin with `BSS`, as iw of Linux prints them. */
function fromIw(text: string): Told[] {
  const blocks = text.split(/^(?=BSS [0-9a-f]{2}:)/im).filter((block) => /^BSS /i.test(block))
  return blocks.map((block) => {
    const field = (pattern: RegExp): string | undefined => pattern.exec(block)?.[1]
    const mhz = Number(field(/^\s*freq: (\d+)/m))
    const place = placeOf(mhz)
    return {
      where: asTold(field(/^BSS ([0-9a-f:]{17})/i) ?? 'BSS'),
      network: {
        ssid: unescaped(field(/^\s*SSID: (.*)$/m) ?? ''),
        ...place,
        ...(place.band === '6' ? widthAt6(field) : widthBelow6(field, place.band)),
        dbm: Number(field(/^\s*signal: (-?[\d.]+) dBm/m)),
      },
    }
  })
}

/** Band and channel of a frequency (IEEE 802.11-2020, Annex E). */
function placeOf(mhz: number): { band?: Band; channel?: number } {
  if (mhz === 2484) return { band: '2.4', channel: 14 }
  if (mhz >= 2412 && mhz <= 2472) return { band: '2.4', channel: (mhz - 2407) / 5 }
  if (mhz >= 5955 && mhz <= 7115) return { band: '6', channel: (mhz - 5950) / 5 }
  if (mhz >= 5160 && mhz <= 5885) return { band: '5', channel: (mhz - 5000) / 5 }
  return {}
}

type Field = (pattern: RegExp) => string | undefined

/** By the VHT Operation element, then by the HT Operation element (IEEE 802.11-2020, 9.4.2.158 and 9.4.2.56). */
function widthBelow6(field: Field, band: Band | undefined): { width: number; secondary?: Side } {
  const vht = field(/VHT operation:[\s\S]*?channel width: (\d)/)
  if (vht === '1') {
    const [one, two] = [/center freq segment 1: (\d+)/, /center freq segment 2: (\d+)/].map((each) =>
      Number(field(each)),
    )
    return { width: two && Math.abs(two - (one ?? 0)) === 8 ? 160 : 80 }
  }
  if (vht === '2') return { width: 160 }
  const secondary = field(/HT operation:[\s\S]*?secondary channel offset: (\w+)/)
  if (secondary !== 'above' && secondary !== 'below') return { width: 20 }
  return { width: 40, ...(band === '2.4' ? { secondary } : {}) }
}

/**
 * By the 6 GHz Operation Information in the HE Operation element (IEEE 802.11ax-2021, 9.4.2.249), which `iw scan -u`
 * prints as the bytes after its extension, 36: parameters (3), colour (1), rates (2), VHT operation (3) where bit 14 of
 * the parameters says so, co-hosted BSSIDs (1) where bit 15 does, then, where bit 17 does, primary channel, control
 * with the width in its two lowest bits, the two centres, and the least rate. Without it the width is not known: 20.
 */
function widthAt6(field: Field): { width: number } {
  const octets = (field(/Unknown Extension ID \(36\):((?: [0-9a-f]{2})+)/i) ?? '')
    .trim()
    .split(' ')
    .map((octet) => Number.parseInt(octet, 16))
  const parameters = (octets[0] ?? 0) | ((octets[1] ?? 0) << 8) | ((octets[2] ?? 0) << 16)
  const has = (bit: number): boolean => ((parameters >> bit) & 1) === 1
  if (!has(17)) return { width: 20 }
  const at = 6 + (has(14) ? 3 : 0) + (has(15) ? 1 : 0)
  const [control, one, two] = [octets[at + 1], octets[at + 2], octets[at + 3]]
  if (control === undefined || one === undefined || two === undefined) return { width: 20 }
  const told = control & 3
  // Two blocks of 80 MHz apart from each other: the one with the primary channel counts.
  if (told === 3) return { width: Math.abs(two - one) === 8 ? 160 : 80 }
  return { width: 20 << told }
}

/** iw writes what is not printable as \xNN; the bytes are UTF-8. */
function unescaped(text: string): string {
  const bytes: number[] = []
  for (const part of text.matchAll(/\\x([0-9a-f]{2})|([\s\S])/giu))
    if (part[1] !== undefined) bytes.push(Number.parseInt(part[1], 16))
    else bytes.push(...new TextEncoder().encode(part[2]))
  return new TextDecoder().decode(Uint8Array.from(bytes))
}

/** Columns: ssid, band, channel, width, secondary (above or below), dbm. */
function fromTable(text: string): Told[] {
  return tableRows(text, { name: 'ssid', network: 'ssid', 'width mhz': 'width' }).map(({ where, cells }) => ({
    where,
    network: {
      ssid: cells.ssid,
      band: bandCell(cells.band),
      channel: Number(cells.channel),
      width: Number(cells.width || 20),
      ...(cells.secondary ? { secondary: cells.secondary.toLowerCase() } : {}),
      dbm: dbmCell(cells.dbm),
    },
  }))
}
