/** Access points of a controller that stand as rows of one of its pages: each is taken in, opened, read and set. */

import { parseMac } from '../../../core/address/mac'
import { settingOf } from '../../../core/catalogue/catalogue'
import { type Difference, stepOf } from '../../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../../core/config/unit-config'
import type { Joining } from '../../../core/kit/joining'
import type { At } from '../../../core/kit/page-places'
import type { UnitsInRows } from '../../../core/kit/units-in-rows'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import type { ManagedUnit } from '../managed/controller'
import { mostUnits, standingShown } from '../managed/rows'
import { neverShown, type SeenValues } from '../seen-values'
import { atsOf, fillIn, placeInRow, throwIfMissing, type Wanted, wantedOf } from './filling'
import type { Page } from './page'
import type { PageSession } from './page-session'
import { valuesOn } from './reading'

export class UnitTable {
  readonly #session: PageSession
  readonly #units: UnitsInRows

  constructor(session: PageSession, units: UnitsInRows) {
    this.#session = session
    this.#units = units
  }

  async standing(unit: ManagedUnit): Promise<Joining | undefined> {
    const row = this.#rowOf(await this.#list(), unit)
    if (!row) return undefined
    const { state, states, name, address } = this.#units
    const told = { name: name && row.text(name), address: address && row.text(address) }
    return standingShown(row.text(state)?.trim() ?? '', states, told)
  }

  async takeIn(unit: ManagedUnit): Promise<void> {
    const { takeIn } = this.#units
    const row = this.#mustStand(await this.#list(), unit)
    if (!takeIn || !row.has(takeIn.press)) return
    await this.#session.save([], { ...takeIn, press: placeInRow(row, takeIn.press) })
  }

  async read(unit: ManagedUnit): Promise<Pick<ObservedConfig, 'unit' | 'radios'>> {
    const { close, fields, radios } = this.#units
    const row = this.#rowOf(await this.#list(), unit)
    if (!row?.has(this.#units.open)) return { unit: {}, radios: {} }
    const before = Date.now()
    const page = await this.#opened(row)
    const at = (before + Date.now()) / 2
    const bands = Object.entries(radios).filter(([band]) => unit.card.radios.some((each) => each.band === band))
    const seen = (own: UnitsInRows['fields'], scope: 'unit' | 'radio'): SeenValues => ({
      ...neverShown(unit.card, scope),
      ...valuesOn(unit.card, own, page, at),
    })
    const observed = {
      unit: seen(fields, 'unit'),
      radios: Object.fromEntries(bands.map(([band, own]) => [band, seen(own, 'radio')])),
    }
    if (close !== undefined) await this.#session.turn(close, (one) => one.has(this.#units.row))
    return observed
  }

  async write(unit: ManagedUnit, differences: readonly Difference[], desired: Config<Clear>): Promise<void> {
    const steps = new Set(differences.map(stepOf))
    const now = ({ id }: Wanted): boolean => steps.has(settingOf(id).step)
    const { fields, radios } = this.#units
    const wanted = [
      ...wantedOf(fields, desired.unit),
      ...Object.entries(radios).flatMap(([band, own]) => wantedOf(own, desired.radios[band] ?? {})),
    ].filter(now)
    const page = await this.#opened(this.#mustStand(await this.#list(), unit))
    const { entries, missing } = await fillIn(this.#session, page, wanted)
    throwIfMissing(missing)
    await this.#session.save(entries, this.#units)
  }

  #list(): Promise<Page> {
    const { ready } = this.#units
    return this.#session.open(this.#units, ready)
  }

  #rowOf(list: Page, unit: ManagedUnit): Page | undefined {
    const rows = list.parts(this.#units.row)
    if (rows.length > mostUnits) throw new WireError('garbled', message('rows-of-units', { count: rows.length }))
    const found = rows.filter((row) => this.#isOf(row, unit))
    if (found.length > 1) throw new WireError('garbled', message('rows-of-same-unit', { count: found.length }))
    return found[0]
  }

  #isOf(row: Page, { mac, serial }: ManagedUnit): boolean {
    const { mac: macAt, serial: serialAt } = this.#units
    if (macAt) return parseMac(row.text(macAt) ?? '') === mac
    return serialAt !== undefined && serial !== '' && row.text(serialAt)?.trim() === serial
  }

  #mustStand(list: Page, unit: ManagedUnit): Page {
    const row = this.#rowOf(list, unit)
    if (!row) throw new WireError('rejected', message('controller-shows-no-more'))
    return row
  }

  /** What is there once a row is open. */
  get #fields(): At[] {
    const { fields, radios } = this.#units
    return [fields, ...Object.values(radios)].flatMap((own) => Object.values(own).flatMap(atsOf)).slice(0, 1)
  }

  #opened(row: Page): Promise<Page> {
    return this.#session.turn(placeInRow(row, this.#units.open), (page) => this.#fields.every((at) => page.has(at)))
  }
}
