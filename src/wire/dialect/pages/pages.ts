/** The pages dialect: a unit that speaks nothing but web pages, as its kit card has them. */
import { type Difference, stepOf } from '../../../core/config/compare'
import { onlyReadIds, type SettingId } from '../../../core/config/setting-ids'
import { settingOf } from '../../../core/config/settings/settings'
import type { ObservedConfig, UnitConfig } from '../../../core/config/unit-config'
import type { DirectCard } from '../../../core/kit/kit-card'
import { type PageFill, type PagesDialect, pathOf, type SettingsPage } from '../../../core/kit/pages-dialect'
import type { Evidence } from '../../../core/kit/recognise'
import type { Lane } from '../../host/host'
import type { PinCheck } from '../../trust/pin'
import { plainReason, WireError } from '../../wire-error'
import {
  always,
  type Changes,
  type Credentials,
  type Dialect,
  type MayChange,
  type RadioOnAir,
  type Reading,
} from '../dialect'
import { airOn } from './air'
import type { Entry } from './engine'
import type { Page } from './page'
import { PageSession } from './page-session'
import { observedOn, type ReadPage } from './reading'
import { assign, type Slot } from './slots'

type PagesCard = DirectCard & { readonly dialect: PagesDialect }

export function pages(lane: Lane, card: PagesCard, pin: PinCheck, desired: UnitConfig | undefined): Dialect {
  return new Pages(lane, card, pin, desired)
}

class Pages implements Dialect {
  readonly #lane: Lane
  readonly #card: PagesCard
  readonly #session: PageSession
  readonly #desired: UnitConfig | undefined
  /** As they were read last: where each network stands. */
  #slots: readonly Slot[] | undefined

  constructor(lane: Lane, card: PagesCard, pin: PinCheck, desired: UnitConfig | undefined) {
    this.#lane = lane
    this.#card = card
    this.#desired = desired
    this.#session = new PageSession(lane, card, pin, desired)
  }

  get #dialect(): PagesDialect {
    return this.#card.dialect
  }

  async identify(): Promise<Evidence> {
    return { title: plainReason((await this.#session.frontPage()).title) }
  }

  async signIn(login: Credentials): Promise<void> {
    await this.#session.signIn(login)
    const { page, ...place } = this.#dialect.mac
    const mac = (await this.#session.open(page)).text(place)?.toLowerCase().replaceAll('-', ':')
    if (mac === undefined) throw new WireError('garbled', 'it does not tell its MAC')
    if (mac !== this.#lane.mac) throw new WireError('wrong-unit', `${mac} answers where ${this.#lane.mac} should`)
  }

  async read(reading: Reading): Promise<ObservedConfig> {
    const read = await this.#readAll()
    const { observed, slots } = observedOn(this.#card, this.#dialect, read, { reading, desired: this.#desired })
    this.#slots = slots
    return observed
  }

  async #readAll(): Promise<ReadPage[]> {
    const read: ReadPage[] = []
    const look = async (where: Omit<ReadPage, 'page' | 'at'>, opened: () => Promise<Page>): Promise<void> => {
      const before = Date.now()
      const page = await opened()
      // A clock is compared with ours as it was then: what is read after it takes time too.
      read.push({ ...where, page, at: (before + Date.now()) / 2 })
    }
    for (const page of this.#dialect.pages)
      for (const place of placesOf(page, this.#card)) {
        const path = pathOf(page, place.radio, place.slot)
        const changesByItself = Object.keys(page.fields).some((id) => onlyReadIds.has(id))
        const fields = Object.values(page.fields).map(({ at }) => at)
        await look({ ...place, of: page }, () =>
          changesByItself
            ? this.#session.open(path, page.ready, fields)
            : this.#session.settings(path, page.ready, fields),
        )
      }
    const { state } = this.#dialect
    const whole = { band: undefined, slot: undefined, radio: undefined }
    if (state) await look({ of: state, ...whole }, () => this.#session.open(state.page))
    return read
  }

  async backup(): Promise<string> {
    const read = await this.#readAll()
    const kept = read.map(({ of, radio, slot, page }) => ({
      page: 'path' in of ? pathOf(of, radio, slot) : of.page,
      holds: Object.fromEntries(Object.entries(of.fields).map(([id, place]) => [id, page.text(place) ?? null])),
    }))
    return JSON.stringify(kept, null, 2)
  }

  async write(differences: readonly Difference[], desired: UnitConfig, mayChange = always): Promise<void> {
    for (const page of this.#dialect.pages) {
      if (page.per === 'network') await this.#writeNetworks(page, differences, desired, mayChange)
      else
        for (const { radio, band } of placesOf(page, this.#card)) {
          const concerned = differences.filter((each) => concerns(page, band, each))
          if (concerned.length === 0) continue
          await mayChange()
          const values = band === undefined ? desired.unit : desired.radios[band]
          await this.#save(page, pathOf(page, radio), values ?? {}, new Set(concerned.map(stepOf)))
        }
    }
  }

  async #writeNetworks(
    page: SettingsPage,
    differences: readonly Difference[],
    desired: UnitConfig,
    mayChange: MayChange,
  ): Promise<void> {
    const concerned = new Set(differences.filter((each) => stepOf(each) === 'networks').map(({ of }) => of))
    if (concerned.size === 0) return
    if (!this.#slots) await this.read('configured')
    const assigned = assign(desired, this.#slots ?? [], concerned)
    if ('full' in assigned) throw new WireError('rejected', `no place for a network is left at ${assigned.full} GHz`)
    for (const { slot, network } of assigned) {
      await mayChange()
      const name = this.#card.radios.find(({ band }) => band === slot.band)?.name
      const path = pathOf(page, name, slot.number)
      this.#session.forget(path)
      if (network === undefined) await this.#fillAndSave(path, page.ready, page.clears, page.press)
      else await this.#save(page, path, desired.networks[network] ?? {}, new Set(['networks']))
    }
    this.#slots = undefined
  }

  /** Puts the values that these steps write into the fields of a page, and saves it. */
  async #save(
    { fields, ready, press, resetsOthers }: SettingsPage,
    path: string,
    values: Readonly<Record<string, unknown>>,
    steps: ReadonlySet<string>,
  ): Promise<void> {
    this.#session.forget(resetsOthers ? 'all' : path)
    const places = Object.values(fields).map(({ at }) => at)
    const page = await this.#session.open(path, ready, places)
    const entries = Object.entries(fields).flatMap(([id, place]): Entry[] => {
      const value = values[id]
      if (value === undefined || !steps.has(settingOf(id as SettingId).step)) return []
      return [page.entry(id as SettingId, value, place)]
    })
    await this.#session.save(entries, press)
  }

  async #fillAndSave(path: string, ready: readonly string[], fills: readonly PageFill[], press: string): Promise<void> {
    const page = await this.#session.open(path, ready)
    await this.#session.save(this.#session.entries(page, fills), press)
  }

  async changePassword(user: string, password: string): Promise<void> {
    const { page, old, new: fields, press } = this.#dialect.password
    await this.#session.open(page)
    const text = (at: string, value: string): Entry => ({ at, kind: 'text', text: value })
    const before = old === undefined ? [] : [text(old, this.#session.credentials.password)]
    await this.#session.save([...before, ...fields.map((at) => text(at, password))], press)
    // A session that ends in between is opened again with what opens it now.
    this.#session.credentials = { user, password }
  }

  async changes(): Promise<Changes> {
    const { changes } = this.#dialect
    if (!changes) return { standing: 'none', saved: 'saved' }
    const page = await this.#session.open(changes.page)
    const standing = page.has(changes.applying) ? 'applying' : page.has(changes.waiting) ? 'waiting' : 'none'
    return { standing, saved: 'saved' }
  }

  async revision(): Promise<string | undefined> {
    const { changes } = this.#dialect
    return changes?.mark && (await this.#session.open(changes.page)).text(changes.mark)
  }

  async apply(): Promise<void> {
    const { apply } = this.#dialect
    if (apply) await this.#press(apply.page, apply.fills, apply.press)
  }

  async confirm(): Promise<void> {
    // It takes nothing back by itself.
  }

  async save(): Promise<Changes['saved']> {
    const { save } = this.#dialect
    if (save) await this.#fillAndSave(save.page, [], save.fills, save.press)
    return (await this.changes()).saved
  }

  async restart(): Promise<void> {
    const { page, fills, press } = this.#dialect.restart
    await this.#press(page, fills, press)
  }

  /** It may be gone before the answer is here. */
  async #press(path: string, fills: readonly PageFill[], press: string): Promise<void> {
    this.#session.forget('all')
    const page = await this.#session.open(path)
    await this.#session.press(this.#session.entries(page, fills), press).catch((error: unknown) => {
      if (!(error instanceof WireError && (error.kind === 'unreachable' || error.kind === 'timeout'))) throw error
    })
  }

  async air(): Promise<readonly RadioOnAir[]> {
    const page = await this.#session.open(this.#dialect.air.page)
    return airOn(this.#card, this.#dialect, page, this.#desired)
  }

  close(): void {
    this.#session.close()
  }
}

interface PlaceOfPage {
  readonly radio: string | undefined
  readonly band: string | undefined
  readonly slot: number | undefined
}

/** Once for the unit, or for each radio, or for each place for a network. */
function placesOf({ per, slots = 0 }: SettingsPage, { radios }: Pick<DirectCard, 'radios'>): PlaceOfPage[] {
  if (per === 'unit') return [{ radio: undefined, band: undefined, slot: undefined }]
  const each = radios.map(({ name: radio, band }): PlaceOfPage => ({ radio, band, slot: undefined }))
  if (per === 'radio') return each
  return each.flatMap((place) => Array.from({ length: slots }, (_, index) => ({ ...place, slot: index + 1 })))
}

/** Does a difference call for this page of a radio or the unit? */
function concerns({ fields, per }: SettingsPage, band: string | undefined, difference: Difference): boolean {
  if (difference.kind !== 'value') return per === 'radio' && difference.scope === 'radio' && difference.of === band
  return difference.id in fields && (band === undefined || difference.of === band)
}
