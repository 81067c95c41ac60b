/** A simulated access point as its controller has it: what the controller was told of it, and how far it has joined. */
import type { Difference } from '../../src/core/config/compare'
import type { Clear, Config } from '../../src/core/config/unit-config'
import type { Joining } from '../../src/core/kit/joining'
import { always } from '../../src/wire/dialect/dialect'
import type { UseController } from '../../src/wire/dialect/managed/controller'
import type { ManagedDialect } from '../../src/wire/dialect/managed/managed-dialect'
import { WireError } from '../../src/wire/errors/wire-error'
import type { Scene } from './scene'
import type { SimulatedSession } from './session'
import type { SimulatedUnit } from './unit'
import type { Process } from './world'

export function managedDialect(scene: Scene, process: Process, mac: string, use: UseController): ManagedDialect {
  const own = scene.units.find((unit) => unit.mac === mac) as SimulatedUnit
  const through = <T>(work: (session: SimulatedSession) => Promise<T>): Promise<T> =>
    use((controller) => work(controller as unknown as SimulatedSession))
  const asked = <T>(name: Parameters<Scene['call']>[1], effect: (controller: SimulatedUnit) => T): Promise<T> =>
    through((session) => scene.call(process, name, () => effect(session.signedIn()), mac.slice(-2)))
  const rejected = async (): Promise<never> => {
    throw new WireError('rejected', 'its controller does that')
  }
  return {
    identify: async () => ({}),
    signIn: async () => undefined,
    read: (reading) =>
      asked('read', (controller) => {
        const told = controller.told.get(mac)
        const values = told ?? { unit: {}, networks: {}, radios: {} }
        const address = reading === 'in-effect' ? own.address : values.unit['management.address']
        return own.observed({
          ...values,
          unit: {
            ...values.unit,
            'unit.country': controller.running.values.unit['unit.country'],
            ...(address === undefined ? {} : { 'management.address': address }),
          },
        })
      }),
    copies: { backup: () => asked('backup', (controller) => JSON.stringify(controller.told.get(mac) ?? null)) },
    write: (differences: readonly Difference[], desired: Config<Clear>, mayChange = always) =>
      through(async (session) => {
        // It is read first, and another runner may have the order by then.
        await scene.call(process, 'read', () => session.signedIn(), mac.slice(-2))
        await mayChange()
        scene.sends(process, own)
        await scene.call(
          process,
          'write',
          () => {
            const controller = session.signedIn()
            scene.writes(process, own, { kind: 'write', differences, desired })
            controller.tellOf(mac, differences, desired)
          },
          mac.slice(-2),
        )
      }),
    changePassword: rejected,
    saving: {
      isSaved: () => through((session) => session.saving.isSaved()),
      save: () => through((session) => session.saving.save()),
    },
    air: () => asked('air', () => own.air()),
    joining: () =>
      asked('joining', (controller): Joining | undefined => {
        const told = controller.told.get(mac)
        if (!told) return undefined
        const name = String(told.unit['unit.name'] ?? '')
        return { name, join: own.joined ? 'run' : 'absent', ...(own.address ? { 'current-address': own.address } : {}) }
      }),
    close: () => undefined,
  }
}
