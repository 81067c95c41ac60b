/** Why a controller turns an access point away. */
export const joinReasons = [
  'not-listed',
  'licence-full',
  'clock',
  'country',
  'certificate',
  'login',
  'image-failed',
] as const
export type JoinReason = (typeof joinReasons)[number]
