/** `muster rules`: what a country allows, from the regulatory database. */

import { type Band, bands } from '../core/regulatory/blocks'
import { countryName, nearCountries } from '../core/regulatory/country'
import type { CountryRules } from '../core/regulatory/database'
import { type LegalBlock, legalBlocks, whyNothingIsLegal } from '../core/regulatory/legal'
import { loadRegulatory } from '../jobs/rules'
import { conditionsOf, radarRules } from '../words/en/radio-rules'
import { sentence } from '../words/en/sentence'
import { CommandError } from './command-error'

export interface RulesOptions {
  readonly json?: true
  readonly all?: true
}

/** @throws CommandError with exit code 2 where the country is not known */
export function rules(code: string | undefined, { json, all }: RulesOptions): string {
  const database = loadRegulatory()
  if (all)
    return [...database.values()]
      .map((country) => (json ? JSON.stringify(asJson(country)) : heading(country)))
      .join('\n')
  if (code === undefined) throw new CommandError(2, 'Name a country, such as muster rules NZ, or use --all.')
  const country = database.get(code.trim().toUpperCase())
  if (!country) throw new CommandError(2, unknownCountry(code, [...database.keys()]))
  return json ? JSON.stringify(asJson(country)) : table(country)
}

function unknownCountry(code: string, codes: readonly string[]): string {
  const near = nearCountries(code, codes)
  const list = near.map((each) => `${each.code} (${each.name})`).join(', ')
  return (
    `There are no radio rules for "${code}". ` +
    `${list === '' ? 'A country is two letters, such as NZ.' : `Near to it: ${list}.`}`
  )
}

function asJson(country: CountryRules): unknown {
  return {
    country: country.country,
    dfs: country.dfs,
    blocks: legalBlocks(country).map(({ limitDbm, conducted, ...block }) => ({
      band: block.band,
      channel: block.channel,
      width: block.width,
      lowMhz: block.lowMhz,
      highMhz: block.highMhz,
      eirpDbm: limitDbm,
      radar: block.radar,
      indoor: block.indoor,
      ...(block.radar ? { listenSeconds: block.listenSeconds } : {}),
      // The limit is conducted power then, whatever the name of the field above.
      ...(conducted ? { conducted } : {}),
    })),
  }
}

function heading(country: CountryRules): string {
  return (
    `${country.country}  ${countryName(country.country)}, ${radarRules(country)}, ` +
    `${legalBlocks(country).length} blocks`
  )
}

const whyNothing = (country: CountryRules, band: Band): string[] => {
  const why = whyNothingIsLegal(country, band)
  return why ? [sentence(why)] : []
}

function table(country: CountryRules): string {
  const blocks = legalBlocks(country)
  const sections = bands.map((band) => {
    const rows = blocks.filter((block) => block.band === band)
    return rows.length === 0
      ? [`${band} GHz: nothing is legal for an access point.`, ...whyNothing(country, band)].join(' ')
      : `${band} GHz\n${rows.map(line).join('\n')}`
  })
  return [heading(country), ...sections].join('\n\n')
}

function line(block: LegalBlock): string {
  const { channel, width, lowMhz, highMhz, limitDbm } = block
  const marks = conditionsOf(block).join(', ')
  const limit = `${limitDbm.toFixed(2).padStart(5)} dBm ${block.conducted ? 'cond.' : 'EIRP '}`
  const range = `${String(width).padStart(3)} MHz  ${lowMhz} to ${highMhz} MHz`
  return `  ${String(channel).padStart(3)}  ${range}  ${limit}  ${marks}`.trimEnd()
}
