/** What a unit's radios really do, read from what a command prints. */

import { parseMac } from '../../../core/address/mac'
import { findFirst } from '../../../core/input/pattern'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { PromptAir, PromptDialect } from '../../../core/kit/prompt-dialect'
import type { RadioOnAir } from '../dialect'
import { radioOnAir } from '../radio-on-air'
import { fromWords, securityWord } from '../words'
import { bandOf, partsOf } from './reading'

export function airIn(
  card: DirectCard,
  { values }: Pick<PromptDialect, 'values'>,
  air: PromptAir,
  text: string,
): RadioOnAir[] {
  return partsOf(air.starts, text).flatMap(({ of: name, part }): RadioOnAir[] => {
    const band = bandOf(card, name)
    if (band === undefined) return []
    const number = (pattern: string | undefined): number | undefined => {
      const found = pattern === undefined ? undefined : valueIn(pattern, part)
      return found === undefined ? undefined : Number(found)
    }
    const isListening = air.listening !== undefined && findFirst(air.listening, part) !== undefined
    const networks = partsOf(air.networkStarts, part).map(({ of: id, part: one }) => ({
      id,
      ssid: String(fromWords('network.ssid', valueIn(air.ssid, one) ?? '', values['network.ssid'], 0) ?? ''),
      security: securityWord(valueIn(air.security, one)?.trim() ?? '', values['network.security']?.words),
      bssid: air.bssid === undefined ? undefined : parseMac(valueIn(air.bssid, one) ?? ''),
    }))
    const isOnAir = findFirst(air.onAir, part) !== undefined
    return [radioOnAir({ band, isListening, isOnAir, figure: (of) => number(air[of]), networks })]
  })
}

const valueIn = (pattern: string, text: string): string | undefined => findFirst(pattern, text)?.groups.value
