/** What turns pages for a dialect: plain HTTP and forms, or a browser. Each is one session with one unit. */

import type { ElementFacts } from '../../../core/kit/page-element'
import type { At } from '../../../core/kit/page-places'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { WireError } from '../../errors/wire-error'
import type { PagePicture } from '../../page-elements/picture'

/** Something put into a field: text, a tick, or what a list of the page's own making offers. */
export type Entry =
  | { readonly at: At; readonly kind: 'text'; readonly text: string }
  | { readonly at: At; readonly kind: 'tick'; readonly ticked: boolean }
  | {
      readonly at: At
      readonly kind: 'choose'
      /** Which of the words that are offered is meant. */
      readonly means: (words: string) => boolean
      readonly said: string
    }

/** A page as it stands now, with the state of its fields in its attributes. */
export interface Seen {
  /** HTTP status; 200 where a browser does not tell another. */
  readonly status: number
  readonly html: string
  /** What is seen on it, where the engine tells. */
  readonly facts?: readonly ElementFacts[]
  /** Scheme by which it came: where a unit leads from plain HTTP to HTTPS, that of the last step. */
  readonly scheme: 'http' | 'https'
}

export interface Entrance {
  readonly scheme: 'http' | 'https'
  readonly port: number
}

/** Each throws WireError unreachable, untrusted, timeout or garbled. */
export interface PageEngine {
  /** Where pages are asked for from now on. */
  enter(entrance: Entrance): void
  /** For units that ask by the protocol itself, from now on. */
  authorize(credentials: Credentials): Promise<void>
  go(path: string): Promise<Seen>
  /**
   * A page as its unit sends it, which is the page that stands from then on. Undefined where it has to be opened, as
   * where the page that stands may not ask for it. Left out where opening costs no more.
   */
  fetch?(path: string): Promise<Seen | undefined>
  /**
   * Fills in the fields of the page that stands, and presses, where anything is to be pressed: what answers is the next
   * page, or the same for a while.
   */
  submit(entries: readonly Entry[], press: At | undefined): Promise<Seen>
  /** Whether the next page was asked for, and has not come yet. */
  readonly isTurning: boolean
  /** The page that stands, once nothing is under way any more. */
  settled(): Promise<Seen>
  /** The page that stands, again: it may have filled in more. */
  look(): Promise<Seen>
  /**
   * Once anything of the page that stands has changed, or so much time has passed, ms: whoever waits for it need not
   * look meanwhile. Left out where a page never changes by itself.
   */
  changes?(withinMs: number): Promise<void>
  /** A picture of the page that stands, without these secrets. Left out where nothing draws it. */
  picture?(secrets: readonly string[]): Promise<PagePicture | undefined>
  close(): void
}

/** Bytes of one page. */
export const largestPage = 1024 * 1024

/** How a place is told in words. */
export const placeWords = (at: At): string => {
  if (typeof at === 'string') return at
  const { label, text, name, hint, id, heading } = at.by[0] ?? {}
  const own = label ?? text ?? name ?? hint ?? id ?? ''
  return heading === undefined ? `"${own}"` : `"${own}" under "${heading}"`
}

/** @throws WireError garbled for an element that is described, which plain forms cannot find */
export function selectorOf(at: At): string {
  if (typeof at === 'string') return at
  throw new WireError('garbled', message('forms-cannot-find', { place: placeWords(at) }))
}
