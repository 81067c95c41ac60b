/**
 * The web client of deluge, four of it at one address: the first is shown by hand in its window, the others follow by
 * the card that came of it. The port of its pages plays the part of a channel, the time after which it signs out that
 * of a power, and its password is its own.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Clear, Config } from '../../src/core/config/unit-config'
import { endBrowser } from '../../src/wire/browser/chromium'
import { deluge, delugeLogin } from '../support/peers/deluge'
import { type PeerBench, peerBench } from '../support/peers/peer-bench'
import { follows, type Hands, type PeerUnit, shownOn } from '../support/peers/shown'

let bench: PeerBench

beforeAll(async () => {
  bench = await peerBench(deluge, 4)
})
afterAll(async () => {
  await endBrowser()
  bench?.close()
})

const desiredOf = (index: number): Config<Clear> => ({
  unit: { 'admin.user': '', 'admin.password': 'Ours-since-today-7' },
  networks: {},
  radios: { '5': { 'radio.channel': 149 + 4 * index, 'radio.power': 60 + index } },
})
const unit = (index: number): PeerUnit => ({
  ...{ lane: bench.lane(index), port: 8112, factory: delugeLogin, desired: desiredOf(index) },
})

async function show({ press, put, type, sees, gone }: Hands): Promise<void> {
  await type({ label: 'Password' }, delugeLogin.password)
  await press({ text: 'Login' })
  await press({ text: 'No' })
  await press({ text: 'Close' })
  await press({ text: 'Preferences' })
  await press({ text: 'Interface' })
  await put({ label: 'Session Timeout' }, 'radio.power', '5')
  await put({ label: 'Port' }, 'radio.channel', '5')
  await press({ text: 'Apply' })
  await sees({ text: 'Preferences' })
  await type({ label: 'Old' }, delugeLogin.password)
  await put({ label: 'New' }, 'admin.password')
  await put({ label: 'Confirm' }, 'admin.password')
  await press({ text: 'OK' })
  await gone('type', { label: 'Session Timeout' })
}

it('is shown once, and the others follow', async () => {
  const { yaml, missing } = await shownOn(unit(0), show)
  expect(missing).toEqual([{ code: 'no-address' }])
  for (const index of [1, 2, 3]) {
    expect(await follows(unit(index), yaml)).toEqual([])
    const kept = readFileSync(join(bench.folder(index), 'web.conf'), 'utf8')
    expect(kept).toMatch(new RegExp(`"port": ${149 + 4 * index},`))
    expect(kept).toMatch(new RegExp(`"session_timeout": ${60 + index},`))
  }
})
