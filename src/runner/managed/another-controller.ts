/** Another controller beside the one that is meant: an access point may have joined that. */
import { parseCidr } from '../../core/address/ipv4'
import { WireError } from '../../wire/errors/wire-error'
import type { Lane, Neighbour } from '../../wire/host/host'
import type { ControllerLink } from '../unit/controller-link'
import type { UnitRun } from '../unit/unit-run'

/** Others of a subnet that are asked, at most; and ms that each is waited for. */
const mostAsked = 64
const discoveryMs = 1000

export interface Another {
  readonly name: string | undefined
  readonly address: string
}

/** The first in the unit's subnets, other than its own controller, that answers a discovery (RFC 5415, 5.2). */
export async function anotherController(run: UnitRun, own: ControllerLink): Promise<Another | undefined> {
  const others = (await run.host.neighbours(run.target.subnets)).filter(
    ({ mac, address }) => mac !== run.target.unit.mac && address !== own.address,
  )
  const found = await Promise.all(others.slice(0, mostAsked).map((other) => asked(run, other)))
  return found.find((each) => each !== undefined)
}

async function asked({ host, sessions, target }: UnitRun, { mac, address }: Neighbour): Promise<Another | undefined> {
  const prefix = parseCidr(target.subnets[0] ?? '')?.prefix ?? 24
  let lane: Lane | undefined
  try {
    lane = await host.openLane({ mac, address, prefix, by: 'ipv4' })
    const seen = await sessions.discover(lane, discoveryMs)
    return seen && { name: seen.name, address }
  } catch (error) {
    if (error instanceof WireError) return undefined
    throw error
  } finally {
    await lane?.close()
  }
}
