/** How long a channel is listened to before it is on air, where radar has its right of way. */
import type { DfsRegion, RegulatoryRule } from './database'

/** Channel availability check, s: ETSI EN 301 893 V2.1.1, table D.1; 47 CFR 15.407(h)(2)(ii). */
export const usualListenSeconds = 60
/** The same where a channel touches what weather radar uses, under ETSI rules: EN 301 893 V2.1.1, table D.1. */
export const weatherListenSeconds = 600
const weatherMhz = { low: 5600, high: 5650 } as const

/**
 * Seconds; 0 where nobody has to listen. A country that has radar flags and belongs to no region listens all the same.
 *
 * @param rules  those that the block lies in
 */
export function listenSecondsOf(
  region: DfsRegion | null,
  { lowMhz, highMhz }: { readonly lowMhz: number; readonly highMhz: number },
  rules: readonly Pick<RegulatoryRule, 'dfs' | 'listenSeconds'>[],
): number {
  const listening = rules.filter(({ dfs }) => dfs)
  if (listening.length === 0) return 0
  const told = Math.max(usualListenSeconds, ...listening.map(({ listenSeconds }) => listenSeconds ?? 0))
  const touchesWeather = lowMhz < weatherMhz.high && highMhz > weatherMhz.low
  return region === 'ETSI' && touchesWeather ? Math.max(told, weatherListenSeconds) : told
}
