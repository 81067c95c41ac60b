/**
 * Access points as rows of a controller's pages, in Chromium: one that has found it is taken in, set and read back, and
 * a state that nobody has described is never guessed.
 */

import { afterAll, afterEach, beforeEach, expect } from 'vitest'
import { compare } from '../../src/core/config/compare'
import { desiredOf } from '../../src/core/config/compile'
import { type DirectCard, type KitCard, readKitCard } from '../../src/core/kit/kit-card'
import { asTold } from '../../src/core/message/message'
import { Lab } from '../../src/lab/lab'
import { endBrowser } from '../../src/wire/browser/chromium'
import type { RowsController } from '../../src/wire/dialect/managed/controller'
import { managed } from '../../src/wire/dialect/managed/managed'
import { controllerPages } from '../../src/wire/dialect/pages/pages'
import { askingFor } from '../support/config'
import { regulatory } from '../support/data'
import { hearthCard, hearthTwoCard } from '../support/hearth'
import { labLane } from '../support/lab-lane'
import { shortIt as it, longIt } from '../support/long'

const [controllerMac, mac] = ['02:48:31:00:00:01', '02:48:32:00:00:02']
const cardIn = (yaml: string): KitCard => {
  const reading = readKitCard(yaml)
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults, null, 1))
  return reading.card
}
const card = cardIn(hearthTwoCard)
const boxed = { user: '', password: '' }
const keeper = { user: 'keeper', password: 'a long enough password' }
/** Its controller is at its factory address, and whoever is given one by DHCP finds it there. */
const dhcp = {
  prefix: 24,
  first: '192.168.18.100',
  last: '192.168.18.150',
  gateway: '192.168.18.2',
  dns: '192.168.18.2',
}

let lab: Lab
let controller: RowsController | undefined
const lane = labLane(() => lab, controllerMac, { address: '192.168.18.1', source: '192.168.18.254' })
const desired = desiredOf({ ...askingFor('Pellworth P6'), card })
const point = { mac, serial: 'H2-1', card }

beforeEach(async () => {
  const shelf = [
    { model: 'Hearth H1', mac: controllerMac, serial: 'H1-1' },
    { model: 'Hearth H2', mac, serial: 'H2-1' },
  ]
  lab = await Lab.open({ pace: 20, regulatory, shelf, dhcp })
  lab.plugInAll()
  await expect.poll(() => lab.units().every((unit) => unit.serviceIsUp)).toBe(true)
})
afterEach(async () => {
  controller?.close()
  await lab.close()
})
afterAll(() => endBrowser())

async function signedIn(yaml = hearthCard): Promise<RowsController> {
  const desiredOfController = desiredOf({ ...askingFor('Pellworth P6'), card: cardIn(yaml) })
  const own = cardIn(yaml) as DirectCard & Parameters<typeof controllerPages>[1]
  controller = controllerPages(lane, own, async () => {}, desiredOfController)
  await controller.signIn(boxed, keeper)
  return controller
}

it('are taken in, told what they are to be, and show it', async () => {
  const session = await signedIn()
  const unit = managed(point, (work) => work(session), 'rows')
  await expect.poll(() => unit.joining()).toMatchObject({ join: 'turned-away', reason: 'not-listed' })
  expect(await unit.read('configured')).toMatchObject({ unit: {}, radios: {} })
  await unit.takeIn?.()
  await unit.takeIn?.()
  // A controller out of its box does not know what day it is.
  await expect.poll(() => unit.joining()).toMatchObject({ join: 'turned-away', reason: 'clock' })
  const own = { ...desired, networks: {} }
  const differences = compare(own, { ...(await unit.read('configured')), networks: {} })
  expect(differences.length).toBeGreaterThan(8)
  await unit.write(differences, own)
  expect(compare(own, { ...(await unit.read('in-effect')), networks: {} })).toEqual([])
  expect(await unit.joining()).toMatchObject({ name: desired.unit['unit.name'] })
  const { points } = lab.plugged(controllerMac).unit.effective
  expect(points).toMatchObject([{ mac, name: desired.unit['unit.name'] }])
  // Networks are its controller's, and none of them is changed for one unit.
  const network = { kind: 'value', id: 'network.ssid', of: 'crew', ...asTold('') } as const
  await expect(unit.write([network], desired)).rejects.toMatchObject({ kind: 'rejected' })
})

longIt('whose state is called otherwise than the card says are not guessed', async () => {
  const session = await signedIn(hearthCard.replace('Waiting for you: not-listed', 'Waiting: not-listed'))
  const unit = managed(point, (work) => work(session), 'rows')
  await expect.poll(() => unit.joining()).toMatchObject({ join: 'unknown', said: 'Waiting for you' })
})
