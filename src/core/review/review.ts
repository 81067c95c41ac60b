/**
 * Cross-checks of a brief: what each field alone cannot know.
 *
 * In: a brief, the country's rules, the models on the kit list and what is known of the secrets. Out: faults, each
 * with its field, a sentence and a way to mend it.
 */

import type { Brief } from '../brief/brief'
import { policyWidths } from '../brief/policies'
import type { KitCard } from '../kit/kit-card'
import { countryName } from '../regulatory/country'
import type { CountryRules } from '../regulatory/database'
import { legalBlocks } from '../regulatory/legal'
import type { Weakness } from '../secrets/weakness'
import { reviewAftercare } from './aftercare'
import type { BriefFault } from './fault'
import { reviewFeatures } from './features'
import { reviewNetworks } from './networks'
import { reviewReach } from './reach'
import { reviewSecurity } from './security'
import { reviewSubnets } from './subnets'

export interface ReviewInput {
  readonly brief: Brief
  /** Undefined where the database has no such country. */
  readonly country: CountryRules | undefined
  /** Cards of the models on the kit list, each once. */
  readonly models: readonly KitCard[]
  /** By which rules of time zones are looked up. */
  readonly today: Date
  /** Passphrases that can be guessed, by their name in the vault. */
  readonly weak: ReadonlyMap<string, Weakness>
}

export function reviewBrief(input: ReviewInput): BriefFault[] {
  return [
    ...reviewCountry(input),
    ...reviewWidths(input.brief),
    ...reviewSubnets(input.brief, input.models),
    ...reviewReach(input.brief),
    ...reviewNetworks(input.brief, input.models),
    ...reviewSecurity(input.brief, input.models, input.weak),
    ...reviewFeatures(input.brief, input.models, input.today),
    ...reviewAftercare(input.brief),
  ]
}

function reviewCountry({ brief, country }: ReviewInput): BriefFault[] {
  if (!country)
    return [
      {
        field: 'country',
        code: 'country-without-rules',
        weight: 'mend',
        sentence: `There are no radio rules for ${brief.country}. Choose the country from the list.`,
      },
    ]
  const outdoors = brief.radio.environment === 'outdoor'
  const blocks = legalBlocks(country).filter((block) => !(outdoors && block.indoor))
  return brief.radio.bands.flatMap(({ band, width }, index): BriefFault[] => {
    const here = blocks.filter((block) => block.band === band)
    if (here.some((block) => block.width === width)) return []
    const widest = policyWidths.findLast((each) => each < width && here.some((block) => block.width === each))
    return [
      {
        field: `radio.bands.${index}`,
        code: 'width-not-legal',
        weight: 'mend',
        sentence: `${countryName(brief.country)} has no legal ${width} MHz channel at ${band} GHz ${outdoors ? 'outdoors' : 'for an access point'}.`,
        mend:
          widest === undefined
            ? {
                words: `Leave ${band} GHz out`,
                set: [{ path: 'radio.bands', value: brief.radio.bands.filter((each) => each.band !== band) }],
              }
            : { words: `Use ${widest} MHz`, set: [{ path: `radio.bands.${index}.width`, value: widest }] },
      },
    ]
  })
}

/** Where pairs of channels are used, 2.4 GHz has room for one and a half of them beside everybody else's. */
function reviewWidths({ radio }: Brief): BriefFault[] {
  return radio.bands.flatMap(({ band, width }, index): BriefFault[] =>
    band === '2.4' && width > 20
      ? [
          {
            field: `radio.bands.${index}`,
            code: 'wide-at-24',
            weight: 'know',
            sentence: `${width} MHz at 2.4 GHz takes two of its three channels: units and neighbours then share what is left. 20 MHz is the practice.`,
            mend: { words: 'Use 20 MHz', set: [{ path: `radio.bands.${index}.width`, value: 20 }] },
          },
        ]
      : [],
  )
}
