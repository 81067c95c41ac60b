/**
 * A muster: all units of an order side by side, each in its own lane. One unit's failure never stops the others.
 */
import { dequal } from 'dequal/lite'
import pLimit from 'p-limit'
import { parseCidr } from '../core/address/ipv4'
import { keptOff } from '../core/addressing/kept-off'
import { adminSecretName, managedWithTag, secretName } from '../core/brief/brief'
import { type AdminPolicy, imageFor } from '../core/brief/policies'
import { type AskingJob, askingOf, askingWithMarks, expectedOfAll } from '../core/config/asked'
import { type Compilation, compile } from '../core/config/compile'
import type { Clear, Config } from '../core/config/unit-config'
import { isManaged, isMustered, type KitCard, type ManagedCard, ofOneBox } from '../core/kit/kit-card'
import { controllerOf } from '../core/kit/managed-by'
import type { Unit } from '../core/kit/unit'
import { type Message, message, messageOf } from '../core/message/message'
import { type Held, heldFacts, heldFor, type ResumesWhen } from '../core/muster/held'
import { answers, heldStep, type RollRow } from '../core/muster/roll'
import { isSelected } from '../core/muster/selection'
import type { Planning } from '../core/plan/plan'
import { loginsToday } from '../core/secrets/login-today'
import type { Order } from '../store/orders'
import type { FormerPassword } from '../store/secrets'
import type { Host } from '../wire/host/host'
import type { Sessions } from '../wire/sessions'
import { pinCheck } from '../wire/trust/pin'
import { callByHand } from './by-hand'
import { handLogins } from './by-hand-logins'
import { drive } from './drive'
import { controllerLinks } from './managed/controller-links'
import type { EventLog } from './order/event-log'
import { UnitTurns } from './order/unit-turns'
import type { AwakeClock } from './ports/awake-clock'
import type { JobSecrets, Records } from './ports/records'
import { ControllerLink } from './unit/controller-link'
import { CalledOff, type Mover, type PowerTurn, UnitRun } from './unit/unit-run'

export interface MusterInput {
  readonly records: Records
  readonly host: Host
  readonly sessions: Sessions
  readonly log: EventLog
  readonly order: Order
  /** Aborted when the lease is lost or the runner ends. */
  readonly signal: AbortSignal
  readonly mayGoOn: () => boolean
  /** Waits while the order is paused. */
  readonly mayAct: () => Promise<void>
  readonly clock: AwakeClock
  /** A unit whose window somebody has open is waited for. */
  readonly turns: UnitTurns
  /** For what should never happen. */
  readonly complain: (error: unknown, unit: Unit) => void
}

/** @returns whether every unit came to its end, or some were stopped on the way */
export async function muster(input: MusterInput): Promise<'ended' | 'stopped'> {
  const { records, host, sessions, clock, log, order } = input
  const job = await records.job(order.jobId)
  if (!job) return 'ended'
  const chosen = job.units.filter((unit) => isSelected(order.units, unit.id))
  const { brief, plans, cards, country } = job
  const [{ secrets, times, former }, { pace }] = await Promise.all([records.secrets(order.jobId), host.laptop()])
  await log.append({ kind: 'muster', phase: 'started', units: chosen.map((unit) => unit.id) })

  const addresses = [...plans.values()].map(({ address }) => address)
  await host.keepOff(keptOff(brief, addresses))
  const vlans = managedWithTag(brief)
  await host.reachVlans(vlans)
  // Whoever answers in a VLAN shows that the switch carries it to this laptop.
  if (vlans.length > 0) await host.neighbours([brief.management.cidr])
  const today = clock.date()
  const askingJob: AskingJob = { brief, units: job.units, plans, cards, secretTimes: times, today }
  const asking = askingOf(askingJob)
  const expected = expectedOfAll(askingJob)
  const names = new Map(job.units.map((unit) => [unit.mac, unit.name]))
  const movers = new Map<string, Mover>()
  const mark = (unit: Unit, kind: Mover['kind']): void => {
    const address = plans.get(unit.id)?.address
    const after = controllerOf(unit, job.units, cards)?.mac
    if (address !== undefined) movers.set(unit.mac, { name: unit.name, address, kind, after })
  }
  for (const unit of chosen) mark(unit, 'on its way')

  const mayAct = async (): Promise<void> => {
    await input.mayAct()
    if (input.signal.aborted) throw new CalledOff()
  }
  const turns = pLimit(1)
  const ends = new Map<string, Promise<Outcome>>()
  const links = controllerLinks({ records, host, sessions, clock, mayAct, jobId: order.jobId, job, secrets })
  /** As somebody has shown on this unit, or on another of its model. */
  const loginsShown = async (unit: Unit, address: string) => {
    const marked = askingWithMarks(askingJob, unit)
    if (!marked) return undefined
    const alike = job.units.filter(({ mac, model }) => model === unit.model && mac !== unit.mac)
    return handLogins({
      ...{ records, jobId: order.jobId, asking: { ...marked, secrets }, address },
      macs: [unit.mac, ...alike.map(({ mac }) => mac)],
      labelPassword: secrets.get(secretName.labelPassword(unit.mac)),
    })
  }
  const one = async (unit: Unit): Promise<Outcome> => {
    const card = cards.get(unit.model)
    const plan = plans.get(unit.id)
    const asked = asking.get(unit.id)
    if (card && plan && asked && !isMustered(card)) {
      const { address } = plan
      const prefix = parseCidr(brief.management.cidr)?.prefix ?? usualPrefix
      const wanted = { unit, card, address, prefix, asked, expected: expected.get(unit.id) ?? [], names }
      const pin = pinCheck((fingerprint) => records.pinOnFirstSight(order.jobId, unit.mac, fingerprint, clock.date()))
      return safely(input, unit, async () => {
        const logins = await loginsShown(unit, address)
        return callByHand({ ...input, mayAct, brief, ...wanted, pin, logins })
      })
    }
    const marked = askingWithMarks(askingJob, unit)
    const compilation: Compilation =
      marked && country
        ? compile({ ...marked, secrets, country })
        : { ok: false, reasons: whyNot(unit, card, job.planFaults) }
    if (!compilation.ok || !card || !isMustered(card) || !plan || !asked) {
      const reasons = compilation.ok ? whyNot(unit, card, job.planFaults) : compilation.reasons
      await log.append({ kind: 'step', unit: unit.id, step: 'reach', state: heldFor('cannot-be-set', { reasons }) })
      return 'held'
    }
    let controller: ControllerLink | undefined
    if (isManaged(card)) {
      const found = await readyController(unit, card, compilation.compiled.config)
      if (found === 'stopped') return 'stopped'
      if (!(found instanceof ControllerLink)) {
        await log.append({ kind: 'step', unit: unit.id, step: 'reach', state: found })
        return 'held'
      }
      controller = found
    }
    const labelPassword = secrets.get(secretName.labelPassword(unit.mac))
    const isNew = (job.roll.rows.get(unit.id)?.passwordDoor ?? 'shut') === 'shut'
    if (isNew && labelPassword === undefined && card.factory.login.passwordIs === 'on-its-label' && !isManaged(card)) {
      await log.append({
        kind: 'step',
        unit: unit.id,
        step: 'reach',
        state: heldFor('label-password', { mac: unit.mac }),
      })
      return 'held'
    }
    const sighting = job.roll.sightings.find(({ mac }) => mac === unit.mac)
    const giveBack = await turnOf(input, order.jobId, unit)
    if (!giveBack) return 'stopped'
    const parts = { records, host, sessions, log, signal: input.signal, mayAct, clock }
    return safely(input, unit, () =>
      drive(
        new UnitRun({
          ...parts,
          controller,
          unit,
          card: ofOneBox(card, { labelPassword, old: job.roll.rows.get(unit.id)?.old }),
          plan,
          compiled: compilation.compiled,
          asked,
          expected: expected.get(unit.id) ?? [],
          before: job.roll.rows.get(unit.id),
          seenAt: sighting?.address,
          seenSince: sighting?.since,
          movers,
          moves: (kind) => mark(unit, kind),
          names,
          sshKey: secrets.get(secretName.sshKey),
          loginsToday: loginsToday(secrets, unit.mac),
          formerPasswords: mayStillHave(brief.admin, unit, { secrets, times, former }),
          subnets: [brief.management.cidr],
          aftercare: brief.aftercare,
          image: imageFor(brief.aftercare, unit.model),
          powerTurn: card.power.poe === 'mains' ? atOnce : turns,
          pace,
        }),
        input.mayGoOn,
      ),
    ).finally(giveBack)
  }
  /** Controllers come before the units that they manage: each is waited for, where it is on its way. */
  const readyController = async (
    unit: Unit,
    card: ManagedCard,
    config: Config<Clear>,
  ): Promise<ControllerLink | Held | 'stopped'> => {
    const own = controllerOf(unit, job.units, cards)
    if (!own) return heldFor('no-controller', { by: card.dialect.by })
    const coming = ends.get(own.id)
    if (coming) {
      const waitingFor = message('comes-first', { name: own.name })
      await log.append({
        kind: 'step',
        unit: unit.id,
        step: 'reach',
        state: { kind: 'waiting', until: clock.wall(), waitingFor },
      })
    }
    const end = await coming
    if (end === 'stopped') return 'stopped'
    const answersBefore = coming === undefined && answers(job.roll.rows.get(own.id))
    const link = end === 'answers' || answersBefore ? links.to(own, config) : undefined
    return link ?? heldFor('controller-not-ready', { name: own.name })
  }
  // A unit that is done no longer changes its address, so no other unit waits for it.
  const controllers = new Set(chosen.flatMap((unit) => controllerOf(unit, job.units, cards) ?? []))
  const isController = (unit: Unit): boolean => controllers.has(unit)
  for (const unit of [...chosen.filter(isController), ...chosen.filter((each) => !isController(each))])
    ends.set(
      unit.id,
      one(unit).finally(() => mark(unit, 'over')),
    )
  // The muster is over when no unit of it is worked on any more, however each ended.
  const settled = await Promise.allSettled(ends.values())
  await links.close()
  const outcomes = settled.map((end) => {
    if (end.status === 'rejected') throw end.reason
    return end.value
  })
  return outcomes.includes('stopped') ? 'stopped' : 'ended'
}

type Outcome = 'answers' | 'held' | 'stopped'

/** Prefix length of a management network whose own cannot be read. */
const usualPrefix = 24

/** A unit with its own power supply waits for no other. */
const atOnce: PowerTurn = (work) => work()

/** Why a unit cannot even be asked what it is to be. */
function whyNot(unit: Unit, card: KitCard | undefined, faults: Planning['faults']): Message[] {
  if (!card) return [message('no-kit-card', { model: unit.model })]
  const own = faults.filter((fault) => fault.unit === unit.id).map(messageOf)
  return own.length > 0 ? own : [message('no-place-in-plan')]
}

/** Passwords that this unit may have had from the job: those that were replaced, and the one of the other policy. */
function mayStillHave(policy: AdminPolicy, unit: Unit, { secrets, times, former }: JobSecrets): FormerPassword[] {
  const names = [secretName.jobPassword, secretName.unitPassword(unit.id)]
  const others = names
    .filter((name) => name !== adminSecretName(policy, unit.id))
    .flatMap((name): FormerPassword[] => {
      const clear = secrets.get(name)
      return clear === undefined ? [] : [{ name, changedAt: times.get(name) ?? '', clear }]
    })
  return [...former.filter(({ name }) => names.includes(name)), ...others]
}

/** Real milliseconds between two looks whether a window is closed. */
const windowLookMs = 300

/**
 * Waits while somebody works on a unit by hand.
 * @returns the way to give the turn back; undefined where it is stopped
 */
async function turnOf(input: MusterInput, jobId: number, { id }: Unit): Promise<(() => void) | undefined> {
  const { turns, clock, log, signal, mayGoOn } = input
  const key = UnitTurns.key(jobId, id)
  for (let told: Message | undefined; !signal.aborted && mayGoOn(); ) {
    const giveBack = turns.take(key, '')
    if (giveBack) return giveBack
    const waitingFor = message('window-open-by', { name: turns.of(key) || null })
    const state = { kind: 'waiting', until: clock.wall(), waitingFor } as const
    if (!dequal(waitingFor, told)) await log.append({ kind: 'step', unit: id, step: 'reach', state })
    told = waitingFor
    await clock.rest(windowLookMs, signal)
  }
  return undefined
}

/** Whatever goes wrong with one unit stays with it. */
async function safely(
  { log, complain }: Pick<MusterInput, 'log' | 'complain'>,
  unit: Unit,
  work: () => Promise<Outcome>,
): Promise<Outcome> {
  try {
    return await work()
  } catch (error) {
    complain(error, unit)
    await log.append({ kind: 'step', unit: unit.id, step: 'reach', state: heldFor('went-wrong', {}) })
    return 'held'
  }
}

/** Units that are held until somebody helps, with what will show that somebody has. */
export function waitingForHands(rows: ReadonlyMap<string, RollRow>): Map<string, ResumesWhen> {
  const waiting = new Map<string, ResumesWhen>()
  for (const [unit, row] of rows) {
    const step = heldStep(row)
    const state = step && row.steps[step]
    const resumesWhen = state?.kind === 'held' ? heldFacts(state).resumesWhen : undefined
    if (resumesWhen) waiting.set(unit, resumesWhen)
  }
  return waiting
}
