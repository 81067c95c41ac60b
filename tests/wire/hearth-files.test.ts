/**
 * What no card sets, by hand in a window: a copy that a page offers, a copy that it takes over, a list that fills in
 * late.
 */
import { afterAll, afterEach, beforeEach, expect } from 'vitest'
import type { Told } from '../../src/core/showing/window-talk'
import { wordsOf } from '../../src/lab/fronts/hearth/words'
import { Lab } from '../../src/lab/lab'
import { endBrowser } from '../../src/wire/browser/chromium'
import type { PageFile } from '../../src/wire/window/page-files'
import { UnitWindow } from '../../src/wire/window/unit-window'
import { regulatory } from '../support/data'
import { hands } from '../support/hands'
import { labLane } from '../support/lab-lane'
import { longIt as it } from '../support/long'

const mac = '02:48:31:00:00:01'
const keeper = { user: 'keeper', word: 'a long enough password' }
const door = { scheme: 'https', port: 443 } as const
let lab: Lab
let window: UnitWindow
const told: Told[] = []
const files: PageFile[] = []
const lane = labLane(() => lab, mac, { address: '192.168.18.1', source: '192.168.18.254' })
const device = () => lab.plugged(mac).unit

beforeEach(async () => {
  lab = await Lab.open({ pace: 10, regulatory, shelf: [{ model: 'Hearth H1', mac, serial: 'H1-1' }] })
  lab.plugInAll()
  await expect.poll(() => device().serviceIsUp).toBe(true)
  // Its wizard is met elsewhere.
  const { configured } = device()
  const admin = { users: [keeper.user], administrators: [keeper.user] }
  device().configure({ ...configured, ...admin, country: 'NZ' }, new Map([[keeper.user, keeper.word]]))
  const keep = async (file: PageFile): Promise<void> => void files.push(file)
  window = await UnitWindow.open(lane, async () => {}, door, keep)
  window.watch({ told: (each) => told.push(each), picture: () => undefined })
})
afterEach(async () => {
  await window.close('by-hand')
  await lab.close()
})
afterAll(() => endBrowser())

it('are kept, given back, and waited for', async () => {
  const words = wordsOf(device().firmware)
  const act = (hand: Parameters<typeof window.act>[0]): void => window.act(hand)
  const h = hands({ act: act as never, placeOf: (at) => window.placeOf(at) })
  await h.type({ label: words.user }, keeper.user)
  await h.type({ label: words.word }, keeper.word)
  await h.press({ text: words.enter })
  await h.press({ text: words.clients })
  await h.sees({ text: words.nobody })

  await h.press({ text: words.system })
  await h.press({ text: words.copy })
  await expect.poll(() => files).toHaveLength(1)
  const [copy] = files
  if (!copy) throw new Error('nothing is kept')
  expect(copy.name).toBe('hearth-024831000001.json')
  device().configure({ ...device().configured, name: 'changed' })

  await h.give({ label: words.load })
  const asked = () => told.findLast((each) => each.kind === 'wants-file')
  await expect.poll(asked).toBeDefined()
  const question = asked()
  if (question?.kind === 'wants-file') await window.give(question.question, copy)
  await h.press({ text: words.takeOver })
  await expect.poll(() => device().configured.name).toBe('h1-0001')

  // What is no image is refused in its own words, and changes nothing.
  await h.give({ label: words.firmware })
  await expect.poll(() => asked() !== question).toBe(true)
  const another = asked()
  if (another?.kind === 'wants-file') await window.give(another.question, copy)
  await h.press({ text: words.install })
  await h.sees({ text: 'it is no image' })
  expect(device().firmware).toBe('2.1.0')
})
