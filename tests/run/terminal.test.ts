/** A unit that has a prompt and no pages: its window is a terminal, and a muster waits for it like for any other. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, expect, it } from 'vitest'
import type { Runner } from '../../src/runner/runner'
import { serveWindows } from '../../src/runner/window/window-server'
import { type Bench, openBench } from '../support/bench'
import { windowOver } from '../support/window-stream'

const mac = '02:b7:1c:10:6a:2c'
const folder = mkdtempSync(join(tmpdir(), 'air-muster-terminal-'))
const socketPath = join(folder, 'window.sock')
let bench: Bench
let server: Awaited<ReturnType<typeof serveWindows>> | undefined
afterEach(async () => {
  server?.close()
  await bench.close()
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const { stream, send } = windowOver(socketPath, () => `/${bench.jobId}/hall-01?by=Kea`)

it('is signed in to by a login of the job, takes values that are put in, and keeps a muster waiting', async () => {
  bench = await openBench({
    pace: 200,
    change: (job) => {
      job.units = job.units.slice(0, 1).map((unit) => ({ ...unit, model: 'Brackwater B7', mac }))
    },
  })
  let runner: Runner | undefined
  bench.startRunner({
    given: (started) => {
      runner = started
    },
  })
  if (!runner) throw new Error('no runner')
  server = await serveWindows(runner.windows, socketPath)
  await expect.poll(() => bench.lab.plugged(mac).unit.serviceIsUp).toBe(true)

  const window = await stream()
  const printed = () => window.told.map((each) => (each.kind === 'prints' ? each.text : '')).join('')
  const asked = () => window.told.flatMap((each) => (each.kind === 'wants-login' ? [each.question] : []))
  await expect.poll(() => window.told).toMatchObject([{ kind: 'terminal', over: 'ssh' }, { kind: 'wants-login' }])
  await send('POST', [{ kind: 'login', question: asked()[0], user: 'field', password: 'not this one' }])
  await expect.poll(() => window.told).toContainEqual(expect.objectContaining({ kind: 'failed', code: 'refused' }))
  await expect.poll(() => asked().length).toBe(2)
  await send('POST', [{ kind: 'login-as', question: asked()[1], as: 'factory' }])
  await expect.poll(printed).toMatch(/[:#] $/)

  await send('POST', [
    { kind: 'text', text: 'call ' },
    { kind: 'put-in', id: 'unit.name', of: '' },
    { kind: 'text', text: '\r' },
  ])
  await expect.poll(() => bench.lab.plugged(mac).unit.effective.name).toBe('hall-01')
  await bench.order()
  const row = async () => (await bench.roll()).rows.get('hall-01')
  await expect.poll(async () => (await row())?.steps.reach).toMatchObject({ kind: 'waiting' })

  // The password that it is to have opens the next session.
  await send('POST', [
    { kind: 'text', text: 'login field secret ' },
    { kind: 'put-in', id: 'admin.password', of: '' },
    { kind: 'text', text: '\r' },
    { kind: 'reload' },
  ])
  await expect.poll(() => asked().length).toBe(3)
  const before = printed().length
  await send('POST', [{ kind: 'login-as', question: asked()[2], as: 'to-be' }])
  await expect.poll(() => printed().slice(before)).toContain('hall-01 #')
  expect(await send('DELETE')).toBe(204)
  await bench.settled()
})
