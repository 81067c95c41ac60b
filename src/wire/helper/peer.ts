/**
 * Which user is at the other end of a Unix socket. The kernel says which two ends belong together (sock_diag(7),
 * through iproute2's ss) and which process holds the other one: Node itself hands out no SO_PEERCRED.
 */
import { spawn } from 'node:child_process'
import { readlinkSync, statSync } from 'node:fs'

const patienceMs = 5000
const longestReply = 16 * 1024 * 1024

/**
 * Users whose processes hold the other end; none where nobody is found there any more, or it cannot be told.
 *
 * @param descriptor  of this end, in this process
 */
export async function usersAtOtherEnd(descriptor: number): Promise<number[]> {
  const own = /^socket:\[(\d+)\]$/.exec(readlinkSync(`/proc/self/fd/${descriptor}`))?.[1]
  if (own === undefined) return []
  return holdersOfOtherEnd(await unixSockets(), own).flatMap((pid) => {
    try {
      return [statSync(`/proc/${pid}`).uid]
    } catch {
      // It has ended meanwhile.
      return []
    }
  })
}

/**
 * Processes that hold the other end of a socket, by what ss tells: `... * INODE * PEER users:(("name",pid=1,fd=2))`.
 *
 * @param shown  as `ss -xnpH` prints it, all sockets
 * @param own    inode of this end
 */
export function holdersOfOtherEnd(shown: string, own: string): number[] {
  const lines = shown.split('\n').flatMap((line) => {
    const [, inode, peer, users = ''] = /\s(\d+)\s+\*\s+(\d+)(?:\s+users:\((.*)\))?\s*$/.exec(line) ?? []
    return inode === undefined || peer === undefined ? [] : [{ inode, peer, users }]
  })
  const peer = lines.find(({ inode }) => inode === own)?.peer
  // Names of processes are their own choice, quotes and all: what they hold comes after the last of them.
  const holders = lines.filter(({ inode }) => inode === peer).map(({ users }) => users)
  return holders.flatMap((users) => [...users.matchAll(/",pid=(\d+),fd=\d+\)/g)].map(([, pid]) => Number(pid)))
}

function unixSockets(): Promise<string> {
  return new Promise((resolve, reject) => {
    const child = spawn('ss', ['-xnpH'], { stdio: ['ignore', 'pipe', 'ignore'], timeout: patienceMs })
    let told = ''
    child.stdout.setEncoding('utf8').on('data', (chunk: string) => {
      told += chunk
      if (told.length > longestReply) child.kill('SIGKILL')
    })
    child.once('error', reject)
    child.once('close', (code) => (code === 0 ? resolve(told) : reject(new Error(`ss ended with ${code}`))))
  })
}
