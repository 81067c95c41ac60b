/**
 * The procedure: the steps of a muster in the one order that keeps an installer out of trouble.
 */
import type { ConfigPart } from '../config/compare'
import type { KitCard } from '../kit/kit-card'

export const steps = [
  'reach',
  'sign-in',
  'backup',
  'country',
  'clock',
  'networks',
  'radios',
  'password',
  'address',
  'return',
  'joined',
  'on-air',
  'proof',
] as const
export type Step = (typeof steps)[number]

export interface StepRule {
  /** As it heads a column of the roll. */
  readonly title: string
  /** What is being done, in the installer's words, while it goes on. */
  readonly doing: string
  /** Parts of the configuration that this step, and no other, writes. */
  readonly parts: readonly ConfigPart[]
}

export const procedure: Readonly<Record<Step, StepRule>> = {
  reach: { title: 'Reach', doing: 'looking for it', parts: [] },
  'sign-in': { title: 'Sign in', doing: 'signing in', parts: [] },
  // What was found is kept before the first change.
  backup: { title: 'Backup', doing: 'keeping a copy as found', parts: [] },
  // Country before anything about radios: it resets channels on much equipment.
  country: { title: 'Country', doing: 'setting the country', parts: ['country'] },
  // A wrong clock breaks joins, certificates and schedules.
  clock: { title: 'Clock', doing: 'setting clock and name', parts: ['clock', 'name', 'services'] },
  // Security goes in the same change as the network: at no time is one there that anyone could join.
  networks: { title: 'Networks', doing: 'writing networks', parts: ['networks'] },
  radios: { title: 'Radios', doing: 'setting radios', parts: ['radios'] },
  password: { title: 'Password', doing: 'changing the password', parts: [] },
  // Last of the changes: the session dies with the old address.
  address: { title: 'Address', doing: 'writing the address', parts: ['management'] },
  return: { title: 'Return', doing: 'waiting for it at its new address', parts: [] },
  joined: { title: 'Joined', doing: 'joining its controller', parts: [] },
  'on-air': { title: 'On air', doing: 'looking at its radios', parts: [] },
  proof: { title: 'Proof', doing: 'proving every point', parts: [] },
}

/** The steps that this model goes through, in order: only what a controller manages has to join one. */
export function stepsFor(card: Pick<KitCard, 'role'>): Step[] {
  return steps.filter((step) => step !== 'joined' || card.role === 'managed-access-point')
}

/** How long a step usually takes, seconds, by the model's timing; a radar channel listens before it is on air. */
export function usualSeconds(step: Step, card: Pick<KitCard, 'timing'>, listensForRadar: boolean): number {
  if (step === 'address') return card.timing.apply
  if (step === 'return') return card.timing.restart
  if (step === 'on-air') return listensForRadar ? 60 : 2
  return 2
}
