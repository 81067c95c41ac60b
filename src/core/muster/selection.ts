/**
 * Which units of a job something is for. "All" is a kind of its own: a unit that comes to the list later belongs to it.
 */
import { z } from 'zod'
import { unitIdSchema } from '../kit/unit'

export const selectionSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('all') }),
  z.object({ kind: z.literal('these'), units: z.array(unitIdSchema).min(1).max(20_000) }),
])
export type Selection = z.infer<typeof selectionSchema>

export const allUnits: Selection = { kind: 'all' }

export const theseUnits = (...units: string[]): Selection => ({ kind: 'these', units })

export function isSelected(selection: Selection, unit: string): boolean {
  return selection.kind === 'all' || selection.units.includes(unit)
}

/** Does one selection hold everything that another asks for? */
export function covers(selection: Selection, asked: Selection): boolean {
  return (
    selection.kind === 'all' || (asked.kind === 'these' && asked.units.every((unit) => selection.units.includes(unit)))
  )
}
