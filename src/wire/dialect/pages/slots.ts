/**
 * Networks of a unit whose radios have numbered places for them. A unit knows a network by its name alone, so ours are
 * known again by name and band; whatever else stands in a place is known by the place.
 */
import type { Clear, Config } from '../../../core/config/unit-config'

export interface Slot {
  readonly band: string
  /** Counted from 1. */
  readonly number: number
  /** Empty where nothing stands in it. */
  readonly ssid: string
}

/** As a page shows a name between other words: spaces at its ends and rows of them are lost. */
const asShown = (ssid: string | undefined): string | undefined => ssid?.replace(/\s+/g, ' ').trim()

const ssidOf = (desired: Config<Clear> | undefined, id: string): string | undefined =>
  desired?.networks[id]?.['network.ssid']

/** Ids of all networks of this name, as a page shows it, in the order in which the unit is to have them. */
export function idsOfNetworks(desired: Config<Clear> | undefined, ssid: string): string[] {
  const ids = Object.keys(desired?.networks ?? {})
  const exactly = ids.filter((id) => ssidOf(desired, id) === ssid)
  return exactly.length > 0 ? exactly : ids.filter((id) => asShown(ssidOf(desired, id)) === asShown(ssid))
}

/** Id of the network of this name on a band; undefined where what the unit is to be has none. */
export function idOfNetwork(desired: Config<Clear> | undefined, band: string, ssid: string): string | undefined {
  const named = idsOfNetworks(desired, ssid)
  const onBand = named.find((id) => desired?.networks[id]?.['network.bands']?.some((each) => each === band))
  return onBand ?? (named.length === 1 ? named[0] : undefined)
}

/** What stands in each slot, by the id of a network; a slot that nobody asked for has an id of its own. */
export function idsOfSlots(desired: Config<Clear> | undefined, slots: readonly Slot[]): Map<Slot, string> {
  const ids = new Map<Slot, string>()
  const taken = new Set<string>()
  for (const slot of slots) {
    if (slot.ssid === '') continue
    const known = idOfNetwork(desired, slot.band, slot.ssid)
    const once = known !== undefined && !taken.has(`${slot.band} ${known}`)
    const id = once ? known : `${slot.band}/${slot.number}`
    taken.add(`${slot.band} ${id}`)
    ids.set(slot, id)
  }
  return ids
}

export interface Assignment {
  readonly slot: Slot
  /** Undefined where the slot is made free. */
  readonly network: string | undefined
}

/**
 * Which slots are written so that these networks stand where they are to be: each keeps its slot, a new one takes one
 * that is free or made free; those that go are first.
 *
 * @param concerned  ids of networks that are written, and of slots that are made free
 * @returns          undefined for a band without a slot left
 */
export function assign(
  desired: Config<Clear>,
  slots: readonly Slot[],
  concerned: ReadonlySet<string>,
): readonly Assignment[] | { readonly full: string } {
  const ids = idsOfSlots(desired, slots)
  const isOn = (id: string, band: string): boolean =>
    desired.networks[id]?.['network.bands']?.some((each) => each === band) === true
  const gone = slots.filter((slot) => {
    const id = ids.get(slot)
    return id !== undefined && concerned.has(id) && !isOn(id, slot.band)
  })
  const free = slots.filter((slot) => !ids.has(slot))
  const written: Assignment[] = []
  const refilled = new Set<Slot>()
  for (const id of Object.keys(desired.networks).filter((each) => concerned.has(each)))
    for (const band of new Set(slots.map((slot) => slot.band))) {
      if (!isOn(id, band)) continue
      const own = slots.find((slot) => slot.band === band && ids.get(slot) === id)
      const next = own ?? [...free, ...gone].find((slot) => slot.band === band && !refilled.has(slot))
      if (!next) return { full: band }
      refilled.add(next)
      written.push({ slot: next, network: id })
    }
  return [
    ...gone.filter((slot) => !refilled.has(slot)).map((slot): Assignment => ({ slot, network: undefined })),
    ...written,
  ]
}
