import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { askingFor, today } from '../../../tests/support/config'
import { cardOf, cards, setUpOverTheAir } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { wholeBrief } from '../../../tests/support/whole-brief'
import { plainsOf, settingIds, settingOf } from '../catalogue/catalogue'
import { posixTimeZone, sameTimeZone } from '../catalogue/posix-time-zone'
import { modernCard } from '../kit/former-card'
import { readKitCard } from '../kit/kit-card'
import { mobilityDomain } from './mobility-domain'
import { expectedOf, spokenOf } from './outcomes'
import { settingsPage } from './settings-page'

describe('the table of settings', () => {
  it('has words for each, and names none that it does not have', () => {
    for (const id of settingIds) {
      const { words, needs = [], partOf } = settingOf(id)
      expect(words, id).toMatch(/^[A-Z]/)
      for (const other of [...needs, ...(partOf ? [partOf] : [])]) expect(settingIds, id).toContain(other)
    }
  })

  it('says where the brief asks for each plain setting, and with what it begins', () => {
    for (const section of ['network', 'aftercare', 'radio'] as const)
      for (const { id, setting } of plainsOf(section)) {
        const { key, schema } = setting.field
        const part = { network: wholeBrief.networks[0], aftercare: wholeBrief.aftercare, radio: wholeBrief.radio }[
          section
        ]
        expect(Object.keys(part ?? {}), id).toContain(key)
        expect(schema.safeParse(undefined).success, id).toBe(true)
      }
  })

  it('is printed in the documentation as it is', () => {
    expect(readFileSync(join(import.meta.dirname, '../../../docs/settings.md'), 'utf8')).toBe(settingsPage(cards))
  })

  it('is asked for as a whole by a brief that has everything', () => {
    const asking = ['Ostrel O-40', 'Tarnhelm C1', 'Tarnhelm T2'].map((model) => askingFor(model, wholeBrief))
    const asked = new Set(asking.flatMap(spokenOf).map(({ id }) => id))
    expect(settingIds.filter((id) => !asked.has(id))).toEqual([])
  })

  it('leaves to hands all that is asked of a model that is not spoken to, and what it may ship with', () => {
    const asking = { ...askingFor('Ostrel O-40', wholeBrief), card: setUpOverTheAir(cardOf('Ostrel O-40')) }
    const expected = expectedOf(asking)
    expect(new Set(expected.map(({ outcome }) => outcome.kind))).toEqual(new Set(['by-hand', 'not-for-it']))
    const asksForNone = expected.filter(({ outcome }) => outcome.kind === 'not-for-it').map(({ id }) => id)
    for (const id of asksForNone) expect(settingOf(id).nothing, id).toBeDefined()
    for (const id of ['services.telnet', 'services.ssh', 'network.ssid', 'network.security', 'radio.channel'] as const)
      expect(asksForNone).not.toContain(id)
  })
})

describe('time zones', () => {
  it.each([
    ['Pacific/Auckland', '<+12>-12<+13>,M9.5.0,M4.1.0/3'],
    ['Europe/Berlin', '<+01>-1<+02>,M3.5.0,M10.5.0/3'],
    ['America/New_York', '<-05>5<-04>,M3.2.0,M11.1.0'],
    ['Asia/Kolkata', '<+0530>-5:30'],
    ['Australia/Lord_Howe', '<+1030>-10:30<+11>-11,M10.1.0,M4.1.0'],
    ['Etc/UTC', '<+00>0'],
    // Twice a year by the moon: no rule says that.
    ['Africa/Casablanca', undefined],
  ])('%s keeps to %s', (zone, rule) => {
    expect(posixTimeZone(zone, today)).toBe(rule)
  })

  it('are the same whatever their names, and not when an hour differs', () => {
    expect(sameTimeZone('NZST-12NZDT,M9.5.0,M4.1.0/3', '<+12>-12<+13>,M9.5.0/2,M4.1.0/3')).toBe(true)
    expect(sameTimeZone('CET-1CEST-2,M3.5.0/02:00:00,M10.5.0/3', '<+01>-1<+02>,M3.5.0,M10.5.0/3')).toBe(true)
    expect(sameTimeZone('CET-1', '<+02>-2')).toBe(false)
    expect(sameTimeZone('Pacific/Auckland', 'Pacific/Chatham')).toBe(false)
  })
})

it('makes one mobility domain for a network of a site, and another for the next', () => {
  expect(mobilityDomain('Hall', 'crew')).toBe(mobilityDomain('Hall', 'crew'))
  const many = new Set(Array.from({ length: 200 }, (_, index) => mobilityDomain(`Site ${index}`, 'crew')))
  expect(many.size).toBeGreaterThan(195)
  for (const domain of many) expect(domain).toSatisfy((value: number) => value >= 1 && value <= 65_535)
})

describe('a card of before', () => {
  it('is read as what was set on its model then', () => {
    const today = readFileSync(join(import.meta.dirname, '../../../data/kit/ostrel-o-40.yaml'), 'utf8')
    const from = today.indexOf('can:')
    const former = `${today.slice(0, from)}quirks:
  countryResetsChannels: true
  appliesTogether: true
  mustSave: true
  ignoresPing: false
  hidesPassphrases: true
  countryLocked: NZ
${today.slice(today.indexOf('dialect:'))}`
    const reading = readKitCard(former)
    if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
    expect(reading.card.does).toMatchObject({ applies: 'staged', saves: 'on-command', country: 'NZ' })
    expect(reading.card.can['network.passphrase']?.readable).toBe('no')
    expect(reading.card.can['services.syslog']).toBeUndefined()
  })

  it('is left alone where it is one of today, or none at all', () => {
    for (const text of [undefined, 'x', [], { quirks: 1 }, { quirks: {}, does: {} }])
      expect(modernCard(text)).toBe(text)
  })

  it('of today that names a setting that there is not is refused at its line', () => {
    const today = readFileSync(join(import.meta.dirname, '../../../data/kit/ostrel-o-40.yaml'), 'utf8')
    const reading = readKitCard(today.replace('services.syslog', 'services.coffee'))
    expect(english(reading.ok ? [] : reading.faults)).toMatchObject([
      { field: 'can.services.coffee', reason: '"services.coffee" is not in the table of settings' },
    ])
  })
})
