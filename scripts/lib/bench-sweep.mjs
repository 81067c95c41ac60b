// How long it takes to see everybody of a /24, against Debian's arp-scan and fping in the same namespaces, in turn.
import { execFileSync, spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bundleIfStale } from './bundle.mjs'
import { median } from './median.mjs'
import { ensureDebian } from './packages.mjs'
import { root } from './root.mjs'

await ensureDebian('tcpdump', 'socat', 'iproute2', 'ping', 'setpriv', 'arpScan', 'fping')
await bundleIfStale()

const rounds = 5
const hosts = 200
const subnet = '10.9.0.0/24'
const [laptop, wire] = [`ams${process.pid}l`, `ams${process.pid}w`]
const folder = mkdtempSync(join(tmpdir(), 'air-muster-sweep-'))
const ip = (...words) => execFileSync('ip', words)
let helper

/** One question to the helper, and how long its answer took, s. */
function neighbours(socket) {
  const began = performance.now()
  return new Promise((resolve, reject) => {
    const stream = connect(socket, () =>
      stream.write(`${JSON.stringify({ number: 1, question: 'neighbours', ask: { subnets: [subnet] } })}\n`),
    )
    let text = ''
    stream.once('error', reject)
    stream.on('data', (chunk) => {
      text += chunk
      if (!text.includes('\n')) return
      stream.destroy()
      resolve({ seconds: (performance.now() - began) / 1000, found: JSON.parse(text).answer.found.length })
    })
  })
}

/** A program there: seconds, and how many it found. */
function program(command, words, count) {
  const began = performance.now()
  return new Promise((resolve, reject) => {
    const child = spawn('ip', ['netns', 'exec', laptop, command, ...words], { stdio: ['ignore', 'pipe', 'ignore'] })
    let text = ''
    child.stdout.on('data', (chunk) => {
      text += chunk
    })
    child.once('error', reject)
    child.once('close', () => resolve({ seconds: (performance.now() - began) / 1000, found: count(text) }))
  })
}
const lines = (pattern) => (text) => text.split('\n').filter((line) => pattern.test(line)).length

try {
  for (const space of [laptop, wire]) {
    ip('netns', 'add', space)
    ip('-n', space, 'link', 'set', 'lo', 'up')
  }
  ip('-n', wire, 'link', 'add', 'lap', 'type', 'veth', 'peer', 'name', 'wired0', 'netns', laptop)
  ip('-n', wire, 'link', 'set', 'lap', 'up')
  ip('-n', laptop, 'link', 'set', 'wired0', 'up')
  ip('-n', laptop, 'addr', 'add', '10.9.0.254/24', 'dev', 'wired0')
  const batch = Array.from({ length: hosts }, (_, index) => `addr add 10.9.0.${index + 1}/24 dev lap`).join('\n')
  execFileSync('ip', ['-n', wire, '-batch', '-'], { input: batch })
  const socket = join(folder, 'helper.sock')
  helper = spawn('ip', ['netns', 'exec', laptop, process.execPath, join(root, 'dist/wire-helper.mjs')], {
    env: {
      ...process.env,
      AIR_MUSTER_INTERFACE: 'wired0',
      AIR_MUSTER_HELPER_SOCKET: socket,
      AIR_MUSTER_LEDGER: join(folder, 'ledger'),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  await new Promise((resolve) => helper.stdout.on('data', (chunk) => String(chunk).includes('ready') && resolve()))
  const runs = { 'the wire helper': [], 'arp-scan': [], fping: [] }
  for (let round = 0; round < rounds; round += 1) {
    runs['the wire helper'].push(await neighbours(socket))
    runs['arp-scan'].push(await program('arp-scan', ['--interface=wired0', '--plain', subnet], lines(/^10\.9\./)))
    runs.fping.push(await program('fping', ['-a', '-q', '-r', '1', '-g', subnet], lines(/^10\.9\.0\.(?!254$)/)))
  }
  const of = Object.fromEntries(
    Object.entries(runs).map(([name, each]) => [name, median(each.map(({ seconds }) => seconds))]),
  )
  for (const [name, each] of Object.entries(runs))
    process.stdout.write(
      `${name.padEnd(16)} median ${of[name].toFixed(2)} s, found ${each.map(({ found }) => found).join(' ')} ` +
        `of ${hosts}\n`,
    )
  for (const other of ['arp-scan', 'fping'])
    process.stdout.write(
      `to ${other.padEnd(13)} ${(of['the wire helper'] / of[other]).toFixed(2)} (wanted: at most 1.2)\n`,
    )
} finally {
  helper?.kill('SIGTERM')
  for (const space of [laptop, wire])
    try {
      ip('netns', 'del', space)
    } catch {
      // It was not made.
    }
  rmSync(folder, { recursive: true, force: true })
}
