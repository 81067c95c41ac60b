/** A Hearth set by hand from its box on, as somebody would who shows how it is done. */
import type { SettingId } from '../../src/core/catalogue/catalogue'
import type { Description } from '../../src/core/kit/page-element'
import type { HearthWords } from '../../src/lab/fronts/hearth/words'
import type { hands } from './hands'

export interface ByHand {
  /** What a setting is to be, as text. */
  readonly value: (id: SettingId, of?: string) => string
  /** Puts a value of the unit's own into a field. */
  readonly put: (by: Description, id: SettingId, of?: string) => Promise<void>
  readonly network: { readonly id: string; readonly bands: readonly string[] }
  /** What its pages call things. */
  readonly words: HearthWords
}

export async function setHearth(
  { press, tick, type, choose, sees }: ReturnType<typeof hands>,
  { value, put, network, words }: ByHand,
): Promise<void> {
  await choose({ label: words.country }, 'New Zealand')
  await choose({ label: words.zone }, value('clock.time-zone'))
  await press({ text: words.next })
  await put({ label: words.user }, 'admin.user')
  await put({ label: words.word }, 'admin.password')
  await put({ label: words.again }, 'admin.password')
  await press({ text: words.next })
  await type({ label: words.firstNet }, 'first')
  await press({ text: words.finish })
  await put({ label: words.user }, 'admin.user')
  await put({ label: words.word }, 'admin.password')
  await press({ text: words.enter })
  await sees({ label: 'MAC address' })

  await press({ text: words.box })
  await put({ label: words.unitName }, 'unit.name')
  await put({ label: words.spot }, 'unit.location')
  // Country and time zone stand there as they were answered at first: nobody chooses them again.
  await type({ label: words.timeServers }, value('clock.ntp-servers'))
  await press({ text: words.keep })
  await sees({ text: words.saved })

  await press({ text: words.nets })
  await press({ text: words.edit })
  await press({ text: words.close })
  await press({ text: words.remove })
  await press({ text: words.yes })
  await sees({ text: words.saved })
  await press({ text: words.add })
  await put({ label: words.netName }, 'network.ssid', network.id)
  await tick({ label: words.netOn })
  await put({ label: words.key }, 'network.passphrase', network.id)
  for (const band of network.bands) if (band !== '6') await tick({ label: `${band} GHz` })
  await press({ text: words.keep })
  await sees({ text: words.saved })

  await press({ text: words.radios })
  for (const heading of ['2.4 GHz', '5 GHz']) {
    const band = heading.split(' ')[0] ?? ''
    await tick({ label: words.on, heading })
    const channel = Number(value('radio.channel', band))
    const mhz = band === '5' ? 5000 + 5 * channel : 2407 + 5 * channel
    await choose({ label: words.channel, heading }, `${channel} - ${(mhz / 1000).toFixed(3)} GHz`)
    await choose({ label: words.width, heading }, `${value('radio.width', band)} MHz`)
    await choose({ label: words.power, heading }, `${value('radio.power', band)} dBm`)
  }
  await press({ text: words.keep })
  await sees({ text: words.saved })

  await press({ text: words.cable })
  await tick({ label: 'Fixed address' })
  await put({ label: 'Address' }, 'management.address')
  await type({ label: 'Netmask' }, '255.255.255.0')
  await put({ label: 'Router' }, 'management.gateway')
  await type({ label: 'Name servers' }, value('management.dns-servers'))
  await press({ text: 'Note it' })
  await press({ text: words.save })
  await press({ text: words.yes })
}
