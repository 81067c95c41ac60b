/** What must be true at every moment of a simulation, whatever goes wrong. */
import type { Difference } from '../../src/core/config/compare'
import { stepOf } from '../../src/core/config/compare'
import type { Clear, Config } from '../../src/core/config/unit-config'
import { isManaged } from '../../src/core/kit/kit-card'
import type { TimedEvent } from '../../src/store/events'
import { jobId, type Scene } from './scene'
import { noteHeld, subnetOf } from './truths'
import { isSetByHand, type SimulatedUnit } from './unit'
import { factoryPassword, movesBetween, shipped } from './values'
import type { Process } from './world'

export type Change =
  | { readonly kind: 'write'; readonly differences: readonly Difference[]; readonly desired: Config<Clear> }
  /** `admin`: a password for the admin that whoever comes first makes. */
  | { readonly kind: 'password' | 'admin'; readonly password: string }
  | { readonly kind: 'apply' | 'save' | 'install' }

type Written = Extract<Change, { kind: 'write' }>

/** A process is about to change a unit: nobody else may work on it then. */
export function whoWrites(scene: Scene, process: Process, unit: SimulatedUnit): void {
  const order = scene.working.get(process.name)
  const kept = scene.records.orders.find(({ id }) => id === order?.id)
  if (kept?.owner !== undefined && kept.owner !== process.name)
    scene.violate('one writer a unit', `${process.name} changes ${unit.unit.name}, and ${kept.owner} has the order`)
}

/** Rules that hold at every moment of a unit's life. */
export function whatUnitIs(scene: Scene, unit: SimulatedUnit): void {
  const kept = scene.records.jobs.get(jobId)
  if (!kept || scene.outOfHand.has(unit.mac)) return
  const open = unit.openOnAir().filter((id) => !id.startsWith(shipped))
  for (const id of open)
    if (scene.scenario.site.networks[Number(id.slice(1))] !== 'open')
      scene.violate('no open network on air', `${unit.unit.name} has ${id} on air without security`)
  // A way in is known at every moment.
  const passwords = new Set([factoryPassword, ...kept.secrets.values(), ...kept.former.map(({ clear }) => clear)])
  for (const { password } of [unit.running, unit.startup])
    if (!passwords.has(password)) scene.violate('never stranded', `${unit.unit.name} has a password that nobody knows`)
}

/** A change reaches a unit. */
export function whatIsWritten(scene: Scene, process: Process, unit: SimulatedUnit, change: Change): void {
  const kept = scene.records.jobs.get(jobId)
  if (!kept) return
  const doors = scene.doors.get(unit.unit.id) ?? new Set()
  const { name } = unit.unit
  if (isSetByHand(unit)) scene.violate('what hands set is set by hands alone', `${name} is changed`)
  // Before it has an admin it lets nobody read it.
  if (change.kind !== 'admin' && !isManaged(unit.card) && !kept.backups.has(`${unit.mac} as-found`))
    scene.violate('a copy before the first change', `${name} is changed, and nothing was kept of it`)
  if (change.kind === 'password' || change.kind === 'admin') {
    if (!doors.has('password'))
      scene.violate('one-way doors are journaled', `${name} is told a password, and its door is shut`)
  }
  if (change.kind === 'write' && change.differences.some((each) => stepOf(each) === 'address')) {
    if (!doors.has('address') && !isManaged(unit.card))
      scene.violate('one-way doors are journaled', `${name} is told an address, and its door is shut`)
  }
  if (change.kind === 'write') {
    countryFirst(scene, unit, change.differences)
    freeAddress(scene, process, unit, change)
  }
  if (change.kind !== 'admin') factoryNetworksFirst(scene, unit, change)
}

/** Nothing about radios is written before the country is right. */
function countryFirst(scene: Scene, unit: SimulatedUnit, differences: readonly Difference[]): void {
  const country = scene.records.jobs.get(jobId)?.job.brief.country
  if (isManaged(unit.card) || unit.configured.unit['unit.country'] === country) return
  if (differences.some((each) => stepOf(each) === 'radios'))
    scene.violate('country before radios', `${unit.unit.name} has its radios written, and its country is not set`)
}

/** A unit is sent where nobody else was when its process last looked, and it did look. */
function freeAddress(scene: Scene, process: Process, unit: SimulatedUnit, change: Written): void {
  const { 'management.address': address, 'management.method': method } = change.desired.unit
  const isTold = change.differences.some((each) => each.kind === 'value' && each.id === 'management.address')
  if (!isTold || method !== 'static' || address === undefined) return
  const isAnother = (mac: string): boolean => mac !== unit.mac
  const seen = scene.seenAt.get(`${process.name} ${address}`)
  const isThere = scene.answering(address).some(isAnother)
  if (seen === undefined ? isThere : seen.some(isAnother))
    scene.violate('an address is free when a unit is sent there', `${unit.unit.name} is sent to ${address}`)
}

/** An open network that a unit ships with is taken off air before anything else of it is changed. */
function factoryNetworksFirst(scene: Scene, unit: SimulatedUnit, change: Change): void {
  if (isManaged(unit.card) || scene.outOfHand.has(unit.mac)) return
  const isKept = Object.keys(unit.startup.values.networks).some((id) => id.startsWith(shipped))
  // What is staged and not on air goes with the rest.
  const isFirst = unit.traits.applies === 'at-once' || unit.traits.radios === 'on'
  if (change.kind === 'install' && isKept && isFirst && unit.traits.networks === 'open')
    scene.violate('factory networks are silenced first', `${unit.unit.name} restarts, and has "Setup" on air again`)
  if (!unit.openOnAir().some((id) => id.startsWith(shipped))) return
  const { candidate, running } = unit
  // What waits lets it go off air: it is applied next, where the unit stays at its address.
  if (candidate && (change.kind === 'apply' || movesBetween(running.values, candidate))) return
  const silences =
    change.kind === 'write' && change.differences.some((each) => each.kind === 'surplus' && each.of.startsWith(shipped))
  if (!silences)
    scene.violate(
      'factory networks are silenced first',
      `${unit.unit.name} is changed (${change.kind}), and "Setup" is on air`,
    )
}

/** No secret is ever kept in events; one-way doors are remembered as they are told. */
export function whatIsTold(scene: Scene, events: readonly TimedEvent[]): void {
  for (const { event } of events)
    if (event.kind === 'door') {
      const doors = scene.doors.get(event.unit) ?? new Set()
      scene.doors.set(event.unit, doors.add(event.door))
      const { place } = event
      const subnets = scene.sentTo.get(event.unit) ?? new Set()
      if (place) scene.sentTo.set(event.unit, subnets.add(subnetOf(place.address)))
    } else if (event.kind === 'step' && event.state.kind === 'held') noteHeld(scene, event.unit, event.state.code)
  const kept = scene.records.jobs.get(jobId)
  // Looking through every event is dear: one simulation in eight does.
  if (!kept || (scene.scenario.seed & 7) !== 0) return
  const text = JSON.stringify(events)
  for (const secret of [...kept.secrets.values(), ...kept.former.map(({ clear }) => clear)])
    if (text.includes(secret)) scene.violate('no secret in events', secret)
}
