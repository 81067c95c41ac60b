/** What a unit's pages hold, as settings: bounded, and nothing guessed. */
import type { SettingId } from '../../../core/catalogue/catalogue'
import type { Clear, Config, Observed, ObservedConfig } from '../../../core/config/unit-config'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { NetworkRows, PagesDialect, SettingsPage } from '../../../core/kit/pages-dialect'
import type { Reading } from '../dialect'
import { mergedNetwork, neverShown, type SeenValues } from '../seen-values'
import type { Page } from './page'
import { idsOfSlots, type Slot } from './slots'

export interface ReadPage {
  readonly of: SettingsPage | NetworkRows | NonNullable<PagesDialect['state']>
  readonly radio: string | undefined
  readonly band: string | undefined
  readonly slot: number | undefined
  /** Id of the network whose row was opened. */
  readonly network?: string
  readonly page: Page
  /** When, ms since 1970. */
  readonly at: number
}

export function observedOn(
  card: DirectCard,
  dialect: PagesDialect,
  read: readonly ReadPage[],
  { reading, desired }: { readonly reading: Reading; readonly desired: Config<Clear> | undefined },
): { observed: ObservedConfig; slots: Slot[] } {
  const unit: SeenValues = neverShown(card, 'unit')
  const state: SeenValues = {}
  const radios: Record<string, SeenValues> = {}
  const slots: (Slot & { readonly values: SeenValues })[] = []
  const rows: Record<string, SeenValues> = {}
  for (const { of, band, slot, network, page, at } of read) {
    const values = valuesOn(card, of.fields, page, at)
    if (network !== undefined) rows[network] = { ...alwaysOf(dialect), ...neverShown(card, 'network'), ...values }
    else if (!('path' in of)) Object.assign(state, values)
    else if (band === undefined) Object.assign(unit, values)
    else if (slot === undefined) radios[band] = { ...neverShown(card, 'radio'), ...radios[band], ...values }
    else slots.push({ band, number: slot, ssid: textOf(values['network.ssid']), values })
  }
  // What it was told to be stands in its fields; what it is, in its state, and what DHCP gave it, there alone.
  const whole = reading === 'in-effect' ? { ...unit, ...state } : { ...state, ...unit }
  const networks = { ...networksIn(card, dialect, slots, desired), ...rows }
  return { observed: { unit: whole, networks, radios }, slots }
}

function networksIn(
  card: DirectCard,
  dialect: PagesDialect,
  slots: readonly (Slot & { readonly values: SeenValues })[],
  desired: Config<Clear> | undefined,
): Record<string, SeenValues> {
  const always = alwaysOf(dialect)
  const ids = idsOfSlots(desired, slots)
  const networks: Record<string, SeenValues> = {}
  for (const slot of slots) {
    const id = ids.get(slot)
    if (id === undefined) continue
    const bands: Observed<unknown> = { kind: 'value', value: [slot.band] }
    const seen = { ...always, ...neverShown(card, 'network'), ...slot.values, 'network.bands': bands }
    networks[id] = mergedNetwork(networks[id], seen)
  }
  return networks
}

/** True of every network that is there. */
const alwaysOf = ({ networksAre }: PagesDialect): SeenValues =>
  Object.fromEntries(
    Object.entries(networksAre).map(([id, value]): [string, Observed<unknown>] => [id, { kind: 'value', value }]),
  )

export function valuesOn(
  { can }: Pick<DirectCard, 'can'>,
  fields: SettingsPage['fields'],
  page: Page,
  at: number,
): SeenValues {
  return Object.fromEntries(
    Object.entries(fields).flatMap(([id, place]): [string, Observed<unknown>][] => {
      // Dots stand where a secret is: they are not its value.
      if (can[id as SettingId]?.readable === 'no') return []
      const value = page.value(id as SettingId, place, at)
      return value === undefined ? [] : [[id, { kind: 'value', value }]]
    }),
  )
}

const textOf = (value: Observed<unknown> | undefined): string => (value?.kind === 'value' ? String(value.value) : '')
