/** The demo as people start and end it: twice, after a crash, on a port that is taken, by Ctrl-C. */
import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { type AddressInfo, createServer } from 'node:net'
import { join } from 'node:path'
import { afterEach, beforeAll, beforeEach, expect } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
// @ts-expect-error the same
import { buildSiteIfStale } from '../../scripts/lib/site.mjs'
import { muster as command } from '../support/command'
import { shortIt as it, longIt } from '../support/long'
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

const ready = (demo: { words: () => string }) => expect.poll(demo.words).toContain('Air Muster is ready: http://127.')

/** It is ended as by a terminal and npm: by the same signal twice. */
async function leavesNothing({ child, over }: ReturnType<typeof start>, pids: readonly number[]): Promise<void> {
  child.kill('SIGINT')
  child.kill('SIGINT')
  expect(await over).toBe(0)
  expect(pids.filter(lives)).toEqual([])
  expect(existsSync(join(folder, 'running.json'))).toBe(false)
}

it('serves its pages and the command line, says so to a second start, and leaves nothing behind', async () => {
  const first = start('--port', '47810')
  await ready(first)
  const { pids, address } = note()
  expect(pids).toHaveLength(4)
  expect(first.words()).toContain(`Air Muster is ready: ${address}`)
  await expect.poll(() => opened(address)).toContain('Port Ellery ferry terminal')
  const rolled = spawnSync(process.execPath, [join(root, 'bin/muster.mjs'), 'roll', 'port-ellery', '--json'], {
    encoding: 'utf8',
    env: environment(),
  })
  expect(JSON.parse(rolled.stdout)).toMatchObject({
    job: 'port-ellery',
    muster: 'idle',
    units: [{ unit: 'hall-01', address: '10.44.8.20', answers: false }, {}, {}, {}],
  })
  const muster = (...words: string[]) => command({ AIR_MUSTER_DATA: folder, AIR_MUSTER_DB: '' }, ...words)
  expect((await muster('jobs')).out).toBe(
    [
      'port-ellery  Port Ellery ferry terminal, 0 of 4 answer\n',
      'port-ellery-whole  Port Ellery, all buildings, 0 of 36 answer, 3 by hand\n',
    ].join(''),
  )
  expect(await muster('roll', 'nowhere')).toMatchObject({
    status: 2,
    err: 'There is no job "nowhere". There are: port-ellery, port-ellery-whole.\n',
  })

  const second = start('--port', '47810')
  expect(await second.over).toBe(0)
  expect(second.words()).toContain(`The demo runs already: ${address}`)

  await leavesNothing(first, pids)
})

longIt(
  'outlives its parts, and cleans up after one that was killed, on another port where its own is taken',
  async () => {
    const first = start('--port', '47820')
    await ready(first)
    const { pids, address } = note()
    // Whatever is killed is started again at its address, and the same key opens it.
    for (const pid of pids) process.kill(pid, 'SIGKILL')
    await expect.poll(() => note().pids.filter((pid) => lives(pid) && !pids.includes(pid)).length).toBe(4)
    await expect.poll(() => opened(address).catch(() => '')).toContain('Port Ellery ferry terminal')
    const again = note().pids

    // Killed itself, it leaves its parts behind: the next one ends them, and takes another port where its own is taken.
    first.child.kill('SIGKILL')
    await first.over
    const squatter = createServer()
    await new Promise<void>((resolve) => squatter.listen({ port: 0, host: '127.0.0.1' }, resolve))
    const taken = (squatter.address() as AddressInfo).port
    const third = start('--port', String(taken))
    await ready(third)
    squatter.close()
    expect([...pids, ...again].filter(lives)).toEqual([])
    const last = note()
    expect(last.address).not.toContain(`:${taken}/`)
    await expect.poll(() => opened(last.address)).toContain('Port Ellery ferry terminal')

    await leavesNothing(third, last.pids)
  },
)

it('refuses options that make no sense, before it starts anything', async () => {
  const demo = start('--pace', 'fast')
  expect(await demo.over).toBe(2)
  expect(demo.words()).toBe('--pace takes a number above 0 and at most 1000, not fast.\n')
  expect(existsSync(join(folder, 'mariadb'))).toBe(false)
})
