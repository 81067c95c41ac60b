/** What newer radio rules change: country by country, in sentences that somebody can say yes or no to. */
import type { CountryRules, RegulatoryDatabase, RegulatoryRule } from './database'

export interface RulesDifference {
  readonly country: string
  readonly sentences: readonly string[]
}

/** In order of the country codes; none where both say the same. */
export function rulesDifferences(before: RegulatoryDatabase, after: RegulatoryDatabase): RulesDifference[] {
  return [...new Set([...before.keys(), ...after.keys()])].sort().flatMap((country) => {
    const sentences = countryDifferences(before.get(country), after.get(country))
    return sentences.length === 0 ? [] : [{ country, sentences }]
  })
}

function countryDifferences(before: CountryRules | undefined, after: CountryRules | undefined): string[] {
  if (!before) return ['is new']
  if (!after) return ['is no longer there']
  const [was, is] = [before, after].map(
    ({ rules }) => new Map(rules.map((rule) => [rangeOf(rule), conditionsOf(rule)])),
  )
  const ranges = [...new Set([...(was?.keys() ?? []), ...(is?.keys() ?? [])])]
  return [
    ...(before.dfs === after.dfs
      ? []
      : [`radar rules of ${before.dfs ?? 'nobody'} become those of ${after.dfs ?? 'nobody'}`]),
    ...ranges.flatMap((range) => {
      const [old, now] = [was?.get(range), is?.get(range)]
      if (old === now) return []
      if (old === undefined) return [`${range} comes in: ${now}`]
      return now === undefined ? [`${range} goes: it was ${old}`] : [`${range}: ${old} becomes ${now}`]
    }),
  ]
}

const rangeOf = ({ startKhz, endKhz }: RegulatoryRule): string => `${startKhz / 1000} to ${endKhz / 1000} MHz`

function conditionsOf({
  eirpCentiDbm,
  bandwidthKhz,
  dfs,
  noOutdoor,
  noIr,
  noOfdm,
  autoBandwidth,
  listenSeconds,
}: RegulatoryRule): string {
  return [
    `${eirpCentiDbm / 100} dBm`,
    `${bandwidthKhz / 1000} MHz wide${autoBandwidth ? ' with its neighbours' : ''}`,
    ...(dfs ? ['listens for radar'] : []),
    ...(listenSeconds === undefined ? [] : [`for ${listenSeconds} s`]),
    ...(noOutdoor ? ['indoors only'] : []),
    ...(noIr ? ['no access point'] : []),
    ...(noOfdm ? ['no OFDM'] : []),
  ].join(', ')
}
