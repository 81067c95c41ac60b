import type { Message } from '../message/message'
import type { RulesDifference } from './differences'

/** Newer rules that somebody brought and has not said yes to yet. */
export interface RulesOffer {
  /** Of the file that was looked at. */
  readonly hash: string
  readonly name: string
  /** Whose they are. */
  readonly signer: Message
  /** Whether the signature is that of somebody who is known here. */
  readonly signed: 'known' | 'unknown' | 'not-at-all'
  readonly countries: number
  /** What changes, the first of them; `changed` counts them all. */
  readonly differences: readonly RulesDifference[]
  readonly changed: number
}
