/**
 * Address and return: the second one-way door. The session dies with the old address, so this comes last of the
 * changes; everything that was staged is applied with it.
 */

import { WireError } from '../../wire/wire-error'
import { held, heldForHands } from '../explain'
import type { UnitRun } from '../unit-run'
import { freeAddress } from './free-address'
import { locate } from './reach'
import { differing } from './settle'

/** It came back as it was before: power was cut, or the change did not take. The run begins again from reach. */
export class CameBackUnchanged extends Error {
  override readonly name = 'CameBackUnchanged'
}

export async function address(run: UnitRun): Promise<string> {
  await freeAddress(run)
  const differences = await differing(run, 'address')
  const before = await run.dialect.changesWait()
  if (differences.length === 0 && before === 'none') return 'was right already'

  await run.door('address', 'opened')
  for (const { sentence } of differences) run.say(sentence)
  if (differences.length > 0) await run.dialect.write(differences, run.compiled.config)
  if ((await run.dialect.changesWait()) === 'waiting') await run.dialect.apply()
  await run.dialect.save()
  await applied(run)
  return `moves to ${run.plan.address}`
}

/** Waits while the unit applies: until it is gone from its old address, or says that nothing waits any more. */
async function applied(run: UnitRun): Promise<void> {
  const { apply } = run.card.timing
  const old = run.address ?? run.card.factory.address
  await run.tell('address', { is: 'waiting', until: run.due(apply), waitingFor: 'applying, leave it powered' })
  const deadline = run.deadline(apply * 2 + 60)
  for (;;) {
    await run.pause(2)
    if (!(await run.host.arp(old)).includes(run.unit.mac)) return
    if ((await stillWaiting(run)) === 'none') return
    if (deadline.hasPassed())
      throw held(`It is still applying after ${apply * 2 + 60} s.`, [
        'Leave it powered for two minutes more.',
        'Then muster it again: it goes on where it stopped.',
      ])
  }
}

async function stillWaiting(run: UnitRun): Promise<'none' | 'waiting' | 'applying' | 'gone'> {
  try {
    return await run.dialect.changesWait()
  } catch (error) {
    if (error instanceof WireError && error.kind === 'unreachable') return 'gone'
    throw error
  }
}

/** Return: found at the new address, signed in there with the new password. */
export async function comeBack(run: UnitRun): Promise<string> {
  const { restart } = run.card.timing
  const target = run.plan.address
  const old = run.address
  const until = run.due(restart)
  const deadline = run.deadline(restart * 2 + 60)
  let told = false
  for (;;) {
    const found = await locate(run, old === undefined || old === target ? [target] : [target, old])
    if (found?.answers === 'service' && found.address === target) break
    if (found?.answers === 'service' && told) throw new CameBackUnchanged(`it came back at ${found.address}`)
    if (deadline.hasPassed())
      throw heldForHands('it-answers', `It did not come back at ${target}.`, [
        `Look at its light: ${run.card.lights['slow white'] ? 'slow white means that it still starts' : 'blinking means that it still starts'}.`,
        'Take its cable out for ten seconds and put it in again.',
        'It carries on by itself when it answers.',
      ])
    if (!told) await run.tell('return', { is: 'waiting', until, waitingFor: 'restarting' })
    told = true
    await run.pause(2)
  }
  const dialect = await run.session(target)
  try {
    await dialect.signIn(run.newLogin)
  } catch (error) {
    dialect.close()
    throw error
  }
  run.keepSession(dialect, run.newLogin, target)
  await run.door('address', 'passed')
  if (old !== undefined && old !== target) await run.closeLane(old)
  run.say(`answers at ${target}, signed in`)
  return `back at ${target}`
}
