/** Answers the helper's verbs on a Unix socket that only one user may open. */
import { chmodSync, chownSync, rmSync } from 'node:fs'
import { createServer, type Socket } from 'node:net'
import type { AddressRange } from '../../core/brief/subnet'
import type { Answering } from '../../core/questions/question'
import { serveQuestions } from '../../core/questions/serve'
import type { ArpProber } from './arp-prober'
import type { BenchDhcp } from './bench-dhcp'
import type { Ear } from './ear'
import { echoes } from './echo'
import type { GatewayLanes } from './gateway-lanes'
import { usersAtOtherEnd } from './peer'
import { type HelperVerbs, helperVerbs } from './verbs'
import type { VlanLinks } from './vlan-links'

export interface HelperParts {
  readonly interfaceName: string
  readonly lanes: GatewayLanes
  readonly prober: ArpProber
  readonly ear: Ear
  readonly dhcp: BenchDhcp
  readonly links: VlanLinks
  readonly added: () => readonly string[]
}

export interface HelperServer {
  close(): Promise<void>
}

/**
 * @param path   of the socket
 * @param owner  the user and group who may open it; the kernel refuses everybody else but root. Who opened it is asked
 *               once more, since the mode of a file is soon changed
 */
export async function serveHelper(
  parts: HelperParts,
  path: string,
  owner?: { readonly uid: number; readonly gid: number },
): Promise<HelperServer> {
  const sockets = new Set<Socket>()
  const answers = answersOf(parts)
  const server = createServer((socket) => {
    sockets.add(socket)
    socket.on('close', () => sockets.delete(socket))
    socket.on('error', () => socket.destroy())
    // Nothing is read before it is known who asks.
    socket.pause()
    void mayAsk(socket, owner).then((may) => {
      if (!may) return void socket.destroy()
      serveQuestions(socket, helperVerbs, answers)
      socket.resume()
    })
  })
  rmSync(path, { force: true })
  // Nobody may open it before its owner and mode are set.
  const before = process.umask(0o177)
  try {
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject)
      server.listen(path, resolve)
    })
  } finally {
    process.umask(before)
  }
  if (owner) chownSync(path, owner.uid, owner.gid)
  chmodSync(path, 0o600)
  return {
    close: async () => {
      for (const socket of sockets) socket.destroy()
      await new Promise<void>((resolve) => server.close(() => resolve()))
    },
  }
}

/** Whether the process at the other end is of the user whose installation this is, or root. */
async function mayAsk(socket: Socket, owner: { readonly uid: number } | undefined): Promise<boolean> {
  const users = await usersAtOtherEnd(descriptorOf(socket)).catch((error: Error) => {
    process.stderr.write(`who asks cannot be told, and is turned away: ${error.message}\n`)
    return []
  })
  const may = [owner?.uid ?? process.getuid?.() ?? 0, 0]
  return users.length > 0 && users.every((uid) => may.includes(uid))
}

/** Number of its file, which Node keeps to itself. */
function descriptorOf(socket: Socket): number {
  return (socket as unknown as { readonly _handle: { readonly fd: number } | null })._handle?.fd ?? -1
}

function answersOf({ interfaceName, lanes, prober, ear, dhcp, links, added }: HelperParts): Answering<HelperVerbs> {
  let keptOff: readonly AddressRange[] = []
  const keepOff = (): void => lanes.keepOff([...keptOff, ...dhcp.kept])
  const askedIn = (): number[] => links.all.map(({ vlan }) => vlan)
  return {
    standing: () => ({
      interfaceName,
      added: [...added()],
      lanes: lanes.count,
      vlans: links.all.map((link) => ({ ...link, heardAt: ear.lastIn(link.vlan) })),
    }),
    'reach-vlans': async ({ vlans }) => {
      try {
        await links.reach(vlans)
      } finally {
        prober.askIn(askedIn())
      }
      return {}
    },
    arp: async ({ address }) => ({ macs: await prober.who(address) }),
    neighbours: async ({ subnets }) => ({ found: await prober.everybody(subnets) }),
    'keep-off': ({ ranges }) => {
      keptOff = ranges
      keepOff()
      return {}
    },
    'lend-addresses': async ({ to }) => {
      // Whoever serves here already is heard before anything is lent.
      if (to !== null && dhcp.standing().state === 'off') await ear.askForDhcp([])
      dhcp.serve(to)
      keepOff()
      return {}
    },
    'open-lane': async (asked) => ({ source: await lanes.open(asked) }),
    'close-lane': async (asked) => {
      await lanes.close(asked)
      return {}
    },
    ping: async ({ source, address }) => ({ answers: await echoes(address, source) }),
    heard: async ({ askForDhcp }) => {
      if (askForDhcp === 'now') await ear.askForDhcp(askedIn())
      return { ...ear.heard(), dhcp: dhcp.standing() }
    },
    restore: async () => {
      dhcp.serve(null)
      await lanes.closeAll()
      links.forget()
      prober.askIn([])
      return {}
    },
  }
}
