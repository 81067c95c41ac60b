/** What keeps a unit, or all of them, from being planned: each code keeps its meaning; the sentence is for people. */
export const planFaultCodes = [
  /** Kept before faults of a plan had codes. */
  'as-told',
  'no-address-left',
  'locked-address-not-free',
  'locked-to-another-country',
  'no-legal-channel',
  'link-of-two-models',
  'no-legal-link-channel',
  /** An access end with several stations has one radio. */
  'hub-of-two-channels',
] as const

export interface PlanFault {
  readonly code: (typeof planFaultCodes)[number]
  /** Undefined where it is all of them. */
  readonly unit: string | undefined
  readonly sentence: string
}
