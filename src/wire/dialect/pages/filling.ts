/** Values and the fields of a page: what is there is filled in first, since some fields appear by it. */

import type { SettingId } from '../../../core/catalogue/catalogue'
import type { At, PageValue } from '../../../core/kit/page-places'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import { type Entry, placeWords } from './engine'
import type { Page } from './page'
import type { PageSession } from './page-session'

export interface Wanted {
  readonly id: SettingId
  readonly value: unknown
  readonly place: PageValue
}

export interface Filled {
  /** Left to be put in with the press that saves the page. */
  readonly entries: readonly Entry[]
  /** Their fields are not there, and did not appear. */
  readonly missing: readonly Wanted[]
}

/** The elements that hold a value. */
export const atsOf = (place: PageValue): At[] => ('ticks' in place ? Object.values(place.ticks) : [place.at])

export const isOn = (page: Page, { place }: Pick<Wanted, 'place'>): boolean => atsOf(place).every((at) => page.has(at))

const entriesOf = (page: Page, wanted: readonly Wanted[]): Entry[] =>
  wanted.flatMap(({ id, value, place }) => page.entries(id, value, place))

/**
 * @param always  put in before all else
 * @throws WireError rejected where a field does not take its value
 */
export async function fillIn(
  session: PageSession,
  first: Page,
  wanted: readonly Wanted[],
  always: readonly Entry[] = [],
): Promise<Filled> {
  let [page, left, before] = [first, wanted, always]
  for (;;) {
    const now = left.filter((each) => isOn(page, each))
    const later = left.filter((each) => !now.includes(each))
    const entries = [...before, ...entriesOf(page, now)]
    if (later.length === 0 || entries.length === 0 || !session.showsMore) return { entries, missing: later }
    page = await session.put(entries, (one) => later.some((each) => isOn(one, each)))
    left = later
    before = []
  }
}

/** @throws WireError garbled */
export function throwIfMissing([first]: readonly Wanted[]): void {
  if (!first) return
  const [at] = atsOf(first.place)
  throw new WireError('garbled', message('nothing-on-page', { place: at === undefined ? first.id : placeWords(at) }))
}

/** Values of one scope, each with its field. */
export const wantedOf = (fields: Readonly<Record<string, PageValue>>, values: object): Wanted[] =>
  Object.entries(fields).flatMap(([key, place]): Wanted[] => {
    const value = (values as Readonly<Record<string, unknown>>)[key]
    return value === undefined ? [] : [{ id: key as SettingId, value, place }]
  })

/** Where on the whole page an element of a row is. @throws WireError garbled where the row has nothing of the kind */
export function placeInRow(row: Page | undefined, at: At): At {
  const place = row?.placeOf(at)
  if (place === undefined) throw new WireError('garbled', message('row-cannot-be-opened'))
  return place
}
