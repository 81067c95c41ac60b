/**
 * A sweep of the bench: who is on the wire, by MAC, at which address, and what it says that it is.
 */

import { type DirectCard, isDirect, type KitCard } from '../core/kit/kit-card'
import type { Unit } from '../core/kit/unit'
import type { Sighting } from '../core/muster/events'
import type { UnitPlan } from '../core/plan/plan'
import type { Store } from '../store/open'
import { pinOnFirstSight } from '../store/secrets'
import { dialectOf } from '../wire/dialect/dialect-of'
import type { Host, Lane } from '../wire/host/host'
import { WireError } from '../wire/wire-error'

export interface SweepInput {
  readonly store: Store
  readonly host: Host
  readonly jobId: number
  readonly units: readonly Unit[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  readonly cards: ReadonlyMap<string, KitCard>
  /** Prefix length of the management network. */
  readonly managementPrefix: number
  /** Where units have proven themselves: the plan may have moved on since. */
  readonly provenAt: ReadonlyMap<string, { readonly address: string; readonly prefix: number }>
  /** What the sweep before saw: who said who it is does not have to say it again. */
  readonly before: readonly Sighting[]
}

interface Candidate {
  readonly address: string
  readonly prefix: number
  readonly card: DirectCard
  readonly seen: Sighting['seen']
}

/** Sightings in the order of the kit list, strays last. */
export async function sweep(input: SweepInput): Promise<Sighting[]> {
  const found = await Promise.all(candidates(input).map((candidate) => look(input, candidate)))
  const order = new Map(input.units.map((unit, index) => [unit.mac, index]))
  const place = (sighting: Sighting): number => order.get(sighting.mac) ?? order.size
  return found.flat().sort((a, b) => place(a) - place(b) || a.mac.localeCompare(b.mac))
}

/** Addresses worth asking for: the factory address of each model on the list, each planned one, and where a unit was left. */
function candidates({ units, plans, cards, managementPrefix, provenAt }: SweepInput): Candidate[] {
  const byAddress = new Map<string, Candidate>()
  for (const unit of units) {
    const card = cards.get(unit.model)
    if (!card || !isDirect(card)) continue
    const { address, prefix } = card.factory
    byAddress.set(address, { address, prefix, card, seen: 'at-factory-address' })
    const proven = provenAt.get(unit.id)
    if (proven && !byAddress.has(proven.address)) byAddress.set(proven.address, { ...proven, card, seen: 'elsewhere' })
    const planned = plans.get(unit.id)?.address
    if (planned) byAddress.set(planned, { address: planned, prefix: managementPrefix, card, seen: 'at-its-address' })
  }
  return [...byAddress.values()]
}

async function look(input: SweepInput, candidate: Candidate): Promise<Sighting[]> {
  const { address, seen } = candidate
  const macs = await input.host.arp(address)
  return Promise.all(
    macs.map(async (mac): Promise<Sighting> => {
      const unit = input.units.find((each) => each.mac === mac)
      const isItsOwn = seen !== 'at-its-address' || input.plans.get(unit?.id ?? '')?.address === address
      return {
        mac,
        address,
        unit: unit?.id ?? null,
        seen: isItsOwn ? seen : 'elsewhere',
        ...(await identity(input, mac, candidate)),
      }
    }),
  )
}

type Identity = Pick<Sighting, 'model' | 'answers'>

/** What it says that it is, and how far it answers. */
async function identity(input: SweepInput, mac: string, { address, prefix, card }: Candidate): Promise<Identity> {
  const known = input.before.find((each) => each.mac === mac && each.address === address && each.answers === 'service')
  const lane = await input.host.openLane({ mac, address, prefix })
  try {
    return known?.model ? await stillThere(lane, card, known.model) : await introduced(input, mac, lane, card)
  } finally {
    await lane.close()
  }
}

async function stillThere(lane: Lane, card: DirectCard, model: string): Promise<Identity> {
  try {
    const socket = await lane.connect(card.factory.port)
    socket.destroy()
    return { model, answers: 'service' }
  } catch (error) {
    if (error instanceof WireError) return { model: null, answers: 'arp-only' }
    throw error
  }
}

async function introduced({ store, jobId }: SweepInput, mac: string, lane: Lane, card: DirectCard): Promise<Identity> {
  const dialect = dialectOf(card, lane, async (fingerprint) => {
    const pinned = await pinOnFirstSight(store, jobId, mac, fingerprint, new Date())
    if (pinned.fingerprint !== fingerprint) throw new WireError('untrusted', 'another certificate than the pinned one')
  })
  try {
    return { model: await dialect.identify(), answers: 'service' }
  } catch (error) {
    if (error instanceof WireError)
      return { model: null, answers: error.kind === 'untrusted' ? 'untrusted' : 'arp-only' }
    throw error
  } finally {
    dialect.close()
  }
}
