/**
 * Pages drawn by script on a real wire: two boxes at one factory address, each in a namespace, turned in a browser by
 * lanes of the wire helper, which is killed as they come to every part of the muster.
 */
import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect } from 'vitest'
import { parse, stringify } from 'yaml'
import { hearthCard } from '../support/hearth'
import { type Installation, startInstallation } from '../support/installation'
import { killer, reachedStep, troublesOf } from '../support/kills'
import { longIt as it } from '../support/long'
import { type BenchWire, benchWire, endAllIn, macOf } from '../support/namespaces'
import { wholeBrief } from '../support/whole-brief'

const count = 2
const killedAt = ['sign-in', 'networks', 'address', 'proof'] as const
let folder: string
let wire: BenchWire
let installation: Installation
const boxes: ChildProcess[] = []
let boxFile = ''

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-hearth-'))
  wire = benchWire(count, '192.168.18.1/24')
  const box = await bundledBox()
  boxFile = box
  for (let index = 0; index < count; index += 1) {
    const words = ['netns', 'exec', wire.box(index), process.execPath, box]
    const child = spawn('ip', [...words, 'Hearth H1', macOf(index), '6'], { stdio: ['pipe', 'pipe', 'inherit'] })
    boxes.push(child)
    await new Promise<void>((resolve, reject) => {
      child.stdout?.on('data', (chunk) => String(chunk).includes('ready') && resolve())
      child.once('exit', () => reject(new Error('a box ended')))
    })
  }
  installation = await startInstallation(wire, join(folder, 'data'), { lanes: 'gateway' })
})
afterAll(async () => {
  await installation?.stop()
  for (const index of boxes.keys()) endAllIn(wire.box(index))
  wire?.close()
  rmSync(boxFile, { force: true })
  rmSync(folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 500 })
})

/**
 * Bundled as the lab is: a browser gets functions of it as text, which a loader of TypeScript would lace with names of
 * its own. Below the project, where it finds the modules that are not bundled.
 */
async function bundledBox(): Promise<string> {
  const { build } = await import('esbuild')
  const entry = join(import.meta.dirname, '../support/peers/lab-box.ts')
  const outfile = join(import.meta.dirname, `../../dist/lab-box-${process.pid}.mjs`)
  const how = { bundle: true, format: 'esm', platform: 'node', target: 'node20', packages: 'external' } as const
  await build({ ...how, entryPoints: [entry], outfile, logLevel: 'error' })
  return outfile
}

function job(): string {
  const demo = parse(readFileSync(join(import.meta.dirname, '../../data/demo/port-ellery.yaml'), 'utf8'))
  const [first] = demo.units
  const networks = wholeBrief.networks.map((each) => ({ ...each, security: 'wpa2-personal' }))
  const units = boxes.map((_, index) => ({
    ...{ ...first, id: `hearth-${index}`, name: `hearth-${index}`, locks: {} },
    ...{ model: 'Hearth H1', mac: macOf(index), serial: `H-${index}`, port: index + 1 },
  }))
  const file = join(folder, 'job.yaml')
  writeFileSync(file, stringify({ ...demo, units, cards: [hearthCard], brief: { ...wholeBrief, networks } }))
  return file
}

it('are set and proven, though the wire helper is killed as one comes to each part', async () => {
  const standing = wire.standing()
  expect((await installation.muster('load', job())).status).toBe(0)
  const mustering = installation.muster('run', 'port-ellery', '--wait')
  const kill = killer(installation)
  for (const step of killedAt) {
    await reachedStep(installation, step)
    await kill('wire helper')
  }
  let { text, status } = await mustering
  // Its starter waits longer after each kill, and a command gives up a runner that is silent: it is asked again.
  while (status === 3) ({ text, status } = await installation.muster('run', 'port-ellery', '--wait'))
  expect(await troublesOf(installation)).toEqual([])
  expect(text).toContain(`${count} of ${count} answer`)
  await installation.stop()
  expect(wire.standing()).toBe(standing)
})
