/** Return: found where it is to be, and signed in there with the new password. */

import { type Message, message } from '../../core/message/message'
import { ToldError } from '../../core/message/told-error'
import { standingOf } from '../../wire/dialect/dialect'
import { tellingLights } from '../unit/explain'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'
import { type Located, locate } from './reach'

/** It came back as it was before: power was cut, or the change did not take. The run begins again from reach. */
export class CameBackUnchanged extends ToldError {
  override readonly name = 'CameBackUnchanged'
  constructor(readonly address: string) {
    super(message('came-back-at', { address }))
  }
}

/** Seconds in which a unit asks DHCP once its changes are in effect. */
const asksWithin = 10

export async function comeBack(run: UnitRun): Promise<Message> {
  const { target, access, journal, waits } = run
  const { restart } = target.card.timing
  const goal = target.plan.address
  const old = access.address
  const until = waits.due(restart)
  let told = false
  const method = target.compiled.config.unit['management.method']
  // Only what asks DHCP can be somewhere else; where it is now says nothing before it has asked.
  const byMac = method === 'dhcp' ? 'by-mac-too' : 'there-only'
  const asksLater = method === 'dhcp' && old === goal && journal.doors.address === 'opened'
  // What takes effect at once does so a moment after it was written; what was applied asks a moment after that.
  const moment = target.card.does.applies === 'at-once' ? target.card.timing.apply : asksLater ? asksWithin : undefined
  const mayStillMove = moment === undefined ? undefined : waits.deadline(moment)
  const found = await waits.until(
    async (): Promise<Located | undefined> => {
      // While it may still leave its old address, what answers there says nothing, and a connection to it may hang.
      const stillLeaves = mayStillMove && !mayStillMove.hasPassed()
      const places = old === undefined || old === goal || stillLeaves ? [goal] : [goal, old]
      const seen = await locate(run, places, byMac)
      if (seen?.answers === 'service' && seen.address === goal && !(stillLeaves && asksLater)) return seen
      if (seen?.answers === 'service' && told) {
        if (await isElsewhereByDhcp(run, seen.address)) return seen
        if (!stillLeaves) throw new CameBackUnchanged(seen.address)
      }
      if (!told) await journal.tell('return', { kind: 'waiting', until, waitingFor: message('restarting') })
      told = true
      return undefined
    },
    restart * 2 + 60,
  )
  if (!found) {
    throw held('did-not-return', { address: goal, lights: tellingLights(target.card) })
  }
  if (found.address !== goal) {
    // It went where DHCP sent it, and is reached there: it must not take that back while hands see to the server.
    await access.dialect.confirmedMove?.confirm(target.compiled.config)
    // The plan may move on to another subnet before it is looked for again.
    await journal.door('address', 'opened', { ...target.goal, address: found.address })
    throw held('not-reserved', { got: found.address, address: goal, mac: target.unit.mac })
  }
  access.contact.isBack()
  await access.signIn(target.login, goal)
  access.contact.begins()
  await access.dialect.confirmedMove?.confirm(target.compiled.config)
  if (target.card.does.applies === 'staged') await isThrough(run, goal)
  // It may have taken the change back before anybody confirmed it, and be found here all the same: by link-local, or
  // since it was here before.
  const { 'management.address': address, 'management.method': now } = (await run.inEffect()).unit
  if (address?.kind === 'value' && address.value !== goal) throw new CameBackUnchanged(address.value)
  if (now?.kind === 'value' && method !== undefined && now.value !== method) throw new CameBackUnchanged(goal)
  // It may have lost its power in the middle, and be back as it was before, at an address that did not change.
  const awaited = journal.awaitedRevision
  if (awaited !== undefined && (await access.dialect.staging?.revision?.()) !== awaited)
    throw new CameBackUnchanged(goal)
  await journal.door('address', 'passed')
  if (old !== undefined && old !== goal) await access.closeLane(old)
  if (target.card.does.saves === 'itself') await journal.tookEffect()
  journal.say(message('answers-signed-in', { address: goal }))
  return message('back-at', { address: goal })
}

/**
 * It may have left its old address for something else than what it was told to apply, and still be at work on that.
 * @throws CameBackUnchanged where that waits again
 */
async function isThrough({ access, waits, target }: UnitRun, address: string): Promise<void> {
  const within = target.card.timing.apply * 2 + 60
  const standing = await waits.until(async () => {
    const now = await standingOf(access.dialect)
    return now === 'applying' ? undefined : now
  }, within)
  if (standing === undefined) throw held('still-applying', { seconds: within })
  if (standing === 'waiting') throw new CameBackUnchanged(address)
}

/** It asks DHCP as it was told to, and was given another address than the plan's. */
async function isElsewhereByDhcp(run: UnitRun, address: string): Promise<boolean> {
  if (run.target.compiled.config.unit['management.method'] !== 'dhcp') return false
  await run.access.signIn(run.target.login, address)
  const method = (await run.inEffect()).unit['management.method']
  return method?.kind === 'value' && method.value === 'dhcp'
}
