/** Reach: find the unit by its MAC at one of the addresses where it could be, and see its service answer. */

import { WireError } from '../../wire/wire-error'
import { notFound } from '../explain'
import type { UnitRun } from '../unit-run'

/** Seconds more than the card says, for a switch port that takes its time. */
const patience = 45

export async function reach(run: UnitRun): Promise<string> {
  const { timing } = run.card
  const applying = run.doors.address === 'opened'
  const addresses = placesOf(run)
  const wait = applying ? timing.apply + timing.restart : timing.start
  const until = run.due(wait)
  const deadline = run.deadline(wait + patience)
  let told = ''
  for (;;) {
    const found = await locate(run, addresses)
    if (found?.answers === 'service') {
      run.address = found.address
      const lane = await run.lane(found.address)
      run.say(`answers at ${found.address}, lane from ${lane.source}`)
      return `answers at ${found.address}`
    }
    if (deadline.hasPassed()) throw notFound({ unit: run.unit, card: run.card }, addresses)
    const waitingFor = found ? 'starting up' : 'looking for it on the wire'
    if (waitingFor !== told) {
      told = waitingFor
      await run.tell('reach', { is: 'waiting', until, waitingFor })
    }
    await run.pause(2)
  }
}

/**
 * Where it could be, the likelier first: once its new address was written it may be at either. An address that it had
 * before the plan was changed counts too, and one at which the last sweep saw it.
 */
function placesOf({ card, plan, doors, provenAddress, seenAt }: UnitRun): string[] {
  const { address } = card.factory
  const places =
    doors.address === 'shut'
      ? [address, plan.address, provenAddress, seenAt]
      : [plan.address, provenAddress, address, seenAt]
  return [...new Set(places.filter((place) => place !== undefined))]
}

/** Where the unit answers now: by ARP with its own MAC, and whether its service takes a connection. */
export async function locate(
  run: UnitRun,
  addresses: readonly string[],
): Promise<{ address: string; answers: 'service' | 'arp-only' } | undefined> {
  for (const address of addresses) {
    if (!(await run.host.arp(address)).includes(run.unit.mac)) continue
    return { address, answers: (await serviceAnswers(run, address)) ? 'service' : 'arp-only' }
  }
  return undefined
}

async function serviceAnswers(run: UnitRun, address: string): Promise<boolean> {
  try {
    const lane = await run.lane(address)
    const socket = await lane.connect(run.card.factory.port)
    socket.destroy()
    return true
  } catch (error) {
    if (error instanceof WireError && error.kind === 'unreachable') return false
    throw error
  }
}
