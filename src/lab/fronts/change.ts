/** What is put into a page becomes a part of what the unit is told to be. */
import { parseIpv4 } from '../../core/address/ipv4'
import type { Device } from '../device/device'
import { type DeviceSettings, deviceSettingsSchema } from '../device/device-settings'
import { Refusal } from '../device/refusal'

/** @throws Refusal where it will not be that */
export function change(device: Device, part: Partial<DeviceSettings>): void {
  const next = deviceSettingsSchema.safeParse({ ...device.configured, ...part })
  if (!next.success) throw new Refusal('invalid-value', next.error.issues[0]?.message ?? 'not valid')
  device.configure(next.data)
}

/** Length of the prefix that a netmask stands for. @throws Refusal where it is none */
export function prefixOf(mask: string): number {
  const ones = (parseIpv4(mask) ?? Number.NaN).toString(2)
  if (!/^1+0*$/.test(ones) || ones.length !== 32) throw new Refusal('invalid-value', `${mask} is no netmask.`)
  return ones.lastIndexOf('1') + 1
}
