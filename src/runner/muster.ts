/**
 * A muster: all units of an order side by side, each in its own lane. One unit's failure never stops the others.
 */
import pLimit from 'p-limit'
import { keptOff } from '../core/addressing/kept-off'
import { adminSecretName, managedWithTag, secretName } from '../core/brief/brief'
import { type AdminPolicy, imageFor } from '../core/brief/policies'
import { type AskingJob, askingOf, askingWithMarks, expectedOfAll } from '../core/config/asked'
import { type Compilation, compile } from '../core/config/compile'
import { isManaged, isMustered, type KitCard, type ManagedCard } from '../core/kit/kit-card'
import { controllerOf } from '../core/kit/managed-by'
import type { Unit } from '../core/kit/unit'
import { type Held, type HeldWords, heldFor, heldWords } from '../core/muster/held'
import { answers, heldStep, type RollRow } from '../core/muster/roll'
import { isSelected } from '../core/muster/selection'
import type { Planning } from '../core/plan/plan'
import { type JobView, viewJob } from '../jobs/job-view'
import { replan } from '../jobs/replan'
import { jobById } from '../store/jobs'
import type { Store } from '../store/open'
import type { Order } from '../store/orders'
import { radioRules } from '../store/regulatory-file'
import { type FormerPassword, openDatedSecrets, openFormerPasswords } from '../store/secrets'
import type { Host } from '../wire/host/host'
import type { AwakeClock } from './awake-clock'
import { drive } from './drive'
import type { EventLog } from './event-log'
import { ControllerLink } from './managed/controller-link'
import { controllerLinks } from './managed/controller-links'
import { type Mover, type PowerTurn, UnitRun } from './unit-run'

export interface MusterInput {
  readonly store: Store
  readonly host: Host
  readonly log: EventLog
  readonly order: Order
  /** Aborted when the lease is lost or the runner ends. */
  readonly signal: AbortSignal
  readonly mayGoOn: () => boolean
  /** Waits while nobody may act for this order. */
  readonly mayAct: () => Promise<void>
  readonly clock: AwakeClock
  /** For what should never happen. */
  readonly complain: (error: unknown, unit: Unit) => void
}

/** @returns whether every unit came to its end, or some were stopped on the way */
export async function muster(input: MusterInput): Promise<'ended' | 'stopped'> {
  const { store, host, log, order } = input
  const job = await jobById(store, order.jobId)
  const view = job && (await currentView(store, job.slug))
  if (!view) return 'ended'
  const chosen = view.units.filter((unit) => isSelected(order.units, unit.id))
  const { plans } = view
  const { brief } = view.job
  const [{ secrets, times }, former, { pace }] = await Promise.all([
    openDatedSecrets(store, order.jobId),
    openFormerPasswords(store, order.jobId),
    host.laptop(),
  ])
  const { database } = await radioRules(store)
  const { cards } = view
  const country = database.get(brief.country)
  await log.append({ kind: 'muster', phase: 'started', units: chosen.map((unit) => unit.id) })

  const addresses = [...plans.values()].map(({ address }) => address)
  await host.keepOff(keptOff(brief.management, addresses))
  const vlans = managedWithTag(brief)
  await host.reachVlans(vlans)
  // Whoever answers in a VLAN shows that the switch carries it to this laptop.
  if (vlans.length > 0) await host.neighbours([brief.management.cidr])
  const today = new Date()
  const askingJob: AskingJob = { brief, units: view.units, plans, cards, secretTimes: times, today }
  const asking = askingOf(askingJob)
  const expected = expectedOfAll(askingJob)
  const names = new Map(view.units.map((unit) => [unit.mac, unit.name]))
  const movers = new Map<string, Mover>()
  const mark = (unit: Unit, kind: Mover['kind']): void => {
    const address = plans.get(unit.id)?.address
    if (address !== undefined) movers.set(unit.mac, { name: unit.name, address, kind })
  }
  for (const unit of chosen) mark(unit, 'on its way')

  const turns = pLimit(1)
  const ends = new Map<string, Promise<Outcome>>()
  const links = controllerLinks({ store, host, jobId: order.jobId, view, secrets })
  const one = async (unit: Unit): Promise<Outcome> => {
    const card = cards.get(unit.model)
    const plan = plans.get(unit.id)
    const asked = asking.get(unit.id)
    const marked = askingWithMarks(askingJob, unit)
    const compilation: Compilation =
      marked && country
        ? compile({ ...marked, secrets, country })
        : { ok: false, reasons: whyNot(unit, card, view.planFaults) }
    if (!compilation.ok || !card || !isMustered(card) || !plan || !asked) {
      const reasons = compilation.ok ? whyNot(unit, card, view.planFaults) : compilation.reasons
      const byHand = card && !isMustered(card)
      const state = byHand ? heldFor('set-by-hand', { why: reasons.join(' ') }) : heldFor('cannot-be-set', { reasons })
      await log.append({ kind: 'step', unit: unit.id, step: 'reach', state })
      return 'held'
    }
    let controller: ControllerLink | undefined
    if (isManaged(card)) {
      const found = await readyController(unit, card)
      if (found === 'stopped') return 'stopped'
      if (!(found instanceof ControllerLink)) {
        await log.append({ kind: 'step', unit: unit.id, step: 'reach', state: found })
        return 'held'
      }
      controller = found
    }
    return driveSafely(input, {
      controller,
      unit,
      card,
      plan,
      compiled: compilation.compiled,
      asked,
      expected: expected.get(unit.id) ?? [],
      before: view.roll.rows.get(unit.id),
      seenAt: view.roll.sightings.find((sighting) => sighting.mac === unit.mac)?.address,
      movers,
      names,
      sshKey: secrets.get(secretName.sshKey),
      formerPasswords: mayStillHave(brief.admin, unit, { secrets, times, former }),
      subnets: [brief.management.cidr],
      image: imageFor(brief.aftercare, unit.model),
      powerTurn: card.power.poe === 'mains' ? atOnce : turns,
      pace,
    })
  }
  /** Controllers come before the units that they manage: each is waited for, where it is on its way. */
  const readyController = async (unit: Unit, card: ManagedCard): Promise<ControllerLink | Held | 'stopped'> => {
    const own = controllerOf(unit, view.units, cards)
    if (!own) return heldFor('no-controller', { by: card.dialect.by })
    const coming = ends.get(own.id)
    if (coming) {
      const waitingFor = `${own.name} comes first`
      await log.append({
        kind: 'step',
        unit: unit.id,
        step: 'reach',
        state: { kind: 'waiting', until: Date.now(), waitingFor },
      })
    }
    const end = await coming
    if (end === 'stopped') return 'stopped'
    const answersBefore = coming === undefined && answers(view.roll.rows.get(own.id))
    const link = end === 'answers' || answersBefore ? links.to(own) : undefined
    return link ?? heldFor('controller-not-ready', { name: own.name })
  }
  // Who has come to an end moves no more, and nobody waits for it.
  const isController = (unit: Unit): boolean => cards.get(unit.model)?.role === 'controller'
  for (const unit of [...chosen.filter(isController), ...chosen.filter((each) => !isController(each))])
    ends.set(
      unit.id,
      one(unit).finally(() => mark(unit, 'over')),
    )
  const outcomes = await Promise.all(ends.values())
  await links.close()
  return outcomes.includes('stopped') ? 'stopped' : 'ended'
}

type Outcome = 'answers' | 'held' | 'stopped'

/** What has its own supply waits for nobody. */
const atOnce: PowerTurn = (work) => work()

/** Why a unit cannot even be asked what it is to be. */
function whyNot(unit: Unit, card: KitCard | undefined, faults: Planning['faults']): string[] {
  if (!card) return [`There is no kit card for "${unit.model}".`]
  const own = faults.filter((fault) => fault.unit === unit.id).map(({ sentence }) => sentence)
  return own.length > 0 ? own : ['It has no address or channel in the plan.']
}

/** Passwords that this unit may have had from the job: those that were replaced, and the one of the other policy. */
function mayStillHave(
  policy: AdminPolicy,
  unit: Unit,
  {
    secrets,
    times,
    former,
  }: { secrets: ReadonlyMap<string, string>; times: ReadonlyMap<string, string>; former: readonly FormerPassword[] },
): FormerPassword[] {
  const names = [secretName.jobPassword, secretName.unitPassword(unit.id)]
  const others = names
    .filter((name) => name !== adminSecretName(policy, unit.id))
    .flatMap((name): FormerPassword[] => {
      const clear = secrets.get(name)
      return clear === undefined ? [] : [{ name, changedAt: times.get(name) ?? '', clear }]
    })
  return [...former.filter(({ name }) => names.includes(name)), ...others]
}

type Ready = Omit<ConstructorParameters<typeof UnitRun>[0], 'store' | 'host' | 'log' | 'signal' | 'mayAct' | 'clock'>

async function driveSafely(input: MusterInput, ready: Ready): Promise<Outcome> {
  const { store, host, log, signal, mayAct, clock } = input
  try {
    return await drive(new UnitRun({ store, host, log, signal, mayAct, clock, ...ready }), input.mayGoOn)
  } catch (error) {
    input.complain(error, ready.unit)
    await log.append({
      kind: 'step',
      unit: ready.unit.id,
      step: 'reach',
      state: heldFor('went-wrong', {}),
    })
    return 'held'
  }
}

/** The job with a plan that was made from what is there now. */
async function currentView(store: Store, slug: string): Promise<JobView | undefined> {
  const view = await viewJob(store, slug)
  if (!view || (view.planStanding === 'current' && view.units.every((unit) => view.plans.has(unit.id)))) return view
  await replan(store, view.job.id)
  return viewJob(store, slug)
}

/** Units that are held until hands have helped, with what will show that they have. */
export function waitingForHands(
  rows: ReadonlyMap<string, RollRow>,
): Map<string, NonNullable<HeldWords['resumesWhen']>> {
  const waiting = new Map<string, NonNullable<HeldWords['resumesWhen']>>()
  for (const [unit, row] of rows) {
    const step = heldStep(row)
    const state = step && row.steps[step]
    const resumesWhen = state?.kind === 'held' ? heldWords(state).resumesWhen : undefined
    if (resumesWhen) waiting.set(unit, resumesWhen)
  }
  return waiting
}
