/** A unit as its controller has it. */
import type { ManagedDialect } from '../../wire/dialect/managed/managed-dialect'
import type { ControllerLink } from '../unit/controller-link'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'

/** @throws HeldError where it was begun without its controller, which nobody does on purpose */
export function throughController({ target, controller, sessions }: UnitRun): {
  readonly dialect: ManagedDialect
  readonly controller: ControllerLink
} {
  if (!controller) throw held('went-wrong', {})
  const { unit, card } = target
  const dialect = sessions.managed({ ...unit, card }, (work) => controller.use(work), controller.showsUnitsAs)
  return { dialect, controller }
}
