/** What a stand-in's radios may do, by the rules of its country. */
import type { ChannelBlock } from '../../core/regulatory/blocks'
import type { RegulatoryDatabase } from '../../core/regulatory/database'
import { judgeChannel, legalBlocks } from '../../core/regulatory/legal'
import type { DeviceRadio, DeviceSettings } from './device-settings'
import { Refusal } from './refusal'
import type { StandInSheet } from './stand-in-sheet'

export class RadioRules {
  constructor(
    private readonly sheet: StandInSheet,
    private readonly regulatory: RegulatoryDatabase,
  ) {}

  /** A change of country resets every radio to the first legal channel of its band, narrow and quiet. */
  reset(settings: DeviceSettings): DeviceSettings {
    const legal = legalBlocks(this.#rulesOf(settings.country))
    const radios = settings.radios.map((each): DeviceRadio => {
      const first = legal.find((block) => block.band === each.band && block.width === 20)
      return {
        ...each,
        on: each.on && first !== undefined,
        channel: first?.channel ?? each.channel,
        width: 20,
        power: Math.min(...(this.sheet.powers[each.band] ?? [each.power])),
      }
    })
    return { ...settings, radios }
  }

  /** A channel of the band where nobody has to listen, 20 MHz wide. */
  withoutRadar(settings: DeviceSettings, { band }: DeviceRadio): { channel: number; width: number } | undefined {
    const legal = legalBlocks(this.#rulesOf(settings.country))
    return legal.find((block) => block.band === band && block.width === 20 && !block.radar)
  }

  /** Blocks that a radio may be set to, 20 MHz wide. */
  channels(settings: DeviceSettings, band: string): ChannelBlock[] {
    return legalBlocks(this.#rulesOf(settings.country)).filter((block) => block.band === band && block.width === 20)
  }

  /** Seconds that it listens for radar before it is on air; 0 where it need not. */
  listenSeconds(settings: DeviceSettings, radio: DeviceRadio): number {
    // Before anybody has said where it is, it is on channels that listen nowhere.
    if (settings.country === null) return 0
    const judgement = this.#judge(settings, radio)
    return judgement.legal ? judgement.block.listenSeconds : 0
  }

  /** @throws Refusal */
  check(settings: DeviceSettings): void {
    const { sheet } = this
    if (sheet.soldFor !== null && settings.country !== sheet.soldFor)
      throw new Refusal('invalid-value', `this unit is for use in ${sheet.soldFor} alone`, 'country')
    if (settings.radios.length !== sheet.factory.radios.length)
      throw new Refusal('invalid-value', 'radios come with the unit; none can be made or removed', 'radio')
    for (const each of settings.radios) {
      if (!each.on) continue
      const judgement = this.#judge(settings, each)
      const at = (leaf: string): string => `radio=${each.band}/${leaf}`
      if (!judgement.legal) {
        const words = `Channel ${each.channel} at ${each.width} MHz is not legal in ${settings.country}`
        throw new Refusal('invalid-value', words, at('channel'))
      }
      if (!sheet.powers[each.band]?.includes(each.power))
        throw new Refusal('invalid-value', `${each.power} dBm is not one of its steps`, at('power'))
      if (!sheet.widths[each.band]?.includes(each.width))
        throw new Refusal('invalid-value', `it cannot be ${each.width} MHz wide`, at('width'))
    }
  }

  #judge(settings: DeviceSettings, radio: DeviceRadio) {
    return judgeChannel(this.#rulesOf(settings.country), radio.band, radio.channel, radio.width)
  }

  #rulesOf(country: string | null) {
    const rules = country === null ? undefined : this.regulatory.get(country)
    if (!rules) throw new Refusal('invalid-value', `country ${country} is not known`, 'country')
    return rules
  }
}
