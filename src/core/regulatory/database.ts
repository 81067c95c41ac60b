/**
 * The wireless regulatory database, read from its open binary format.
 *
 * In: the bytes of a `regulatory.db` file. Out: for each country its DFS region and its rules, in file order.
 * Layout (version 20, all numbers big-endian, pointers in units of four bytes):
 * a header of magic "RGDB" and version; country entries of two letters and a pointer to a collection, ended by a
 * zero pointer; a collection of length, rule count and DFS region, then (aligned to two) a pointer for each rule;
 * a rule of length, flags, greatest EIRP (0.01 dBm), start, end and greatest bandwidth (kHz), then optional parts.
 */

import { type Message, message } from '../message/message'
import { ToldError } from '../message/told-error'

export type DfsRegion = 'FCC' | 'ETSI' | 'JP'

/** A limit of conducted power, which no database tells apart. */
export interface Conducted {
  /** Antennas up to this gain take nothing off, dBi. */
  readonly upToDbi: number
  /** What a fixed point-to-point link loses for each dB above it: as much, a third of it, or nothing. */
  readonly pointToPoint: 'same' | 'third' | 'free'
  /** Antennas of such a link take nothing off up to this gain, dBi; as above where it is left out. */
  readonly pointToPointUpToDbi?: number | undefined
}

/** A limit of EIRP in each megahertz, dBm, and in all. */
export interface Density {
  readonly dbmPerMhz: number
  readonly mostDbm: number
}

/** One range of frequencies and what is allowed in it. */
export interface RegulatoryRule {
  /** Lower edge, kHz. */
  readonly startKhz: number
  /** Upper edge, kHz. */
  readonly endKhz: number
  /** Widest channel, kHz. */
  readonly bandwidthKhz: number
  /** Greatest EIRP, 0.01 dBm. */
  readonly eirpCentiDbm: number
  /** Orthogonal frequency-division multiplexing is not allowed: no modern network. */
  readonly noOfdm: boolean
  /** Indoors only. */
  readonly noOutdoor: boolean
  /** Listen for radar before and while transmitting. */
  readonly dfs: boolean
  /** Nothing may start to radiate here by itself: no access point. */
  readonly noIr: boolean
  /** The width may be that of the whole run of rules that touch this one. */
  readonly autoBandwidth: boolean
  /** Time to listen before a radar channel is used, seconds, where the file tells it. */
  readonly listenSeconds: number | undefined
  /** The limit is conducted power: by the overlay, as all below. */
  readonly conducted?: Conducted
  /** The limit is a density, and in all. */
  readonly density?: Density
  /** Greatest EIRP outdoors above 30 degrees of elevation, dBm. */
  readonly skywardDbm?: number
  /** By how much the limit is lower without transmit power control, dB. */
  readonly withoutTpcDb?: number
  /** What the overlay cites for this rule. */
  readonly sources?: readonly string[]
}

export interface CountryRules {
  /** ISO 3166-1 alpha-2, or 00 for the world default. */
  readonly country: string
  readonly dfs: DfsRegion | null
  readonly rules: readonly RegulatoryRule[]
}

export type RegulatoryDatabase = ReadonlyMap<string, CountryRules>

/** The bytes are not a regulatory database that we can read; the message says where. */
export class RegulatoryFormatError extends ToldError {
  override readonly name = 'RegulatoryFormatError'
}

const magic = 0x52474442
const version = 20
const dfsRegions: readonly (DfsRegion | null)[] = [null, 'FCC', 'ETSI', 'JP']
const flag = { noOfdm: 1, noOutdoor: 2, dfs: 4, noIr: 8, autoBandwidth: 16 } as const
const knownFlags = 31
/** A rule's fixed part ends here; the listening time follows when the length says so. */
const ruleFixedBytes = 16
const ruleWithListenBytes = 18

const inHeader = message('in-header')
const inCountryEntry = message('in-country-entry')

/**
 * Reads a regulatory database.
 *
 * @throws RegulatoryFormatError naming the byte offset where the file is not what it should be
 */
export function readRegulatoryDatabase(bytes: Uint8Array): RegulatoryDatabase {
  const file = new Reader(bytes)
  if (file.u32(0, inHeader) !== magic) throw new RegulatoryFormatError(message('not-a-regulatory-database'))
  const found = file.u32(4, inHeader)
  if (found !== version) throw new RegulatoryFormatError(message('database-version', { found, reads: version }))

  const countries = new Map<string, CountryRules>()
  for (let at = 8; ; at += 4) {
    const pointer = file.u16(at + 2, inCountryEntry) * 4
    if (pointer === 0) return countries
    const country = String.fromCharCode(file.u8(at, inCountryEntry), file.u8(at + 1, inCountryEntry))
    if (!/^([A-Z]{2}|00)$/.test(country))
      throw new RegulatoryFormatError(message('database-country-code', { at, country: JSON.stringify(country) }))
    if (countries.has(country)) throw new RegulatoryFormatError(message('database-country-twice', { at, country }))
    countries.set(country, { country, ...readCollection(file, pointer, country) })
  }
}

function readCollection(file: Reader, at: number, country: string): Omit<CountryRules, 'country'> {
  const what = message('in-rules-of', { country })
  const length = file.u8(at, what)
  if (length < 3) throw new RegulatoryFormatError(message('database-rules-short', { at, of: what, length }))
  const count = file.u8(at + 1, what)
  const dfs = dfsRegions[file.u8(at + 2, what)]
  if (dfs === undefined) throw new RegulatoryFormatError(message('database-dfs-unknown', { at: at + 2, of: what }))
  const list = at + length + (length % 2)
  const rules = Array.from({ length: count }, (_, index) =>
    readRule(file, file.u16(list + index * 2, what) * 4, country),
  )
  return { dfs, rules }
}

function readRule(file: Reader, at: number, country: string): RegulatoryRule {
  const what = message('in-rule-of', { country })
  const length = file.u8(at, what)
  if (length < ruleFixedBytes)
    throw new RegulatoryFormatError(message('database-rule-short', { at, of: what, length, least: ruleFixedBytes }))
  const flags = file.u8(at + 1, what)
  if (flags > knownFlags)
    throw new RegulatoryFormatError(message('database-flags-unknown', { at: at + 1, of: what, flags }))
  const startKhz = file.u32(at + 4, what)
  const endKhz = file.u32(at + 8, what)
  if (endKhz <= startKhz)
    throw new RegulatoryFormatError(
      message('database-range-backwards', { at: at + 4, of: what, end: endKhz, start: startKhz }),
    )
  const listenSeconds = length >= ruleWithListenBytes ? file.u16(at + 16, what) : 0
  return {
    startKhz,
    endKhz,
    bandwidthKhz: file.u32(at + 12, what),
    eirpCentiDbm: file.u16(at + 2, what),
    noOfdm: (flags & flag.noOfdm) !== 0,
    noOutdoor: (flags & flag.noOutdoor) !== 0,
    dfs: (flags & flag.dfs) !== 0,
    noIr: (flags & flag.noIr) !== 0,
    autoBandwidth: (flags & flag.autoBandwidth) !== 0,
    listenSeconds: listenSeconds === 0 ? undefined : listenSeconds,
  }
}

/** Reads bounded numbers; past the end is a format error, never a crash. */
class Reader {
  readonly #view: DataView
  constructor(bytes: Uint8Array) {
    this.#view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  }
  u8(at: number, what: Message): number {
    return this.#bounded(at, 1, what).getUint8(at)
  }
  u16(at: number, what: Message): number {
    return this.#bounded(at, 2, what).getUint16(at)
  }
  u32(at: number, what: Message): number {
    return this.#bounded(at, 4, what).getUint32(at)
  }
  #bounded(at: number, size: number, what: Message): DataView {
    if (at + size > this.#view.byteLength)
      throw new RegulatoryFormatError(message('database-ends', { at, within: what }))
    return this.#view
  }
}
