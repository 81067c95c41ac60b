/** What newer radio rules change: country by country, in messages that somebody can say yes or no to. */
import { dequal } from 'dequal/lite'
import { type Message, message } from '../message/message'
import type { CountryRules, RegulatoryDatabase, RegulatoryRule } from './database'

export interface RulesDifference {
  readonly country: string
  readonly changes: readonly Message[]
}

/** In order of the country codes; none where both say the same. */
export function rulesDifferences(before: RegulatoryDatabase, after: RegulatoryDatabase): RulesDifference[] {
  return [...new Set([...before.keys(), ...after.keys()])].sort().flatMap((country) => {
    const changes = countryDifferences(before.get(country), after.get(country))
    return changes.length === 0 ? [] : [{ country, changes }]
  })
}

function countryDifferences(before: CountryRules | undefined, after: CountryRules | undefined): Message[] {
  if (!before) return [message('country-new')]
  if (!after) return [message('country-gone')]
  const [was, is] = [before, after].map(({ rules }) => new Map(rules.map((rule) => [keyOf(rule), rule])))
  const ranges = [...new Set([...(was?.keys() ?? []), ...(is?.keys() ?? [])])]
  return [
    ...(before.dfs === after.dfs ? [] : [message('radar-rules-become', { was: before.dfs, now: after.dfs })]),
    ...ranges.flatMap((range): Message[] => {
      const [old, now] = [was?.get(range), is?.get(range)]
      const where = rangeOf(old ?? now)
      const [before, after] = [old, now].map((rule) => (rule ? conditionsOf(rule) : []))
      if (dequal(before, after)) return []
      if (!old) return [message('range-new', { ...where, now: after ?? [] })]
      if (!now) return [message('range-gone', { ...where, was: before ?? [] })]
      return [message('range-changed', { ...where, was: before ?? [], now: after ?? [] })]
    }),
  ]
}

const keyOf = ({ startKhz, endKhz }: RegulatoryRule): string => `${startKhz} ${endKhz}`
const rangeOf = (rule: RegulatoryRule | undefined): { from: number; to: number } => ({
  from: (rule?.startKhz ?? 0) / 1000,
  to: (rule?.endKhz ?? 0) / 1000,
})

function conditionsOf({
  eirpCentiDbm,
  bandwidthKhz,
  dfs,
  noOutdoor,
  noIr,
  noOfdm,
  autoBandwidth,
  listenSeconds,
}: RegulatoryRule): Message[] {
  const width = bandwidthKhz / 1000
  return [
    message('rule-power', { dbm: eirpCentiDbm / 100 }),
    autoBandwidth ? message('rule-width-with-neighbours', { width }) : message('rule-width', { width }),
    ...(dfs ? [message('rule-listens')] : []),
    ...(listenSeconds === undefined ? [] : [message('rule-listens-for', { seconds: listenSeconds })]),
    ...(noOutdoor ? [message('rule-indoors')] : []),
    ...(noIr ? [message('rule-no-access-point')] : []),
    ...(noOfdm ? [message('rule-no-ofdm')] : []),
  ]
}
