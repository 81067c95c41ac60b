/**
 * Cross-checks of a brief: what each field alone cannot know.
 *
 * In: a brief, the country's rules, the models on the kit list and what is known of the secrets. Out: faults, each
 * with its field, a code and a way to mend it.
 */

import type { Brief } from '../brief/brief'
import { policyWidths } from '../brief/policies'
import type { KitCard } from '../kit/kit-card'
import { message } from '../message/message'
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
        ...message('country-without-rules', { country: brief.country }),
        weight: 'mend',
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
        ...message(outdoors ? 'width-not-legal-outdoors' : 'width-not-legal', { country: brief.country, width, band }),
        weight: 'mend',
        mend:
          widest === undefined
            ? {
                ...message('mend-leave-band-out', { band }),
                set: [{ path: 'radio.bands', value: brief.radio.bands.filter((each) => each.band !== band) }],
              }
            : {
                ...message('mend-use-width', { width: widest }),
                set: [{ path: `radio.bands.${index}.width`, value: widest }],
              },
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
            ...message('wide-at-24', { width }),
            weight: 'know',
            mend: {
              ...message('mend-use-width', { width: 20 }),
              set: [{ path: `radio.bands.${index}.width`, value: 20 }],
            },
          },
        ]
      : [],
  )
}
