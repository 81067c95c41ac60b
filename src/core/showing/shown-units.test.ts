/** Access points that are set through a unit's pages: what hands show for one of them becomes a part of its card. */
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { askingFor } from '../../../tests/support/config'
import { button, field, ShownPage, unit } from '../../../tests/support/shown-page'
import { spokenOf } from '../config/outcomes'
import { readKitCard } from '../kit/kit-card'
import { joinedRowOn, statesIn } from './joined-row'
import { shownCard } from './shown-card'

const joined = { mac: '02:48:32:00:00:07', serial: 'P-7', name: 'lodge-7' }
const toBe = spokenOf(askingFor('Pellworth P6'))
const desiredOf = (id: string, of = ''): string =>
  String(toBe.find((each) => each.id === id && (of === '' || each.of === of))?.value)
const undescribed = { model: 'Some Point', mac: joined.mac }

/** Lists its access points, lets one in, opens it and sets it. */
function shownOne({ lastState = 'Working' } = {}): ShownPage {
  const page = new ShownPage()
  page.signIn()
  page.actFor(joined, toBe)
  page.stands('/points', button('Approve'))
  page.hasRow('02-48-32-00-00-07', 'Some Point', 'Waiting')
  page.press('Approve', { inRow: true })
  page.stands('/points', button('Edit'))
  page.hasRow('02-48-32-00-00-07', 'Some Point', lastState)
  page.press('Edit', { inRow: true })
  page.stands('/points/7', field('Device name'), field('Channel at 5 GHz'), button('Save'))
  page.type('Device name', desiredOf('unit.name'))
  page.choose('Channel at 5 GHz', desiredOf('radio.channel', '5'))
  page.press('Save')
  return page
}

describe('an access point that is set through a unit', () => {
  const made = (page: ShownPage) => shownCard(page.record, { ...unit, undescribed })

  it('is found by its MAC, let in, opened and set as it was shown', () => {
    const { dialect } = parse(made(shownOne()).yaml) as { dialect: { units: Record<string, unknown> } }
    expect(dialect.units).toMatchObject({
      ...{ path: '/points', row: 'tbody tr', mac: { at: 'td:nth-child(1)' }, state: { at: 'td:nth-child(3)' } },
      states: { Waiting: 'not-listed', Working: 'run' },
      takeIn: { press: { use: 'press', by: [{ text: 'Approve' }] } },
      open: { use: 'press', by: [{ text: 'Edit' }] },
      fields: { 'unit.name': { at: { use: 'type', by: [{ label: 'Device name' }] } } },
      radios: { '5': { 'radio.channel': { at: { by: [{ label: 'Channel at 5 GHz' }] } } } },
      press: { use: 'press', by: [{ text: 'Save' }] },
    })
  })

  it('leaves nothing of its own in the card, nor among the settings of the unit itself', () => {
    const { yaml } = made(shownOne())
    for (const own of [joined.name, joined.serial, desiredOf('unit.name'), '02-48-32-00-00-07'])
      expect(yaml).not.toContain(own)
    const { dialect } = parse(yaml) as { dialect: { pages: { path: string }[] } }
    expect(dialect.pages.map(({ path }) => path)).not.toContain('/points/7')
  })

  it('gets a card of its own, where its model has none', () => {
    const reading = readKitCard(made(shownOne()).joined ?? '')
    if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
    expect(reading.card).toMatchObject({
      ...{ maker: 'Some', model: 'Point', role: 'managed-access-point' },
      dialect: { kind: 'managed', by: ['Some Box'] },
    })
    expect(Object.keys(reading.card.can)).toEqual(expect.arrayContaining(['unit.name', 'radio.channel']))
    expect(shownCard(shownOne().record, unit).joined).toBeUndefined()
  })

  it('is asked about where its row says what nobody knows, until somebody says what it means', () => {
    const page = shownOne({ lastState: 'Flurbing' })
    const missing = () => made(page).missing.map(({ code }) => code)
    expect(missing()).toEqual(expect.arrayContaining(['no-joined-state', 'unknown-state']))
    page.says('Flurbing', 'run')
    expect(missing()).not.toEqual(expect.arrayContaining(['no-joined-state']))
    expect(missing()).not.toEqual(expect.arrayContaining(['unknown-state']))
  })

  it('is told where its list, its row or its settings were not shown', () => {
    const page = new ShownPage()
    page.actFor(joined, toBe)
    page.stands('/', button('Points'))
    page.press('Points')
    expect(made(page).missing.map(({ code }) => code)).toEqual(
      expect.arrayContaining(['no-unit-row', 'no-unit-open', 'no-unit-settings']),
    )
  })
})

describe('its row', () => {
  const each = 'tbody tr'
  const row = (...texts: string[]) =>
    texts.map((text, at) => ({ each, name: `td:nth-child(${at + 1})`, text, isFirst: at === 0 }))
  const seen = (...rows: ReturnType<typeof row>[]) =>
    joinedRowOn({ path: '/points', rows: rows.flat() }, joined, undefined)

  it('is the one that shows its MAC, however that is written, and none beside it', () => {
    const found = seen(row('0248.3200.0008', 'Working'), row('lodge-7', '0248.3200.0007', '10.0.0.7', 'Lost'))
    expect(found).toMatchObject({ known: { by: 'mac', at: 'td:nth-child(2)' }, name: 'td:nth-child(1)' })
    expect(found?.address).toBe('td:nth-child(3)')
    expect(found?.cells).toEqual({ 'td:nth-child(4)': ['Lost'] })
  })

  it('is known by its serial number where no MAC is shown, and by nothing else', () => {
    expect(seen(row('P-7', 'Working'))?.known).toEqual({ by: 'serial', at: 'td:nth-child(1)' })
    expect(seen(row('P-70', 'Working'))).toBeUndefined()
    expect(joinedRowOn({ path: '/', rows: row('', 'x') }, { ...joined, serial: '' }, undefined)).toBeUndefined()
  })

  it('says how it stands in the cell whose words do, and asks about all where none does', () => {
    const told = (cells: Record<string, string[]>) =>
      statesIn({ joined: { path: '/', each, known: { by: 'mac', at: 'td' }, cells }, states: {} })
    expect(told({ a: ['Some Point'], b: ['Pending', 'Online'] })).toEqual({
      at: 'b',
      words: [
        { words: 'Pending', state: 'not-listed' },
        { words: 'Online', state: 'run' },
      ],
    })
    expect(told({ a: ['Some Point'], b: ['Flurbing'] })).toMatchObject({ at: undefined, words: [{}, {}] })
  })
})
