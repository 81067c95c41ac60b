/** What a simulated controller was told of its access points, by MAC, and what of that a restart brings back. */
import type { Difference } from '../../src/core/config/compare'
import type { Clear, Config } from '../../src/core/config/unit-config'
import { changed, type Values } from './values'

export class ToldOfOthers {
  #now: ReadonlyMap<string, Values> = new Map()
  #kept = this.#now

  get(mac: string): Values | undefined {
    return this.#now.get(mac)
  }

  /** @param desired  the whole that the differences lead to. @returns all that it was told of this one */
  tell(mac: string, differences: readonly Difference[], desired: Config<Clear>): Values {
    const before = this.get(mac) ?? { unit: {}, networks: {}, radios: {} }
    const told = differences.reduce((values, difference) => changed(values, difference, desired), before)
    this.#now = new Map(this.#now).set(mac, told)
    return told
  }

  keep(): void {
    this.#kept = this.#now
  }

  restart(): void {
    this.#now = this.#kept
  }

  /** Its button was held. */
  forget(): void {
    this.#kept = new Map()
  }

  get isKept(): boolean {
    return this.#kept === this.#now
  }
}
