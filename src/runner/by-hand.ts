/**
 * A unit that is set by hand, during a muster: nothing is written to it, it is checked from outside. It answers once
 * its own MAC answers at its planned address and nothing seen from outside speaks against it.
 */

import { hostname } from 'node:os'
import { dequal } from 'dequal/lite'
import type { Brief } from '../core/brief/brief'
import type { SettingId } from '../core/catalogue/catalogue'
import type { Asked } from '../core/config/asked'
import type { SettingOutcome } from '../core/config/outcomes'
import { type KitCard, modelName, whyNotMustered } from '../core/kit/kit-card'
import type { Unit } from '../core/kit/unit'
import { asTold, type Message, message } from '../core/message/message'
import type { Check, CheckCode } from '../core/muster/check'
import type { StepState } from '../core/muster/events'
import { type Held, heldFor } from '../core/muster/held'
import type { Step } from '../core/muster/procedure'
import { seen } from '../core/muster/seen'
import { WireError } from '../wire/errors/wire-error'
import { type Host, HostAwayError, type Lane } from '../wire/host/host'
import type { Sessions } from '../wire/sessions'
import type { PinCheck } from '../wire/trust/pin'
import { type HandLogins, triedLogin } from './by-hand-logins'
import type { EventLog } from './order/event-log'
import type { AwakeClock } from './ports/awake-clock'
import { plainServices } from './steps/plain-services'
import { takes } from './takes'
import { tellingLights } from './unit/explain'
import { CalledOff } from './unit/waits'

export interface ByHandInput {
  readonly host: Host
  readonly log: EventLog
  readonly clock: AwakeClock
  readonly brief: Brief
  readonly unit: Unit
  readonly card: KitCard
  /** Where it is to be. */
  readonly address: string
  readonly prefix: number
  readonly asked: Asked
  readonly expected: readonly SettingOutcome[]
  readonly sessions: Pick<Sessions, 'unit'>
  readonly pin: PinCheck
  /** How one signs in to it, where somebody has shown that. */
  readonly logins: HandLogins | undefined
  /** Names of all units of the kit list, by MAC. */
  readonly names: ReadonlyMap<string, string>
  /** Aborted when the lease is lost or the runner ends. */
  readonly signal: AbortSignal
  readonly mayGoOn: () => boolean
  /** Waits while the muster is paused. @throws CalledOff */
  readonly mayAct: () => Promise<void>
}

/** What is seen of it from outside. */
interface Look {
  readonly code: CheckCode
  readonly expected: Message
  readonly observed: Message
  /** What it means where something else is seen. */
  readonly otherwise: 'bad' | 'remark'
  /** The setting that is proven where it is seen as expected. */
  readonly proves?: SettingId
}

/** Ports of the services by which equipment is managed, beside the one on its card. */
const managementPorts = [443, 80, 22, 23]

/** Real milliseconds between two looks whether the laptop's way to the wire is back. */
const wireLookMs = 500

/**
 * Checks it, again each time the laptop loses its way to the wire.
 * @returns whether it answers; what was found out is told to the log
 */
export async function callByHand(input: ByHandInput): Promise<'answers' | 'held' | 'stopped'> {
  const { log, clock, unit, card, signal, mayGoOn } = input
  const tellReach = (state: StepState): Promise<void> =>
    log.append({ kind: 'step', unit: unit.id, step: 'reach', state })
  while (!signal.aborted && mayGoOn()) {
    try {
      await input.mayAct()
      return await lookFromOutside(input)
    } catch (error) {
      if (error instanceof CalledOff) return 'stopped'
      if (error instanceof WireError) {
        log.note({ kind: 'log', unit: unit.id, told: message('wire-error', { kind: error.kind, told: error.told }) })
        await tellReach(heldFor('went-away', { port: unit.port, lights: tellingLights(card) }))
        return 'held'
      }
      if (!(error instanceof HostAwayError)) throw error
      await tellReach({ kind: 'waiting', until: clock.wall(), waitingFor: message('wire-not-reached') })
      await clock.rest(wireLookMs, signal)
    }
  }
  return 'stopped'
}

async function lookFromOutside(input: ByHandInput): Promise<'answers' | 'held'> {
  const { host, log, clock, unit, address } = input
  const tell = (step: Step, state: StepState): Promise<void> => log.append({ kind: 'step', unit: unit.id, step, state })
  await tell('reach', { kind: 'working', doing: message('looking-for-it') })
  const reason = whyNotThere(input, await host.arp(address))
  if (reason) {
    await tell('reach', reason)
    return 'held'
  }
  log.note({
    kind: 'step',
    unit: unit.id,
    step: 'reach',
    state: { kind: 'done', note: message('at-address', { address }) },
  })
  log.note({
    kind: 'step',
    unit: unit.id,
    step: 'proof',
    state: { kind: 'working', doing: message('looking-from-outside') },
  })
  const looks = await looksAt(input)
  const bad: Check[] = []
  const proven = new Set<SettingId>()
  for (const { code, expected, observed, otherwise, proves } of looks) {
    const verdict = dequal(observed, expected) ? 'good' : otherwise
    const check: Check = { code, expected, observed, verdict, at: clock.wall() }
    log.note({ kind: 'check', unit: unit.id, check })
    if (verdict === 'bad') bad.push(check)
    else if (verdict === 'good' && proves) proven.add(proves)
  }
  if (bad.length > 0) {
    await tell('proof', heldFor('check-failed', { checks: bad }))
    return 'held'
  }
  const outcomes = input.expected.map((each) => (proven.has(each.id) ? seenAsAsked(each) : each))
  await log.append({ kind: 'outcomes', unit: unit.id, outcomes })
  await log.append({ kind: 'proven', unit: unit.id, asked: input.asked, by: hostname(), how: 'by-hand' })
  await tell('proof', { kind: 'done', note: message('by-hand-seen-outside') })
  return 'answers'
}

const seenAsAsked = (each: SettingOutcome): SettingOutcome => ({
  ...each,
  outcome: { kind: 'proven', value: each.asked },
})

/** Why it is not where it is to be; undefined where it alone answers there. */
function whyNotThere({ unit, card, address, names }: ByHandInput, macs: readonly string[]): Held | undefined {
  const [other] = macs.filter((mac) => mac !== unit.mac)
  if (other !== undefined) {
    const name = names.get(other)
    return name === undefined
      ? heldFor('address-taken', { address, mac: other })
      : heldFor('address-of-another', { address, other: name })
  }
  const model = modelName(card)
  const why = message('model-set-by-hand', { model, why: whyNotMustered(card) ?? message('left-to-hands') })
  return macs.length === 0 ? heldFor('set-by-hand', { why, address }) : undefined
}

async function looksAt(input: ByHandInput): Promise<Look[]> {
  const { host, brief, unit, card, address, prefix } = input
  const lane = await host.openLane({ mac: unit.mac, address, prefix })
  try {
    const isOpen = new Map<number, boolean>()
    for (const port of new Set([card.factory.port, ...managementPorts])) isOpen.set(port, await takes(lane, port))
    const boxed = card.factory.address
    const canAskBoxed = boxed !== null && boxed !== address && (await host.canAsk(boxed))
    return [
      {
        code: 'arp',
        expected: asTold(unit.mac),
        observed: asTold(unit.mac),
        otherwise: 'bad',
        proves: 'management.address',
      },
      ...(card.does.ignoresPing
        ? []
        : [
            {
              code: 'ping',
              expected: seen.answers,
              observed: (await lane.ping()) ? seen.answers : seen.noAnswer,
              otherwise: 'bad',
            } as const,
          ]),
      {
        code: 'service',
        expected: seen.answers,
        observed: [...isOpen.values()].includes(true) ? seen.answers : seen.noAnswer,
        otherwise: 'remark',
      },
      ...(canAskBoxed
        ? [
            {
              code: 'factory-address',
              expected: seen.left,
              observed: (await host.arp(boxed)).includes(unit.mac) ? seen.stillAnswers : seen.left,
              otherwise: 'bad',
            } as const,
          ]
        : []),
      ...plainServices
        .filter(({ isWanted }) => !isWanted(brief.aftercare))
        .map(
          ({ code, port, setting }): Look => ({
            code,
            expected: seen.shut,
            observed: isOpen.get(port) ? seen.open : seen.shut,
            otherwise: 'remark',
            proves: setting,
          }),
        ),
      ...(await loginLooks(input, lane)),
    ]
  } finally {
    await lane.close()
  }
}

/** The new login opens it, and that of the factory does not: where somebody has shown how one signs in. */
async function loginLooks({ sessions, pin, logins }: ByHandInput, lane: Lane): Promise<Look[]> {
  if (!logins) return []
  const { card, toBe, factory } = logins
  const tried = [
    { code: 'new-login', expected: seen.accepted, login: toBe },
    { code: 'factory-login', expected: seen.refused, login: factory },
  ] as const
  const looks: Look[] = []
  for (const { code, expected, login } of tried) {
    if (!login) continue
    const found = await triedLogin(sessions, lane, pin, card, login)
    const isKnown = typeof found === 'string'
    looks.push({
      ...{ code, expected, observed: isKnown ? seen[found] : message('not-tried', { told: found.notTried }) },
      otherwise: isKnown ? 'bad' : 'remark',
      ...(code === 'new-login' ? { proves: 'admin.password' as const } : {}),
    })
  }
  return looks
}
