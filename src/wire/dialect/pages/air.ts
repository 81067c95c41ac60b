/** What a unit's radios really do, as a page of its own shows it. */

import { parseMac } from '../../../core/address/mac'
import type { Clear, Config } from '../../../core/config/unit-config'
import { matches } from '../../../core/input/pattern'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { PagePlace } from '../../../core/kit/page-places'
import { networkFields, type PagesDialect } from '../../../core/kit/pages-dialect'
import type { RadioOnAir } from '../dialect'
import { radioOnAir } from '../radio-on-air'
import { securityWord } from '../words'
import type { Page } from './page'
import { idOfNetwork } from './slots'

export function airOn(
  { radios }: Pick<DirectCard, 'radios'>,
  dialect: PagesDialect,
  air: NonNullable<PagesDialect['air']>,
  page: Page,
  desired: Config<Clear> | undefined,
): RadioOnAir[] {
  const security = networkFields(dialect)['network.security']
  const words = security && 'words' in security ? security.words : undefined
  return page.parts(air.each).flatMap((part): RadioOnAir[] => {
    const name = part.text(air.name)
    const band = radios.find((radio) => radio.name === name)?.band
    if (band === undefined) return []
    const shows = (place: PagePlace | undefined): boolean => place !== undefined && (part.text(place) ?? '') !== ''
    const number = (place: PagePlace | undefined): number | undefined => {
      const text = place && part.text(place)
      return text === undefined || !matches('^[0-9]{1,5}$', text) ? undefined : Number(text)
    }
    const networks = part.parts(air.networks.each).map((each) => {
      const ssid = each.text(air.networks.ssid) ?? ''
      const guard = securityWord(each.text(air.networks.security) ?? '', words)
      const bssid = air.networks.bssid && parseMac(each.text(air.networks.bssid) ?? '')
      return { id: idOfNetwork(desired, band, ssid) ?? ssid, ssid, security: guard, bssid }
    })
    const [isListening, isOnAir] = [shows(air.listening), shows(air.onAir)]
    return [radioOnAir({ band, isListening, isOnAir, figure: (of) => number(air[of]), networks })]
  })
}
