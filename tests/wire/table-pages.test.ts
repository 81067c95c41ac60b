/**
 * The pages dialect against pages as bad as they come: drawn by script, nothing with a name that stays, both radios on
 * one page, networks as rows of a table, a frame, and whoever comes first makes the admin.
 */

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, afterEach, beforeEach, expect } from 'vitest'
import { compare, stepOf } from '../../src/core/config/compare'
import { desiredOf } from '../../src/core/config/compile'
import { type Clear, type Config, keyText } from '../../src/core/config/unit-config'
import { type DirectCard, readKitCard } from '../../src/core/kit/kit-card'
import { Lab } from '../../src/lab/lab'
import { endBrowser } from '../../src/wire/browser/chromium'
import type { Dialect } from '../../src/wire/dialect/dialect'
import { dialectOf } from '../../src/wire/registry'
import { sentence } from '../../src/words/en/sentence'
import { askingFor } from '../support/config'
import { regulatory } from '../support/data'
import { labLane } from '../support/lab-lane'
import { longIt as it } from '../support/long'

const mac = '02:48:31:00:00:01'
const yaml = readFileSync(join(import.meta.dirname, '../support/cards/hearth-h1.yaml'), 'utf8')
const reading = readKitCard(yaml)
if (!reading.ok) throw new Error(JSON.stringify(reading.faults, null, 1))
const card = reading.card as DirectCard
const openPages = await dialectOf('pages')
const boxed = { user: '', password: '' }
const keeper = { user: 'keeper', password: 'a long enough password' }

let lab: Lab
const opened: Dialect[] = []
const device = () => lab.plugged(mac).unit
const lane = labLane(() => lab, mac, { address: '192.168.18.1', source: '192.168.18.254' })
const open = (desired: Config<Clear> | undefined): Dialect => {
  const dialect = openPages(lane, card, async () => {}, desired)
  opened.push(dialect)
  return dialect
}
const desired = desiredOf({ ...askingFor('Pellworth P6'), card })

beforeEach(async () => {
  // A session that nobody uses ends after three minutes of the lab's, and a browser turns so many pages a second.
  lab = await Lab.open({ pace: 20, regulatory, shelf: [{ model: 'Hearth H1', mac, serial: 'H1-1' }] })
  lab.plugInAll()
  await expect.poll(() => device().serviceIsUp).toBe(true)
})
afterEach(async () => {
  for (const dialect of opened.splice(0)) dialect.close()
  await lab.close()
})
afterAll(() => endBrowser())

it('makes the admin where nobody has, and keeps all that is written', async () => {
  const unit = open(desired)
  expect(await unit.identify()).toEqual({ title: 'Hearth H1' })
  await expect(unit.signIn(keeper)).rejects.toMatchObject({ kind: 'refused' })
  await unit.signIn(boxed, keeper)
  expect(unit.madeLogin?.()).toEqual(keeper)
  expect(device().configured).toMatchObject({ country: 'NZ', users: ['keeper'] })
  expect(device().accepts('keeper', keeper.password)).toBe(true)
  for (const step of ['country', 'clock', 'networks', 'radios', 'services', 'address'] as const) {
    const differences = compare(desired, await unit.read('configured')).filter((each) => stepOf(each) === step)
    if (differences.length > 0) await unit.write(differences, desired)
  }
  const hidden = new Set<string>(['network.passphrase', 'clock.time', 'unit.firmware'])
  const left = compare(desired, await unit.read('configured')).flatMap((each) =>
    each.kind === 'value' ? (hidden.has(each.id) ? [] : [keyText(each)]) : [sentence(each)],
  )
  expect(left).toEqual([])
  const [network] = Object.values(desired.networks)
  for (const { passphrase, on } of device().configured.networks)
    expect({ passphrase, on }).toEqual({ passphrase: network?.['network.passphrase'], on: true })
  expect(await unit.staging?.standing()).toBe('waiting')
  await unit.staging?.apply()
  await expect.poll(() => device().changes.standing).toBe('applying')
})
