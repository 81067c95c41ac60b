/**
 * What a unit's pages say when they are read by a card, beside what the unit is to be: nothing is written. So a card is
 * tried on the unit that hands have set, before it may write to another.
 */
import { z } from 'zod'
import type { SettingId } from '../catalogue/catalogue'
import { isSame, valueWords } from '../config/compare'
import { type Config, type Observed, type ObservedConfig, type Secrecy, settingIdSchema } from '../config/unit-config'

export const readBackSchema = z.object({
  id: settingIdSchema,
  of: z.string(),
  result: z.enum(['as-asked', 'otherwise', 'not-readable']),
  /** What was read, where that is something else; never a secret. */
  seen: z.string().optional(),
})
export type ReadBack = z.infer<typeof readBackSchema>

/** Each setting that the card sets, with what was read of it. */
export function readBack(desired: Config<Secrecy>, observed: ObservedConfig): ReadBack[] {
  const groups = [
    { of: '', values: desired.unit, seen: observed.unit },
    ...Object.entries(desired.networks).map(([of, values]) => ({ of, values, seen: observed.networks[of] })),
    ...Object.entries(desired.radios).map(([of, values]) => ({ of, values, seen: observed.radios[of] })),
  ]
  return groups.flatMap(({ of, values, seen }) =>
    Object.entries(values).map(([id, value]) => readOne(id as SettingId, of, value, seen?.[id as keyof typeof seen])),
  )
}

function readOne(id: SettingId, of: string, value: unknown, seen: Observed<unknown> | undefined): ReadBack {
  if (seen?.kind !== 'value') return { id, of, result: 'not-readable' }
  if (isSame(id, value, seen.value)) return { id, of, result: 'as-asked' }
  return { id, of, result: 'otherwise', seen: valueWords(id, seen.value).slice(0, 200) }
}
