import type { WindowRefusal } from '../../core/showing/window-talk'

/** Why no window is opened. */
export class NoWindow extends Error {
  override readonly name = 'NoWindow'
  constructor(readonly refusal: WindowRefusal) {
    super(refusal.code)
  }
}
