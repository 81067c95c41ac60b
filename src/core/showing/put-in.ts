/** Settings as hands go through them: what is typed, and in which order. */
import { z } from 'zod'
import type { Spoken } from '../config/outcomes'
import type { SettlingStep } from '../config/settings/setting'
import { settingOf } from '../config/settings/settings'

/** @returns undefined for what is chosen or ticked, not typed */
export function typedText({ id, value }: Pick<Spoken, 'id' | 'value'>): string | undefined {
  if (settingOf(id).value instanceof z.ZodEnum) return undefined
  if (typeof value === 'string') return value
  if (typeof value === 'number') return String(value)
  if (Array.isArray(value) && value.length > 0 && value.every((each) => typeof each === 'string'))
    return value.join(', ')
  return undefined
}

/**
 * The country first, since it decides which channels there are; security before a network is on; then what can lock
 * somebody out, the password and last the address.
 */
const workingOrder: readonly SettlingStep[] = [
  'country',
  'clock',
  'networks',
  'radios',
  'services',
  'password',
  'address',
  'proof',
]

/** Settings in the order that keeps an installer out of trouble. */
export function inWorkingOrder(spoken: readonly Spoken[]): Spoken[] {
  const place = ({ id }: Spoken): number => workingOrder.indexOf(settingOf(id).step)
  return spoken.toSorted((a, b) => place(a) - place(b))
}
