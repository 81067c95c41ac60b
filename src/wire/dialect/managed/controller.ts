/** What is asked of a controller for the access points that it manages. */
import type { Difference } from '../../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../../core/config/unit-config'
import type { Joining } from '../../../core/kit/joining'
import type { KitCard } from '../../../core/kit/kit-card'
import type { Unit } from '../../../core/kit/unit'
import type { Dialect } from '../dialect'
import type { Edit } from '../yang/edits'

/** One that tells of its access points as data. */
export interface TreeController extends Dialect {
  readonly units?: undefined
  /** Its networks, and what it was told of one access point, as JSON has it (RFC 7951). */
  configured(mac: string): Promise<Record<string, unknown>>
  /** Its networks, and what it sees of one access point. */
  state(mac: string): Promise<Record<string, unknown>>
  /** All of it or none. */
  change(edits: readonly Edit[]): Promise<void>
}

/** An access point: what its row is known by, and what its model can. */
export interface ManagedUnit extends Pick<Unit, 'mac' | 'serial'> {
  readonly card: Pick<KitCard, 'radios' | 'can'>
}

/** Access points as rows of what a controller shows: on its pages, or at its prompt. */
export interface UnitRows {
  /** Undefined where no row is of this unit: it has not found the controller. */
  standing(unit: ManagedUnit): Promise<Joining | undefined>
  /** Lets it in, where somebody has to. */
  takeIn(unit: ManagedUnit): Promise<void>
  /** What it was told of this unit; nothing where it was not taken in yet. */
  read(unit: ManagedUnit): Promise<Pick<ObservedConfig, 'unit' | 'radios'>>
  /** Networks that all of its units carry, by their id. */
  networks(): Promise<ObservedConfig['networks']>
  write(unit: ManagedUnit, differences: readonly Difference[], desired: Config<Clear>): Promise<void>
}

/** One that shows its access points as rows. */
export interface RowsController extends Dialect {
  readonly units: UnitRows
}

export type Controller = TreeController | RowsController

/** Uses the one session with a controller: one after the other, whoever asks. */
export type UseController = <T>(work: (controller: Controller) => Promise<T>) => Promise<T>
