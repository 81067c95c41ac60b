/** Which pages of a card are come to for a unit, how often, and what of a change each of them holds. */
import { type Difference, stepOf } from '../../../core/config/compare'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { At, PageValue } from '../../../core/kit/page-places'
import type { SettingsPage } from '../../../core/kit/pages-dialect'
import { atsOf } from './filling'
import type { Page } from './page'
import type { ReadPage } from './reading'

/** A clock is compared with ours as it was then: what is read after it takes time too. */
export async function looked(where: Omit<ReadPage, 'page' | 'at'>, opened: () => Promise<Page>): Promise<ReadPage> {
  const before = Date.now()
  const page = await opened()
  return { ...where, page, at: (before + Date.now()) / 2 }
}

/** Fields of a page that hold the values of one scope. */
export interface PartOfPage {
  readonly fields: Readonly<Record<string, PageValue>>
  readonly values: Readonly<Record<string, unknown>>
}

export const placesIn = (fields: PartOfPage['fields']): At[] => Object.values(fields).flatMap(atsOf)
export const fieldsOn = (page: SettingsPage): At[] => [page.fields, ...Object.values(page.radios)].flatMap(placesIn)

/** Ids of networks that are written, and of those that are taken away. */
export const networksConcerned = (differences: readonly Difference[]): Set<string> =>
  new Set(differences.filter((each) => stepOf(each) === 'networks').map(({ of }) => of))

interface PlaceOfPage {
  readonly radio: string | undefined
  readonly band: string | undefined
  readonly slot: number | undefined
}

/** Once for the unit, or for each radio, or for each place for a network. */
export function placesOf({ per, slots = 0 }: SettingsPage, { radios }: Pick<DirectCard, 'radios'>): PlaceOfPage[] {
  if (per === 'unit') return [{ radio: undefined, band: undefined, slot: undefined }]
  const each = radios.map(({ name: radio, band }): PlaceOfPage => ({ radio, band, slot: undefined }))
  if (per === 'radio') return each
  return each.flatMap((place) => Array.from({ length: slots }, (_, index) => ({ ...place, slot: index + 1 })))
}

/** Does a difference call for this page of a radio or the unit? */
export function concerns(
  { fields, per, radios }: SettingsPage,
  band: string | undefined,
  difference: Difference,
): boolean {
  const own = radios[difference.of]
  if (own && (difference.kind === 'value' ? difference.id in own : difference.scope === 'radio')) return true
  if (difference.kind !== 'value') return per === 'radio' && difference.scope === 'radio' && difference.of === band
  return difference.id in fields && (band === undefined || difference.of === band)
}
