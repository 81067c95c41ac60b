/** The wire helper on a wire of network namespaces: three boxes at one address, each reached by its own lane. */
import { type ChildProcess, execFileSync, spawn, spawnSync } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { afterAll, beforeAll, describe, it as eachTime, expect } from 'vitest'
import type { Laptop } from '../../src/core/muster/events'
import { askedOnLaptop, ended, startHelper as started } from '../support/helper-on-laptop'
import { shortIt as it, someOf } from '../support/long'
import { type BenchWire, benchWire, macOf } from '../support/namespaces'

const address = '192.168.99.1'
let wire: BenchWire
let folder: string
let helper: ChildProcess
let before: string
const boxes: ChildProcess[] = []

const startHelper = (env?: Record<string, string>): Promise<ChildProcess> => started(wire, folder, env)
const onLaptop = <T>(code: string): Promise<T> => askedOnLaptop<T>(wire, folder, code)

/** Opens a lane to each box and says by which MAC each answered: a box tells its own over TCP. */
const throughLanes = `
const lanes = await Promise.all(macs.map((mac) => host.openLane({ mac, address: '${address}', prefix: 24 })))
const told = await Promise.all(lanes.map(async (lane) => {
  const socket = await lane.connect(2000)
  return new Promise((resolve) => socket.once('data', (chunk) => { socket.destroy(); resolve(String(chunk).trim()) }))
}))`

beforeAll(async () => {
  wire = benchWire(3, `${address}/24`)
  folder = mkdtempSync(join(tmpdir(), 'air-muster-helper-'))
  before = wire.standing()
  for (const index of [0, 1, 2])
    boxes.push(
      spawn('ip', [
        ...['netns', 'exec', wire.box(index), process.execPath, '-e'],
        `require('net').createServer((s) => { s.on('error', () => {}); s.end('${macOf(index)}') }).listen(2000)`,
      ]),
    )
  helper = await startHelper()
})
afterAll(async () => {
  helper?.kill('SIGKILL')
  for (const box of boxes) box.kill('SIGKILL')
  wire?.close()
  rmSync(folder, { recursive: true, force: true })
})

const macs = [0, 1, 2].map(macOf)

describe('the wire helper', () => {
  it('tells everybody who has an address apart, and finds nobody where nobody is', async () => {
    const found = await onLaptop<{ one: string[]; none: string[]; all: { mac: string; address: string }[] }>(
      `console.log(JSON.stringify({ one: await host.arp('${address}'), none: await ` +
        `host.arp('192.168.99.77'), all: await host.neighbours(['192.168.99.0/24']) }))`,
    )
    expect(found.one.toSorted()).toEqual(macs)
    expect(found.none).toEqual([])
    expect(found.all.map(({ mac }) => mac).toSorted()).toEqual(macs)
  })

  it('reaches each of three boxes at one address by its own lane, and puts the laptop back as it was', async () => {
    const found = await onLaptop<{ told: string[]; sources: string[]; pings: boolean[]; laptop: { lanes: number } }>(
      `const macs = ${JSON.stringify(macs)}
      await host.keepOff([{ first: '192.168.99.250', last: '192.168.99.254' }])
      ${throughLanes}
      const laptop = await host.laptop()
      console.log(JSON.stringify({ told, laptop, sources: lanes.map((lane) => lane.source),
        pings: await Promise.all(lanes.map((lane) => lane.ping())) }))
      await lanes[0].close()
      await host.restore()`,
    )
    expect(found.told).toEqual(macs)
    expect(found.sources.toSorted()).toEqual(['192.168.99.247', '192.168.99.248', '192.168.99.249'])
    expect(found.pings).toEqual([true, true, true])
    expect(found.laptop).toMatchObject({ lanes: 3 })
    expect(wire.standing()).toBe(before)
  })

  it('says why it has no interface for a VLAN where the kernel has none, and still reaches everybody', async () => {
    const { laptop, macs: found } = await onLaptop<{ laptop: Laptop; macs: string[] }>(
      `await host.reachVlans([44])
      const lane = await host.openLane({ mac: '${macs[0]}', address: '${address}', prefix: 24 })
      console.log(JSON.stringify({ laptop: await host.laptop(), macs: await host.arp('${address}'),
        there: await lane.ping() }))
      await host.restore()`,
    )
    // Nobody is in that VLAN here, so that it is never among those that are reached.
    expect(laptop.vlans).toEqual([])
    if (laptop.vlanFault === null) expect(laptop.silentVlans).toEqual([44])
    else expect(laptop.vlanFault).toMatch(/Unknown device type|not supported/)
    expect(found.toSorted()).toEqual(macs)
    expect(wire.standing()).toBe(before)
  })

  it('opens as many lanes as are asked for at once, each with a source of its own', async () => {
    const many = Array.from({ length: 40 }, (_, index) => macOf(index))
    const found = await onLaptop<{ sources: string[]; lanes: number }>(
      `const macs = ${JSON.stringify(many)}
      const lanes = await Promise.all(macs.map((mac) => host.openLane({ mac, address: '${address}', prefix: 24 })))
      const { lanes: open } = await host.laptop()
      console.log(JSON.stringify({ sources: lanes.map((lane) => lane.source), lanes: open }))
      await Promise.all(lanes.map((lane) => lane.close()))`,
    )
    expect(new Set(found.sources).size).toBe(many.length)
    expect(found.lanes).toBe(many.length)
    expect(wire.standing()).toBe(before)
  })

  it('puts nobody else’s frames on the wire: another process that sends to its sockets is not heard', async () => {
    const [kind, spoofed] = ['0x88b5', `ffffffffffff${'02abcdef0001'}88b5${'00'.repeat(46)}`]
    const words = ['-i', 'eth0', '-p', '-n', '-l', '-c', '1', `ether proto ${kind} or arp`]
    const heard = spawn('ip', ['netns', 'exec', wire.box(0), 'tcpdump', ...words])
    let [said, line] = ['', '']
    heard.stderr?.on('data', (chunk) => {
      said += chunk
    })
    heard.stdout?.on('data', (chunk) => {
      line += chunk
    })
    await expect.poll(() => said).toContain('listening on')
    // From every address of this machine and every port that is taken, to each of those ports.
    const stranger = wire.onLaptop(process.execPath, [
      '-e',
      `const { createSocket } = require('node:dgram')
      const lines = require('node:fs').readFileSync('/proc/net/udp', 'utf8').trim().split('\\n').slice(1)
      const ports = lines.map((line) => parseInt(line.trim().split(/\\s+/)[1].split(':')[1], 16))
      for (const from of [...ports, 0]) for (const to of ports) {
        const socket = createSocket('udp4').on('error', () => {})
        socket.bind(from, '127.0.0.2', () =>
          socket.send(Buffer.from('${spoofed}', 'hex'), to, '127.0.0.1', () => socket.close()))
      }`,
    ])
    await ended(stranger)
    expect(stranger.exitCode).toBe(0)
    await onLaptop(`console.log(JSON.stringify(await host.arp('${address}')))`)
    await ended(heard)
    expect(line).toContain('ARP')
  })

  it('takes its listener and its sender with it when it is killed', async () => {
    const others = (): string[] =>
      execFileSync('ps', ['-eo', 'pid,ppid,args'], { encoding: 'utf8' })
        .split('\n')
        .filter((line) => / wired0/.test(line) || /INTERFACE:wired0/.test(line))
    const mine = others()
      .filter((line) => new RegExp(`^ *\\d+ +${helper.pid} `).test(line))
      .map((line) => line.trim().split(' ')[0])
    expect(mine).toHaveLength(2)
    helper.kill('SIGKILL')
    await ended(helper)
    await expect.poll(() => others().filter((line) => mine.includes(line.trim().split(' ')[0]))).toEqual([])
    helper = await startHelper()
  })

  it('leaves nothing behind when it is ended in the middle, once it was started again', async () => {
    await onLaptop(`const macs = ${JSON.stringify(macs)}${throughLanes}; console.log(JSON.stringify(told))`)
    expect(wire.standing()).not.toBe(before)
    helper.kill('SIGKILL')
    await ended(helper)
    helper = await startHelper()
    expect(wire.standing()).toBe(before)
  })

  eachTime.each(someOf([60, 0, 20, 120, 250]))(
    'leaves nothing behind when it is killed %i ms into opening lanes',
    async (ms) => {
      const many = Array.from({ length: 40 }, (_, index) => macOf(index))
      const opening = onLaptop(
        `console.log('"begun"')
      await Promise.allSettled(${JSON.stringify(many)}.map((mac) =>
        host.openLane({ mac, address: '${address}', prefix: 24 })))`,
      )
      // It has begun when the first source is there.
      await expect.poll(() => wire.standing(), { interval: 10 }).not.toBe(before)
      await pause(ms)
      helper.kill('SIGKILL')
      await ended(helper)
      await opening
      helper = await startHelper()
      expect(wire.standing()).toBe(before)
    },
  )

  it('hears who speaks on the wire from an address of another subnet', async () => {
    const inBox = (...words: string[]) => spawnSync('ip', ['netns', 'exec', wire.box(0), ...words])
    inBox('ip', 'addr', 'add', '192.168.7.7/24', 'dev', 'eth0')
    inBox('ping', '-c', '1', '-W', '1', '192.168.7.8')
    const { onLink } = await onLaptop<{ onLink: { mac: string; address: string | null }[] }>(
      `console.log(JSON.stringify(await host.heard()))`,
    )
    expect(onLink).toContainEqual({ mac: macs[0], address: '192.168.7.7' })
    // By IPv6 everybody is there, whatever their addresses.
    expect(onLink.filter(({ address: none }) => none === null).map(({ mac }) => mac)).toEqual(
      expect.arrayContaining(macs),
    )
    inBox('ip', 'addr', 'del', '192.168.7.7/24', 'dev', 'eth0')
  })

  it('hears from Debian’s lldpd what a unit says that it is', async () => {
    // It gives its rights up, and then has none in the folder of this test.
    const files = join(tmpdir(), `air-muster-lldpd-${process.pid}`)
    const words = ['-d', '-u', `${files}.sock`, '-p', `${files}.pid`, '-I', 'eth0', '-S', 'Brackwater B7, firmware 1.7']
    const speaker = spawn('ip', ['netns', 'exec', wire.box(1), '/usr/sbin/lldpd', ...words], { stdio: 'ignore' })
    try {
      const introductions = async () =>
        (await onLaptop<{ introductions: unknown[] }>(`console.log(JSON.stringify(await host.heard()))`)).introductions
      await expect
        .poll(introductions, { interval: 500 })
        .toEqual([{ mac: macs[1], words: 'Brackwater B7, firmware 1.7' }])
    } finally {
      speaker.kill('SIGTERM')
      await ended(speaker)
      for (const end of ['sock', 'sock.lock', 'pid']) rmSync(`${files}.${end}`, { force: true })
    }
  })

  it('answers its owner and root, and turns others away, whatever became of the mode of its socket', async () => {
    const path = join('/tmp', `air-muster-owned-${process.pid}.sock`)
    const owned = await startHelper({
      AIR_MUSTER_HELPER_SOCKET: path,
      AIR_MUSTER_LEDGER: join(folder, 'owned.ledger'),
      AIR_MUSTER_HELPER_OWNER: '12345:12345',
    })
    try {
      const { mode, uid } = statSync(path)
      expect([mode & 0o777, uid]).toEqual([0o600, 12345])
      chmodSync(path, 0o666)
      const question = JSON.stringify({ number: 1, question: 'standing', ask: {} })
      const answerTo = async (user: number): Promise<string> => {
        const child = wire.onLaptop('setpriv', [
          ...[`--reuid=${user}`, `--regid=${user}`, '--clear-groups', process.execPath, '-e'],
          `const socket = require('net').connect('${path}', () => socket.write(${JSON.stringify(`${question}\n`)}))
          socket.on('data', (chunk) => { process.stdout.write(chunk); socket.destroy() })
          socket.on('error', (error) => process.stdout.write(error.code))
          socket.on('end', () => process.stdout.write('turned away'))`,
        ])
        let told = ''
        child.stdout?.on('data', (chunk) => {
          told += chunk
        })
        await ended(child)
        return told
      }
      expect(await answerTo(12345)).toContain('"interfaceName":"wired0"')
      expect(await answerTo(0)).toContain('"interfaceName":"wired0"')
      expect(await answerTo(54321)).toBe('turned away')
    } finally {
      owned.kill('SIGTERM')
      await ended(owned)
    }
  })

  it('ends with its listeners, and leaves the laptop as it was when it is told to end', async () => {
    await onLaptop(`const macs = ${JSON.stringify(macs)}${throughLanes}; console.log(JSON.stringify(told))`)
    helper.kill('SIGTERM')
    await ended(helper)
    expect(wire.standing()).toBe(before)
    // The kernel ends them a moment after it.
    await expect.poll(() => execFileSync('ip', ['netns', 'pids', wire.laptop], { encoding: 'utf8' })).toBe('')
    helper = await startHelper()
  })
})
