/** The demo as it is started and ended by people: twice, by Ctrl-C, after a crash, on a port that is taken. */
import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { afterEach, beforeAll, beforeEach, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
// @ts-expect-error the same
import { buildSiteIfStale } from '../../scripts/lib/site.mjs'
import { passingFolder } from '../support/passing-folder'

const root = join(import.meta.dirname, '../..')
let folder: string
const started: ChildProcess[] = []

beforeAll(async () => {
  await bundleIfStale()
  buildSiteIfStale()
})
beforeEach(() => {
  folder = passingFolder('air-muster-demo-')
})
afterEach(async () => {
  for (const child of started.splice(0)) await end(child)
  rmSync(folder, { recursive: true, force: true })
})

const environment = () => ({ ...process.env, AIR_MUSTER_DATA: folder, DISPLAY: '', WAYLAND_DISPLAY: '' })
const note = (): { pids: number[]; address: string; launcher: number } =>
  JSON.parse(readFileSync(join(folder, 'running.json'), 'utf8'))
const lives = (pid: number): boolean => {
  try {
    // A child that nobody has waited for yet is dead all the same.
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'))
  } catch {
    return false
  }
}

function start(...options: string[]): { child: ChildProcess; words: () => string; over: Promise<number | null> } {
  const child = spawn(process.execPath, [join(root, 'scripts/demo.mjs'), ...options], { cwd: root, env: environment() })
  started.push(child)
  let text = ''
  for (const stream of [child.stdout, child.stderr]) {
    stream?.on('data', (chunk) => {
      text += String(chunk)
    })
  }
  return { child, words: () => text, over: new Promise((resolve) => child.once('exit', resolve)) }
}

async function end(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return
  const gone = new Promise((resolve) => child.once('exit', resolve))
  child.kill('SIGINT')
  await gone
}

/** The page at an address with a key, as a browser opens it. */
async function opened(address: string): Promise<string> {
  const letIn = await fetch(address, { redirect: 'manual' })
  const cookie = letIn.headers.get('set-cookie')?.split(';')[0] ?? ''
  const next = /url=([^"]+)/.exec(await letIn.text())?.[1] ?? ''
  return (await fetch(new URL(next, address), { headers: { cookie } })).text()
}

const ready = (demo: { words: () => string }) =>
  expect.poll(demo.words).toContain('Air Muster is ready: http://127.0.0.1:')

it('serves its pages and the command line, says so to a second start, and ends every child on Ctrl-C', async () => {
  const demo = start('--port', '47810')
  await ready(demo)
  const { pids, address } = note()
  expect(pids).toHaveLength(4)
  expect(demo.words()).toContain(`Air Muster is ready: ${address}`)
  expect(await opened(address)).toContain('Port Ellery ferry terminal')
  const jobs = spawnSync(process.execPath, [join(root, 'bin/muster.mjs'), 'jobs'], {
    encoding: 'utf8',
    env: environment(),
  })
  expect(jobs.stdout).toBe(
    'port-ellery  Port Ellery ferry terminal, 0 of 4 answer\nport-ellery-whole  Port Ellery, all buildings, 0 of 33 answer, 3 by hand\n',
  )
  const rolled = spawnSync(process.execPath, [join(root, 'bin/muster.mjs'), 'roll', 'port-ellery', '--json'], {
    encoding: 'utf8',
    env: environment(),
  })
  expect(JSON.parse(rolled.stdout)).toMatchObject({
    job: 'port-ellery',
    muster: 'idle',
    units: [{ unit: 'hall-01', address: '10.44.8.20', answers: false }, {}, {}, {}],
  })
  const unknown = spawnSync(process.execPath, [join(root, 'bin/muster.mjs'), 'roll', 'nowhere'], {
    encoding: 'utf8',
    env: environment(),
  })
  expect(unknown.status).toBe(2)
  expect(unknown.stderr).toBe('There is no job "nowhere". There are: port-ellery, port-ellery-whole.\n')

  const second = start('--port', '47810')
  expect(await second.over).toBe(0)
  expect(second.words()).toContain(`The demo runs already: ${address}`)

  // Whatever is killed is started again at its address, and the same key opens it.
  for (const pid of pids) process.kill(pid, 'SIGKILL')
  await expect.poll(() => note().pids.filter((pid) => lives(pid) && !pids.includes(pid)).length).toBe(4)
  await expect.poll(() => opened(address).catch(() => '')).toContain('Port Ellery ferry terminal')
  const again = note().pids

  // As a terminal and npm do: the same signal twice.
  demo.child.kill('SIGINT')
  demo.child.kill('SIGINT')
  expect(await demo.over).toBe(0)
  expect([...pids, ...again].filter(lives)).toEqual([])
  expect(existsSync(join(folder, 'running.json'))).toBe(false)
})

it('cleans up after one that was killed, and takes another port where the wanted one is taken', async () => {
  const first = start('--port', '47820')
  await ready(first)
  const left = note()
  first.child.kill('SIGKILL')
  await first.over
  const squatter = createServer()
  await new Promise<void>((resolve) => squatter.listen({ port: 47830, host: '127.0.0.1' }, resolve))
  try {
    const second = start('--port', '47830')
    await ready(second)
    expect(left.pids.filter(lives)).toEqual([])
    const { address } = note()
    expect(address).not.toContain(':47830/')
    expect(await opened(address)).toContain('Port Ellery ferry terminal')
  } finally {
    squatter.close()
  }
})

it('refuses options that make no sense, before it starts anything', async () => {
  const demo = start('--pace', 'fast')
  expect(await demo.over).toBe(2)
  expect(demo.words()).toBe('--pace takes a number above 0 and at most 1000, not fast.\n')
  expect(existsSync(join(folder, 'mariadb'))).toBe(false)
})
