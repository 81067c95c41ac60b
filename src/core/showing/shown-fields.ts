/** Fields of a card, and its pages of settings, as they were filled in. */
import type { SettingId } from '../catalogue/catalogue'
import { settingOf } from '../catalogue/catalogue'
import type { SettingKey } from '../config/unit-config'
import { type Described, mostDescriptions } from '../kit/page-element'
import type { Act } from './act'
import { pressesOf, saidBy } from './saved-words'
import type { Turn } from './turns'

/** The setting that an act puts in, or a part of it. */
const keyOf = ({ does }: Act): SettingKey | undefined =>
  does.kind === 'puts' && (does.value.kind === 'setting' || does.value.kind === 'tick-of') ? does.value : undefined
export const idOf = (act: Act): SettingId | undefined => keyOf(act)?.id
const scopeOf = (act: Act): string | undefined => keyOf(act)?.of
export const ats = (acts: readonly Act[]): Described[] => acts.map(({ at }) => at)

type Fields = Record<string, Record<string, unknown>>

/** Several elements of which one is on each page, described as one: its ways are those of all. */
export function anyOf(all: readonly Described[]): Described | undefined {
  const [first] = all
  if (!first) return undefined
  const same = all.filter(({ use }) => use === first.use)
  const by = new Map(same.flatMap((each) => each.by.map((way) => [JSON.stringify(way), way] as const)))
  return { use: first.use, by: [...by.values()].slice(0, mostDescriptions) }
}

export const confirmsOf = ({ confirms }: { readonly confirms: readonly Act[] }) =>
  confirms.length > 0 ? { confirms: ats(confirms) } : {}

/** Fields that were filled in together, several times over, by setting; what is ticked together belongs to one. */
export function fieldsOf(together: readonly (readonly Act[])[]): Fields {
  const fields: Fields = {}
  for (const acts of together) {
    const typed = new Set<string>()
    for (const { at, does } of acts) {
      if (does.kind !== 'puts') continue
      const { value } = does
      if (value.kind === 'tick-of') {
        const ticks = (fields[value.id]?.ticks ?? {}) as Record<string, unknown>
        fields[value.id] = { ticks: { ...ticks, [value.tick]: at } }
      } else if (value.kind === 'setting') {
        const key = `${value.id} ${value.of}`
        const before = fields[value.id]
        // Typed once more in a field beside it, as new passwords are.
        if (typed.has(key) && before) {
          before.again = at
          continue
        }
        typed.add(key)
        const words = { ...((before?.words ?? {}) as object), ...(value.how.words ?? {}) }
        const { nothing } = settingOf(value.id)
        const as = before?.at as Described | undefined
        fields[value.id] = {
          ...{ at: as ? anyOf([as, at]) : at, ...value.how },
          ...(before?.again ? { again: before.again } : {}),
          ...(Object.keys(words).length > 0 ? { words } : {}),
          ...(nothing === undefined ? {} : { absent: nothing }),
        }
      }
    }
  }
  return fields
}

/** The same, with the fields of radios apart, by band; none of them where no radio has any. */
export function fieldsAndRadios(together: readonly (readonly Act[])[]): {
  fields: Fields
  radios?: Record<string, Fields>
} {
  const isOfRadio = (act: Act): boolean => idOf(act)?.startsWith('radio.') === true
  const ofRadios = together.flatMap((acts) => acts.filter(isOfRadio))
  const fields = fieldsOf(together.map((acts) => acts.filter((act) => !isOfRadio(act))))
  const bands = [...new Set(ofRadios.flatMap((act) => scopeOf(act) ?? []))]
  const own = bands.map((band) => [band, fieldsOf([ofRadios.filter((act) => scopeOf(act) === band)])] as const)
  return bands.length === 0 ? { fields } : { fields, radios: Object.fromEntries(own) }
}

export function pagesOf(turns: readonly Turn[], saved: Described | undefined): Record<string, unknown>[] {
  const byWay = new Map<string, Turn[]>()
  for (const turn of turns) {
    const key = JSON.stringify([turn.path, ats(turn.reach)])
    byWay.set(key, [...(byWay.get(key) ?? []), turn])
  }
  return [...byWay.values()].flatMap((same) => {
    const [turn] = same
    // What was pressed in between may have been for something else.
    const last = same.findLast(({ press }) => press !== undefined)
    const fills = same.flatMap((each) => each.fills)
    const { fields, radios } = fieldsAndRadios(same.map((each) => each.fills))
    if (!turn || (Object.keys(fields).length === 0 && !radios)) return []
    const resetsOthers = 'unit.country' in fields ? ['unit.country'] : undefined
    return [
      {
        path: turn.path,
        ...(turn.reach.length > 0 ? { reach: ats(turn.reach) } : {}),
        fields,
        ...fillsOf(fills),
        ...(radios ? { radios } : {}),
        ...(last?.press
          ? { press: last.press.at, ...confirmsOf(last), ...saidBy(same.flatMap(pressesOf), saved) }
          : {}),
        ...(resetsOthers ? { resetsOthers } : {}),
      },
    ]
  })
}

/** What was put in and is no setting: it is always so. */
export function alwaysOf({ at, does }: Act): Record<string, unknown>[] {
  if (does.kind !== 'puts') return []
  if (does.value.kind === 'always') return [{ at, types: does.value.text }]
  return does.value.kind === 'ticked' ? [{ at, ticks: does.value.ticked }] : []
}

function fillsOf(fills: readonly Act[]) {
  const always = fills.flatMap(alwaysOf)
  return always.length > 0 ? { fills: always } : {}
}

/** Settings that its pages take. */
export function canOf(turns: readonly Turn[]): Record<string, unknown> {
  const ids = new Set(turns.flatMap(({ fills }) => fills.flatMap((act) => idOf(act) ?? [])))
  return Object.fromEntries(
    [...ids].map((id) => [id, settingOf(id).secret && !settingOf(id).bySigningIn ? { readable: 'no' } : null]),
  )
}
