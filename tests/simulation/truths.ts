/** When a reason for which a unit is held is the true one, once nothing goes wrong any more. */
import type { HeldCode } from '../../src/core/muster/held'
import { jobId, type Scene } from './scene'
import { isSetByHand, type SimulatedUnit } from './unit'
import { factoryPassword } from './values'

interface Looked {
  readonly scene: Scene
  readonly unit: SimulatedUnit
  /** Address that the plan has for it. */
  readonly planned: string
  /** Passwords that it could have from this job or its factory. */
  readonly passwords: ReadonlySet<string>
}

const asksDhcp = ({ scene }: Looked): boolean => scene.job.brief.addressing === 'dhcp'
const isTaken = (scene: Scene, unit: SimulatedUnit, planned: string): boolean =>
  scene.answering(planned).some((mac) => mac !== unit.mac)
const othersAt = ({ scene, unit, planned }: Looked): boolean =>
  scene.displaced.has(unit.unit.id) || isTaken(scene, unit, planned)
const isElsewhere = ({ scene, unit, planned }: Looked): boolean => scene.leases.get(unit.mac) !== planned

/** As the simulation has them: /24. */
export const subnetOf = (address: string): string => address.slice(0, address.lastIndexOf('.'))

/** A code that is missing is never true of equipment that does nothing wrong. */
const truths: Readonly<Partial<Record<HeldCode, (looked: Looked) => boolean>>> = {
  'refuses-passwords': ({ unit, passwords }) => !passwords.has(unit.running.password),
  'new-certificate': ({ scene, unit }) => scene.records.jobs.get(jobId)?.pins.get(unit.mac) !== unit.certificate,
  'not-found': ({ scene, unit, planned }) => {
    const { address } = unit
    // It is looked for where the plan has it, and wherever a muster has ever sent it.
    const near = new Set([subnetOf(planned), ...(scene.sentTo.get(unit.unit.id) ?? [])])
    const isNear = address !== undefined && (near.has(subnetOf(address)) || address === unit.card.factory.address)
    if (unit.isHeard) return scene.reached(unit.mac, address ?? '') !== unit
    return unit.phase !== 'up' || unit.isAway || scene.reached(unit.mac, unit.address ?? '') !== unit || !isNear
  },
  'heard-only': ({ scene, unit }) => scene.reached(unit.mac, unit.address ?? '') !== unit,
  'set-by-hand': ({ scene, unit, planned }) => isSetByHand(unit) && scene.reached(unit.mac, planned) !== unit,
  'address-taken': othersAt,
  'address-of-another': othersAt,
  'trades-addresses': othersAt,
  // It stays where DHCP sent it: a move that it takes back later is another reason.
  'not-reserved': (looked) => isElsewhere(looked) && looked.unit.running.values.unit['management.method'] === 'dhcp',
  'came-back-unchanged': (looked) => asksDhcp(looked) && isElsewhere(looked),
  'did-not-return': (looked) => asksDhcp(looked) && isElsewhere(looked),
  'controller-not-ready': () => true,
}

const plannedFor = (scene: Scene, { unit }: SimulatedUnit): string | undefined =>
  scene.records.jobs.get(jobId)?.job.plans.get(unit.id)?.address

/** Between the look at an address and what is told of it, ms of the world at the most. */
const tellMs = 1000

/**
 * A unit is held: whether another is at its planned address is so now, or was when somebody looked. That one may take
 * its move back; who was held for it was held rightly.
 */
export function noteHeld(scene: Scene, id: string, code: HeldCode): void {
  const unit = scene.units.find((each) => each.unit.id === id)
  const planned = unit && plannedFor(scene, unit)
  if (!unit || planned === undefined) return
  const left = scene.left.get(planned)
  const wasThere = left !== undefined && left.mac !== unit.mac && scene.world.now - left.at < tellMs
  const isThere = isTaken(scene, unit, planned)
  // Who waits for this unit to leave has not left for its own address.
  const other = left && scene.units.find(({ mac }) => mac === left.mac && mac !== unit.mac)
  const own = other && plannedFor(scene, other)
  if (code === 'trades-addresses' && !isThere && own !== undefined && own !== planned && own === other?.address)
    scene.violate('held for the reason that is true', `${unit.unit.name} is held: ${code}, and ${own} was reached`)
  if (wasThere || isThere) scene.displaced.add(id)
  else scene.displaced.delete(id)
}

/** Says so where a unit is held for a reason that is not true of it. */
export function judgeReason(scene: Scene, unit: SimulatedUnit, code: string): void {
  const kept = scene.records.jobs.get(jobId)
  const planned = plannedFor(scene, unit)
  if (!kept || planned === undefined || code === 'answers' || code === 'nothing') return
  const passwords = new Set([factoryPassword, ...kept.secrets.values(), ...kept.former.map(({ clear }) => clear)])
  if (truths[code as HeldCode]?.({ scene, unit, planned, passwords }) !== true)
    scene.violate('held for the reason that is true', `${unit.unit.name} is held: ${code}`)
}
