/** Sentences about units that hands set. */

export const bareWords =
  'There is no kit card for this model, so it is set by hand. Until a card says more, it is taken for an access point with a radio at 2.4 and one at 5 GHz.'
export const beginCard = 'Begin a card for this model'
export const callAgain = 'Look at it again'
export const lookAtIt = 'Look whether it answers'
