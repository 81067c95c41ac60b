/** What hands did on one element of a page, and what that means. */
import type { SettingKey } from '../config/unit-config'
import type { Described } from '../kit/page-element'
import type { Meaning } from './meaning'
import type { NotedRow } from './noted'

/** What a press is for, beside leading on. */
export const pressRoles = [
  'way',
  'saves',
  'effect',
  'restart',
  'sign-out',
  'remove',
  'take-in',
  'close',
  'left-out',
] as const
export type PressRole = (typeof pressRoles)[number]

/** What the value of an act is. */
export type ActValue =
  | ({ readonly kind: 'setting' } & Meaning)
  /** One of several elements that are ticked together for one setting: the band of a network, a way to an address. */
  | { readonly kind: 'tick-of'; readonly id: SettingKey['id']; readonly of: string; readonly tick: string }
  /** The login that it has out of its box. */
  | { readonly kind: 'factory'; readonly part: 'user' | 'password' }
  | { readonly kind: 'always'; readonly text: string }
  | { readonly kind: 'ticked'; readonly ticked: boolean }
  | { readonly kind: 'left-out' }
  /** Nobody knows yet: it is asked about. */
  | { readonly kind: 'unknown' }

/** Whom hands act for: the unit whose pages these are, or an access point that is set through it. */
export const actsFor = ['itself', 'joined'] as const

export interface Act {
  readonly number: number
  readonly for: (typeof actsFor)[number]
  readonly path: string
  readonly at: Described
  /** What the element is called, for people. */
  readonly label: string
  readonly does:
    | {
        readonly kind: 'puts'
        readonly value: ActValue
        /** Whether nobody put it in: it stood there, and was right. */
        readonly stood: boolean
        /** All that a list offered where something was chosen from it. */
        readonly offered: readonly string[]
      }
    | { readonly kind: 'press'; readonly role: PressRole; readonly row: NotedRow | undefined }
  /** The press after which the element was there; 0: it came with its page. */
  readonly after: number
  /** Words that stood on the page afterwards and not before. */
  readonly appeared: readonly Described[]
}
