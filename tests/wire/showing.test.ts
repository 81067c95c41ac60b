/** The first unit is set by hand in its window; what hands showed becomes a card, and the next is set by that. */
import { connect } from 'node:net'
import { afterAll, afterEach, beforeEach, expect, it } from 'vitest'
import { compare, stepOf } from '../../src/core/config/compare'
import { desiredOf } from '../../src/core/config/compile'
import { spokenOf } from '../../src/core/config/outcomes'
import { keyText } from '../../src/core/config/unit-config'
import { bareCard } from '../../src/core/kit/bare-card'
import { type DirectCard, readKitCard } from '../../src/core/kit/kit-card'
import { answered, nothingShown, type Showing, withNoted } from '../../src/core/showing/record'
import { shownCard } from '../../src/core/showing/shown-card'
import { Lab } from '../../src/lab/lab'
import { endBrowser } from '../../src/wire/chromium'
import { dialectOf } from '../../src/wire/dialect/registry'
import type { Lane } from '../../src/wire/host/host'
import { UnitWindow } from '../../src/wire/window/unit-window'
import { WireError } from '../../src/wire/wire-error'
import { askingFor } from '../support/config'
import { regulatory } from '../support/data'
import { hands } from '../support/hands'
import { setHearth } from '../support/hearth-hands'

const macs = ['02:48:31:00:00:01', '02:48:31:00:00:02'] as const
const openPages = await dialectOf('pages')
const factory = { user: '', password: '' }
const keeper = { user: 'admin', password: 'Strong-password-1' }

let lab: Lab
const laneTo = (mac: string): Lane => ({
  ...{ mac, address: '192.168.18.1', prefix: 24, source: '192.168.18.254' },
  connect: (port) => {
    const behind = lab.plugged(mac).front.loopbackPort(port)
    if (behind === undefined) throw new WireError('unreachable', `port ${port} is shut`)
    return new Promise((resolve, reject) => {
      const socket = connect(behind, '127.0.0.1', () => resolve(socket))
      socket.once('error', (cause) => reject(new WireError('unreachable', cause.message)))
    })
  },
  datagrams: () => Promise.reject(new Error('it takes none')),
  ping: async () => true,
  close: async () => {},
})

beforeEach(async () => {
  const shelf = macs.map((mac, index) => ({ model: 'Hearth H1', mac, serial: `H1-${index}` }))
  lab = await Lab.open({ pace: 10, regulatory, shelf })
  lab.plugInAll()
  await expect.poll(() => lab.units().every(({ serviceIsUp }) => serviceIsUp)).toBe(true)
})
afterEach(() => lab.close())
afterAll(() => endBrowser())

it('becomes a card that holds nothing of the site, and sets the next unit', async () => {
  const asking = { ...askingFor('Ostrel O-40'), card: bareCard('Hearth H1') }
  const spoken = spokenOf(asking)
  const value = (id: string, of = ''): string => {
    const found = spoken.find((each) => each.id === id && (of === '' || each.of === of))
    return Array.isArray(found?.value) ? found.value.join(' ') : String(found?.value)
  }
  const [network] = asking.brief.networks
  const [mac] = macs
  const showing: Showing = { mac, spoken, factory, putIn: [] }
  const window = await UnitWindow.open(
    laneTo(mac),
    async () => {},
    { scheme: 'https', port: 443 },
    async () => {},
  )
  let record = nothingShown
  await window.noteHands((noted) => {
    record = withNoted(record, noted, showing)
  })
  const h = hands({
    act: (hand) => window.act(hand as never),
    placeOf: (at) => window.placeOf(at),
  })
  try {
    await setHearth(h, { value, put: (by, id, of) => h.type(by, value(id, of)), network: network as never })
    await expect.poll(() => lab.plugged(mac).unit.changes.standing).toBe('applying')
  } finally {
    await window.close('by-hand')
  }
  // What it is first called is asked about, and always so.
  const first = record.acts.find(({ label }) => label.startsWith('Name of your first network'))?.number ?? 0
  record = answered(record, first, { kind: 'always', text: record.texts[first] ?? '' })
  const { yaml, missing } = shownCard(record, {
    ...{ model: 'Hearth H1', mac, address: '192.168.18.1', scheme: 'https', port: 443 },
    factory,
  })
  expect(missing, yaml).toEqual([])
  const reading = readKitCard(yaml)
  expect(reading.ok ? [] : reading.faults, yaml).toEqual([])
  if (!reading.ok) return
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
  // The next, by the card alone.
  const card = reading.card as DirectCard
  const desired = desiredOf({ ...asking, card })
  const unit = openPages(laneTo(macs[1]), card, async () => {}, desired)
  try {
    await unit.signIn(factory, keeper)
    for (const step of ['country', 'clock', 'networks', 'radios', 'services', 'address'] as const) {
      const differences = compare(desired, await unit.read('configured')).filter((each) => stepOf(each) === step)
      if (differences.length > 0) await unit.write(differences, desired)
    }
    const left = compare(desired, await unit.read('configured')).flatMap((each) =>
      each.kind === 'value' ? (each.id === 'network.passphrase' ? [] : [keyText(each)]) : [each.sentence],
    )
    expect(left, yaml).toEqual([])
    await unit.apply()
    await expect.poll(() => lab.plugged(macs[1]).unit.changes.standing).toBe('applying')
  } finally {
    unit.close()
  }
})
