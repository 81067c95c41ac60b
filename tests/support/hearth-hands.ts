/** A Hearth set by hand from its box on, as somebody would who shows how it is done. */
import type { SettingId } from '../../src/core/config/setting-ids'
import type { Description } from '../../src/core/kit/page-element'
import type { hands } from './hands'

export interface ByHand {
  /** What a setting is to be, as text. */
  readonly value: (id: SettingId, of?: string) => string
  /** Puts a value of the unit's own into a field. */
  readonly put: (by: Description, id: SettingId, of?: string) => Promise<void>
  readonly network: { readonly id: string; readonly bands: readonly string[] }
}

export async function setHearth(
  { press, tick, type, choose, sees }: ReturnType<typeof hands>,
  { value, put, network }: ByHand,
): Promise<void> {
  await choose({ label: 'Country' }, 'New Zealand')
  await choose({ label: 'Time zone' }, value('clock.time-zone'))
  await press({ text: 'Next' })
  await put({ label: 'Administrator' }, 'admin.user')
  await put({ label: 'Password' }, 'admin.password')
  await put({ label: 'Password again' }, 'admin.password')
  await press({ text: 'Next' })
  await type({ label: 'Name of your first network' }, 'first')
  await press({ text: 'Finish' })
  await put({ label: 'Administrator' }, 'admin.user')
  await put({ label: 'Password' }, 'admin.password')
  await press({ text: 'Sign in' })
  await sees({ label: 'MAC address' })

  await press({ text: 'Device' })
  await put({ label: 'Device name' }, 'unit.name')
  await put({ label: 'Place' }, 'unit.location')
  await choose({ label: 'Country' }, 'New Zealand')
  await choose({ label: 'Time zone' }, value('clock.time-zone'))
  await type({ label: 'Time servers' }, value('clock.ntp-servers'))
  await press({ text: 'OK' })
  await sees({ text: 'Noted.' })

  await press({ text: 'Networks' })
  await press({ text: 'Edit' })
  await press({ text: 'Cancel' })
  await press({ text: 'Remove' })
  await press({ text: 'Yes' })
  await sees({ text: 'Noted.' })
  await press({ text: 'Add a network' })
  await put({ label: 'Name' }, 'network.ssid', network.id)
  await tick({ label: 'On air' })
  await choose({ label: 'Security' }, 'WPA2 (AES)')
  await put({ label: 'Passphrase' }, 'network.passphrase', network.id)
  for (const band of network.bands) if (band !== '6') await tick({ label: `${band} GHz` })
  await press({ text: 'OK' })
  await sees({ text: 'Noted.' })

  await press({ text: 'Radios' })
  for (const heading of ['2.4 GHz', '5 GHz']) {
    const band = heading.split(' ')[0] ?? ''
    await tick({ label: 'Transmit', heading })
    const channel = Number(value('radio.channel', band))
    const mhz = band === '5' ? 5000 + 5 * channel : 2407 + 5 * channel
    await choose({ label: 'Channel', heading }, `${channel} - ${(mhz / 1000).toFixed(3)} GHz`)
    await choose({ label: 'Width', heading }, `${value('radio.width', band)} MHz`)
    await choose({ label: 'Power', heading }, `${value('radio.power', band)} dBm`)
  }
  await press({ text: 'OK' })
  await sees({ text: 'Noted.' })

  await press({ text: 'Wired' })
  await tick({ label: 'Fixed address' })
  await put({ label: 'Address' }, 'management.address')
  await type({ label: 'Netmask' }, '255.255.255.0')
  await put({ label: 'Router' }, 'management.gateway')
  await type({ label: 'Name servers' }, value('management.dns-servers'))
  await press({ text: 'Note it' })
  await press({ text: 'Save all' })
  await press({ text: 'Yes' })
}
