/**
 * Whether radio rules can be what they say: a file with a few bytes changed still reads, and then says nonsense.
 *
 * In: a database that was read. Out: a message for each thing that no country's rules can say.
 */
import { type Message, message } from '../message/message'
import type { RegulatoryDatabase, RegulatoryRule } from './database'

/** Bands that rules are about, kHz: television white space to 71 GHz. */
const lowestKhz = 400_000
const highestKhz = 80_000_000
/** Channel widths of IEEE 802.11: of 802.11ah, 11a to 11be, and 11ad with 11ay. */
const widthsKhz: ReadonlySet<number> = new Set(
  [1, 2, 4, 5, 8, 10, 16, 20, 40, 80, 160, 320, 2160, 4320, 6480, 8640].map((mhz) => mhz * 1000),
)
/** 0.01 dBm; no country allows an access point more. */
const mostEirp = 5000
const longestListenSeconds = 3600
const mostRules = 64
/** Edges of bands are whole steps of so many kHz. */
const edgeKhz = 100

export function implausible(database: RegulatoryDatabase): Message[] {
  const codes = [...database.keys()]
  const order = codes.find((code, index) => index > 0 && code <= (codes[index - 1] ?? ''))
  return [
    ...(order === undefined ? [] : [message('country-out-of-order', { country: order })]),
    ...[...database.values()].flatMap(({ country, rules }) => [
      ...(rules.length > mostRules ? [message('country-rule-count', { country, count: rules.length })] : []),
      ...rules.flatMap((rule) => ruleFaults(rule).map((fault) => message('of-country', { country, fault }))),
      ...rules.flatMap((rule, index) => {
        const before = rules[index - 1]
        return before && rule.startKhz < before.startKhz ? [message('rules-out-of-order', { country })] : []
      }),
    ]),
  ]
}

function ruleFaults({ startKhz, endKhz, bandwidthKhz, eirpCentiDbm, listenSeconds = 0 }: RegulatoryRule): Message[] {
  const range = message('range-mhz', { from: startKhz / 1000, to: endKhz / 1000 })
  return [
    ...(startKhz < lowestKhz || endKhz > highestKhz ? [message('not-a-wireless-band', { range })] : []),
    ...(startKhz % edgeKhz !== 0 || endKhz % edgeKhz !== 0 ? [message('not-a-whole-step', { range })] : []),
    ...(widthsKhz.has(bandwidthKhz) ? [] : [message('width-of-no-standard', { range, width: bandwidthKhz / 1000 })]),
    ...(bandwidthKhz > endKhz - startKhz ? [message('width-above-range', { range, width: bandwidthKhz / 1000 })] : []),
    ...(eirpCentiDbm > mostEirp ? [message('power-implausible', { range, dbm: eirpCentiDbm / 100 })] : []),
    ...(listenSeconds > longestListenSeconds
      ? [message('listening-implausible', { range, seconds: listenSeconds })]
      : []),
  ]
}
