/**
 * A wire made of network namespaces: a switch, the laptop, and boxes that all have one and the same factory address.
 * Everything is gone again with `close`.
 */
import { type ChildProcess, execFileSync, spawn } from 'node:child_process'

const ip = (...words: string[]): string =>
  execFileSync('ip', words, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] })

export interface BenchWire {
  /** Namespace in which the laptop is; its wired interface is `wired0`. */
  readonly laptop: string
  readonly wire: string
  box(index: number): string
  /** Gives the laptop an address that it has of its own. */
  own(cidr: string): void
  /** Takes it away again. */
  disown(cidr: string): void
  /** Runs a program where the laptop is. */
  onLaptop(command: string, args: readonly string[], env?: Record<string, string>): ChildProcess
  /** The same words of `ip` for the laptop: addresses, routes, rules, neighbours that were set by hand. */
  standing(): string
  close(): void
}

let wires = 0
export const macOf = (index: number): string => `02:ab:00:00:00:${(index + 1).toString(16).padStart(2, '0')}`

export function benchWire(boxes: number, address: string): BenchWire {
  wires += 1
  const name = `am${process.pid}x${wires}`
  const [wire, laptop] = [`${name}w`, `${name}l`]
  const box = (index: number): string => `${name}b${index}`
  const spaces = [wire, laptop, ...Array.from({ length: boxes }, (_, index) => box(index))]
  const close = (): void => {
    for (const space of spaces)
      try {
        ip('netns', 'del', space)
      } catch {
        // It was not made yet.
      }
  }
  try {
    for (const space of spaces) {
      ip('netns', 'add', space)
      ip('-n', space, 'link', 'set', 'lo', 'up')
      // Addresses are there at once: nothing waits for a duplicate of one that was just made up.
      ip('netns', 'exec', space, 'sh', '-c', 'echo 0 > /proc/sys/net/ipv6/conf/default/accept_dad')
    }
    ip('-n', wire, 'link', 'add', 'lan', 'type', 'bridge', 'stp_state', '0', 'forward_delay', '0')
    // A switch keeps LLDP to itself; this one lets the test play the switch.
    ip('-n', wire, 'link', 'set', 'lan', 'type', 'bridge', 'group_fwd_mask', '16384')
    ip('-n', wire, 'link', 'set', 'lan', 'up')
    const plug = (space: string, inside: string, port: string, mac?: string): void => {
      ip('-n', wire, 'link', 'add', port, 'type', 'veth', 'peer', 'name', inside, 'netns', space)
      if (mac) ip('-n', space, 'link', 'set', inside, 'address', mac)
      ip('-n', wire, 'link', 'set', port, 'master', 'lan', 'up')
      ip('-n', space, 'link', 'set', inside, 'up')
    }
    plug(laptop, 'wired0', 'laptop')
    for (let index = 0; index < boxes; index += 1) {
      plug(box(index), 'eth0', `box${index}`, macOf(index))
      ip('-n', box(index), 'addr', 'add', address, 'dev', 'eth0')
    }
  } catch (error) {
    close()
    throw error
  }
  return {
    laptop,
    wire,
    box,
    own: (cidr) => void ip('-n', laptop, 'addr', 'add', cidr, 'dev', 'wired0'),
    disown: (cidr) => void ip('-n', laptop, 'addr', 'del', cidr, 'dev', 'wired0'),
    onLaptop: (command, args, env = {}) =>
      spawn('ip', ['netns', 'exec', laptop, command, ...args], { env: { ...process.env, ...env } }),
    standing: () =>
      [
        ip('-n', laptop, '-o', 'addr'),
        ip('-n', laptop, 'route', 'show', 'table', 'all'),
        ip('-n', laptop, 'rule'),
        ip('-n', laptop, 'neigh', 'show', 'nud', 'permanent'),
      ].join('---\n'),
    close,
  }
}

/** Ends all that runs in a namespace: sessions outlive the service that they came by. */
export function endAllIn(space: string): void {
  const pids = execFileSync('ip', ['netns', 'pids', space], { encoding: 'utf8' }).trim().split('\n').filter(Boolean)
  for (const pid of pids)
    try {
      process.kill(Number(pid), 'SIGKILL')
    } catch {
      // It has ended by itself.
    }
}
