/** Answers the helper's verbs on a Unix socket that only one user may open. */
import { chmodSync, chownSync, rmSync } from 'node:fs'
import { createServer, type Socket } from 'node:net'
import type { Answering } from '../../core/questions/question'
import { serveQuestions } from '../../core/questions/serve'
import type { ArpProber } from './arp-prober'
import type { Ear } from './ear'
import { echoes } from './echo'
import type { GatewayLanes } from './gateway-lanes'
import { type HelperVerbs, helperVerbs } from './verbs'

export interface HelperParts {
  readonly interfaceName: string
  readonly lanes: GatewayLanes
  readonly prober: ArpProber
  readonly ear: Ear
  readonly added: () => readonly string[]
}

export interface HelperServer {
  close(): Promise<void>
}

/**
 * @param path   of the socket
 * @param owner  the user and group who may open it; the kernel refuses everybody else but root
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
    serveQuestions(socket, helperVerbs, answers)
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

function answersOf({ interfaceName, lanes, prober, ear, added }: HelperParts): Answering<HelperVerbs> {
  return {
    standing: () => ({ interfaceName, added: [...added()], lanes: lanes.count }),
    arp: async ({ address }) => ({ macs: await prober.who(address) }),
    neighbours: async ({ subnets }) => ({ found: await prober.everybody(subnets) }),
    'keep-off': ({ ranges }) => {
      lanes.keepOff(ranges)
      return {}
    },
    'open-lane': async (asked) => ({ source: await lanes.open(asked) }),
    'close-lane': async (asked) => {
      await lanes.close(asked)
      return {}
    },
    ping: async ({ source, address }) => ({ answers: await echoes(address, source) }),
    heard: async ({ askForDhcp }) => {
      if (askForDhcp === 'now') await ear.askForDhcp()
      return ear.heard()
    },
    restore: async () => {
      await lanes.closeAll()
      return {}
    },
  }
}
