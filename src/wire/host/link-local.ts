/**
 * IPv6 link-local addresses on one wired interface (RFC 4291, 2.5.6), by MAC. Every IPv6 host has one, it is its own
 * and nobody else's, and reaching it takes no privilege and no address of the laptop's in the unit's subnet.
 */
import { type ChildProcess, spawn } from 'node:child_process'
import { createSocket } from 'node:dgram'
import { networkInterfaces } from 'node:os'
import { setTimeout as pause } from 'node:timers/promises'
import { neighboursShown } from '../helper/ip-command'

/** An echo to all nodes of the link (RFC 4291, 2.7.1). */
const allNodes = 'ff02::1'
/** Nothing listens there: what is sent only has the kernel ask who the neighbour is. */
const discardPort = 9
const settleMs = 150
/** How long what was seen counts, ms: a unit that restarted comes back at the same address. */
const freshMs = 20_000
/** Between two looks for somebody who is not there, ms. */
const againMs = 2000

export class LinkLocal {
  readonly #interfaceName: string
  #byMac: ReadonlyMap<string, string> = new Map()
  #lookedAt = Number.NEGATIVE_INFINITY
  #looking: Promise<void> | undefined

  constructor(interfaceName: string) {
    this.#interfaceName = interfaceName
  }

  /** The laptop's own on this interface; undefined where it has none, and nobody is reached this way. */
  own(): string | undefined {
    return networkInterfaces()[this.#interfaceName]?.find(
      ({ family, address }) => family === 'IPv6' && address.startsWith('fe80:'),
    )?.address
  }

  /** Link-local address of the host with this MAC, with its zone: `fe80::…%eth0`. */
  async find(mac: string): Promise<string | undefined> {
    if (this.own() === undefined) return undefined
    const age = performance.now() - this.#lookedAt
    if (age > freshMs || (!this.#byMac.has(mac) && age > againMs)) await this.#look([mac])
    return this.#byMac.get(mac)
  }

  /** Everybody who answers on this link, by MAC. */
  async everybody(): Promise<ReadonlyMap<string, string>> {
    if (this.own() !== undefined && performance.now() - this.#lookedAt > againMs) await this.#look([])
    return this.#byMac
  }

  #look(likely: readonly string[]): Promise<void> {
    this.#looking ??= this.#lookOnce(likely).finally(() => {
      this.#looking = undefined
    })
    return this.#looking
  }

  async #lookOnce(likely: readonly string[]): Promise<void> {
    const zone = this.#interfaceName
    const heard = await echoed(`${allNodes}%${zone}`)
    // A neighbour that is spoken to is asked for its MAC.
    await touch([...heard, ...likely.map((mac) => `${fromMac(mac)}%${zone}`)])
    const neighbours = await neighboursShown(zone, 'ipv6').catch(() => [])
    this.#byMac = new Map(
      neighbours
        .filter(({ address }) => address.startsWith('fe80:'))
        .map(({ mac, address }) => [mac, `${address}%${zone}`] as const),
    )
    this.#lookedAt = performance.now()
  }
}

/** The address that many hosts make of their MAC (RFC 4291, appendix A). */
export function fromMac(mac: string): string {
  const bytes = mac.split(':').map((pair) => Number.parseInt(pair, 16))
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = bytes
  const group = (high: number, low: number): string => ((high << 8) | low).toString(16)
  return `fe80::${group(a ^ 2, b)}:${group(c, 0xff)}:${group(0xfe, d)}:${group(e, f)}`
}

/** Who answers an echo, each with its zone. */
function echoed(target: string): Promise<string[]> {
  return new Promise((resolve) => {
    // Where the program may not be run at all, spawn itself throws.
    const child = started('ping', ['-6', '-n', '-c', '2', '-i', '0.3', '-w', '2', target], {
      stdio: ['ignore', 'pipe', 'ignore'],
    })
    if (!child) return resolve([])
    let text = ''
    child.stdout?.on('data', (chunk: Buffer) => {
      text = (text + chunk.toString('latin1')).slice(-256 * 1024)
    })
    child.once('error', () => resolve([]))
    child.once('close', () =>
      resolve([...new Set([...text.matchAll(/ from (fe80:[0-9a-f:]+%[\w.@-]+)/g)].map(([, found]) => found ?? ''))]),
    )
  })
}

function started(...words: Parameters<typeof spawn>): ChildProcess | undefined {
  try {
    return spawn(...words)
  } catch {
    return undefined
  }
}

async function touch(addresses: readonly string[]): Promise<void> {
  const socket = createSocket('udp6')
  socket.on('error', () => undefined)
  for (const address of addresses) socket.send('', discardPort, address, () => undefined)
  await pause(settleMs)
  socket.close()
}
