/** Servers of web pages that nobody here wrote, each in a network namespace of its own and all at one address. */
import { type ChildProcess, spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { connect, type Socket } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { vi } from 'vitest'
import { WireError } from '../../../src/wire/errors/wire-error'
import type { Lane } from '../../../src/wire/host/host'
import { type BenchWire, benchWire, endAllIn, macOf } from '../namespaces'
import { patience } from '../patience'

export interface Peer {
  readonly port: number
  /** @param folder  its own, empty @returns the shell's words that serve its pages, and stay */
  script(folder: string): string
}

export interface PeerBench {
  readonly address: string
  readonly macs: readonly string[]
  /** A real lane of the laptop of this bench. */
  lane(index: number): Lane
  folder(index: number): string
  /** Ends one as its own host would. @returns its exit code */
  ended(index: number): Promise<number | null>
  close(): void
}

const address = '192.168.77.1'

export async function peerBench(peer: Peer, count: number): Promise<PeerBench> {
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-peers-'))
  const macs = Array.from({ length: count }, (_, index) => macOf(index))
  const folderOf = (index: number): string => join(folder, `box${index}`)
  let wire: BenchWire | undefined
  const children: ChildProcess[] = []
  const peers: ChildProcess[] = []
  const close = (): void => {
    for (const child of children) child.kill('SIGKILL')
    for (const index of macs.keys()) if (wire) endAllIn(wire.box(index))
    wire?.close()
    rmSync(folder, { recursive: true, force: true })
  }
  const lane = (index: number): Lane => ({
    ...{ mac: macs[index] ?? '', address, prefix: 24, source: '192.168.77.254' },
    connect: (port) => connected(join(folder, `lane${index}.sock`), port),
    datagrams: () => Promise.reject(new Error('it takes none')),
    ping: async () => true,
    close: async () => {},
  })
  const isUp = async (index: number): Promise<void> => void (await answering(lane(index), peer.port))
  try {
    wire = benchWire(count, `${address}/24`)
    for (const index of macs.keys()) {
      mkdirSync(folderOf(index))
      const words = ['netns', 'exec', wire.box(index), 'unshare', '-m', 'sh', '-c', peer.script(folderOf(index))]
      const child = spawn('ip', words, { stdio: ['ignore', 'ignore', 'inherit'] })
      peers.push(child)
      children.push(child)
    }
    const socket = join(folder, 'helper.sock')
    const helper = wire.onLaptop(process.execPath, ['dist/wire-helper.mjs'], {
      AIR_MUSTER_INTERFACE: 'wired0',
      AIR_MUSTER_HELPER_SOCKET: socket,
      AIR_MUSTER_LEDGER: join(folder, 'laptop.ledger'),
    })
    children.push(helper)
    await said(helper, '"ready":true')
    const relay = new URL('lane-relay.ts', import.meta.url).pathname
    const words = ['--import', 'tsx', relay, socket, folder, address, ...macs]
    const lanes = wire.onLaptop(process.execPath, words)
    children.push(lanes)
    await said(lanes, 'ready')
    await vi.waitFor(() => Promise.all([...macs.keys()].map(isUp)), { ...patience, interval: 200 })
  } catch (error) {
    close()
    throw error
  }
  const ended = (index: number): Promise<number | null> =>
    new Promise((resolve) => {
      peers[index]?.once('exit', (code) => resolve(code))
      peers[index]?.kill()
    })
  return { address, macs, lane, folder: folderOf, ended, close }
}

function connected(path: string, port: number): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = connect(path, () => {
      socket.write(`${port}\n`)
      resolve(socket)
    })
    socket.once('error', (cause) => reject(new WireError('unreachable', cause.message)))
  })
}

/** Whether something is said on a port: a relay takes a connection before anybody answers behind it. */
async function answering(lane: Lane, port: number): Promise<void> {
  const socket = await lane.connect(port)
  await new Promise<void>((resolve, reject) => {
    socket.once('data', () => resolve())
    socket.once('close', () => reject(new Error(`nobody answers ${lane.mac} at ${port}`)))
    socket.write('GET / HTTP/1.0\r\n\r\n')
  }).finally(() => socket.destroy())
}

function said(child: ChildProcess, words: string): Promise<void> {
  return new Promise((resolve, reject) => {
    let fault = ''
    child.stderr?.on('data', (chunk) => {
      fault += chunk
    })
    child.stdout?.on('data', (chunk) => String(chunk).includes(words) && resolve())
    child.once('exit', () => reject(new Error(`it ended: ${fault}`)))
  })
}
