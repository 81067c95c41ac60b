/**
 * The order of a muster, with the rule of the trade behind each place in it.
 */
import { type KitCard, whyNotMustered } from '../kit/kit-card'

export const steps = [
  'reach',
  'sign-in',
  // What was found is kept before the first change.
  'backup',
  // Before any setting: a newer one may have other defaults.
  'firmware',
  // Country before anything about radios: it resets channels on much equipment.
  'country',
  // A wrong clock breaks joins, certificates and schedules.
  'clock',
  // Security goes in the same change as the network: at no time is one there that anyone could join.
  'networks',
  'radios',
  'services',
  'password',
  // Last of the changes: the session dies with the old address.
  'address',
  // Everything that was staged takes effect together.
  'apply',
  'return',
  // What is not saved is lost at the next restart: people forget, on every page.
  'save',
  'joined',
  'on-air',
  'proof',
] as const
export type Step = (typeof steps)[number]

/** What is set through a controller: it is told what it is to be before it joins, and joins as that. */
const managedSteps: readonly Step[] = [
  'reach',
  'sign-in',
  'clock',
  'networks',
  'radios',
  'address',
  'save',
  'joined',
  'on-air',
  'proof',
]

/** What of a card decides its steps. */
export type SteppedCard = Pick<KitCard, 'role' | 'does' | 'timing' | 'dialect' | 'factory' | 'isBare'>

/** A unit that is set by hand is found and checked from outside. */
const byHandSteps: readonly Step[] = ['reach', 'proof']

/** The steps that this model goes through, in order, by what its card says that it does. */
export function stepsFor(card: SteppedCard): Step[] {
  const { role, does, timing } = card
  if (whyNotMustered(card) !== undefined) return [...byHandSteps]
  if (role === 'managed-access-point') return [...managedSteps]
  const left = new Set<Step>([
    // Only what a controller manages has to join one.
    'joined',
    ...(timing.image === undefined ? (['firmware'] as const) : []),
    ...(does.applies === 'at-once' ? (['apply'] as const) : []),
    ...(does.saves === 'itself' ? (['save'] as const) : []),
  ])
  return steps.filter((step) => !left.has(step))
}

/**
 * How long a step usually takes, seconds, by the model's timing. @param listenSeconds for radar, before it is on air
 */
export function usualSeconds(step: Step, card: Pick<KitCard, 'timing' | 'does'>, listenSeconds: number): number {
  if (step === 'apply') return card.timing.apply
  if (step === 'return') return card.timing.restart
  // Most run what they bring.
  if (step === 'firmware') return 0
  if (step === 'on-air') return Math.max(2, listenSeconds)
  return 2
}
