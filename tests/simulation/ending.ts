/** What must be true in the end, once nothing goes wrong any more. */
import { isManaged } from '../../src/core/kit/kit-card'
import { type RollRow, withChanges } from '../../src/core/muster/roll'
import { allUnits } from '../../src/core/muster/selection'
import type { Play } from './play'
import { endOf } from './play'
import { jobId, type Scene } from './scene'
import type { SimulatedSession } from './session'
import { judgeReason } from './truths'
import { confirmSeconds, isSetByHand, type SimulatedUnit } from './unit'

/** Seconds of the wire that a muster takes at the most which meets all of its patience. */
const musterSeconds = 4 * 3600

/** Waits until nothing is under way. */
async function quiet(play: Play, what: string): Promise<boolean> {
  const { scene } = play
  const bound = scene.ms(musterSeconds) + 120_000
  const settled = await scene.world.until(() => play.isQuiet || scene.violations.length > 0, bound)
  if (!settled) scene.violate('every muster ends', `${what} is still under way after ${musterSeconds} s`)
  else await noSessionIsLeft(scene)
  return settled && scene.violations.length === 0
}

/** In which whatever has power has started, ms. */
const startMs = 60_000

/** Seconds of the wire in which a look at the bench that is under way has come to its end. */
const lookSeconds = 300

/** Whoever has signed in somewhere, or tried to, has closed that session. */
async function noSessionIsLeft(scene: Scene): Promise<void> {
  const left = (): SimulatedSession[] => [...scene.sessions].filter(({ process }) => !process.isDead)
  if (await scene.world.until(() => left().length === 0, scene.ms(lookSeconds) + 60_000)) return
  const names = left().map(({ lane, process }) => `of ${process.name} with ${lane.mac}`)
  scene.violate('every session is closed', names.join(', '))
}

/** What hands have set, and has started since it was called, is called by itself when the bench is swept. */
async function handsAreSeen(play: Play): Promise<boolean> {
  const { scene } = play
  const isToBeCalled = (unit: SimulatedUnit): boolean => {
    const planned = scene.records.jobs.get(jobId)?.job.plans.get(unit.unit.id)?.address
    return isSetByHand(unit) && ends(play, unit) === 'set-by-hand' && scene.reached(unit.mac, planned ?? '') === unit
  }
  if (!scene.units.some(isToBeCalled)) return true
  const isCalled = (): boolean => !scene.units.some(isToBeCalled)
  if (!(await scene.world.until(isCalled, scene.ms(lookSeconds) + 60_000)))
    scene.violate('what hands have set is called by itself', scene.units.map((each) => ends(play, each)).join(', '))
  return quiet(play, 'what was called by itself')
}

async function musterAll(play: Play, what: string): Promise<boolean> {
  // A unit that comes back is mustered by itself; while it is, nobody can muster all of them.
  if (!(await quiet(play, 'what began by itself'))) return false
  play.scene.world.tell('HANDS', what)
  play.order(allUnits)
  return quiet(play, what)
}

/** No event is kept twice, and none that was said to be kept is missing. */
export function eventsAreWhole(scene: Scene): void {
  const kept = scene.records.jobs.get(jobId)?.events.length ?? 0
  const [told, heardOf] = [scene.toldEvents.size, scene.keptEvents.size]
  if (kept > told) scene.violate('events without gaps and doubles', `${kept} are kept of ${told} that were told`)
  if (kept < heardOf) scene.violate('events without gaps and doubles', `${kept} are kept of ${heardOf} that should be`)
}

export async function atTheEnd(play: Play): Promise<void> {
  const { scene } = play
  if (scene.violations.length > 0) return
  scene.calm = true
  // What began lasts as long as it lasts; a twin goes back into its box, a thief leaves.
  await scene.world.until(() => scene.violations.length > 0, Math.max(0, scene.faultsEnd - scene.world.now))
  if (!play.runner) play.startRunner()
  if (scene.counts.has('fault delete-job')) await scene.world.until(() => play.isDeleted, scene.ms(musterSeconds))
  if (play.isDeleted) return nobodyWorksFor(play)
  for (const unit of scene.units) unit.plug()
  if (!(await quiet(play, 'what was under way'))) return
  const isUntouched = scene.outOfHand.size === 0 && !scene.counts.has('fault dhcp-moves')
  if (!(isUntouched && allAnswer(play)) && !(await musterAll(play, 'musters all, now that nothing goes wrong'))) return
  // Some reasons are true, and hands can help: they do what the slip says.
  for (let round = 0; round < 3 + scene.units.length && !allAnswer(play); round += 1) {
    // A move that nobody confirmed is taken back by now: a reason is to be true after that too.
    if (scene.units.some(({ before }) => before !== undefined))
      await scene.world.until(() => false, scene.ms(confirmSeconds))
    if (!(await handsAreSeen(play))) return
    for (const unit of scene.units) judgeReason(scene, unit, ends(play, unit))
    const [trading] = scene.units.filter((unit) => ends(play, unit) === 'trades-addresses')
    if (trading) elsewhere(play, trading)
    // Hands set what has started.
    await scene.world.until(() => scene.units.every((unit) => !isSetByHand(unit) || unit.phase === 'up'), startMs)
    for (const unit of scene.units) help(play, unit)
    if (!(await handsAreSeen(play))) return
    if (!(await musterAll(play, 'musters all, after the hands have helped'))) return
  }
  for (const unit of scene.units) if (ends(play, unit) !== 'answers') judge(play, unit)
  if (scene.violations.length > 0 || !allAnswer(play)) return
  const before = scene.units.map(({ writes }) => writes)
  if (!(await musterAll(play, 'musters all once more'))) return
  for (const [index, unit] of scene.units.entries())
    if (unit.writes !== before[index])
      scene.violate(
        'a further muster writes nothing',
        `${unit.unit.name} was written ${unit.writes - (before[index] ?? 0)} times`,
      )
  for (const unit of scene.units) isAsAsked(play, unit)
}

/** The row of a unit with what was changed since it has proven itself. */
function rowOf({ scene }: Play, unit: SimulatedUnit): RollRow | undefined {
  const kept = scene.records.jobs.get(jobId)
  return kept && withChanges(scene.records.rollNow(jobId), scene.records.asked(kept)).rows.get(unit.unit.id)
}

const ends = (play: Play, unit: SimulatedUnit): string => endOf(rowOf(play, unit))

function allAnswer({ scene }: Play): boolean {
  const kept = scene.records.jobs.get(jobId)
  if (!kept) return false
  const roll = scene.records.rollNow(jobId)
  // Most have not come so far that it need be asked what has changed since.
  if (!scene.units.every(({ unit }) => endOf(roll.rows.get(unit.id)) === 'answers')) return false
  const { rows } = withChanges(roll, scene.records.asked(kept))
  return scene.units.every(({ unit }) => endOf(rows.get(unit.id)) === 'answers')
}

/** The hands do what the slip of a held unit says. */
function help(play: Play, unit: SimulatedUnit): void {
  const { scene } = play
  const end = ends(play, unit)
  scene.world.tell('HANDS', `${unit.unit.name}: ${end}`)
  scene.count(`held ${end}`)
  const planned = scene.records.jobs.get(jobId)?.job.plans.get(unit.unit.id)?.address
  if (end === 'set-by-hand' && planned !== undefined) unit.setByHand(planned)
  if (end === 'new-certificate') scene.records.jobs.get(jobId)?.pins.delete(unit.mac)
  if (end === 'refuses-passwords') {
    unit.reset()
    scene.records.jobs.get(jobId)?.pins.delete(unit.mac)
    scene.outOfHand.add(unit.mac)
  }
  // Its cable is taken out and put in again.
  if ((end === 'not-found' || end === 'heard-only') && unit.phase === 'up') unit.restart()
  const asksDhcp = scene.job.brief.addressing === 'dhcp'
  if (end === 'not-reserved' || (asksDhcp && (end === 'came-back-unchanged' || end === 'did-not-return'))) {
    const plan = scene.records.jobs.get(jobId)?.job.plans.get(unit.unit.id)
    if (plan) scene.leases.set(unit.mac, plan.address)
    if (unit.phase === 'up') unit.restart()
  }
}

/** One of two that are to trade addresses is planned elsewhere. */
function elsewhere({ scene }: Play, { unit }: SimulatedUnit): void {
  const kept = scene.records.jobs.get(jobId)
  const plan = kept?.job.plans.get(unit.id)
  if (!kept || !plan) return
  const planned = new Set([...kept.job.plans.values()].map((each) => each.address))
  const free = Array.from({ length: 30 }, (_, host) => plan.address.replace(/\d+$/, String(60 + host)))
  const address = free.find((each) => !planned.has(each)) ?? plan.address
  kept.job = { ...kept.job, plans: new Map(kept.job.plans).set(unit.id, { ...plan, address }) }
}

/** A unit that is held although hands have done all that its slip says. */
function judge(play: Play, unit: SimulatedUnit): void {
  const end = ends(play, unit)
  if (
    isManaged(unit.card) &&
    end === 'controller-not-ready' &&
    ends(play, play.scene.units[0] as SimulatedUnit) !== 'answers'
  )
    return
  const state = JSON.stringify(heldState(play, unit))
  play.scene.violate('in the end every unit answers', `${unit.unit.name} is held: ${state}`)
}

function heldState(play: Play, unit: SimulatedUnit): unknown {
  const row = rowOf(play, unit)
  return (
    Object.entries(row?.steps ?? {}).find(([, state]) => state.kind === 'held') ??
    row?.changes ??
    'nothing was told of it'
  )
}

/** What the unit is is what was asked, by its own account and not by the program's. */
function isAsAsked({ scene }: Play, unit: SimulatedUnit): void {
  const kept = scene.records.jobs.get(jobId)
  const plan = kept?.job.plans.get(unit.unit.id)
  if (!kept || !plan) return
  const { values } = unit.running
  if (isSetByHand(unit)) {
    // Nobody but the hands that set it knows what else it is.
    if (unit.address !== plan.address)
      scene.violate('what answers is as asked', `${unit.unit.name} is at ${unit.address}, not at ${plan.address}`)
    return
  }
  const listed = kept.job.units.find(({ id }) => id === unit.unit.id)
  const wrong = [
    ...(unit.address === plan.address ? [] : [`is at ${unit.address}, not at ${plan.address}`]),
    ...(unit.isSaved ? [] : ['would lose what it was given']),
    ...(values.unit['unit.name'] === listed?.name ? [] : [`is named ${values.unit['unit.name']}`]),
    ...(unit.card.radios.length === 0 || isManaged(unit.card) || values.unit['unit.country'] === kept.job.brief.country
      ? []
      : [`is set to ${values.unit['unit.country']}`]),
    ...(unit.card.radios.length === 0
      ? []
      : kept.job.brief.networks.flatMap(({ id, ssid }) => {
          const has = values.networks[id]
          const passphrase = kept.secrets.get(`network/${id}/passphrase`)
          if (has?.['network.ssid'] !== ssid) return [`does not carry ${ssid}`]
          return has['network.security'] === 'open' || has['network.passphrase'] === passphrase
            ? []
            : [`has another passphrase for ${ssid}`]
        })),
    ...Object.keys(values.networks).flatMap((id) =>
      unit.card.radios.length === 0 || kept.job.brief.networks.some((each) => each.id === id) ? [] : [`carries ${id}`],
    ),
  ]
  for (const each of wrong) scene.violate('what answers is as asked', `${unit.unit.name} ${each}`)
}

/** The job is gone: nobody writes to its units any more. */
async function nobodyWorksFor(play: Play): Promise<void> {
  // What was under way is called off when its lease is found to be gone.
  await play.scene.world.until(() => false, 6000)
  const before = play.scene.units.map(({ writes }) => writes)
  await play.scene.world.until(() => false, 30_000)
  for (const [index, unit] of play.scene.units.entries())
    if (unit.writes !== before[index]) play.scene.violate('a deleted job is left alone', unit.unit.name)
}
