/**
 * Logins of a unit that is set by hand, tried from outside: by the sign-in that somebody has shown on a unit of its
 * model.
 * Where nobody has shown one, nobody knows how to sign in.
 */

import type { Asking } from '../core/config/asking'
import { loginOf } from '../core/config/compile'
import { spokenOf } from '../core/config/outcomes'
import type { Clear } from '../core/config/unit-config'
import { type DirectCard, isDirect, makesItsAdmin, ofOneBox, readKitCard } from '../core/kit/kit-card'
import type { Message } from '../core/message/message'
import type { Credentials } from '../core/secrets/credentials'
import { recordIn } from '../core/showing/kept-record'
import { shownCard } from '../core/showing/shown-card'
import { WireError } from '../wire/errors/wire-error'
import type { Lane } from '../wire/host/host'
import type { Sessions } from '../wire/sessions'
import type { PinCheck } from '../wire/trust/pin'
import type { Records } from './ports/records'
import { opens } from './steps/logins'

export interface HandLogins {
  readonly card: DirectCard
  /** Undefined where it is unknown, or where there is none: the first person to sign in makes its admin. */
  readonly factory: Credentials | undefined
  readonly toBe: Credentials | undefined
}

interface Shown {
  readonly records: Pick<Records, 'backup'>
  readonly jobId: number
  /** Of the unit, with its secrets. */
  readonly asking: Asking<Clear>
  /** MACs of its model on the kit list, its own first. */
  readonly macs: readonly string[]
  readonly address: string
  readonly labelPassword: string | undefined
}

/** @returns undefined where no sign-in was shown */
export async function handLogins(shown: Shown): Promise<HandLogins | undefined> {
  const { records, jobId, asking, macs, address, labelPassword } = shown
  for (const mac of macs) {
    const record = recordIn(await records.backup(jobId, mac, 'showing'))
    if (!record) continue
    const { login, port } = ofOneBox(asking.card, { labelPassword }).factory
    const { user, password } = loginOf(asking)
    // Of a model that nobody has described, the label tells the password; the name is mostly the same.
    const factory = { user: login.user || user, password: login.password }
    const { model } = asking.unit
    const subject = { model, mac: asking.unit.mac, address, scheme: 'https', port, factory } as const
    const { yaml, missing } = shownCard(record, { ...subject, spoken: spokenOf(asking) })
    const reading = readKitCard(yaml)
    if (missing.some(({ code }) => code === 'no-sign-in') || !reading.ok || !isDirect(reading.card)) continue
    const chosen = makesItsAdmin(reading.card) ? asking.brief.admin.user : user
    return {
      card: reading.card,
      factory: makesItsAdmin(reading.card) || factory.password === '' ? undefined : factory,
      toBe: password === undefined ? undefined : { user: chosen, password },
    }
  }
  return undefined
}

/** What a login does: it opens a session, is refused, or could not be tried, and why. */
export async function triedLogin(
  sessions: Pick<Sessions, 'unit'>,
  lane: Lane,
  pin: PinCheck,
  card: DirectCard,
  login: Credentials,
): Promise<'accepted' | 'refused' | { readonly notTried: Message }> {
  const session = await sessions.unit(lane, card, pin, undefined)
  try {
    return (await opens(session, login)) ? 'accepted' : 'refused'
  } catch (error) {
    if (error instanceof WireError) return { notTried: error.told }
    throw error
  } finally {
    session.close()
  }
}
