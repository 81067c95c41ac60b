/** The laptop as whoever works at it sees it: the doctor, a lane of one's own, and all of it put back. */
import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { dhcpDiscover } from '../../src/wire/dhcp/message'
import { type Installation, ran, startInstallation } from '../support/installation'
import { type BenchWire, benchWire, macOf } from '../support/namespaces'

let wire: BenchWire
let folder: string
let installation: Installation
let standing: string
const programs: ChildProcess[] = []
const hex = (text: string): string => Buffer.from(text).toString('hex')

const inBox = (index: number, command: string, words: readonly string[]): void => {
  programs.push(spawn('ip', ['netns', 'exec', wire.box(index), command, ...words], { stdio: 'ignore' }))
}

/** Puts a frame on the wire, as hexadecimal. */
const send = (index: number, frame: string): void =>
  inBox(index, 'bash', ['-c', `printf '${frame.replace(/../g, '\\x$&')}' | socat -u - INTERFACE:eth0`])

beforeAll(async () => {
  wire = benchWire(2, '192.168.99.1/24')
  folder = mkdtempSync(join(tmpdir(), 'air-muster-laptop-'))
  standing = wire.standing()
  for (const index of [0, 1]) {
    inBox(index, process.execPath, [
      '-e',
      `require('http').createServer((q, r) => r.end('${macOf(index)}')).listen(80)`,
    ])
    inBox(index, 'dnsmasq', [
      ...['--no-daemon', '--port=0', '--conf-file=/dev/null', '--leasefile-ro', '--interface=eth0', '--no-ping'],
      ...[`--dhcp-range=192.168.99.${100 + index * 50},192.168.99.${140 + index * 50}`, '--dhcp-authoritative'],
      `--dhcp-option=option:server-ip-address,192.168.99.${1 + index}`,
    ])
  }
  installation = await startInstallation(wire, folder)
})
afterAll(async () => {
  await installation?.stop()
  for (const program of programs) program.kill('SIGKILL')
  wire?.close()
  rmSync(folder, { recursive: true, force: true })
})

describe('a laptop on the bench', () => {
  it('is looked over by the doctor: its interface, and who serves DHCP', async () => {
    const { text } = await installation.muster('doctor', '--json')
    const findings = JSON.parse(text) as { code: string; sentence: string }[]
    expect(findings.map(({ code }) => code)).toContain('privilege')
    // Two boxes at one address serve it, each from a range of its own.
    const both = findings.find(({ code }) => code === 'two-dhcp-servers')?.sentence
    expect(both).toMatch(/2 servers give addresses on this wire: 192\.168\.99\.1 .*, 192\.168\.99\.1 /)
  })

  it('tells the page what is heard: both servers, the switch at the end of its cable, who asks for an address', async () => {
    await installation.muster('load', 'data/demo/port-ellery.yaml')
    const told = [
      ...['0180c200000e', '021122334455', '88cc', '0207', '04', '021122334455', '0406', '05', hex('port7')],
      ...['0602', '0078', '0a06', hex('bench1'), '0000'],
    ]
    send(0, told.join(''))
    send(1, dhcpDiscover(macOf(1), 1).toString('hex'))
    await installation.muster('sweep', 'port-ellery')
    const heard = async (): Promise<string> =>
      (await installation.muster('log', 'port-ellery')).text
        .split('\n')
        .filter((line) => line.includes('"sweep"'))
        .at(-1) ?? ''
    await expect
      .poll(heard, { timeout: 40_000, interval: 1000 })
      .toContain('"cableEnd":{"name":"bench1","port":"port7"}')
    const { heard: last } = JSON.parse((await heard()).replace(/^\S+\s+/, '')) as { heard: Record<string, unknown[]> }
    expect(last.servers).toHaveLength(2)
    expect(last.asking).toContainEqual({ mac: macOf(1), says: null })
  })

  it('has a lane of one’s own to each of two boxes at one address, for any program', async () => {
    for (const index of [0, 1]) {
      const lane = wire.onLaptop(
        process.execPath,
        ['bin/muster.mjs', 'lane', `${macOf(index)}@192.168.99.1`, '--ports', '80'],
        installation.env,
      )
      const local = await new Promise<string>((resolve) => {
        let said = ''
        lane.stdout?.on('data', (chunk) => {
          said += chunk
          const port = /127\.0\.0\.1:(\d+) leads to/.exec(said)?.[1]
          if (port) resolve(port)
        })
      })
      const code = `fetch('http://127.0.0.1:${local}').then((r) => r.text()).then(console.log)`
      expect((await ran(wire.onLaptop(process.execPath, ['-e', code]))).text.trim()).toBe(macOf(index))
      lane.kill('SIGINT')
      await new Promise((resolve) => lane.once('exit', resolve))
    }
    expect(wire.standing()).toBe(standing)
  })

  it('is as it was after everything was killed and one command', async () => {
    const open = wire.onLaptop(
      process.execPath,
      ['bin/muster.mjs', 'lane', `${macOf(0)}@192.168.99.1`, '--ports', '81'],
      installation.env,
    )
    // Nobody listens at that port by link-local, so a gateway lane is opened when something connects.
    const local = await new Promise<string>((resolve) => {
      open.stdout?.on('data', (chunk) => {
        const port = /127\.0\.0\.1:(\d+) leads to/.exec(String(chunk))?.[1]
        if (port) resolve(port)
      })
    })
    const code = `require('net').connect(${local}, '127.0.0.1').on('close', () => process.exit(0)).on('error', () => process.exit(0))`
    await ran(wire.onLaptop(process.execPath, ['-e', code]))
    expect(wire.standing()).not.toBe(standing)
    open.kill('SIGKILL')
    const note = JSON.parse(readFileSync(join(folder, 'running.json'), 'utf8')) as { launcher: number; pids: number[] }
    for (const pid of [note.launcher, ...note.pids]) process.kill(pid, 'SIGKILL')
    expect(wire.standing()).not.toBe(standing)
    const { text, status } = await installation.muster('laptop', 'restore')
    expect(text).toContain('This laptop is as it was.')
    expect(status).toBe(0)
    expect(wire.standing()).toBe(standing)
  })
})
