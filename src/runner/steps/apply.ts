/** Apply: everything staged takes effect together, with a countdown; the unit keeps its power until then. */
import { type Message, message } from '../../core/message/message'
import { standingOf } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/errors/wire-error'
import { held } from '../unit/held-error'
import type { Journal } from '../unit/journal'
import type { UnitRun } from '../unit/unit-run'
import { wentAway } from './address'

/** While changes take effect the unit is slow: most polls only check that it still answers. */
const askedEvery = 5

export async function apply(run: UnitRun): Promise<Message> {
  const { target, access, journal, waits, host } = run
  const standing = await standingOf(access.dialect)
  if (standing === 'none') return message('nothing-waits')
  const seconds = target.card.timing.apply
  journal.awaitedRevision = await access.dialect.staging?.revision?.()
  run.willChange()
  if (standing === 'waiting') await begin(run)
  access.contact.sends()
  const old = access.here
  await journal.tell('apply', { kind: 'waiting', until: waits.due(seconds), waitingFor: message('applying') })
  const within = seconds * 2 + 60
  let looks = 0
  const over = await waits.until(async () => {
    await waits.pause(2)
    if (!(await host.arp(old)).includes(target.unit.mac)) return 'gone'
    looks += 1
    if (looks % askedEvery !== 0) return undefined
    return (await stillWaits(run)) ? undefined : 'none'
  }, within)
  if (over === undefined) throw held('still-applying', { seconds: within })
  return message('changes-applied')
}

/** Seconds after which a move that took effect has been made. */
const movesWithin = 10

/**
 * A unit that an earlier muster has told to move takes no other change before that is confirmed (RFC 6241, 8.4), and
 * may be about to leave: a moment later it is looked for again.
 */
async function begin({ access, journal, waits }: UnitRun): Promise<void> {
  try {
    await access.dialect.staging?.apply()
  } catch (error) {
    if (mayBeMoving(journal, error)) await waits.pause(movesWithin)
    throw error
  }
}

/** Did it refuse to apply anything while it may have a move that waits to be confirmed? */
export function mayBeMoving({ doors }: Pick<Journal, 'doors'>, error: unknown): boolean {
  return doors.address === 'opened' && error instanceof WireError && error.kind === 'rejected'
}

async function stillWaits({ access }: UnitRun): Promise<boolean> {
  try {
    return (await standingOf(access.dialect)) !== 'none'
  } catch (error) {
    if (wentAway(error)) return true
    throw error
  }
}
