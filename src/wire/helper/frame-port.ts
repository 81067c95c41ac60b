/**
 * Raw frames in and out of one interface. Node has no raw sockets: Debian's tcpdump listens, with a filter in the
 * kernel so that a busy interface costs nothing, and Debian's socat sends what it gets from us by UDP on loopback, one
 * datagram a frame. Both end with the helper, however it ends.
 */

import { type ChildProcess, spawn } from 'node:child_process'
import { createSocket, type Socket } from 'node:dgram'
import type { AddressInfo } from 'node:net'
import { setTimeout as pause } from 'node:timers/promises'
import { messageText } from '../../core/message/message'
import { framesOf } from '../codec/capture'

export interface FramePort {
  send(frame: Buffer): void
  /** @returns takes the listener away again */
  listen(onFrame: (frame: Buffer) => void): () => void
  close(): void
}

const longestFrame = 600
/** ARP, LLDP and DHCP: nobody's own traffic. */
const filter = 'arp or ether proto 0x88cc or (udp and (port 67 or port 68))'
const startPatienceMs = 5000

/**
 * @param interfaceName  checked before: it is an interface of this machine
 * @throws Error  the two programs are missing, or may not open the interface
 */
export async function openFramePort(interfaceName: string, onEnd: (why: string) => void): Promise<FramePort> {
  const out = createSocket('udp4')
  await new Promise<void>((resolve) => out.bind(0, '127.0.0.1', resolve))
  const listeners = new Set<(frame: Buffer) => void>()
  const port = await freeUdpPort()
  // A socket that is connected takes datagrams from its peer alone, address and port: the kernel lets nobody else on
  // this machine send frames by it.
  const { port: own } = out.address() as AddressInfo
  const sender = tied('socat', ['-u', `UDP4:127.0.0.1:${own},bind=127.0.0.1:${port}`, `INTERFACE:${interfaceName}`])
  // Started by root it would become another user by itself, and the kernel would not end it with us any more: it is
  // nobody from the beginning, with the one right that it needs.
  const right = '-all,+net_raw'
  const nobody = ['--reuid=65534', '--regid=65534', '--clear-groups', `--inh-caps=${right}`, `--ambient-caps=${right}`]
  const listener = tied(
    'tcpdump',
    [
      ...['-i', interfaceName, '-p', '-n', '-U', '--immediate-mode', '-Q', 'in'],
      ...['-s', String(longestFrame), '-w', '-', filter],
    ],
    process.getuid?.() === 0 ? nobody : [],
  )
  let open = true
  const close = (): void => {
    open = false
    listeners.clear()
    sender.kill()
    listener.kill()
    out.close()
  }
  const fail = (why: string): void => {
    if (!open) return
    close()
    onEnd(why)
  }
  try {
    await ready(listener, 'tcpdump', 'listening on')
    await udpPortTaken(port, sender)
  } catch (error) {
    close()
    throw error
  }
  sender.once('exit', () => fail('socat ended'))
  listener.once('exit', () => fail('tcpdump ended'))
  const take = framesOf((frame) => {
    for (const hear of listeners) hear(frame)
  })
  listener.stdout?.on('data', (chunk: Buffer) => {
    try {
      take(chunk)
    } catch (error) {
      fail(error instanceof Error ? error.message : String(error))
    }
  })
  return {
    send: (frame) => out.send(frame, port, '127.0.0.1'),
    listen: (onFrame) => {
      listeners.add(onFrame)
      return () => void listeners.delete(onFrame)
    },
    close,
  }
}

/** A program that the kernel ends when this process does, also by SIGKILL. */
function tied(command: string, args: readonly string[], as: readonly string[] = []): ChildProcess {
  return spawn('setpriv', ['--pdeathsig', 'KILL', ...as, command, ...args], { stdio: ['ignore', 'pipe', 'pipe'] })
}

function ready(child: ChildProcess, name: string, words: string): Promise<void> {
  return new Promise((resolve, reject) => {
    let said = ''
    const late = setTimeout(
      () => reject(new Error(messageText('program-does-not-start', { program: name, said: said.trim() }))),
      startPatienceMs,
    )
    child.once('error', reject)
    child.once('exit', () =>
      reject(new Error(messageText('program-does-not-start', { program: name, said: said.trim().slice(0, 300) }))),
    )
    child.stderr?.on('data', (chunk: Buffer) => {
      said = (said + chunk.toString()).slice(-2000)
      if (!said.includes(words)) return
      clearTimeout(late)
      resolve()
    })
  })
}

async function freeUdpPort(): Promise<number> {
  const probe = await bound(0)
  const { port } = probe.address() as AddressInfo
  await new Promise<void>((resolve) => probe.close(() => resolve()))
  return port
}

/** Waits until the sender has taken its port. */
async function udpPortTaken(port: number, sender: ChildProcess): Promise<void> {
  let said = ''
  sender.stderr?.on('data', (chunk: Buffer) => {
    said = (said + chunk.toString()).slice(-500)
  })
  for (let waited = 0; waited < startPatienceMs; waited += 20) {
    if (sender.exitCode !== null) throw new Error(`socat does not start: ${said.trim()}`)
    try {
      const probe = await bound(port)
      await new Promise<void>((resolve) => probe.close(() => resolve()))
    } catch {
      return
    }
    await pause(20)
  }
  throw new Error(messageText('socat-too-slow'))
}

function bound(port: number): Promise<Socket> {
  const socket = createSocket('udp4')
  return new Promise((resolve, reject) => {
    socket.once('error', reject)
    socket.bind(port, '127.0.0.1', () => resolve(socket))
  })
}
