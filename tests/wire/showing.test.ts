/** The first unit is set by hand in its window; what hands showed becomes a card, and the next is set by that. */

import { afterAll, afterEach, beforeEach, expect, it } from 'vitest'
import { compare, stepOf } from '../../src/core/config/compare'
import { desiredOf } from '../../src/core/config/compile'
import { spokenOf } from '../../src/core/config/outcomes'
import { keyText } from '../../src/core/config/unit-config'
import { bareCard } from '../../src/core/kit/bare-card'
import { type DirectCard, readKitCard } from '../../src/core/kit/kit-card'
import { mergedCard } from '../../src/core/showing/merged-card'
import { answered, nothingShown, type Showing, withNoted } from '../../src/core/showing/record'
import { shownCard } from '../../src/core/showing/shown-card'
import type { Hand } from '../../src/core/showing/window-talk'
import { hearthH1 } from '../../src/lab/device/sheet'
import { wordsOf } from '../../src/lab/fronts/hearth/words'
import { Lab } from '../../src/lab/lab'
import { endBrowser } from '../../src/wire/browser/chromium'
import type { Lane } from '../../src/wire/host/host'
import { dialectOf } from '../../src/wire/registry'
import { UnitWindow } from '../../src/wire/window/unit-window'
import { sentence } from '../../src/words/en/sentence'
import { askingFor } from '../support/config'
import { regulatory } from '../support/data'
import { hands } from '../support/hands'
import { setHearth } from '../support/hearth-hands'
import { labLane } from '../support/lab-lane'
import { longIt } from '../support/long'

const macs = ['02:48:31:00:00:01', '02:48:31:00:00:02', '02:48:31:00:00:03', '02:48:31:00:00:04'] as const
const later = 'Hearth H1 of a later firmware'
const openPages = await dialectOf('pages')
const factory = { user: '', password: '' }
const keeper = { user: 'admin', password: 'Strong-password-1' }

let lab: Lab
const laneTo = (mac: string): Lane => labLane(() => lab, mac, { address: '192.168.18.1', source: '192.168.18.254' })

beforeEach(async () => {
  const shelf = macs.map((mac, index) => ({ model: index < 2 ? 'Hearth H1' : later, mac, serial: `H1-${index}` }))
  const variants = new Map([[later, { ...hearthH1, firmware: '2.2.0' }]])
  lab = await Lab.open({ pace: 10, regulatory, shelf, variants })
  lab.plugInAll()
  await expect.poll(() => lab.units().every(({ serviceIsUp }) => serviceIsUp)).toBe(true)
})
afterEach(() => lab.close())
afterAll(() => endBrowser())

const asking = { ...askingFor('Ostrel O-40'), card: bareCard('Hearth H1') }
const spoken = spokenOf(asking)
const device = (mac: string) => lab.plugged(mac).unit

/** Sets a unit by hand, from its box to where its changes are put into effect. @returns the card that came of it */
async function shownOn(mac: string): Promise<string> {
  const value = (id: string, of = ''): string => {
    const found = spoken.find((each) => each.id === id && (of === '' || each.of === of))
    return Array.isArray(found?.value) ? found.value.join(' ') : String(found?.value)
  }
  const [network] = asking.brief.networks
  if (!network) throw new Error('it has a network')
  const showing: Showing = { mac, spoken, factory, putIn: [] }
  const door = { scheme: 'https', port: 443 } as const
  const window = await UnitWindow.open(
    laneTo(mac),
    async () => {},
    door,
    async () => {},
  )
  let record = nothingShown
  await window.noteHands((noted) => {
    record = withNoted(record, noted, showing)
  })
  const act = (hand: Hand): void => window.act(hand as Parameters<typeof window.act>[0])
  const h = hands({ act, placeOf: (at) => window.placeOf(at) })
  const words = wordsOf(device(mac).firmware)
  try {
    await setHearth(h, { value, put: (by, id, of) => h.type(by, value(id, of)), network, words })
    await expect.poll(() => device(mac).changes.standing).toBe('applying')
  } finally {
    await window.close('by-hand')
  }
  // What it is first called is asked about, and always so.
  const first = record.acts.find(({ label }) => label.startsWith(words.firstNet))?.number ?? 0
  record = answered(record, first, { kind: 'always', text: record.texts[first] ?? '' })
  const { yaml, missing } = shownCard(record, {
    ...{ model: 'Hearth H1', mac, address: '192.168.18.1', ...door, factory, spoken },
  })
  expect(missing, yaml).toEqual([])
  const own = [
    'admin.password',
    'network.passphrase',
    'network.ssid',
    'unit.name',
    'unit.location',
    'management.address',
  ]
  for (const { id, value: held } of spoken)
    if (own.includes(id) && held !== '') expect(yaml).not.toContain(String(held))
  return yaml
}

function cardIn(yaml: string): DirectCard {
  const reading = readKitCard(yaml)
  if (!reading.ok) throw new Error(`${JSON.stringify(reading.faults)}\n${yaml}`)
  return reading.card as DirectCard
}

/** Sets a unit by a card alone, as a muster does it, step by step. @returns what is otherwise than asked afterwards */
async function follows(mac: string, yaml: string): Promise<string[]> {
  const card = cardIn(yaml)
  const desired = desiredOf({ ...asking, card })
  const unit = openPages(laneTo(mac), card, async () => {}, desired)
  try {
    await unit.signIn(factory, keeper)
    for (const step of ['country', 'clock', 'networks', 'radios', 'services', 'address'] as const) {
      const differences = compare(desired, await unit.read('configured')).filter((each) => stepOf(each) === step)
      if (differences.length > 0) await unit.write(differences, desired)
    }
    const left = compare(desired, await unit.read('configured')).flatMap((each) =>
      each.kind === 'value' ? (each.id === 'network.passphrase' ? [] : [keyText(each)]) : [sentence(each)],
    )
    await unit.staging?.apply()
    await expect.poll(() => device(mac).changes.standing).toBe('applying')
    return left
  } finally {
    unit.close()
  }
}

it('becomes a card that holds nothing of the site, and sets the next unit', async () => {
  const [first, second] = macs
  expect(await follows(second, await shownOn(first))).toEqual([])
})

longIt(
  'writes nothing where a later firmware calls things otherwise, and serves both once that was shown too',
  async () => {
    const [first, second, third, fourth] = macs
    const card = await shownOn(first)
    const before = device(third).configured
    const unit = openPages(laneTo(third), cardIn(card), async () => {}, desiredOf({ ...asking, card: cardIn(card) }))
    await expect(unit.signIn(factory, keeper)).rejects.toMatchObject({ kind: expect.stringMatching(/garbled|timeout/) })
    unit.close()
    expect(device(third).configured).toEqual(before)
    const both = mergedCard(card, await shownOn(third))
    expect(await follows(fourth, both)).toEqual([])
    expect(await follows(second, both)).toEqual([])
  },
)
