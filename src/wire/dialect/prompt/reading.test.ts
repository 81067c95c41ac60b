import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cards } from '../../../../tests/support/data'
import { often } from '../../../../tests/support/long'
import type { Clear, Config } from '../../../core/config/unit-config'
import { type DirectCard, isDirect } from '../../../core/kit/kit-card'
import type { PromptDialect } from '../../../core/kit/prompt-dialect'
import { airIn } from './air'
import { radioPlaces } from './places'
import { observedIn } from './reading'

function promptCard(name: string): DirectCard & { dialect: PromptDialect } {
  const card = cards.get(name)
  if (!card || !isDirect(card) || card.dialect.kind !== 'prompt') throw new Error(`${name} speaks by no commands`)
  return { ...card, dialect: card.dialect }
}
const card = promptCard('Debian hostapd')
const { dialect } = card
const { air } = dialect
if (!air) throw new Error('the card does not say what its radios do')
const [unit, networks, radios] = dialect.read
if (!unit || !networks || !radios) throw new Error('the card has other readings')
const now = Date.parse('2026-11-25T12:00:00Z')
const read = (texts: { unit?: string; networks?: string; radios?: string }) =>
  observedIn(card, dialect, [
    { reading: unit, text: texts.unit ?? '', at: now },
    { reading: networks, text: texts.networks ?? '', at: now },
    { reading: radios, text: texts.radios ?? '', at: now },
  ])

const hex = (text: string): string => Buffer.from(text).toString('hex')
const network = (radio: string, security: string): string =>
  `interface=${radio}\n#network=${radio} crew ` +
  `0\nbridge=br46\nssid2=${hex('Crew "é"')}\nignore_broadcast_ssid=1\nwpa_key_mgmt=${security}\n` +
  `rsn_pairwise=CCMP\nieee80211w=0\nwpa_passphrase=eight ` +
  `or more\n`

describe('what a unit prints', () => {
  it('becomes values of settings, and what it does not say is unsupported or absent as the card has it', () => {
    const observed = read({
      unit:
        `hall-01\nglobal\ncountry NZ: DFS-ETSI\nnow=${now / 1000 - 3}\n2: br0    inet 10.44.8.20/24 brd ` +
        `10.44.8.255\n`,
      networks: network('wlan0', 'WPA-PSK') + network('wlan1', 'WPA-PSK'),
      radios:
        'radio=wlan0\nup=yes\nchannel=6\n\tchannel 6 (2437 MHz), width: 20 MHz\n\ttxpower 11.00 dBm\nradio=wlan1\n',
    })
    const value = (of: unknown) => ({ kind: 'value', value: of })
    expect(observed.unit).toMatchObject({
      'unit.name': value('hall-01'),
      'unit.country': value('NZ'),
      'clock.time': value(-3),
      'management.method': value('static'),
      'management.prefix': value(24),
      'management.gateway': value(null),
    })
    expect(observed.networks.crew).toMatchObject({
      'network.ssid': value('Crew "é"'),
      'network.bands': value(['2.4', '5']),
      'network.security': value('wpa2-personal'),
      'network.hidden': value(true),
      'network.vlan': value(46),
      'network.passphrase': value('eight or more'),
      'network.most-clients': value(null),
    })
    expect(observed.radios['2.4']).toMatchObject({ 'radio.enabled': value(true), 'radio.power': value(11) })
    expect(observed.radios['5']?.['radio.enabled']).toEqual(value(false))
    expect(observed.radios['5']?.['radio.channel']).toBeUndefined()
  })

  it('is as nobody asked where a network differs between its radios, or has no security', () => {
    const differs = read({ networks: network('wlan0', 'WPA-PSK') + network('wlan1', 'SAE') })
    expect(differs.networks.crew?.['network.security']).toEqual({ kind: 'unsupported' })
    const open = read({ networks: network('wlan0', 'X').replace('wpa_key_mgmt=X\n', '') })
    expect(open.networks.crew?.['network.security']).toEqual({ kind: 'value', value: 'open' })
  })

  it('tells what is on air: open where no security is told, and something else where it cannot be told', () => {
    const seen = (security: string) =>
      airIn(
        card,
        dialect,
        air,
        `radio=wlan1\nwidth: ` +
          `40\nstate=ENABLED\nchannel=36\nbss=crew\nhex=${hex('Crew')}\nbssid=06:AA:00:00:00:01\n${security}`,
      )
    expect(seen('key_mgmt=WPA-PSK\n')[0]).toMatchObject({
      ...{ band: '5', condition: 'on-air', channel: 36, width: 40 },
      networks: [{ id: 'crew', ssid: 'Crew', security: 'wpa2-personal', bssid: '06:aa:00:00:00:01' }],
    })
    expect(seen('')[0]?.networks[0]?.security).toBe('open')
    expect(seen('key_mgmt=unknown\n')[0]?.networks[0]?.security).toBe('unknown')
  })

  it('does no harm, whatever it is', () => {
    const pieces = fc.constantFrom(
      'radio=wlan0',
      '#network=wlan0 a 0',
      'ssid2=zz',
      'channel=999999999999',
      '\n',
      'up=yes',
    )
    const text = fc
      .array(fc.oneof(pieces, fc.string({ maxLength: 40 })), { maxLength: 30 })
      .map((all) => all.join('\n'))
    fc.assert(
      fc.property(text, (each) => {
        const observed = read({ unit: each, networks: each, radios: each })
        expect(Object.keys(observed.radios).every((band) => ['2.4', '5'].includes(band))).toBe(true)
        expect(Array.isArray(airIn(card, dialect, air, each))).toBe(true)
      }),
      { numRuns: often(1000, 10_000) },
    )
  })
})

it('names the centre of a block and the side of its second channel', () => {
  const at = (channel: number, width: number, band = '5', side?: 'above' | 'below') => {
    const desired: Config<Clear> = {
      unit: {},
      networks: {},
      radios: {
        [band]: {
          'radio.enabled': true,
          'radio.channel': channel,
          'radio.width': width,
          ...(side ? { 'radio.secondary': side } : {}),
        },
      },
    }
    const situation = { card, dialect, desired, current: { address: '', prefix: 24 } }
    const { centre, pair } = radioPlaces(situation, { name: 'wlan1', band }).radio as Record<string, unknown>
    return [centre, pair]
  }
  expect(at(36, 20)).toEqual([36, undefined])
  expect(at(36, 40)).toEqual([38, '+'])
  expect(at(40, 40)).toEqual([38, '-'])
  expect(at(44, 80)).toEqual([42, '+'])
  expect(at(161, 80)).toEqual([155, '-'])
  expect(at(6, 40, '2.4', 'above')).toEqual([8, '+'])
  expect(at(6, 40, '2.4', 'below')).toEqual([4, '-'])
})
