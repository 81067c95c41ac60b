/**
 * Units that are to be managed in a VLAN which only tags reach, from a laptop whose kernel has tagged VLANs (IEEE
 * 802.1Q): Debian's user-mode Linux plays the laptop, two boxes at one address with Debian's sshd, and the router.
 */
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'
import { type Guest, startGuest } from '../support/guests'
import { hostJob, hostScript } from '../support/hosts'
import { longIt } from '../support/long'
import { type BenchWire, benchWire, macOf } from '../support/namespaces'

const count = 2
const guests: Guest[] = []
let folder: string
let wire: BenchWire
let laptop: Guest

const guest = async (name: string, mac: string, megabytes: number, begins: string): Promise<Guest> => {
  const started = await startGuest({ name, wire, mac, megabytes, folder: join(folder, name), begins })
  guests.push(started)
  return started
}

beforeEach(async () => {
  // Guests cannot write to this folder.
  await bundleIfStale()
  folder = mkdtempSync(join(tmpdir(), 'air-muster-tagged-'))
  wire = benchWire(0, '')
  const box = (index: number): Promise<Guest> => {
    const mine = join(folder, `box${index}`)
    mkdirSync(mine)
    return guest(`box${index}`, macOf(index), 96, `ip addr add 172.30.9.1/24 dev eth0; (${hostScript(index, mine)}) &`)
  }
  const [started] = await Promise.all([
    guest('laptop', '02:ab:00:00:01:01', 1024, 'ip addr add 192.168.200.5/24 dev eth0'),
    ...Array.from({ length: count }, (_, index) => box(index)),
  ])
  laptop = started
  const job = hostJob(readFileSync('data/demo/port-ellery.yaml', 'utf8'), count)
  writeFileSync(join(folder, 'laptop', 'job.yaml'), job.replace('brief:', 'brief:\n  managementTagged: true'))
})
afterEach(() => {
  for (const each of guests.splice(0)) each.close()
  wire?.close()
  rmSync(folder, { recursive: true, force: true })
})

const root = process.cwd()
/** What the laptop has: what was set by hand, and its interfaces. */
const standing = async (): Promise<string> =>
  (await laptop.run('ip -br link; ip -br addr; ip route show table all; ip rule; ip neigh show nud permanent')).text
const muster = (...words: string[]): Promise<{ text: string; status: number }> =>
  laptop.run(`cd ${root} && AIR_MUSTER_DATA=/run/data node bin/muster.mjs ${words.join(' ')}`)
longIt(
  'sends nobody to a VLAN where nobody is heard, and works units with their tag once its router is there',
  async () => {
    const before = await standing()
    laptop.start(
      `cd ${root} && export AIR_MUSTER_EMPTY_DATA=${process.env.AIR_MUSTER_EMPTY_DATA} &&
    exec node scripts/start.mjs --interface eth0 --no-pages --data /run/data > /run/start.text 2>&1`,
    )
    const { text } = await laptop.run(
      'for i in $(seq 120); do grep -q Ctrl /run/start.text && break; sleep 0.5; done; cat /run/start.text',
    )
    expect(text).toContain('works the wire at eth0')
    expect(await muster('load', join(folder, 'laptop', 'job.yaml'))).toMatchObject({ status: 0 })

    const held = await muster('run', 'port-ellery', '--wait')
    expect(held.status, held.text).not.toBe(0)
    expect(held.text.match(/Plug in the router, or anything else that is on VLAN 44/g)).toHaveLength(count)

    await guest(
      'router',
      '02:ab:00:00:01:02',
      48,
      'ip link add link eth0 name eth0.44 type vlan id 44; ip link set eth0.44 up; ip addr add 10.44.8.1/24 ' +
        'dev eth0.44',
    )
    const ran = await muster('run', 'port-ellery', '--wait')
    expect(ran.status, ran.text).toBe(0)
    expect(ran.text).toContain(`${count} of ${count} answer`)
    expect(await standing()).toContain('muster44@eth0')

    // Everything is killed at once, and nothing cleans up: the ledger knows what was added.
    await laptop.run(
      'kill -9 $(grep -laE "wire-helper|runner.mjs|mariadbd|start.mjs" /proc/[0-9]*/cmdline | cut -d/ -f3); sleep 0.3',
    )
    expect(await standing()).toContain('muster44@eth0')
    expect(await muster('laptop', 'restore')).toMatchObject({ status: 0 })
    expect(await standing()).toBe(before)
  },
)
