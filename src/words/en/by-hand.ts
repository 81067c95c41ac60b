/** Sentences about units that hands set. */
import { prose } from '../prose'

export const bareWords = prose`There is no kit card for this model, so it is set by hand. Until a card says more, it is
  taken for an access point with a radio at 2.4 and one at 5 GHz.`
export const openItsPages = 'Open its pages here'
export const onWireForHands = (count: number): string =>
  `${count} ${count === 1 ? 'unit' : 'units'} on the wire for hands`
export const benchForHands = prose`No muster sets these units yet: nobody has described their model. Open the pages of
  the first, and show how it is set. What you do becomes a card, and the others are set by it.`

export const beginCard = 'Begin a card for this model'
export const callAgain = 'Look at it again'
export const lookAtIt = 'Look whether it answers'

export const labelPasswordWords = {
  title: 'Password on its label',
  none: 'none',
  type: 'Type it',
  typeAnother: 'Type another',
  show: 'Show',
  hide: 'Hide',
  takeAway: 'Take it away',
  keep: 'Keep it',
  leave: 'Leave it',
} as const
