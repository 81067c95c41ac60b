/** Sentences about logins that a client uses today. */

export const loginTodayWords = {
  ofJob: 'Units that somebody set up before may open with the login that is in use today.',
  title: 'Login in use today',
  none: 'none',
  give: 'Give it',
  giveAnother: 'Give another',
  takeAway: 'Take it away',
  user: 'Name',
  userHint: 'as the job has it',
  password: 'Password',
  keep: 'Keep it',
  leave: 'Leave it',
} as const
