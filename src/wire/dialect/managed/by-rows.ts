/**
 * The managed dialect with a controller that shows its access points as rows: on its pages, or at its prompt. Networks
 * are the controller's own, and all of its access points carry them.
 */

import { settingOf } from '../../../core/catalogue/catalogue'
import type { Difference } from '../../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../../core/config/unit-config'
import type { Joining } from '../../../core/kit/joining'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import { airAsSet } from '../air-as-set'
import { always, type Copies, type RadioOnAir } from '../dialect'
import type { ManagedUnit, RowsController, UseController } from './controller'
import type { ManagedDialect } from './managed-dialect'
import { OfController } from './of-controller'

export class ByRows extends OfController<RowsController> implements ManagedDialect {
  readonly #unit: ManagedUnit

  constructor(unit: ManagedUnit, controller: UseController) {
    super((work) =>
      controller((session) => {
        if (!session.units) throw new WireError('garbled', message('controller-shows-no-rows'))
        return work(session)
      }),
    )
    this.#unit = unit
  }

  read(): Promise<ObservedConfig> {
    return this.controller(async ({ units }) => {
      const own = await units.read(this.#unit)
      return { ...own, networks: this.#onItsBands(await units.networks()) }
    })
  }

  /** Its controller may carry them on bands that this model has not. */
  #onItsBands(networks: ObservedConfig['networks']): ObservedConfig['networks'] {
    const bands = this.#unit.card.radios.map(({ band }) => band)
    return Object.fromEntries(
      Object.entries(networks).map(([id, network]) => {
        const on = network['network.bands']
        if (on?.kind !== 'value') return [id, network]
        const own = on.value.filter((band) => bands.includes(band))
        return [id, { ...network, 'network.bands': { ...on, value: own } }]
      }),
    )
  }

  readonly copies: Copies = { backup: () => this.#backup() }

  async #backup(): Promise<string> {
    return JSON.stringify(await this.read(), null, 2)
  }

  write(differences: readonly Difference[], desired: Config<Clear>, mayChange = always): Promise<void> {
    return this.controller(async ({ units }) => {
      const own = differences.filter((each) => !isOfNetwork(each))
      // A secret that nobody shows is as its controller was given it, which has proven itself before.
      if (differences.some((each) => isOfNetwork(each) && !this.#isHidden(each)))
        throw new WireError('rejected', message('controller-carries-others'))
      if (own.length === 0) return
      await mayChange()
      await units.write(this.#unit, own, desired)
    })
  }

  #isHidden(each: Difference): boolean {
    return each.kind === 'value' && this.#unit.card.can[each.id]?.readable === 'no'
  }

  async air(): Promise<readonly RadioOnAir[]> {
    const joined = await this.joining()
    return joined?.join === 'run' ? airAsSet(await this.read()) : []
  }

  joining(): Promise<Joining | undefined> {
    return this.controller(async ({ units }) => {
      const standing = await units.standing(this.#unit)
      if (standing?.join !== 'run' || standing.name !== undefined) return standing
      const name = (await units.read(this.#unit)).unit['unit.name']
      return name?.kind === 'value' ? { ...standing, name: name.value } : standing
    })
  }

  takeIn(): Promise<void> {
    return this.controller(({ units }) => units.takeIn(this.#unit))
  }
}

const isOfNetwork = (each: Difference): boolean =>
  (each.kind === 'value' ? settingOf(each.id).scope : each.scope) === 'network'
