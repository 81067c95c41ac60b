/**
 * The managed dialect: an access point that is set through its controller. Its networks are the controller's, of which
 * it names those that it carries; its radios, its name and its address stand with its MAC, by which it may join.
 */

import { settingOf } from '../../../core/catalogue/catalogue'
import type { Difference } from '../../../core/config/compare'
import type { Clear, Config, Observed, ObservedConfig } from '../../../core/config/unit-config'
import { type Joining, joiningSchema } from '../../../core/kit/joining'
import { message } from '../../../core/message/message'
import { entry } from '../../codec/resource-path'
import { WireError } from '../../errors/wire-error'
import { always, type Copies, type RadioOnAir, type Reading } from '../dialect'
import { radiosOnAir, wirelessState } from '../yang/air'
import { type Edit, networkEdit, radioData } from '../yang/edits'
import { dig, isData, networkFields, radioFields } from '../yang/fields'
import { entriesOf } from '../yang/read'
import { ByRows } from './by-rows'
import type { ManagedUnit, TreeController, UseController } from './controller'
import type { ManagedDialect } from './managed-dialect'
import { OfController } from './of-controller'

const points = 'air-muster-controller:access-points'
type Values = Record<string, Observed<unknown>>

/** @param shows  how its controller has its access points: as data, or as rows of what it shows */
export function managed(unit: ManagedUnit, controller: UseController, shows: 'data' | 'rows'): ManagedDialect {
  return shows === 'rows' ? new ByRows(unit, controller) : new Managed(unit, controller)
}

class Managed extends OfController<TreeController> implements ManagedDialect {
  readonly #mac: string
  readonly #bands: readonly string[]

  constructor({ mac, card }: ManagedUnit, controller: UseController) {
    super((work) =>
      controller((session) => {
        if (session.units) throw new WireError('garbled', message('controller-tells-no-data'))
        return work(session)
      }),
    )
    this.#mac = mac
    this.#bands = card.radios.map(({ band }) => band)
  }

  async read(reading: Reading): Promise<ObservedConfig> {
    const data = await this.controller((controller) =>
      reading === 'configured' ? controller.configured(this.#mac) : controller.state(this.#mac),
    )
    const wireless = dig(data, ['air-muster-wireless:wireless'])
    const point = this.#pointIn(data)
    const value = (each: unknown): Observed<unknown> => ({ kind: 'value', value: each })
    const text = (name: string): Values[string] | undefined => {
      const told = dig(point, [name])
      return typeof told === 'string' ? value(told.slice(0, 300)) : undefined
    }
    const carried = dig(point, ['network'])
    const ids = new Set(Array.isArray(carried) ? carried.filter((id) => typeof id === 'string') : [])
    const all = entriesOf('network', dig(wireless, ['network']), 'id', networkFields)
    const networks = Object.fromEntries(
      Object.entries(all).flatMap(([id, values]) => (ids.has(id) ? [[id, this.#onItsBands(values)]] : [])),
    )
    const radios = point === undefined ? {} : entriesOf('radio', dig(point, ['radio']), 'band', radioFields)
    const prefix = dig(point, ['prefix-length'])
    const country = dig(wireless, ['country'])
    const method = dig(point, ['method']) ?? 'dhcp'
    const unit: Record<string, Observed<unknown> | undefined> = {
      'unit.name': text('name'),
      'unit.location': point === undefined ? undefined : (text('location') ?? value('')),
      'unit.country': typeof country === 'string' ? value(country) : undefined,
      'management.method': method === 'static' || method === 'dhcp' ? value(method) : undefined,
      'management.address': reading === 'in-effect' || method === 'dhcp' ? text('current-address') : text('address'),
      'management.prefix': typeof prefix === 'number' ? value(prefix) : undefined,
      'management.gateway': point === undefined ? undefined : (text('gateway') ?? value(null)),
      'services.controller': point === undefined ? undefined : value(listed(dig(point, ['controller']))),
    }
    const told = Object.fromEntries(Object.entries(unit).filter(([, each]) => each !== undefined))
    return { unit: told, networks, radios } as ObservedConfig
  }

  /** A network may be on bands that this model has not. */
  #onItsBands(values: Values): Values {
    const bands = values['network.bands']
    if (bands?.kind !== 'value' || !Array.isArray(bands.value)) return values
    const own = bands.value.filter((band: unknown) => this.#bands.some((each) => each === band))
    return { ...values, 'network.bands': { kind: 'value', value: own } }
  }

  #pointIn(data: unknown): unknown {
    const list = dig(data, [points, 'access-point'])
    return Array.isArray(list) ? list.find((each) => dig(each, ['mac']) === this.#mac) : undefined
  }

  readonly copies: Copies = { backup: () => this.#backup() }

  async #backup(): Promise<string> {
    return JSON.stringify((await this.controller((it) => this.#point(it.configured(this.#mac)))) ?? null, null, 2)
  }

  async #point(data: Promise<Record<string, unknown>>): Promise<unknown> {
    return this.#pointIn(await data)
  }

  /** Networks and radios that differ, and itself as it is to be, in one change. */
  write(differences: readonly Difference[], desired: Config<Clear>, mayChange = always): Promise<void> {
    return this.controller(async (controller) => {
      const data = await controller.configured(this.#mac)
      const edits = [...this.#networkEdits(differences, desired, data), this.#pointEdit(differences, desired, data)]
      await mayChange()
      await controller.change(edits)
    })
  }

  #networkEdits(differences: readonly Difference[], desired: Config<Clear>, data: unknown): Edit[] {
    const concerned = new Set(
      differences.filter((each) => each.kind !== 'surplus' && scopeOf(each) === 'network').map(({ of }) => of),
    )
    const known = dig(data, ['air-muster-wireless:wireless', 'network'])
    return Object.entries(desired.networks).flatMap(([id, values]) => {
      if (!concerned.has(id)) return []
      // Other models may carry it on bands of their own.
      const before = Array.isArray(known) ? known.find((each) => dig(each, ['id']) === id) : undefined
      const others = dig(before, ['band'])
      const elsewhere = (Array.isArray(others) ? others : []).filter((band) => !this.#bands.includes(String(band)))
      const bands = [...(values['network.bands'] ?? []), ...elsewhere]
      return [networkEdit(id, { ...values, 'network.bands': bands })]
    })
  }

  /** What it carries, what its radios are, where it is: of the steps that are written now; the rest stays. */
  #pointEdit(differences: readonly Difference[], desired: Config<Clear>, data: unknown): Edit {
    const before = this.#pointIn(data)
    const kept = isData(before) ? before : {}
    const steps = new Set(differences.map((each) => (each.kind === 'value' ? settingOf(each.id).step : undefined)))
    const some = (scope: string): boolean => differences.some((each) => scopeOf(each) === scope)
    const { unit } = desired
    const isStatic = unit['management.method'] === 'static'
    const radios = Object.entries(desired.radios).map(([band, values]) => radioData(band, values))
    const point = {
      ...kept,
      mac: this.#mac,
      ...(steps.has('clock') ? { name: unit['unit.name'], location: unit['unit.location'] || undefined } : {}),
      ...(some('network') ? { network: Object.keys(desired.networks) } : {}),
      ...(some('radio') ? { radio: radios } : {}),
      ...(steps.has('address')
        ? {
            method: unit['management.method'],
            address: isStatic ? unit['management.address'] : undefined,
            'prefix-length': isStatic ? unit['management.prefix'] : undefined,
            gateway: isStatic ? (unit['management.gateway'] ?? undefined) : undefined,
            controller: unit['services.controller'] ?? kept.controller,
          }
        : {}),
    }
    const written = Object.fromEntries(Object.entries(point).filter(([, value]) => value !== undefined))
    return {
      operation: 'replace',
      target: `/${points}/${entry('access-point', this.#mac)}`,
      value: { 'air-muster-controller:access-point': [written] },
    }
  }

  async air(): Promise<readonly RadioOnAir[]> {
    const point = await this.controller((it) => this.#point(it.state(this.#mac)))
    const parsed = wirelessState.safeParse({ radio: radiosThatTell(point) })
    if (!parsed.success) throw new WireError('garbled', message('controller-shows-no-radios'))
    return radiosOnAir(parsed.data)
  }

  async joining(): Promise<Joining | undefined> {
    const point = await this.controller((it) => this.#point(it.state(this.#mac)))
    if (point === undefined) return undefined
    const parsed = joiningSchema.safeParse(point)
    if (!parsed.success) throw new WireError('garbled', message('controller-tells-no-progress'))
    return parsed.data
  }
}

const listed = (data: unknown): string[] =>
  Array.isArray(data) ? data.slice(0, 8).map((each) => String(each).slice(0, 40)) : []

/** Until it runs, its controller shows what its radios are to be, and not what they do. */
function radiosThatTell(point: unknown): unknown[] {
  const radios = dig(point, ['radio'])
  return (Array.isArray(radios) ? radios : []).filter((each) => dig(each, ['condition']) !== undefined)
}

function scopeOf(difference: Difference): string {
  return difference.kind === 'value' ? settingOf(difference.id).scope : difference.scope
}
