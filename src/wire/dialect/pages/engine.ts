/** What turns pages for a dialect: plain HTTP and forms, or a browser. Each is one session with one unit. */
import type { Credentials } from '../dialect'

/** Something put into a field: text, or a tick. */
export type Entry =
  | { readonly at: string; readonly kind: 'text'; readonly text: string }
  | { readonly at: string; readonly kind: 'tick'; readonly ticked: boolean }

/** A page as it stands now, with the state of its fields in its attributes. */
export interface Seen {
  /** HTTP status; 200 where a browser does not tell another. */
  readonly status: number
  readonly html: string
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
  /** Fills in the fields of the page that stands, and presses: what answers is the next page, or the same for a while. */
  submit(entries: readonly Entry[], press: string): Promise<Seen>
  /** The page that stands, again: it may have filled in more. */
  look(): Promise<Seen>
  close(): void
}

/** Bytes of one page. */
export const largestPage = 1024 * 1024
