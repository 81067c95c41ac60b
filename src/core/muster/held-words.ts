/** How a reason for which a step cannot go on is put, and words that many of them share. */
export interface HeldWords {
  readonly why: string
  /** What the hands should do, in order. */
  readonly hands: readonly string[]
  readonly more?: string | undefined
  /** A press that the page offers for it. */
  readonly press?: 'trust-new-certificate' | undefined
  /** What shows that hands have helped: then it is mustered by itself. Without it, nobody but a person begins again. */
  readonly resumesWhen?: 'it-answers' | 'it-was-away' | 'it-is-at-its-address' | undefined
}

export const again = 'Then muster it again.'
export const byItself = 'It carries on by itself when it answers.'
export const cable = (port: number | null): string => (port === null ? 'its cable' : `the cable in port ${port}`)
export const lightWords = (lights: readonly string[]): string =>
  `Look at its light: ${[...lights, 'dark means no power'].join(', ')}.`
