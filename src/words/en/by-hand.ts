/** Sentences about units that hands set. */

export const bareWords =
  'There is no kit card for this model, so it is set by hand. Until a card says more, it is taken for an access point with a radio at 2.4 and one at 5 GHz.'
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
