/** Access points of a controller as its commands print them: each is taken in, read and set. */

import { parseMac } from '../../../core/address/mac'
import type { Difference } from '../../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../../core/config/unit-config'
import { findFirst } from '../../../core/input/pattern'
import type { Joining } from '../../../core/kit/joining'
import type { PromptDialect } from '../../../core/kit/prompt-dialect'
import type { UnitsAtPrompt } from '../../../core/kit/units-at-prompt'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import type { ManagedUnit, UnitRows } from '../managed/controller'
import { mostUnits, standingShown } from '../managed/rows'
import { fromWords } from '../words'
import type { Commands } from './commands'
import type { Places } from './places'
import { observedIn, type Part, type Printed, partsOf } from './reading'
import { writingsFor } from './writing'

export class UnitsPrinted implements UnitRows {
  readonly #commands: Commands
  readonly #dialect: PromptDialect
  readonly #units: UnitsAtPrompt
  readonly #readNetworks: () => Promise<ObservedConfig['networks']>

  /** @param networks  those that its controller holds */
  constructor(
    commands: Commands,
    dialect: PromptDialect,
    units: UnitsAtPrompt,
    networks: () => Promise<ObservedConfig['networks']>,
  ) {
    this.#commands = commands
    this.#dialect = dialect
    this.#units = units
    this.#readNetworks = networks
  }

  async standing(unit: ManagedUnit): Promise<Joining | undefined> {
    const found = await this.#find(unit)
    if (!found) return undefined
    const { state, states, name, address } = this.#units
    const words = findFirst(state, found.part)?.groups.value?.trim() ?? ''
    const told = (pattern: string | undefined): string | undefined =>
      pattern === undefined ? undefined : findFirst(pattern, found.part)?.groups.value
    const named = fromWords('unit.name', told(name) ?? '', this.#dialect.values['unit.name'], 0)
    return standingShown(words, states, { name: String(named ?? ''), address: told(address) })
  }

  async takeIn(unit: ManagedUnit): Promise<void> {
    // Some say no to whoever lets in what is in already.
    const standing = await this.standing(unit)
    if (standing?.reason !== 'not-listed' && standing?.join !== 'discovered') return
    for (const command of this.#units.takeIn) await this.#commands.carryOut(command, { unit: known(unit) })
  }

  async read(unit: ManagedUnit): Promise<Pick<ObservedConfig, 'unit' | 'radios'>> {
    const standing = await this.standing(unit)
    // What was not taken in was told nothing, and some controllers answer no question about it.
    if (!standing || standing.reason === 'not-listed') return { unit: {}, radios: {} }
    const printed: Printed[] = []
    for (const reading of this.#units.read) {
      const before = Date.now()
      const text = await this.#commands.print(reading.run, { unit: known(unit) })
      printed.push({ reading, text, at: (before + Date.now()) / 2 })
    }
    return observedIn(unit.card, this.#dialect, printed)
  }

  networks(): Promise<ObservedConfig['networks']> {
    return this.#readNetworks()
  }

  async write(unit: ManagedUnit, differences: readonly Difference[], desired: Config<Clear>): Promise<void> {
    const situation = { card: unit.card, dialect: this.#dialect, desired, current: { address: '', prefix: 0 } }
    for (const { write, places } of writingsFor(this.#units.write, differences, situation))
      for (const command of write.commands) await this.#commands.carryOut(command, withUnit(places, unit))
  }

  async #find(unit: ManagedUnit): Promise<Part | undefined> {
    const { run, starts, knownBy } = this.#units
    const parts = partsOf(starts, await this.#commands.print(run))
    if (parts.length > mostUnits) throw new WireError('garbled', `it prints ${parts.length} units`)
    const found = parts.filter(({ of }) =>
      knownBy === 'mac' ? parseMac(of) === unit.mac : unit.serial !== '' && of.trim() === unit.serial,
    )
    if (found.length > 1) throw new WireError('garbled', message('prints-same-unit', { count: found.length }))
    return found[0]
  }
}

const known = ({ mac, serial }: ManagedUnit): Places => ({ mac, serial })
const withUnit = (places: Places, unit: ManagedUnit): Places => ({
  ...places,
  unit: { ...(places.unit as object), ...known(unit) },
})
