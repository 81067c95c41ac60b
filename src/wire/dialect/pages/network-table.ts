/**
 * Networks that stand as rows of a table: each is opened, added or taken away. A row is known by the name of its
 * network alone, so ours are known again by theirs; whatever else stands there is known by its place.
 */

import type { Clear, Config } from '../../../core/config/unit-config'
import type { At } from '../../../core/kit/page-places'
import type { NetworkRows } from '../../../core/kit/pages-dialect'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import type { MayChange } from '../dialect'
import { atsOf, fillIn, isOn, placeInRow, throwIfMissing, wantedOf } from './filling'
import type { Page } from './page'
import type { PageSession } from './page-session'
import type { ReadPage } from './reading'
import { idsOfNetworks } from './slots'

/** Networks of a unit at the most: whatever shows more is no table of networks. */
const mostRows = 64

export class NetworkTable {
  readonly #session: PageSession
  readonly #rows: NetworkRows
  readonly #desired: Config<Clear> | undefined

  constructor(session: PageSession, rows: NetworkRows, desired: Config<Clear> | undefined) {
    this.#session = session
    this.#rows = rows
    this.#desired = desired
  }

  /** Each row, opened, read and left as it is. */
  async read(): Promise<ReadPage[]> {
    const read: ReadPage[] = []
    let list = await this.#list()
    for (const [index, network] of this.#idsOn(list).entries()) {
      const before = Date.now()
      const page = await this.#opened(list, index)
      read.push({
        ...{ of: this.#rows, radio: undefined, band: undefined, slot: undefined, network },
        ...{ page, at: (before + Date.now()) / 2 },
      })
      const { close, row } = this.#rows
      list = close === undefined ? await this.#list() : await this.#session.turn(close, (one) => one.has(row))
    }
    return read
  }

  /**
   * Writes networks, those that go first.
   * @param concerned  ids of networks that are to be, and of rows that are not
   */
  async write(concerned: ReadonlySet<string>, desired: Config<Clear>, mayChange: MayChange): Promise<void> {
    const list = await this.#list()
    const surplus = this.#idsOn(list).flatMap((id, index) =>
      concerned.has(id) && desired.networks[id] === undefined ? [index] : [],
    )
    // From the end: what is taken away moves those that come after it.
    for (const index of surplus.toReversed()) {
      await mayChange()
      await this.#remove(index)
    }
    for (const [id, values] of Object.entries(desired.networks)) {
      if (!concerned.has(id)) continue
      await mayChange()
      const wanted = wantedOf(this.#rows.fields, values)
      const now = await this.#list()
      const index = this.#idsOn(now).indexOf(id)
      if (index >= 0) {
        const { entries, missing } = await fillIn(this.#session, await this.#opened(now, index), wanted)
        if (missing.length === 0) {
          await this.#session.save(entries, this.#rows)
          continue
        }
        // Some ask for a key only while a network is added: it is made anew, if that is where its field is.
        const adding = await this.#adding()
        throwIfMissing(missing.filter((each) => !isOn(adding, each)))
        await this.#remove(index)
      }
      const { entries, missing } = await fillIn(this.#session, await this.#adding(), wanted)
      throwIfMissing(missing)
      await this.#session.save(entries, this.#rows)
    }
  }

  /** Where a network is added, from the table on. */
  async #adding(): Promise<Page> {
    const list = await this.#list()
    const { add } = this.#rows
    return add ? this.#session.turn(add, this.#isOpen) : list
  }

  async #remove(index: number): Promise<void> {
    const { remove } = this.#rows
    const list = await this.#list()
    if (!remove.whenOpened) return this.#session.save([], { ...remove, press: this.#inRow(list, index, remove.press) })
    await this.#opened(list, index)
    await this.#session.save([], remove)
  }

  /** Where a network is named: what is there once a row is open. */
  get #names(): At[] {
    const ssid = this.#rows.fields['network.ssid']
    return ssid ? atsOf(ssid) : []
  }

  /** The table, once it is drawn. */
  #list(): Promise<Page> {
    const { ready, add } = this.#rows
    return this.#session.open(this.#rows, ready, add ? [add] : this.#names)
  }

  /** A row that says only that there is none has no name. */
  #rowsOn(list: Page): Page[] {
    return list.parts(this.#rows.row).filter((row) => row.has(this.#rows.name.at))
  }

  /** What stands in each row, by the id of its network; a row that nobody asked for has an id of its own. */
  #idsOn(list: Page): string[] {
    const rows = this.#rowsOn(list)
    if (rows.length > mostRows) throw new WireError('garbled', message('rows-of-networks', { count: rows.length }))
    return rows.map((row, index) => {
      const [known] = idsOfNetworks(this.#desired, row.text(this.#rows.name) ?? '')
      return known ?? `row/${index + 1}`
    })
  }

  readonly #isOpen = (page: Page): boolean => {
    const isThere = this.#names.length > 0 && this.#names.every((at) => page.has(at))
    // Where the fields of one more stand beside the rows, a row is open once the others are gone.
    return isThere && (this.#rows.add !== undefined || !page.has(this.#rows.row))
  }

  #opened(list: Page, index: number): Promise<Page> {
    return this.#session.turn(this.#inRow(list, index, this.#rows.open), this.#isOpen)
  }

  /** @throws WireError garbled where the row has nothing of the kind */
  #inRow(list: Page, index: number, at: At): At {
    return placeInRow(this.#rowsOn(list)[index], at)
  }
}
