/**
 * Whether radio rules can be what they say: a file with a few bytes changed still reads, and then says nonsense.
 *
 * In: a database that was read. Out: a sentence for each thing that no country's rules can say.
 */
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

export function implausible(database: RegulatoryDatabase): string[] {
  const codes = [...database.keys()]
  const order = codes.find((code, index) => index > 0 && code <= (codes[index - 1] ?? ''))
  return [
    ...(order === undefined ? [] : [`${order} stands out of order`]),
    ...[...database.values()].flatMap(({ country, rules }) => [
      ...(rules.length > mostRules ? [`${country} has ${rules.length} rules`] : []),
      ...rules.flatMap((rule) => ruleFaults(rule).map((fault) => `${country}: ${fault}`)),
      ...rules.flatMap((rule, index) => {
        const before = rules[index - 1]
        return before && rule.startKhz < before.startKhz
          ? [`${country}: the rules are not in the order of their frequencies`]
          : []
      }),
    ]),
  ]
}

function ruleFaults({ startKhz, endKhz, bandwidthKhz, eirpCentiDbm, listenSeconds = 0 }: RegulatoryRule): string[] {
  const range = `${startKhz / 1000} to ${endKhz / 1000} MHz`
  return [
    ...(startKhz < lowestKhz || endKhz > highestKhz ? [`${range} is no band of wireless networks`] : []),
    ...(startKhz % edgeKhz !== 0 || endKhz % edgeKhz !== 0 ? [`${range} does not end at a whole step`] : []),
    ...(widthsKhz.has(bandwidthKhz)
      ? []
      : [`${range} allows a width of ${bandwidthKhz / 1000} MHz, which no standard has`]),
    ...(bandwidthKhz > endKhz - startKhz
      ? [`${range} is narrower than the width of ${bandwidthKhz / 1000} MHz that it allows`]
      : []),
    ...(eirpCentiDbm > mostEirp ? [`${range} allows ${eirpCentiDbm / 100} dBm`] : []),
    ...(listenSeconds > longestListenSeconds ? [`${range} is listened to for ${listenSeconds} s`] : []),
  ]
}
