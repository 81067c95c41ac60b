/** A unit by hand, through its window: never while it is mustered, and no muster while hands work on it. */

import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, beforeEach, expect, it } from 'vitest'
import type { JobDocument } from '../../src/core/job/job-document'
import type { MusterEvent } from '../../src/core/muster/events'
import { answers } from '../../src/core/muster/roll'
import type { Hand, Told } from '../../src/core/showing/window-talk'
import { fromPages } from '../../src/jobs/installation'
import { trustNewCertificate } from '../../src/jobs/order'
import { UnitTurns } from '../../src/runner/order/unit-turns'
import { AwakeClock } from '../../src/runner/ports/awake-clock'
import { storedRecords } from '../../src/runner/ports/stored-records'
import type { Runner } from '../../src/runner/runner'
import { WindowDesk } from '../../src/runner/window/window-desk'
import { serveWindows } from '../../src/runner/window/window-server'
import { findJob } from '../../src/store/jobs'
import { forgetPin, pinOnFirstSight } from '../../src/store/secrets'
import { endBrowser } from '../../src/wire/browser/chromium'
import { labHost } from '../../src/wire/host/lab'
import { wireSessions } from '../../src/wire/wire-sessions'
import { sentence } from '../../src/words/en/sentence'
import { type Bench, openBench } from '../support/bench'
import { plainP6 } from '../support/plain-p6'
import { wholeBrief } from '../support/whole-brief'
import { windowOver } from '../support/window-stream'

const mac = '02:50:36:10:6a:2c'
const folder = mkdtempSync(join(tmpdir(), 'air-muster-window-'))
const socketPath = join(folder, 'window.sock')
const office = (job: JobDocument): void => {
  const [unit] = job.units
  if (unit) job.units = [{ ...unit, model: plainP6.twin, mac }]
  job.cards = [plainP6.card]
  job.brief = { ...wholeBrief, networks: wholeBrief.networks.map((each) => ({ ...each, security: 'wpa2-personal' })) }
}

let bench: Bench
let server: Awaited<ReturnType<typeof serveWindows>>
let desk: WindowDesk
beforeEach(async () => {
  bench = await openBench({ change: office, pace: 60, lab: { variants: plainP6.variants } })
  let runner: Runner | undefined
  bench.startRunner({
    given: (started) => {
      runner = started
    },
  })
  if (!runner) throw new Error('no runner')
  desk = runner.windows
  server = await serveWindows(desk, socketPath)
  await expect.poll(() => bench.lab.plugged(mac).unit.serviceIsUp).toBe(true)
})
afterEach(async () => {
  server.close()
  await bench.close()
})
afterAll(async () => {
  await endBrowser()
  rmSync(folder, { recursive: true, force: true })
})

const { stream, send } = windowOver(socketPath, () => `/${bench.jobId}/hall-01?by=Kea`)
const row = async () => (await bench.roll()).rows.get('hall-01')
const log = async () => (await row())?.log.map(sentence) ?? []

it('shows the pages of a unit at its factory address, keeps a muster waiting until it is closed', async () => {
  const first = await stream()
  expect(first.status).toBe(200)
  await expect.poll(() => first.told).toMatchObject([{ kind: 'at', address: expect.stringContaining('192.168') }])
  await expect.poll(() => first.pictures).toBeGreaterThan(0)
  expect(await log()).toContain('its window was opened by Kea')
  // A second look is at the same window.
  const second = await stream()
  await expect.poll(() => second.pictures).toBeGreaterThan(0)

  // A browser on this machine finds the same pages, as long as the window is open.
  expect(await send('POST', [{ kind: 'own-lane' }])).toBe(204)
  const lane = () => first.told.flatMap((each) => (each.kind === 'own-lane' ? [each.address] : []))[0]
  await expect.poll(lane).toMatch(/^http:\/\/127\.\d+\.\d+\.\d+:\d+\/$/)
  expect(await (await fetch(lane() ?? '')).text()).toContain('Pellworth')

  await bench.order()
  await expect.poll(async () => (await row())?.steps.reach).toMatchObject({ kind: 'waiting' })
  expect((await row())?.steps.reach).toMatchObject({
    waitingFor: { code: 'window-open-by', params: { name: 'Kea' } },
  })
  const hand: Hand = { kind: 'pointer', phase: 'move', x: 5, y: 5, button: 'none', presses: 1, modifiers: 0 }
  expect(await send('POST', [hand])).toBe(204)
  expect(await send('POST', [{ kind: 'pointer', x: -4 }])).toBe(400)
  expect(await send('DELETE')).toBe(204)
  await expect
    .poll(() => [first, second].map(({ told }) => told.at(-1)))
    .toMatchObject([
      { kind: 'closed', why: 'by-hand' },
      { kind: 'closed', why: 'by-hand' },
    ])
  expect(await send('POST', [hand])).toBe(410)
  await expect(fetch(lane() ?? '')).rejects.toThrow()
  await bench.settled()
  expect(answers(await row()), JSON.stringify(await row())).toBe(true)
  expect(await log()).toContain('its window was closed')

  // Nothing is sent to a unit with another certificate, until somebody says that it was reset.
  const { store, jobId } = bench
  await forgetPin(store, jobId, mac)
  await pinOnFirstSight(store, jobId, mac, 'AA:BB:CC', new Date())
  const third = await stream()
  await expect.poll(() => third.told).toContainEqual(expect.objectContaining({ kind: 'failed', code: 'untrusted' }))
  const job = await findJob(store, bench.job.slug)
  if (!job) throw new Error('no job')
  expect(await trustNewCertificate(store, job, 'hall-01', 'nothing', fromPages)).toMatchObject({ ok: true })
  expect(await send('POST', [{ kind: 'go', address: '/' }])).toBe(204)
  await expect.poll(() => third.told.at(-1)).toMatchObject({ kind: 'at' })
})

it('is closed when no hand has touched it for long, and says so before', async () => {
  const [url, token] = [bench.env.AIR_MUSTER_LAB_URL ?? '', bench.env.AIR_MUSTER_LAB_TOKEN ?? '']
  const clock = new AwakeClock()
  const ending = new AbortController()
  const kept: MusterEvent[] = []
  const desk = new WindowDesk({
    ...{
      records: storedRecords(bench.store),
      sessions: wireSessions,
      host: labHost({ url, token }),
      clock,
      turns: new UnitTurns(),
    },
    tell: async (_job, event) => void kept.push(event),
    idle: { afterSeconds: 4, saidBeforeSeconds: 3 },
  })
  const on = { jobId: bench.jobId, unit: 'hall-01' }
  const told: Told[] = []
  const window = await desk.window(on, 'Kea')
  window.watch({ told: (each) => told.push(each), picture: () => undefined })
  const watching = desk.watchIdle(ending.signal)
  await expect.poll(() => told.at(-1)).toMatchObject({ kind: 'closing' })
  // A hand keeps it open, and it is said anew.
  await desk.act(on, [{ kind: 'text', text: 'x' }])
  await expect.poll(() => told.filter(({ kind }) => kind === 'closing').length).toBeGreaterThan(1)
  await expect.poll(() => told.at(-1)).toEqual({ kind: 'closed', why: 'idle' })
  await expect
    .poll(() => kept)
    .toMatchObject([
      { state: 'opened', by: 'Kea' },
      { state: 'closed', why: 'idle' },
    ])
  ending.abort()
  await watching
})

it('is not opened on a unit that is being mustered, nor on one that is not there', async () => {
  await bench.order()
  await expect.poll(async () => (await row())?.steps['sign-in']).toBeDefined()
  expect((await stream()).status).toBe(409)
  await bench.settled()
  const open = await stream()
  expect(open.status).toBe(200)
  await expect.poll(() => open.told).toMatchObject([{ kind: 'at', address: expect.stringContaining('10.44.8.20') }])
  await send('DELETE')
})

it('says when hands have given the unit its planned address, and opens there', async () => {
  const first = await stream()
  await expect.poll(() => first.told.at(-1)).toMatchObject({ kind: 'at' })
  const { unit } = bench.lab.plugged(mac)
  const { configured } = unit
  unit.configure({ ...configured, wired: { ...configured.wired, method: 'static', address: '10.44.8.20', prefix: 24 } })
  unit.apply()
  await expect.poll(() => first.told).toContainEqual({ kind: 'moved', address: '10.44.8.20' })
  expect(await send('DELETE')).toBe(204)
  await expect.poll(() => unit.serviceIsUp).toBe(true)
  const second = await stream()
  await expect.poll(() => second.told).toMatchObject([{ kind: 'at', address: expect.stringContaining('10.44.8.20') }])
})

it('puts a value into the field that had the focus then, whatever hands do while it is looked up', async () => {
  const on = { jobId: bench.jobId, unit: 'hall-01' }
  const window = await desk.window(on, 'Kea')
  const acted: Hand[] = []
  window.act = (hand) => void acted.push(hand)
  const key: Hand = { kind: 'key', phase: 'down', key: 'Tab', code: 'Tab', modifiers: 0 }
  await Promise.all([desk.act(on, [{ kind: 'put-in', id: 'unit.name', of: '' }]), desk.act(on, [key])])
  const all = (phase: 'down' | 'up'): Hand => ({ kind: 'key', phase, key: 'a', code: 'KeyA', modifiers: 2 })
  expect(acted).toEqual([all('down'), all('up'), { kind: 'text', text: 'hall-01' }, key])
  await desk.close(on)
})
