/**
 * A sweep of the bench: who is on the wire, by MAC, at which address, and what it says that it is.
 */

import pLimit from 'p-limit'
import { parseCidr } from '../core/address/ipv4'
import { lentPrefix } from '../core/addressing/bench-subnet'
import { type DirectCard, isDirect, isMustered, type KitCard, ofOneBox, servicePorts } from '../core/kit/kit-card'
import type { OldCrypto } from '../core/kit/old-crypto'
import { type Evidence, isKnown, perhapsByMac, recognise } from '../core/kit/recognise'
import type { Unit } from '../core/kit/unit'
import type { Sighting } from '../core/muster/events'
import type { UnitPlan } from '../core/plan/plan'
import { WireError } from '../wire/errors/wire-error'
import type { Host, Lane } from '../wire/host/host'
import type { Sessions } from '../wire/sessions'
import { systemGroup, textOf } from '../wire/snmp/answer'
import { type PinCheck, pinCheck } from '../wire/trust/pin'
import type { Records } from './ports/records'
import { takes } from './takes'

export interface SweepInput {
  readonly records: Pick<Records, 'pinOnFirstSight'>
  readonly host: Host
  readonly sessions: Sessions
  readonly jobId: number
  readonly units: readonly Unit[]
  readonly plans: ReadonlyMap<string, UnitPlan>
  readonly cards: ReadonlyMap<string, KitCard>
  /** The management network, CIDR. */
  readonly management: string
  /** Addresses that this laptop has lent to boxes that wait for one. */
  readonly lent: readonly { readonly mac: string; readonly address: string }[]
  /** Where units have proven themselves: the plan may have moved on since. */
  readonly provenAt: ReadonlyMap<string, { readonly address: string; readonly prefix: number }>
  /** What the sweep before saw: who said who it is does not have to say it again. */
  readonly before: readonly Sighting[]
  /** What is no longer safe, and somebody lets be spoken with a unit, by its id. */
  readonly old: ReadonlyMap<string, readonly OldCrypto[]>
  /** What units have said of themselves by LLDP, by MAC. */
  readonly introductions: ReadonlyMap<string, string>
  /** ms since 1970. */
  readonly now: number
}

interface Candidate {
  readonly address: string
  readonly prefix: number
  readonly card: KitCard
  readonly seen: Sighting['seen']
}

/** Questions to the wire that are under way at once: many boxes are asked side by side, and no laptop is drowned. */
const atOnce = 16

/** Sightings in the order of the kit list, strays last. */
export async function sweep(input: SweepInput): Promise<Sighting[]> {
  const bounded = pLimit(atOnce)
  const asked = candidates(input)
  const at = await Promise.all(asked.map((candidate) => bounded(() => look(input, candidate))))
  const rest = await elsewhere(input, new Set(asked.map(({ address }) => address)))
  const seen = await Promise.all([...at.flat(), ...rest].map((one) => bounded(() => sighted(input, one))))
  const order = new Map(input.units.map((unit, index) => [unit.mac, index]))
  const place = (sighting: Sighting): number => order.get(sighting.mac) ?? order.size
  return seen.sort((a, b) => place(a) - place(b) || a.mac.localeCompare(b.mac))
}

/** Somebody who answers ARP. */
interface Answerer extends Candidate {
  readonly mac: string
}

/**
 * Addresses worth asking for: the factory address of each model on the list, each planned one, and where a unit was
 * left.
 */
function candidates({ units, plans, cards, management, lent, provenAt }: SweepInput): Candidate[] {
  const managementPrefix = parseCidr(management)?.prefix ?? 24
  const byAddress = new Map<string, Candidate>()
  for (const unit of units) {
    const card = cards.get(unit.model)
    if (!card) continue
    const { address, prefix } = card.factory
    if (address !== null) byAddress.set(address, { address, prefix, card, seen: 'at-factory-address' })
    const proven = provenAt.get(unit.id)
    if (proven && !byAddress.has(proven.address)) byAddress.set(proven.address, { ...proven, card, seen: 'elsewhere' })
    const planned = plans.get(unit.id)?.address
    if (planned) byAddress.set(planned, { address: planned, prefix: managementPrefix, card, seen: 'at-its-address' })
    // A unit that is set by hand is not called ready, only heard.
    const own = isMustered(card) ? lent.find(({ mac }) => mac === unit.mac)?.address : undefined
    const lentOf = own === undefined ? undefined : lentPrefix(own)
    if (own !== undefined && lentOf !== undefined)
      byAddress.set(own, { address: own, prefix: lentOf, card, seen: 'by-dhcp' })
  }
  return [...byAddress.values()]
}

async function look({ host, units, plans }: SweepInput, candidate: Candidate): Promise<Answerer[]> {
  const { address, seen } = candidate
  return (await host.arp(address)).map((mac) => {
    const unit = units.find((each) => each.mac === mac)
    const isItsOwn = seen !== 'at-its-address' || plans.get(unit?.id ?? '')?.address === address
    return { ...candidate, mac, seen: isItsOwn ? seen : 'elsewhere' }
  })
}

/** Units that took what DHCP gave are found by their MAC, wherever in the management network they are. */
async function elsewhere(
  { host, units, cards, management, provenAt }: SweepInput,
  asked: Set<string>,
): Promise<Answerer[]> {
  const former = [...provenAt.values()].map(({ address, prefix }) => `${address}/${prefix}`)
  const found = (await host.neighbours([...new Set([management, ...former])])).filter(
    ({ address }) => !asked.has(address),
  )
  return found.flatMap(({ mac, address }): Answerer[] => {
    const unit = units.find((each) => each.mac === mac)
    const card = unit && cards.get(unit.model)
    const prefix = parseCidr(management)?.prefix ?? 24
    if (!card) return []
    const asksDhcp = card.factory.addressing !== 'static' || provenAt.get(unit.id) !== undefined
    return [{ mac, address, prefix, card, seen: asksDhcp ? 'by-dhcp' : 'elsewhere' }]
  })
}

async function sighted(input: SweepInput, answerer: Answerer): Promise<Sighting> {
  const { mac, address, seen } = answerer
  const unit = input.units.find((each) => each.mac === mac)?.id ?? null
  const found = await identity(input, answerer)
  const before = input.before.find((each) => each.mac === mac && each.address === address)
  const since = before?.answers === found.answers ? before.since : undefined
  const perhaps = found.model === null ? perhapsByMac(mac, input.cards.values()) : undefined
  return {
    mac,
    address,
    unit,
    seen,
    ...found,
    ...(perhaps === undefined ? {} : { perhaps }),
    since: since ?? input.now,
  }
}

type Identity = Pick<Sighting, 'model' | 'by' | 'answers'>

/** What it says that it is, and how far it answers. */
async function identity(input: SweepInput, { mac, address, prefix, card }: Answerer): Promise<Identity> {
  // It says nothing to anybody but its controller, or nobody knows how it is asked: that it is there is all there is.
  if (!isDirect(card)) return { model: null, by: [], answers: 'service' }
  const known = input.before.find((each) => each.mac === mac && each.address === address && each.answers === 'service')
  const listed = input.units.find((each) => each.mac === mac)
  const { reachedBy: by, old } = ofOneBox(card, { old: input.old.get(listed?.id ?? '') }).does
  const lane = await input.host.openLane({ mac, address, prefix, by, old })
  try {
    return known?.model ? await stillThere(lane, card, known) : await introduced(input, mac, lane, card)
  } finally {
    await lane.close()
  }
}

async function stillThere(lane: Lane, card: DirectCard, { model, by }: Sighting): Promise<Identity> {
  for (const port of servicePorts(card)) if (await takes(lane, port)) return { model, by, answers: 'service' }
  return { model: null, by: [], answers: 'arp-only' }
}

async function introduced(
  { records, sessions, jobId, cards, introductions, now }: SweepInput,
  mac: string,
  lane: Lane,
  card: DirectCard,
): Promise<Identity> {
  const trusted = pinCheck((fingerprint) => records.pinOnFirstSight(jobId, mac, fingerprint, new Date(now)))
  let certificate: string | undefined
  const pin: PinCheck = (fingerprint, subject) => {
    certificate = subject
    return trusted(fingerprint)
  }
  const dialect = await sessions.unit(lane, card, pin)
  const lldp = introductions.get(mac)
  const told: Evidence = lldp === undefined ? {} : { lldp }
  try {
    const said = await dialect.identify()
    const seen = { ...said, ...(certificate ? { certificate } : {}), ...told }
    const all = isKnown(seen, cards.values()) ? seen : { ...seen, ...(await bySnmp(sessions, lane)) }
    return { ...recognise(all, mac, cards.values()), answers: 'service' }
  } catch (error) {
    if (error instanceof WireError)
      return {
        // A unit that does not answer may still have said what it is.
        ...(isKnown(told, cards.values()) ? recognise(told, mac, cards.values()) : { model: null, by: [] }),
        answers: error.kind === 'untrusted' ? 'untrusted' : 'arp-only',
      }
    throw error
  } finally {
    dialect.close()
  }
}

/** What it says that it is to whoever asks in clear, as much equipment does out of its box. */
async function bySnmp(sessions: Sessions, lane: Lane): Promise<Evidence> {
  try {
    const answer = await sessions.snmpInClear(lane, 'public', [systemGroup.objectId])
    const sysObjectId = answer.kind === 'told' ? answer.values[0] : undefined
    return sysObjectId === undefined ? {} : { sysObjectId: textOf(sysObjectId) }
  } catch (error) {
    if (error instanceof WireError) return {}
    throw error
  }
}
