/** Settings as hands go through them: what is typed, and in which order. */
import { z } from 'zod'
import { settingOf } from '../catalogue/catalogue'
import type { Spoken } from '../config/outcomes'
import { steps } from '../muster/procedure'

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
 * Settings in the order of a muster, which keeps an installer out of trouble too: the country first, since it decides
 * which channels there are; security before a network is on; then what can lock somebody out, the address last.
 */
export function inWorkingOrder(spoken: readonly Spoken[]): Spoken[] {
  const place = ({ id }: Spoken): number => steps.indexOf(settingOf(id).step)
  return spoken.toSorted((a, b) => place(a) - place(b))
}
