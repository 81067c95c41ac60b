/**
 * The web client of transmission, four of it at one address: the first is shown by hand in its window, the others
 * follow by the card that came of it. The folder for what it takes plays the part of a location, a port that of a
 * channel.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Clear, Config } from '../../src/core/config/unit-config'
import { endBrowser } from '../../src/wire/browser/chromium'
import { type PeerBench, peerBench } from '../support/peers/peer-bench'
import { follows, type Hands, type PeerUnit, shownOn } from '../support/peers/shown'
import { transmission, transmissionLogin } from '../support/peers/transmission'

let bench: PeerBench

beforeAll(async () => {
  bench = await peerBench(transmission, 4)
})
afterAll(async () => {
  await endBrowser()
  bench?.close()
})

const desiredOf = (index: number): Config<Clear> => ({
  unit: { 'unit.location': `/srv/hall-${index + 1}` },
  networks: {},
  radios: { '5': { 'radio.channel': 36 + 4 * index, 'radio.power': 11 + index } },
})
const unit = (index: number): PeerUnit => ({
  ...{ lane: bench.lane(index), port: 9091, factory: transmissionLogin, desired: desiredOf(index) },
})

async function show({ logIn, press, put, tick, gone }: Hands): Promise<void> {
  await logIn()
  await press({ label: 'Edit Preferences…' })
  await put({ label: 'Download to' }, 'unit.location')
  await press({ text: 'Speed' })
  await tick({ label: 'Upload (kB/s)' })
  await put({ id: 'speed-limit-up' }, 'radio.power', '5')
  await press({ text: 'Network' })
  await put({ label: 'Peer listening port' }, 'radio.channel', '5')
  await press({ text: 'close' })
  await gone('type', { label: 'Peer listening port' })
}

it('is shown once, and the others follow', async () => {
  const { yaml, missing } = await shownOn(unit(0), show)
  expect(missing).toEqual([{ code: 'no-address' }])
  for (const index of [1, 2, 3]) {
    expect(await follows(unit(index), yaml)).toEqual([])
    expect(await bench.ended(index)).toBe(0)
    // It writes its file when it ends.
    const kept = JSON.parse(readFileSync(join(bench.folder(index), 'settings.json'), 'utf8'))
    expect(kept).toMatchObject({ 'download-dir': `/srv/hall-${index + 1}`, 'peer-port': 36 + 4 * index })
    expect(kept).toMatchObject({ 'speed-limit-up': 11 + index, 'speed-limit-up-enabled': true })
  }
})
