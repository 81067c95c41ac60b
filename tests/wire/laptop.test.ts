/** The laptop as whoever works at it sees it: the doctor, a lane of one's own, and all of it put back. */
import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { dnsmasqConfig, type ExportInput, keaConfig } from '../../src/core/addressing/exports'
import { dhcpDiscover } from '../../src/wire/dhcp/message'
import { demoBrief } from '../support/data'
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

/** Two servers of DHCP, each with the file that the job makes for it, and each with another controller. */
const serve = (): void => {
  const [first, second] = [100, 150].map((from, index): ExportInput => {
    const dhcpPool = { first: `192.168.99.${from}`, last: `192.168.99.${from + 40}` }
    const management = { ...demoBrief.management, cidr: '192.168.99.0/24', gateway: null, dnsServers: [], dhcpPool }
    const controllers = [{ name: 'rack', mac: macOf(9), address: controllerOf(index), vendor: undefined }]
    return { brief: { ...demoBrief, management }, units: [], controllers }
  })
  if (!first || !second) return
  const [dnsmasq, kea] = [join(folder, 'dnsmasq.conf'), join(folder, 'kea.json')]
  writeFileSync(dnsmasq, dnsmasqConfig(first))
  inBox(0, 'dnsmasq', [
    ...['--no-daemon', '--port=0', `--conf-file=${dnsmasq}`, '--leasefile-ro', '--interface=eth0', '--no-ping'],
    '--dhcp-authoritative',
  ])
  const { Dhcp4 } = JSON.parse(keaConfig(second, 'eth0'))
  // Its leases stay with the test.
  Object.assign(Dhcp4['lease-database'], { name: join(folder, 'leases.csv') })
  writeFileSync(kea, JSON.stringify({ Dhcp4 }))
  const own = [`KEA_LOCKFILE_DIR=${folder}`, `KEA_PIDFILE_DIR=${folder}`]
  inBox(1, 'env', [...own, '/usr/sbin/kea-dhcp4', '-c', kea])
}
const controllerOf = (server: number): string => `192.168.99.${200 + server}`

beforeAll(async () => {
  wire = benchWire(2, '192.168.99.1/24')
  folder = mkdtempSync(join(tmpdir(), 'air-muster-laptop-'))
  standing = wire.standing()
  for (const index of [0, 1]) {
    inBox(index, process.execPath, [
      '-e',
      `require('http').createServer((q, r) => r.end('${macOf(index)}')).listen(80)`,
    ])
  }
  serve()
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

  it('tells the page what is heard: both servers, the switch on its cable, who asks for an address', async () => {
    await installation.muster('load', 'data/demo/port-ellery.yaml')
    const frame = [
      ...['0180c200000e', '021122334455', '88cc', '0207', '04', '021122334455', '0406', '05', hex('port7')],
      ...['0602', '0078', '0a06', hex('bench1'), '0000'],
    ]
    send(0, frame.join(''))
    send(1, dhcpDiscover(macOf(1), 1).toString('hex'))
    await installation.muster('sweep', 'port-ellery')
    const heard = async (): Promise<string> =>
      (await installation.muster('log', 'port-ellery')).text
        .split('\n')
        .filter((line) => line.includes('"sweep"'))
        .at(-1) ?? ''
    await expect.poll(heard, { interval: 1000 }).toContain('"cableEnd":{"name":"bench1","port":"port7"}')
    const { heard: last } = JSON.parse((await heard()).replace(/^\S+\s+/, '')) as { heard: Record<string, unknown[]> }
    // Option 138 (RFC 5417) out of the files for Kea and for dnsmasq, as it comes over the wire.
    const told = last.servers?.map((server) => (server as { controllers: string[] }).controllers.join())
    expect(told?.sort()).toEqual([controllerOf(0), controllerOf(1)])
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
    const code =
      `require('net').connect(${local}, '127.0.0.1').on('close', () => process.exit(0)).on('error', () => ` +
      'process.exit(0))'
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
