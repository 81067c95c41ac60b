/**
 * Addresses that the laptop lends, to clients that nobody here wrote: busybox as a client, dnsmasq as another server.
 */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Heard } from '../../src/core/muster/events'
import { builtImage } from '../support/debian-image'
import { ended, type OnLaptop, processOnLaptop, startHelper } from '../support/helper-on-laptop'
import { type BenchWire, benchWire, endAllIn, macOf } from '../support/namespaces'
import { patience } from '../support/patience'

const cidr = '10.254.0.0/22'
const listed = [macOf(0), macOf(1)]
let wire: BenchWire
let folder: string
let helper: ChildProcess
let before: string
let laptop: OnLaptop

/** As a runner does with each sweep. */
function lending(macs: readonly string[] | null = listed): Promise<Heard['lending']> {
  const to = JSON.stringify(macs && { macs, cidr })
  return laptop.asks(`await host.lend(${to}); return (await ask('heard', { askForDhcp: 'no' })).dhcp`)
}

/** What a client has, as `ip` shows it. */
function addressOf(index: number): string | undefined {
  const text = execFileSync('ip', ['-n', wire.box(index), '-4', '-o', 'addr', 'show', 'dev', 'eth0'], {
    encoding: 'utf8',
  })
  return /inet ([\d.]+)\//.exec(text)?.[1]
}

/** A client that asks until it is given an address, then keeps it. */
function plug(index: number): ChildProcess {
  const words = [join(builtImage(), 'stage/bin/busybox'), 'udhcpc', '-f', '-R', '-i', 'eth0', '-t', '100', '-T', '1']
  return spawn('ip', ['netns', 'exec', wire.box(index), ...words, '-s', join(folder, 'took.sh')], { stdio: 'ignore' })
}

beforeAll(async () => {
  wire = benchWire(3, '192.168.99.1/24')
  folder = mkdtempSync(join(tmpdir(), 'air-muster-dhcp-'))
  for (const index of [0, 1, 2]) execFileSync('ip', ['-n', wire.box(index), '-4', 'addr', 'flush', 'dev', 'eth0'])
  const took = `#!/bin/sh
# Without its address at once, the client could not say any more that it gives it back.
[ "$1" = deconfig ] && exit 0
ip -4 addr flush dev eth0
exec ip addr add "$ip/$mask" dev eth0
`
  writeFileSync(join(folder, 'took.sh'), took, { mode: 0o755 })
  before = wire.standing()
  helper = await startHelper(wire, folder)
  laptop = processOnLaptop(wire, folder)
})
afterAll(() => {
  laptop?.end()
  helper?.kill('SIGKILL')
  for (const space of [wire?.wire, ...[0, 1, 2].map((index) => wire?.box(index))]) if (space) endAllIn(space)
  wire?.close()
  rmSync(folder, { recursive: true, force: true })
})

describe('a laptop that lends addresses', () => {
  it('lends one to each unit of the list that asks, to nobody else, and reaches it there', async () => {
    expect((await lending(null)).state).toBe('off')
    expect(await lending()).toEqual({ state: 'serving', leases: [] })
    for (const index of [0, 1, 2]) plug(index)
    await expect.poll(() => [0, 1].map(addressOf).every((address) => address !== undefined), patience).toBe(true)
    const { leases, state } = await lending()
    expect(state).toBe('serving')
    expect(leases.map(({ mac }) => mac).toSorted()).toEqual(listed)
    for (const [index, mac] of listed.entries())
      expect(addressOf(index)).toBe(leases.find((lease) => lease.mac === mac)?.address)
    // It has asked as long as the others.
    expect(addressOf(2)).toBeUndefined()
    const [first] = leases
    const lane = JSON.stringify({ mac: first?.mac, address: first?.address, prefix: 22 })
    const pings = await laptop.asks(
      `const lane = await host.openLane(${lane})
      const answers = await lane.ping()
      await lane.close()
      return answers`,
    )
    expect(pings).toBe(true)
  })

  it('lets a client keep its address longer, also after the helper was killed', async () => {
    const had = addressOf(0)
    helper.kill('SIGKILL')
    await ended(helper)
    helper = await startHelper(wire, folder)
    expect((await lending()).leases).toEqual([])
    const [client] = execFileSync('ip', ['netns', 'pids', wire.box(0)], { encoding: 'utf8' })
      .trim()
      .split('\n')
    // Renews at once; asked by its address alone, the server is looked for by ARP.
    process.kill(Number(client), 'SIGUSR1')
    await expect
      .poll(async () => (await lending()).leases.find(({ mac }) => mac === listed[0])?.address, patience)
      .toBe(had)
    expect(addressOf(0)).toBe(had)
  })

  it('takes back what a client gives back', async () => {
    // Ended, it gives its address back.
    for (const pid of execFileSync('ip', ['netns', 'pids', wire.box(0)], { encoding: 'utf8' })
      .trim()
      .split('\n'))
      process.kill(Number(pid), 'SIGTERM')
    await expect.poll(async () => (await lending()).leases.some(({ mac }) => mac === listed[0]), patience).toBe(false)
  })

  it('lends nothing while another server answers, and says so', async () => {
    execFileSync('ip', ['-n', wire.wire, 'addr', 'add', '10.77.0.1/24', 'dev', 'lan'])
    const words = ['-k', '--port=0', '--interface=lan', '--bind-interfaces', '--dhcp-range=10.77.0.50,10.77.0.90,10m']
    const own = [
      `--dhcp-leasefile=${join(folder, 'leases')}`,
      '--user=root',
      '--conf-file=/dev/null',
      '--log-facility=-',
    ]
    spawn('ip', ['netns', 'exec', wire.wire, '/usr/sbin/dnsmasq', ...words, ...own], { stdio: 'ignore' })
    await expect
      .poll(async () => {
        // Turned off and on again, it listens anew before it lends.
        await lending(null)
        return (await lending()).state
      }, patience)
      .toBe('another-serves')
    plug(0)
    await expect.poll(() => addressOf(0), patience).toMatch(/^10\.77\.0\./)
    expect((await lending()).leases.some(({ mac }) => mac === listed[0])).toBe(false)
  })

  it('leaves nothing on the laptop', async () => {
    expect((await lending(null)).state).toBe('off')
    expect(wire.standing()).toBe(before)
  })
})
