/** A muster over a real wire whose runner is killed: hosts with Debian's sshd at one address, over gateway lanes. */
import { readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterEach, beforeEach, expect } from 'vitest'
import { type HostBench, hostBench, hostJob } from '../support/hosts'
import { type Installation, startInstallation } from '../support/installation'
import { longIt } from '../support/long'
import { passingFolder } from '../support/passing-folder'

const count = 3
let folder: string
let hosts: HostBench
let installation: Installation
let standing: string

beforeEach(async () => {
  folder = passingFolder('air-muster-hosts-')
  hosts = hostBench(count, folder)
  standing = hosts.wire.standing()
  installation = await startInstallation(hosts.wire, join(folder, 'data'), { lanes: 'gateway' })
  const file = join(folder, 'job.yaml')
  writeFileSync(file, hostJob(readFileSync('data/demo/port-ellery.yaml', 'utf8'), count))
  await installation.muster('load', file)
})
afterEach(async () => {
  await installation?.stop()
  hosts?.close()
  rmSync(folder, { recursive: true, force: true })
})

const roll = async (): Promise<{ answers: boolean; steps: Record<string, string> }[]> =>
  JSON.parse((await installation.muster('roll', 'port-ellery', '--json')).text).units

/** Waits for the first event of a step, and kills the runner at once. */
const killedAt = (step: string) =>
  installation.script<string>(
    `import { createConnection } from 'mysql2/promise'
    const connection = await createConnection({ uri: process.env.AIR_MUSTER_DB.replace('mariadb:', 'mysql:') })
    const begun = async () => {
      const [[{ count }]] = await connection.query(
        'select count(*) as count from events where event like ?', ['%"step":"${step}"%'])
      return Number(count) > 0
    }
    while (!(await begun())) await new Promise((resolve) => setTimeout(resolve, 3))
    process.kill(${installation.pidOf('runner')}, 'SIGKILL')
    console.log('"killed"')
    process.exit(0)`,
  )

// Virtual machines go through more of them, with the helper.
longIt('goes on where it was, once its runner was killed as a unit came to its address', async () => {
  const killed = killedAt('address')
  let ran = await installation.muster('run', 'port-ellery', '--wait')
  expect(await killed).toBe('killed')
  // A busy machine starts the runner anew later than the command waits for one: it says so, and is asked once more.
  if (ran.status === 3) ran = await installation.muster('run', 'port-ellery', '--wait')
  expect(ran.status, ran.text).toBe(0)
  expect((await roll()).map(({ answers }) => answers)).toEqual([true, true, true])
  await installation.stop()
  expect(hosts.wire.standing()).toBe(standing)
})

longIt(
  'signs in with the job’s SSH key where somebody set a unit up before, and proves the job’s password there',
  async () => {
    const file = hosts.setUpByKey(1)
    expect((await installation.muster('key', 'port-ellery', `${file}.pub`)).text).toContain('the public half of a key')
    expect((await installation.muster('key', 'port-ellery', file)).text).toContain('The key is sealed.')
    const { text, status } = await installation.muster('run', 'port-ellery', '--wait')
    expect(status, text).toBe(0)
    expect((await roll()).map(({ answers }) => answers)).toEqual([true, true, true])
    expect((await installation.muster('key', 'port-ellery', '--remove')).text.trim()).toBe('The key is gone.')
  },
)
