import { describe, expect, it } from 'vitest'
import { askingFor } from '../../../tests/support/config'
import { spokenOf } from '../config/outcomes'
import type { ElementFacts } from '../kit/page-element'
import type { Noted } from './noted'
import { answered, likelyFor, nothingShown, type Showing, type ShownRecord, withNoted } from './record'

const spoken = spokenOf(askingFor('Ostrel O-40'))
const value = (id: string): string => String(spoken.find((each) => each.id === id)?.value)
const mac = '02:48:31:00:00:01'
const showing: Showing = { mac, spoken, factory: { user: 'setup', password: 'out-of-the-box' }, putIn: [] }
const nothing = { name: '', id: '', label: '', text: '', hint: '', role: '', heading: '', row: '' }
const element = (each: Partial<ElementFacts>): ElementFacts => ({ ...nothing, seen: 0, use: 'type', ...each })
const noted = (own: Partial<ElementFacts>, hands: Noted['hands'], rows: Noted['rows'] = []): Noted => ({
  path: '/#/somewhere',
  facts: [element(own), element({ seen: 1, label: 'Another' })],
  rows,
  ...(hands ? { hands } : {}),
})
const typed = (text: string, own: Partial<ElementFacts> = { label: 'Field' }): Noted =>
  noted(own, { kind: 'typed', seen: 0, text })
const chosen = (shown: string, own: Partial<ElementFacts>): Noted =>
  noted({ use: 'choose', ...own }, { kind: 'chosen', seen: 0, value: shown, offered: [shown] })
const shownBy = (...all: readonly Noted[]): ShownRecord =>
  all.reduce((record, each) => withNoted(record, each, showing), nothingShown)
const valueOfLast = (record: ShownRecord) => {
  const does = record.acts.at(-1)?.does
  return does?.kind === 'puts' ? does.value : undefined
}

describe('a field that is entered', () => {
  const likely = (label: string, isPassword = false) => {
    const { facts, ...page } = noted({ label }, undefined)
    const entered = { ...page, facts, entered: { seen: 0, isPassword } }
    const record = withNoted(shownBy(typed(value('network.ssid'), { label: 'SSID' })), entered, showing)
    expect(record.acts).toHaveLength(1)
    return likelyFor(record, entered, showing)?.id
  }

  it('is likely to be of what its label says, and is no act', () => {
    expect(likely('Device name')).toBe('unit.name')
    expect(likely('Passphrase', true)).toBe('network.passphrase')
    expect(likely('Password', true)).toBe('admin.password')
    expect(likely('Administrator')).toBe('admin.user')
    expect(likely('Colour')).toBeUndefined()
  })
})

it('keeps no secret that a form has left in an address', () => {
  const [secret, other] = [value('network.passphrase'), value('admin.password')]
  for (const path of [`/save?key=${encodeURIComponent(secret)}&x=1`, `/save?key=${secret.replaceAll(' ', '+')}`]) {
    const record = shownBy({ ...typed(value('unit.name')), path })
    expect(record.acts[0]?.path).toBe('/save')
  }
  expect(shownBy({ ...typed(value('unit.name')), path: `/${other}/x` }).acts[0]?.path).toBe('/')
  expect(shownBy({ ...typed(value('unit.name')), path: '/save?page=2' }).acts[0]?.path).toBe('/save?page=2')
})

describe('what is put into a page', () => {
  it('is kept as the setting that it is of, a secret too', () => {
    const record = shownBy(typed(value('admin.password'), { label: 'Password' }))
    expect(valueOfLast(record)).toMatchObject({ kind: 'setting', id: 'admin.password' })
    expect(JSON.stringify(record)).not.toContain(value('admin.password'))
    expect(valueOfLast(shownBy(typed('out-of-the-box')))).toEqual({ kind: 'factory', part: 'password' })
  })

  it('is asked about where it means nothing, and never taken for a setting by its label alone', () => {
    const record = shownBy(typed('something else', { label: 'Device name' }))
    expect(valueOfLast(record)).toEqual({ kind: 'unknown' })
    expect(JSON.stringify(record.acts)).not.toContain('something else')
    expect(valueOfLast(answered(record, 1, { kind: 'always', text: 'so' }))).toEqual({ kind: 'always', text: 'so' })
  })

  it('is a mask where it is one, and the last word where a field is filled twice', () => {
    expect(valueOfLast(shownBy(typed('255.255.255.0')))).toMatchObject({ id: 'management.prefix', how: { as: 'mask' } })
    expect(shownBy(typed('a'), typed('b'), typed(value('unit.name'))).acts).toHaveLength(1)
  })

  it('is known by the words beside a choice, in the band that its heading names', () => {
    const channel = chosen('36 - 5.180 GHz', { label: 'Channel', heading: '5 GHz radio' })
    expect(valueOfLast(shownBy(channel))).toMatchObject({
      ...{ kind: 'setting', id: 'radio.channel', of: '5' },
      how: { shows: '^(?<value>[0-9]+) - [0-9.]+ GHz$' },
    })
    expect(valueOfLast(shownBy(chosen('New Zealand', { label: 'Country' })))).toMatchObject({
      ...{ id: 'unit.country', how: { words: { NZ: 'New Zealand' } } },
    })
    expect(valueOfLast(shownBy(chosen('Blue', { label: 'Colour of the pages' })))).toEqual({
      kind: 'always',
      text: 'Blue',
    })
  })
})

it('describes nothing by words of the site, nor by what stands in a table', () => {
  const rows = [{ each: 'tbody tr', name: 'td:nth-child(1)', text: 'Guest house', isFirst: true }]
  const record = shownBy(
    noted({}, undefined, rows),
    typed('x', { label: 'Key', heading: `Edit ${value('network.ssid')}`, name: 'key' }),
    typed('y', { label: 'Key of Guest house', name: 'other' }),
  )
  expect(record.acts).toHaveLength(2)
  expect(JSON.stringify(record.acts)).not.toContain(value('network.ssid'))
  expect(JSON.stringify(record.acts)).not.toContain('Guest house')
})

it('keeps where the MAC is shown, whatever stands between its digits', () => {
  const shows = element({ use: 'show', label: 'Hardware address', text: '02-48-31-00-00-01' })
  expect(withNoted(nothingShown, { path: '/state', facts: [shows], rows: [] }, showing).mac).toEqual({
    ...{ path: '/state', at: { use: 'show', by: [{ label: 'Hardware address' }] } },
  })
})
