/** iproute2: what it is told goes as one batch, what it tells is JSON and parsed strictly. */

import { spawn } from 'node:child_process'
import { z } from 'zod'
import { asTold, message } from '../../core/message/message'
import { ToldError } from '../../core/message/told-error'

const patienceMs = 5000
const longestReply = 4 * 1024 * 1024

/** It refused, in its own words. */
export class IpRefused extends ToldError {
  override readonly name = 'IpRefused'
}

/**
 * Carries out commands in turn.
 * @param refused  whether the first that is refused ends it, or the others are carried out all the same
 * @throws IpRefused  in either case, with the words of the first
 */
export async function ipBatch(commands: readonly string[], refused: 'end' | 'go-on' = 'end'): Promise<void> {
  const options = refused === 'go-on' ? ['-force'] : []
  // Tied to this process by the kernel: one that outlived it would add what the next start has just taken away.
  const tied = ['setpriv', '--pdeathsig', 'KILL', 'ip', ...options, '-batch', '-'] as const
  if (commands.length > 0) await run(tied, `${commands.join('\n')}\n`)
}

const addressShown = z.object({
  ifname: z.string(),
  address: z.string().optional(),
  flags: z.array(z.string()).default([]),
  /** The interface that this one is on top of. */
  link: z.string().optional(),
  linkinfo: z
    .object({ info_kind: z.string().optional(), info_data: z.object({ id: z.unknown() }).partial().optional() })
    .optional(),
  addr_info: z.array(z.object({ family: z.string(), local: z.string(), prefixlen: z.int() })).default([]),
})
export type InterfaceShown = z.infer<typeof addressShown>

/** All interfaces with their addresses. */
export async function interfaces(): Promise<InterfaceShown[]> {
  return z.array(addressShown).parse(await shown(['-d', 'addr', 'show']))
}

/** Interfaces for tagged VLANs (IEEE 802.1Q) on top of another. @param all  as `interfaces` tells them */
export function vlansOn(parent: string, all: readonly InterfaceShown[]): (InterfaceShown & { vlan: number })[] {
  return all.flatMap((each) => {
    const { info_kind, info_data } = each.linkinfo ?? {}
    const vlan = info_data?.id
    return each.link === parent && info_kind === 'vlan' && typeof vlan === 'number' ? [{ ...each, vlan }] : []
  })
}

const ruleShown = z.object({ priority: z.int() })

export async function rules(): Promise<z.infer<typeof ruleShown>[]> {
  return z.array(ruleShown).parse(await shown(['rule', 'show']))
}

const routeShown = z.object({ dev: z.string().default(''), gateway: z.string().optional() })

export async function defaultRoutesShown(): Promise<{ dev: string; via: string | undefined }[]> {
  const routes = z.array(routeShown).parse(await shown(['-4', 'route', 'show', 'default']))
  return routes.map(({ dev, gateway }) => ({ dev, via: gateway }))
}

const neighbourShown = z.object({
  dst: z.string(),
  lladdr: z.string().optional(),
  state: z.array(z.string()).default([]),
})

export interface NeighbourShown {
  readonly address: string
  readonly mac: string
  /** Whether the kernel has heard of it just now, or remembers it. */
  readonly heard: 'now' | 'before'
}

/** Neighbours on an interface whose MAC the kernel knows. */
export async function neighboursShown(dev: string, family: 'ipv4' | 'ipv6'): Promise<NeighbourShown[]> {
  const all = z.array(neighbourShown).parse(await shown([family === 'ipv4' ? '-4' : '-6', 'neigh', 'show', 'dev', dev]))
  return all.flatMap(({ dst, lladdr, state }) =>
    lladdr === undefined || state.includes('FAILED')
      ? []
      : [{ address: dst, mac: lladdr.toLowerCase(), heard: state.includes('REACHABLE') ? 'now' : 'before' }],
  )
}

async function shown(what: readonly string[]): Promise<unknown> {
  const text = await run(['ip', '-j', ...what], '')
  return text.trim() === '' ? [] : JSON.parse(text)
}

function run([command, ...words]: readonly [string, ...string[]], input: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const child = spawn(command, words, { timeout: patienceMs, stdio: ['pipe', 'pipe', 'pipe'] })
    let text = ''
    let fault = ''
    child.once('error', (error) => reject(new IpRefused(message('ip-not-run', { told: asTold(error.message) }))))
    child.stdin.on('error', () => undefined)
    child.stdout.setEncoding('utf8').on('data', (chunk: string) => {
      text += chunk
      if (text.length > longestReply) child.kill()
    })
    child.stderr.setEncoding('utf8').on('data', (chunk: string) => {
      fault = (fault + chunk).slice(0, 2000)
    })
    child.once('close', (status) => {
      if (status === 0) resolve(text)
      else
        reject(
          new IpRefused(fault.trim() ? asTold(fault.trim().split('\n')[0] ?? '') : message('ip-ended', { status })),
        )
    })
    child.stdin.end(input)
  })
}
