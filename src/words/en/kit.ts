/** Sentences of the kit list. */

export const scanWords = {
  hint: 'Scan or type a MAC, a serial or a label',
  passwordKept: 'The password on its label is kept, sealed.',
} as const
