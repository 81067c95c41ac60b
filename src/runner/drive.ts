/**
 * Drives one unit through the procedure. Whatever happens to it stays with it: it ends answering, held, or called off.
 */
import { procedure, type Step, stepsFor } from '../core/muster/procedure'
import { HostAwayError } from '../wire/host/host'
import { WireError } from '../wire/wire-error'
import { explain, HeldError } from './explain'
import { address, CameBackUnchanged, comeBack } from './steps/address'
import { backup } from './steps/backup'
import { onAir } from './steps/on-air'
import { password } from './steps/password'
import { proof } from './steps/proof'
import { reach } from './steps/reach'
import { settle } from './steps/settle'
import { signIn } from './steps/sign-in'
import { CalledOff, type UnitRun } from './unit-run'

type Work = (run: UnitRun) => Promise<string>

const work: Readonly<Record<Step, Work>> = {
  reach,
  'sign-in': signIn,
  backup,
  country: (run) => settle(run, 'country'),
  clock: (run) => settle(run, 'clock'),
  networks: (run) => settle(run, 'networks'),
  radios: (run) => settle(run, 'radios'),
  password,
  address,
  return: comeBack,
  joined: async () => 'no controller',
  'on-air': onAir,
  proof,
}

/** How often a unit that vanishes half-way is looked for again before it is held. */
const attempts = 3

/** Asked before each step; a muster that is pausing stops there. */
export type MayGoOn = () => boolean

export async function drive(run: UnitRun, mayGoOn: MayGoOn): Promise<'answers' | 'held' | 'stopped'> {
  try {
    for (let attempt = 1; ; ) {
      const { disturbances } = run.clock
      const outcome = await once(run, mayGoOn, attempt < attempts ? 'may-retry' : 'last')
      if (outcome !== 'again' && outcome !== 'wire-was-away') return outcome
      run.dropSession()
      // What was lost while the laptop slept, or had no wire, says nothing about the unit.
      if (outcome === 'again' && disturbances === run.clock.disturbances) attempt += 1
    }
  } finally {
    await run.close()
  }
}

type Outcome = 'answers' | 'held' | 'stopped' | 'again' | 'wire-was-away'

async function once(run: UnitRun, mayGoOn: MayGoOn, retry: 'may-retry' | 'last'): Promise<Outcome> {
  const steps = stepsFor(run.card)
  const last = steps.at(-1)
  for (const step of steps) {
    await run.mayAct()
    if (!mayGoOn()) return 'stopped'
    try {
      run.stopIfCalledOff()
      run.note(step, { is: 'working', doing: procedure[step].doing })
      const note = await work[step](run)
      if (step === last) await run.tell(step, { is: 'done', note })
      else run.note(step, { is: 'done', note })
    } catch (error) {
      if (error instanceof CalledOff) return 'stopped'
      if (error instanceof HostAwayError) return await wireBack(run, step, error)
      if (retry === 'may-retry' && mayTryAgain(step, error)) {
        run.say(
          `${procedure[step].title.toLowerCase()}: ${error instanceof Error ? error.message : ''}; looking for it again`,
        )
        await run.tell(step, { is: 'idle' })
        return 'again'
      }
      const { held } = asHeld(run, error)
      if (error instanceof WireError) run.say(`${error.kind}: ${error.reason}`)
      await run.tell(step, held)
      return 'held'
    }
  }
  return 'answers'
}

/** Real milliseconds between two looks whether the laptop's way to the wire is back. */
const wireLookMs = 500

/** Waits until the laptop reaches the wire again. */
async function wireBack(run: UnitRun, step: Step, { message }: HostAwayError): Promise<'wire-was-away' | 'stopped'> {
  run.say(message)
  await run.tell(step, { is: 'waiting', until: Date.now(), waitingFor: 'this laptop does not reach the wire' })
  for (;;) {
    try {
      await run.pause((wireLookMs / 1000) * run.pace)
      await run.host.laptop()
      await run.tell(step, { is: 'idle' })
      return 'wire-was-away'
    } catch (error) {
      if (error instanceof CalledOff) return 'stopped'
      if (!(error instanceof HostAwayError)) throw error
    }
  }
}

/** A unit that went away in the middle is looked for again: every step can run twice. */
function mayTryAgain(step: Step, error: unknown): boolean {
  if (error instanceof CameBackUnchanged) return true
  return step !== 'reach' && error instanceof WireError && (error.kind === 'unreachable' || error.kind === 'timeout')
}

function asHeld(run: UnitRun, error: unknown): HeldError {
  if (error instanceof HeldError) return error
  if (error instanceof WireError) return explain({ unit: run.unit, card: run.card }, error)
  if (error instanceof CameBackUnchanged)
    return explain({ unit: run.unit, card: run.card }, new WireError('rejected', error.message))
  throw error
}
