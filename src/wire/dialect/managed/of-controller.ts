/** What is the same for every access point that is set through its controller, however that one is spoken to. */
import type { Evidence } from '../../../core/kit/recognise'
import { WireError } from '../../errors/wire-error'
import type { Changes, Dialect } from '../dialect'

export class OfController<C extends Dialect> {
  /** Uses the one session with the controller: one after the other, whoever asks. */
  protected readonly controller: <T>(work: (controller: C) => Promise<T>) => Promise<T>

  constructor(controller: <T>(work: (controller: C) => Promise<T>) => Promise<T>) {
    this.controller = controller
  }

  async identify(): Promise<Evidence> {
    return {}
  }

  async signIn(): Promise<void> {
    // Whoever asks its controller has signed in there.
  }

  async changePassword(): Promise<void> {
    throw new WireError('rejected', 'its login is pushed by its controller')
  }

  changes(): Promise<Changes> {
    return this.controller((controller) => controller.changes())
  }

  async revision(): Promise<undefined> {
    return undefined
  }

  async apply(): Promise<void> {
    // Its controller tells it at once.
  }

  async confirm(): Promise<void> {
    // It takes nothing back by itself.
  }

  /** What it is told lasts when its controller keeps it. */
  save(): Promise<Changes['saved']> {
    return this.controller((controller) => controller.save())
  }

  async restart(): Promise<void> {
    throw new WireError('rejected', 'it is restarted by its power')
  }

  close(): void {
    // The session is the controller's, and others use it.
  }
}
