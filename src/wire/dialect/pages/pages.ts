/** The pages dialect: a unit that speaks nothing but web pages, as its kit card has them. */

import { onlyReadIds, type SettingId, settingOf } from '../../../core/catalogue/catalogue'
import { type Difference, stepOf } from '../../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../../core/config/unit-config'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { At, PageFill, Way } from '../../../core/kit/page-places'
import { type PagesDialect, pathOf, type SettingsPage } from '../../../core/kit/pages-dialect'
import type { Evidence } from '../../../core/kit/recognise'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { plainReason, WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import type { PagePicture } from '../../page-elements/picture'
import type { PinCheck } from '../../trust/pin'
import { airAsSet } from '../air-as-set'
import {
  always,
  type Copies,
  type Dialect,
  type MayChange,
  type RadioOnAir,
  type Reading,
  type Saving,
  type Staging,
} from '../dialect'
import type { RowsController, UnitRows } from '../managed/controller'
import { asController } from '../managed/rows'
import { airOn } from './air'
import type { Entry } from './engine'
import { fillIn, throwIfMissing, wantedOf } from './filling'
import { NetworkTable } from './network-table'
import type { Page } from './page'
import { concerns, fieldsOn, looked, networksConcerned, type PartOfPage, placesIn, placesOf } from './page-parts'
import { PageSession, type Saves } from './page-session'
import { observedOn, type ReadPage } from './reading'
import { assign, type Slot } from './slots'
import { UnitTable } from './unit-table'

type PagesCard = DirectCard & { readonly dialect: PagesDialect }

export function pages(lane: Lane, card: PagesCard, pin: PinCheck, desired: Config<Clear> | undefined): Dialect {
  return new Pages(lane, card, pin, desired)
}

/** @throws WireError garbled where its card says nothing of units that it manages */
export function controllerPages(
  lane: Lane,
  card: PagesCard,
  pin: PinCheck,
  desired: Config<Clear> | undefined,
): RowsController {
  return asController(new Pages(lane, card, pin, desired))
}

class Pages implements Dialect {
  readonly #lane: Lane
  readonly #card: PagesCard
  readonly #session: PageSession
  readonly #desired: Config<Clear> | undefined
  /** Networks as rows, where the model has them so. */
  readonly #table: NetworkTable | undefined
  /** Access points that are set through it, where it is a controller. */
  readonly units: UnitRows | undefined
  /** As they were read last: where each network stands. */
  #slots: readonly Slot[] | undefined

  constructor(lane: Lane, card: PagesCard, pin: PinCheck, desired: Config<Clear> | undefined) {
    this.#lane = lane
    this.#card = card
    this.#desired = desired
    this.#session = new PageSession(lane, card, pin, desired)
    const { rows, units } = card.dialect
    this.#table = rows && new NetworkTable(this.#session, rows, desired)
    this.units = units && this.#unitsIn(new UnitTable(this.#session, units))
  }

  #unitsIn(table: UnitTable): UnitRows {
    return {
      standing: (unit) => table.standing(unit),
      takeIn: (unit) => table.takeIn(unit),
      read: (unit) => table.read(unit),
      write: (unit, differences, desired) => table.write(unit, differences, desired),
      networks: async () => (await this.#networksAlone()).networks,
    }
  }

  /** Of all that it shows, the networks. */
  async #networksAlone(): Promise<ObservedConfig> {
    const ofNetworks = this.#dialect.pages.filter(({ per }) => per === 'network')
    const read = [...(await this.#readPages(ofNetworks)), ...((await this.#table?.read()) ?? [])]
    return observedOn(this.#card, this.#dialect, read, { reading: 'in-effect', desired: this.#desired }).observed
  }

  get #dialect(): PagesDialect {
    return this.#card.dialect
  }

  async identify(): Promise<Evidence> {
    return { title: plainReason((await this.#session.frontPage()).title) }
  }

  async signIn(login: Credentials, toBe?: Credentials): Promise<void> {
    await this.#session.signIn(login, toBe)
    if (!this.#dialect.mac) return
    const { page, ...place } = this.#dialect.mac
    const mac = (await this.#session.open(page, [], [place.at])).text(place)?.toLowerCase().replaceAll('-', ':')
    if (mac === undefined) throw new WireError('garbled', message('tells-no-mac'))
    if (mac !== this.#lane.mac)
      throw new WireError('wrong-unit', message('other-mac-answers', { other: mac, mac: this.#lane.mac }))
  }

  madeLogin(): Credentials | undefined {
    return this.#session.made
  }

  async read(reading: Reading): Promise<ObservedConfig> {
    const read = await this.#readAll()
    const { observed, slots } = observedOn(this.#card, this.#dialect, read, { reading, desired: this.#desired })
    this.#slots = slots
    return observed
  }

  async #readAll(): Promise<ReadPage[]> {
    const read = [...(await this.#readPages(this.#dialect.pages)), ...((await this.#table?.read()) ?? [])]
    const { state } = this.#dialect
    if (!state) return read
    const whole = { of: state, band: undefined, slot: undefined, radio: undefined }
    return [...read, await looked(whole, () => this.#session.open(state.page, [], placesIn(state.fields)))]
  }

  async #readPages(pages: readonly SettingsPage[]): Promise<ReadPage[]> {
    const read: ReadPage[] = []
    for (const page of pages)
      for (const place of placesOf(page, this.#card)) {
        const way = { path: pathOf(page, place.radio, place.slot), reach: page.reach }
        const changesByItself = Object.keys(page.fields).some((id) => onlyReadIds.has(id))
        const fields = fieldsOn(page)
        const opened = (): Promise<Page> =>
          changesByItself
            ? this.#session.open(way, page.ready, fields)
            : this.#session.settings(way, page.ready, fields)
        const whole = await looked({ ...place, of: page }, opened)
        read.push(whole)
        // Radios that stand on the same page are read as if each had one.
        for (const [band, own] of Object.entries(page.radios))
          read.push({ ...whole, of: { ...page, fields: own }, band })
      }
    return read
  }

  readonly copies: Copies = { backup: () => this.#backup() }

  async #backup(): Promise<string> {
    const read = await this.#readAll()
    const kept = read.map(({ of, radio, slot, page }) => ({
      page: 'path' in of ? pathOf(of, radio, slot) : of.page,
      holds: Object.fromEntries(
        Object.entries(of.fields).map(([id, place]) => [
          id,
          ('ticks' in place ? page.value(id as SettingId, place, 0) : page.text(place)) ?? null,
        ]),
      ),
    }))
    return JSON.stringify(kept, null, 2)
  }

  async write(differences: readonly Difference[], desired: Config<Clear>, mayChange = always): Promise<void> {
    for (const page of this.#dialect.pages) {
      if (page.per === 'network') await this.#writeNetworks(page, differences, desired, mayChange)
      else
        for (const { radio, band } of placesOf(page, this.#card)) {
          const concerned = differences.filter((each) => concerns(page, band, each))
          if (concerned.length === 0) continue
          await mayChange()
          const values = band === undefined ? desired.unit : desired.radios[band]
          const parts = [
            { fields: page.fields, values: values ?? {} },
            ...Object.entries(page.radios).map(([of, fields]) => ({ fields, values: desired.radios[of] ?? {} })),
          ]
          await this.#save(page, pathOf(page, radio), parts, new Set(concerned.map(stepOf)))
        }
    }
    const ofNetworks = networksConcerned(differences)
    if (ofNetworks.size > 0) await this.#table?.write(ofNetworks, desired, mayChange)
  }

  async #writeNetworks(
    page: SettingsPage,
    differences: readonly Difference[],
    desired: Config<Clear>,
    mayChange: MayChange,
  ): Promise<void> {
    const concerned = networksConcerned(differences)
    if (concerned.size === 0) return
    if (!this.#slots) await this.read('configured')
    const assigned = assign(desired, this.#slots ?? [], concerned)
    if ('full' in assigned) throw new WireError('rejected', message('no-place-for-network', { band: assigned.full }))
    for (const { slot, network } of assigned) {
      await mayChange()
      const name = this.#card.radios.find(({ band }) => band === slot.band)?.name
      const path = pathOf(page, name, slot.number)
      const way = { path, reach: page.reach }
      this.#session.forget(way)
      const parts = [{ fields: page.fields, values: desired.networks[network ?? ''] ?? {} }]
      if (network === undefined) await this.#fillAndSave(way, page.ready, page.clears, page)
      else await this.#save(page, path, parts, new Set(['networks']))
    }
    this.#slots = undefined
  }

  /** Puts the values that these steps write into the fields of a page, and saves it. */
  async #save(
    page: SettingsPage,
    path: string,
    parts: readonly PartOfPage[],
    steps: ReadonlySet<string>,
  ): Promise<void> {
    const way = { path, reach: page.reach }
    this.#session.forget(resetsOthers(page, steps) ? 'all' : way)
    const opened = await this.#session.open(way, page.ready, fieldsOn(page))
    const wanted = parts
      .flatMap(({ fields, values }) => wantedOf(fields, values))
      .filter(({ id }) => steps.has(settingOf(id).step))
    const always = this.#session.entries(opened, page.fills)
    const { entries, missing } = await fillIn(this.#session, opened, wanted, always)
    throwIfMissing(missing)
    await this.#session.save(entries, page)
  }

  async #fillAndSave(way: Way, ready: readonly At[], fills: readonly PageFill[], saves: Saves): Promise<void> {
    const page = await this.#session.open(way, ready)
    await this.#session.save(this.#session.entries(page, fills), saves)
  }

  async changePassword(user: string, password: string): Promise<void> {
    if (!this.#dialect.password) throw new WireError('rejected', message('card-without-password-page'))
    const { page, reach, old, new: fields, ...saves } = this.#dialect.password
    await this.#session.open({ path: page, reach }, [], fields)
    const text = (at: At, value: string): Entry => ({ at, kind: 'text', text: value })
    const before = old === undefined ? [] : [text(old, this.#session.credentials.password)]
    await this.#session.save([...before, ...fields.map((at) => text(at, password))], saves)
    // A session that ends in between is opened again with what opens it now.
    this.#session.credentials = { user, password }
  }

  /** Of units whose card says what their pages show while changes wait. */
  get staging(): Staging | undefined {
    const { changes, apply } = this.#dialect
    if (!changes) return undefined
    const open = (): Promise<Page> => this.#session.open(changes.page)
    return {
      standing: async () => {
        const page = await open()
        return page.has(changes.applying) ? 'applying' : page.has(changes.waiting) ? 'waiting' : 'none'
      },
      apply: async () => {
        if (apply) await this.#press(apply)
      },
      revision: async () => changes.mark && (await open()).text(changes.mark),
    }
  }

  get saving(): Saving | undefined {
    const { save } = this.#dialect
    if (!save) return undefined
    return {
      // No page tells: it is saved again.
      isSaved: async () => false,
      save: async () => {
        await this.#fillAndSave({ path: save.page, reach: save.reach }, [], save.fills, save)
        return true
      },
    }
  }

  async restart(): Promise<void> {
    if (!this.#dialect.restart) throw new WireError('rejected', message('card-without-restart'))
    await this.#press(this.#dialect.restart)
  }

  /** It may be gone before the answer is here. */
  async #press({ page: path, reach, fills, ...saves }: NonNullable<PagesDialect['restart']>): Promise<void> {
    this.#session.forget('all')
    const page = await this.#session.open({ path, reach }, [], [saves.press])
    await this.#session.press(this.#session.entries(page, fills), saves).catch((error: unknown) => {
      if (!(error instanceof WireError && (error.kind === 'unreachable' || error.kind === 'timeout'))) throw error
    })
  }

  async air(): Promise<readonly RadioOnAir[]> {
    const { air } = this.#dialect
    if (!air) return airAsSet(await this.read('in-effect'))
    const page = await this.#session.open(air.page, [air.each])
    return airOn(this.#card, this.#dialect, air, page, this.#desired)
  }

  picture(secrets: readonly string[]): Promise<PagePicture | undefined> {
    return this.#session.picture(secrets)
  }

  close(): void {
    this.#session.close()
  }
}

/** Does what is written change what stands on other pages? @param steps  of the settings that are written */
function resetsOthers({ resetsOthers: what }: SettingsPage, steps: ReadonlySet<string>): boolean {
  return typeof what === 'boolean' ? what : what.some((id) => steps.has(settingOf(id as SettingId).step))
}
