/** Why a controller turns an access point away, and what the hands do about it. */
export const joinReasons = {
  'not-listed': { why: 'its MAC is not on the list', hands: ['Compare the MAC on its label with the kit list.'] },
  'licence-full': {
    why: 'no licence is left for it',
    hands: ['Take an access point that is not used off its list, or get it another licence.'],
  },
  clock: {
    why: 'by its clock the certificate is not valid',
    hands: ['See that the controller reaches its time server, and that its clock is right.'],
  },
  country: { why: 'it is not made for this country', hands: ['Compare its model with the country of the brief.'] },
  certificate: {
    why: 'its certificate is by nobody that the controller trusts',
    hands: [
      'Compare its maker and model with those that the controller takes.',
      'If they are right, set it aside: it needs its maker.',
    ],
  },
  login: {
    why: 'it has another login than out of its box',
    hands: ['Reset it: somebody has set it up before.'],
  },
  'image-failed': {
    why: 'its image does not load',
    hands: ['Look at its cable, and leave it powered; a slow link takes minutes.'],
  },
} as const
export type JoinReason = keyof typeof joinReasons
