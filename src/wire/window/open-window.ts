/** A window on a unit, whatever it shows: its pages as a picture, or its prompt as a terminal. */

import type { Noted, ProtocolLogin } from '../../core/showing/noted'
import type { Hand, Told, WindowClosed } from '../../core/showing/window-talk'
import type { Onlooker } from './onlookers'
import type { PageFile } from './page-files'

/** Hands that reach the unit itself. */
export type UnitHand = Exclude<
  Hand,
  { kind: 'put-in' | 'put-in-label' | 'give' | 'show' | 'means' | 'make-card' | 'rehearse' | 'own-lane' | 'login-as' }
>

export interface WindowOnUnit {
  /** From now on, and how it stands. @returns the way to look no more */
  watch(onlooker: Onlooker): () => void
  tell(told: Told): void
  /** In the order in which they come. */
  act(hand: UnitHand): void
  /** A value of the list beside it is typed where hands are. */
  putIn(text: string): void
  /** A page that wants a file is given one, or none. */
  give(question: number, file: PageFile | undefined): Promise<void>
  /** From now on what hands do is told as acts on elements, where it shows pages. @param note  undefined for no more */
  noteHands(note: ((noted: Noted | ProtocolLogin) => void) | undefined): Promise<void>
  close(why: WindowClosed): Promise<void>
}
