/** Conditions of channels in words, the same wherever they are shown. */
import { rasterOf320, secondaryOf } from '../../core/regulatory/blocks'
import type { CountryRules } from '../../core/regulatory/database'
import type { LegalBlock } from '../../core/regulatory/legal'
import { listenWords } from './duration'

/** What has to be minded on a block: radar and for how long, indoors, how its limit is meant. */
export function conditionsOf(block: LegalBlock): string[] {
  const { radar, listenSeconds, indoor, conducted } = block
  const [raster, side] = [rasterOf320(block), secondaryOf(block)]
  return [
    ...(raster ? [`${raster} MHz`] : []),
    ...(side ? [`second channel ${side}`] : []),
    ...(radar ? [`listens ${listenWords(listenSeconds)} for radar`] : []),
    ...(indoor ? ['indoors only'] : []),
    ...(conducted ? [`conducted, antennas up to ${conducted.upToDbi} dBi`] : []),
  ]
}

/** `30.0 dBm EIRP`, `30.0 dBm conducted`. */
export function limitWords({ limitDbm, conducted }: Pick<LegalBlock, 'limitDbm' | 'conducted'>): string {
  return `${limitDbm.toFixed(1)} dBm ${conducted ? 'conducted' : 'EIRP'}`
}

/** Whose radar rules a country follows. One that belongs to no region may have radar channels all the same. */
export function radarRules({ dfs, rules }: Pick<CountryRules, 'dfs' | 'rules'>): string {
  if (dfs !== null) return `radar rules of ${dfs}`
  return rules.some((rule) => rule.dfs) ? 'radar channels, of no region' : 'no radar channels'
}
