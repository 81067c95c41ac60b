/**
 * What becomes of a record: how a page is come to, what saves it, and what its rows are, whatever its pages are like.
 */
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import {
  button,
  field,
  type Given,
  ShownPage,
  showing,
  spoken,
  textsOf,
  unit,
  value,
  words,
} from '../../../tests/support/shown-page'
import { nothingShown, withNoted } from './record'
import { shownCard } from './shown-card'

describe('a page without an address of its own', () => {
  const [gear, speed, names] = [button('Settings'), button('Speed'), button('Names')]

  it('is come to by the presses that brought its fields, and by no others', () => {
    const page = new ShownPage()
    page.signIn()
    page.stands('/app', gear, button('Help'))
    page.press('Help', { isButton: false })
    page.stands('/app', gear, button('Help'), words('Nobody helps'))
    page.press('Settings', { isButton: false })
    page.stands('/app', gear, speed, names, button('Save'))
    page.press('Speed', { isButton: false })
    page.stands('/app', gear, speed, names, button('Save'), field('Limit'))
    page.press('Names', { isButton: false })
    page.stands('/app', gear, speed, names, button('Save'), field('Device name'))
    page.type('Device name', value('unit.name'))
    page.press('Save')
    const [only] = page.card.dialect.pages
    expect(only).toMatchObject({ path: '/app' })
    expect(textsOf(only?.reach)).toEqual(['Settings', 'Names'])
    expect(textsOf([only?.press])).toEqual(['Save'])
  })

  it('is saved field by field where nothing that saves it was pressed', () => {
    const page = new ShownPage()
    page.signIn()
    page.stands('/app', gear)
    page.press('Settings', { isButton: false })
    page.stands('/app', gear, names, field('Device name'), button('Close'))
    page.type('Device name', value('unit.name'))
    page.press('Names', { isButton: false })
    page.stands('/app', gear, names, field('Place'), button('Close'))
    page.type('Place', value('unit.location'))
    page.press('Close')
    const { pages } = page.card.dialect
    expect(pages.map(({ fields, press, reach }) => [Object.keys(fields as object), press, textsOf(reach)])).toEqual([
      [['unit.name'], undefined, ['Settings']],
      [['unit.location'], undefined, ['Settings', 'Names']],
    ])
  })
})

describe('what tells that a page was saved', () => {
  const saved = (answer?: string) => {
    const page = new ShownPage()
    page.signIn()
    page.stands('/name', field('Device name'), button('Save'))
    page.type('Device name', value('unit.name'))
    page.press('Save')
    if (answer) page.stands('/name', field('Device name'), button('Save'), words(answer))
    return (page.card.dialect.says as { saved?: unknown }).saved
  }

  it('is said without the words that are of one unit', () => {
    expect(saved(`The device "${value('unit.name')}" was saved successfully.`)).toEqual({
      ...{ use: 'show', by: [{ part: 'was saved successfully.' }] },
    })
  })

  it('is nothing that stands there for another reason, and may be nothing at all', () => {
    expect(saved('Three clients')).toBeUndefined()
    expect(saved()).toBeUndefined()
  })
})

describe('rows', () => {
  const list = [button('Add'), button('Crew'), button('Take away')]
  const [name, key, again] = [field('Network name'), field('Key'), field('Key again')]
  const fill = (page: ShownPage): void => {
    page.type('Network name', value('network.ssid'))
    page.type('Key', value('network.passphrase'))
    page.type('Key again', value('network.passphrase'))
    page.press('Save')
  }

  it('are added on a page of their own, a key typed twice, and taken away once they are open', () => {
    const page = new ShownPage()
    page.signIn()
    page.stands('/nets', ...list)
    page.press('Add', { isButton: false })
    page.stands('/nets/new', name, key, again, button('Save'))
    fill(page)
    page.stands('/nets', ...list, words('It was added.'))
    page.hasRow(value('network.ssid'))
    page.press('Crew', { isButton: false, inRow: true })
    page.stands('/nets/1', name, button('Delete'))
    page.press('Delete', { isButton: false })
    page.stands('/nets/1/sure', button('Yes, I am'))
    page.press('Yes, I am')
    const { dialect, missing } = page.card
    expect(missing).not.toContain('no-remove')
    expect(dialect.rows).toMatchObject({
      ...{ path: '/nets', row: 'tbody tr', name: { at: 'td:nth-child(1)' } },
      remove: { whenOpened: true, confirms: [{ use: 'press' }] },
      fields: { 'network.passphrase': { again: { by: [{ label: 'Key again' }] } } },
    })
    expect(dialect.networksAre).toEqual({ 'network.bands': ['2.4', '5'] })
  })

  it('have the fields of one more beside them, and another button where one is changed', () => {
    const page = new ShownPage()
    page.signIn()
    page.stands('/nets', name, key, again, button('Save'), ...list)
    fill(page)
    page.hasRow(value('network.ssid'))
    page.press('Take away', { inRow: true })
    page.press('Crew', { isButton: false, inRow: true })
    page.stands('/nets/1', name, button('Update'))
    page.type('Network name', value('network.ssid'))
    page.press('Update')
    const { rows } = page.card.dialect as unknown as { rows: { add?: unknown; press: { by: { text: string }[] } } }
    expect(rows.add).toBeUndefined()
    expect(rows.press.by.map(({ text }) => text)).toEqual(['Save', 'Update'])
  })
})

describe('what stands in a field that is saved, and is right already', () => {
  const saved = (...elements: Given[]) => {
    const page = new ShownPage()
    page.signIn()
    page.stands('/box', field('Device name'), button('Save'), ...elements)
    page.type('Device name', value('unit.name'))
    page.press('Save')
    const [only] = page.card.dialect.pages as { fields: Record<string, unknown>; radios?: Record<string, object> }[]
    return {
      ...only?.fields,
      ...Object.fromEntries(Object.entries(only?.radios ?? {}).map(([band, of]) => [band, Object.keys(of)])),
    }
  }
  const list = (label: string, holds: string, heading = ''): Given => ({ use: 'choose', label, holds, heading })
  const tick = (label: string, holds: boolean, heading = ''): Given => ({ use: 'tick', label, holds, heading })
  const [lowChannel, zone] = [value('radio.channel'), value('clock.time-zone')]

  it('is a field of the card, where its label and its value say which', () => {
    const fields = saved(
      list('Time zone', zone),
      list('Channel', `${lowChannel} - 2.4xx GHz`, '2.4 GHz'),
      tick('Transmit', true, '2.4 GHz'),
    )
    expect(Object.keys(fields)).toEqual(expect.arrayContaining(['unit.name', 'clock.time-zone', '2.4']))
    expect(fields['2.4']).toEqual(['radio.channel', 'radio.enabled'])
  })

  it('is known by the same field of another radio, whatever number stands in it; else it is missing there', () => {
    const radios = (label: string) => {
      const page = new ShownPage()
      page.signIn()
      page.stands(
        '/radios',
        list('Power', '', '5 GHz'),
        list(label, '8 dBm', '2.4 GHz'),
        list('Channel', `${lowChannel}`, '2.4 GHz'),
        list('Channel', String(spoken.find(({ id, of }) => id === 'radio.channel' && of === '5')?.value), '5 GHz'),
        button('Save'),
      )
      page.choose('Power', '14 dBm')
      page.press('Save')
      const { dialect, missing } = page.card
      const [only] = dialect.pages as { radios: Record<string, object> }[]
      return { low: Object.keys(only?.radios['2.4'] ?? {}), missing }
    }
    expect(radios('Power').low).toEqual(['radio.power', 'radio.channel'])
    expect(radios('Power').missing).not.toContain('not-at-band')
    expect(radios('Loudness').low).toEqual(['radio.channel'])
    expect(radios('Loudness').missing).toContain('not-at-band')
  })

  it('is left out where the value is another, or may be of anything', () => {
    const fields = saved(
      list('Time zone', 'Etc/UTC'),
      list('Channel', '999', '2.4 GHz'),
      // Not ticked may mean either.
      tick('Do not transmit', false, '2.4 GHz'),
      list('Country', 'Elsewhere'),
      { use: 'type', label: 'Colour', holds: value('unit.location') },
    )
    expect(Object.keys(fields)).toEqual(['unit.name'])
  })

  it('is a security that its words are of, and no other', () => {
    const [network] = spoken.filter(({ id, value: of }) => id === 'network.security' && of === 'wpa2-personal')
    const ssid = String(spoken.find(({ id, of }) => id === 'network.ssid' && of === network?.of)?.value)
    const withSecurity = (holds: string) => {
      const page = new ShownPage()
      page.signIn()
      page.stands('/nets', button('Edit'), button('Remove'), button('Add'))
      page.hasRow(ssid)
      page.press('Edit', { isButton: false, inRow: true })
      page.press('Remove', { inRow: true })
      page.press('Add', { isButton: false })
      page.stands('/nets', field('Name'), list('Security', holds), button('Save'))
      page.type('Name', ssid)
      page.press('Save')
      return page.cardFor({ ...unit, spoken })
    }
    const right = withSecurity('WPA2 (AES)')
    expect(right.missing).not.toContain('no-security')
    expect(right.dialect.rows).toMatchObject({
      fields: { 'network.security': { words: { 'wpa2-personal': 'WPA2 (AES)' } } },
    })
    for (const words of ['None', 'WPA/WPA2 mixed', 'WPA2 Enterprise', 'Secure'])
      expect(withSecurity(words).missing).toContain('no-security')
  })

  it('is known by words that were chosen for it before; a setting that was asked for at first alone is missing', () => {
    const begun = () => {
      const page = new ShownPage()
      page.stands('/first', list('Country', ''), button('Next'))
      page.choose('Country', 'The Land')
      page.press('Next')
      page.signIn()
      return page
    }
    const page = begun()
    page.stands('/box', field('Device name'), list('Country', 'The Land'), button('Save'))
    page.type('Device name', value('unit.name'))
    page.press('Save')
    expect(page.card.missing).not.toContain('only-at-first')
    expect(page.card.dialect.pages).toMatchObject([{ fields: { 'unit.country': { words: {} } } }])
    const without = begun()
    without.stands('/box', field('Device name'), button('Save'))
    without.type('Device name', value('unit.name'))
    without.press('Save')
    expect(without.card.missing).toContain('only-at-first')
  })
})

it('asks by the protocol itself where it did, and needs no form then', () => {
  const record = withNoted(nothingShown, 'digest', showing)
  const { yaml, missing } = shownCard(record, unit)
  expect(missing.map(({ code }) => code)).toEqual(['no-settings'])
  expect(parse(yaml)).toMatchObject({ dialect: { signIn: { by: 'digest', page: '/' } } })
})
