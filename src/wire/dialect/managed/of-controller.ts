/** What is the same for every access point that is set through its controller, however that one is spoken to. */

import type { Evidence } from '../../../core/kit/recognise'
import { message } from '../../../core/message/message'
import { WireError } from '../../errors/wire-error'
import type { Dialect, Saving } from '../dialect'

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
    throw new WireError('rejected', message('login-pushed-by-controller'))
  }

  /** What it is told takes effect at once, and lasts when its controller keeps it. */
  readonly saving: Saving = {
    isSaved: () => this.controller(async ({ saving }) => (saving ? saving.isSaved() : true)),
    save: () => this.controller(async ({ saving }) => (saving ? saving.save() : true)),
  }

  close(): void {
    // The session is the controller's, and others use it.
  }
}
