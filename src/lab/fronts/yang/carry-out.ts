/**
 * Carries edits out on a device: all or none, where changes are staged; one by one, where each takes effect at once.
 */
import type { Device } from '../../device/device'
import { decode } from './decode'
import { encode } from './encode'
import { applyEdits, type TreeEdit } from './tree'

/** @throws Refusal */
export function carryOut(device: Device, edits: readonly TreeEdit[]): void {
  const { sheet } = device
  for (const group of sheet.applies === 'at-once' ? edits.map((edit) => [edit]) : [edits]) {
    const before = encode(device.configured, sheet, 'with')
    const { settings, passwords } = decode(applyEdits(before, group), sheet)
    device.configure(settings, passwords)
  }
}
