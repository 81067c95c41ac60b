/**
 * Drives one unit through the procedure. Whatever happens to it stays with it: it ends answering, held, or called off.
 */

import { isManaged } from '../core/kit/kit-card'
import { type Message, message } from '../core/message/message'
import { toldBy } from '../core/message/told-error'
import { type Step, stepsFor } from '../core/muster/procedure'
import type { PageWhenHeld } from '../core/showing/file-from-pages'
import { BrowserGoneError, WireError } from '../wire/errors/wire-error'
import { HostAwayError } from '../wire/host/host'
import { address, wentAway } from './steps/address'
import { apply, mayBeMoving } from './steps/apply'
import { backup } from './steps/backup'
import { CameBackUnchanged, comeBack } from './steps/come-back'
import { firmware } from './steps/firmware'
import { managedWork } from './steps/managed'
import { onAir } from './steps/on-air'
import { password } from './steps/password'
import { proof } from './steps/proof'
import { reach } from './steps/reach'
import { save } from './steps/save'
import { settle } from './steps/settle'
import { signIn } from './steps/sign-in'
import { MayHaveRestarted } from './unit/contact'
import { explain } from './unit/explain'
import { HeldError, held } from './unit/held-error'
import { CalledOff, type UnitRun } from './unit/unit-run'

type Work = (run: UnitRun) => Promise<Message>

const work: Readonly<Record<Step, Work>> = {
  reach,
  'sign-in': signIn,
  backup,
  firmware,
  country: (run) => settle(run, 'country'),
  clock: (run) => settle(run, 'clock'),
  networks: (run) => settle(run, 'networks'),
  radios: (run) => settle(run, 'radios'),
  services: (run) => settle(run, 'services'),
  password,
  address,
  apply,
  return: comeBack,
  save,
  joined: async () => message('no-controller-asked'),
  'on-air': onAir,
  proof,
}

/** How often a unit that vanishes half-way is looked for again before it is held. */
const attempts = 3
/** A unit whose pages end every browser is held in the end. */
const mostBrowsersLost = 20

/** Asked before each step; a muster that is pausing stops there. */
export type MayGoOn = () => boolean

export async function drive(run: UnitRun, mayGoOn: MayGoOn): Promise<'answers' | 'held' | 'stopped'> {
  try {
    for (let attempt = 1; ; ) {
      const { disturbances } = run.clock
      const interruptions = run.host.interruptions()
      // What was lost while the laptop slept, or had no wire, says nothing about the unit.
      const wasDisturbed = async (): Promise<boolean> => {
        const there = await reachesWire(run)
        return !there || disturbances !== run.clock.disturbances || interruptions !== run.host.interruptions()
      }
      const mayRetry = async (): Promise<boolean> => attempt < attempts || (await wasDisturbed())
      const outcome = await once(run, mayGoOn, mayRetry)
      if (outcome !== 'again' && outcome !== 'not-its-fault') return outcome
      run.access.dropSession()
      run.willChange()
      run.journal.forgetWritten()
      if (outcome === 'again' && !(await wasDisturbed())) attempt += 1
    }
  } finally {
    await run.access.close()
  }
}

/** Whether the laptop reaches the wire now. Asked, it knows too whether what made its lanes was started anew. */
async function reachesWire({ host }: UnitRun): Promise<boolean> {
  try {
    await host.laptop()
    return true
  } catch (error) {
    if (error instanceof HostAwayError) return false
    throw error
  }
}

/** What is begun again through no fault of the unit is not counted. */
type Outcome = 'answers' | 'held' | 'stopped' | 'again' | 'not-its-fault'

async function once(run: UnitRun, mayGoOn: MayGoOn, mayRetry: () => Promise<boolean>): Promise<Outcome> {
  const steps = stepsFor(run.target.card)
  const last = steps.at(-1)
  for (const step of steps) {
    try {
      await run.mayAct()
      if (!mayGoOn()) return 'stopped'
      run.journal.note(step, { kind: 'working', doing: message(`doing-${step}`) })
      const managed = isManaged(run.target.card) ? managedWork[step] : undefined
      const note = await (managed ?? work[step])(run)
      for (const who of run.access.others) run.journal.say(message('changed-by-others', { who }))
      if (step === last) await run.journal.tell(step, { kind: 'done', note })
      else run.journal.note(step, { kind: 'done', note })
    } catch (error) {
      if (error instanceof CalledOff) return 'stopped'
      if (error instanceof HostAwayError) return await wireBack(run, step, error)
      const isLost = error instanceof BrowserGoneError && run.browsersLost < mostBrowsersLost
      if (isLost) run.browsersLost += 1
      const isNoFault = isLost || error instanceof MayHaveRestarted
      if (isNoFault || (mayTryAgain(run, step, error) && (await mayRetry()))) {
        run.journal.say(message('looked-for-again', { step, told: toldBy(error) }))
        await run.journal.tell(step, { kind: 'idle' })
        return isNoFault ? 'not-its-fault' : 'again'
      }
      const { held: state } = asHeld(run, error)
      if (error instanceof WireError) run.journal.say(message('wire-error', { kind: error.kind, told: error.told }))
      await keepPicture(run)
      await run.journal.tell(step, state)
      return 'held'
    }
  }
  return 'answers'
}

/** What its pages showed when it was held, where it has any: whoever comes to it sees what it wanted. */
async function keepPicture({ access, journal, records, jobId, target, clock }: UnitRun): Promise<void> {
  await access.look()
  const { shown } = access
  if (!shown) return
  const kept: PageWhenHeld = { base64: Buffer.from(shown.jpeg).toString('base64'), words: shown.words }
  await records.keepBackup(jobId, target.unit.mac, 'page-when-held', JSON.stringify(kept), clock.date())
  await journal.kept('page-when-held')
}

/** Real milliseconds between two looks whether the laptop's way to the wire is back. */
const wireLookMs = 500

/** Waits until the laptop reaches the wire again. */
async function wireBack(run: UnitRun, step: Step, { told }: HostAwayError): Promise<'not-its-fault' | 'stopped'> {
  run.journal.say(told)
  await run.journal.tell(step, {
    kind: 'waiting',
    until: run.clock.wall(),
    waitingFor: message('wire-not-reached'),
  })
  for (;;) {
    try {
      await run.waits.pause((wireLookMs / 1000) * run.waits.pace)
      await run.host.laptop()
      await run.journal.tell(step, { kind: 'idle' })
      return 'not-its-fault'
    } catch (error) {
      if (error instanceof CalledOff) return 'stopped'
      if (!(error instanceof HostAwayError)) throw error
    }
  }
}

/** A unit that went away in the middle is looked for again: every step can run twice. */
function mayTryAgain({ journal }: UnitRun, step: Step, error: unknown): boolean {
  if (error instanceof CameBackUnchanged) return true
  if (error instanceof WireError && error.kind === 'overtaken') return true
  if (step === 'apply' && mayBeMoving(journal, error)) return true
  return step !== 'reach' && wentAway(error)
}

function asHeld({ target }: UnitRun, error: unknown): HeldError {
  if (error instanceof HeldError) return error
  if (error instanceof WireError) return explain(target, error)
  if (error instanceof CameBackUnchanged) return held('came-back-unchanged', { address: error.address })
  throw error
}
