import type { Message } from '../../message/message'

/** What keeps a unit, or all of them, from being planned: codes of the table of messages. */
export const planFaultCodes = [
  /** Kept before faults of a plan had codes. */
  'as-told',
  'no-address-left',
  'no-address-left-in-range',
  'not-a-subnet',
  'locked-address-not-free',
  'locked-to-another-country',
  'no-legal-channel',
  'link-of-two-models',
  'no-legal-link-channel',
  /** An access end with several stations has one radio. */
  'hub-of-two-channels',
  'hub-of-two-widths',
] as const

export interface PlanFault extends Message<(typeof planFaultCodes)[number]> {
  /** Undefined where it is all of them. */
  readonly unit: string | undefined
}
