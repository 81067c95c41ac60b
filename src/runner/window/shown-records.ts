/** What was shown on units whose windows were closed since: it goes on from there. Some are kept, the newest of them. */
import type { ShownRecord } from '../../core/showing/record'

const most = 16

export class ShownRecords {
  readonly #records = new Map<string, ShownRecord>()

  keep(unit: string, record: ShownRecord): void {
    this.#records.delete(unit)
    this.#records.set(unit, record)
    for (const oldest of [...this.#records.keys()].slice(0, -most)) this.#records.delete(oldest)
  }

  of(unit: string): ShownRecord | undefined {
    return this.#records.get(unit)
  }
}
