/** An access point as its controller has it. */
import type { Joining } from '../../../core/kit/joining'
import type { Dialect } from '../dialect'

export interface ManagedDialect extends Dialect {
  /** How far it has come with its controller; undefined where the controller does not list it. */
  joining(): Promise<Joining | undefined>
  /** Lets it in; left out where whoever stands on the controller's list is let in. */
  takeIn?(): Promise<void>
}
