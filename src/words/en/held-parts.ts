/** What sentences about held units have in common. */
import { prose } from '../prose'

export interface HeldWords {
  readonly why: string
  /** What the hands should do, in order. */
  readonly hands: readonly string[]
  readonly more?: string | undefined
}

export const again = 'Then muster it again.'
export const byItself = 'It carries on by itself when it answers.'
export const cable = (port: number | null): string => (port === null ? 'its cable' : `the cable in port ${port}`)
export const lightWords = (lights: readonly (readonly [light: string, meaning: string])[]): string =>
  prose`Look at its light:
    ${[...lights.map(([light, meaning]) => `${light} means ${meaning}`), 'dark means no power'].join(', ')}.`
