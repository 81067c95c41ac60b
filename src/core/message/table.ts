/** Every code of the product with the kinds of its parameters, in one table. */
import { briefMessages } from './brief'
import { kitMessages } from './kit'
import { musterMessages } from './muster'
import { planMessages } from './plan'
import { reviewMessages } from './review'
import { storeMessages } from './store'
import { wireMessages } from './wire'

export const table = {
  /** Words that somebody else has made: a device, a library, a release of before messages had codes. */
  'as-told': { text: 'text' },
  /** Sentences one after another. */
  together: { sentences: 'messages' },
  ...briefMessages,
  ...kitMessages,
  ...musterMessages,
  ...planMessages,
  ...reviewMessages,
  ...storeMessages,
  ...wireMessages,
} as const
