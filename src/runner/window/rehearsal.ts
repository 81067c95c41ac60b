/** Reads a unit by its card and writes nothing: hands have set it, and the card is to be tried before it writes. */

import type { Clear, Config } from '../../core/config/unit-config'
import type { DirectCard } from '../../core/kit/kit-card'
import { asText } from '../../core/message/message'
import type { Credentials } from '../../core/secrets/credentials'
import { readBack } from '../../core/showing/rehearsal'
import type { Told } from '../../core/showing/window-talk'
import { WireError } from '../../wire/errors/wire-error'
import type { Lane } from '../../wire/host/host'
import type { Sessions } from '../../wire/sessions'
import type { PinCheck } from '../../wire/trust/pin'

export interface Rehearsal {
  readonly lane: Lane
  readonly pin: PinCheck
  readonly card: DirectCard
  readonly desired: Config<Clear>
  readonly login: Credentials
}

export async function rehearse(
  sessions: Pick<Sessions, 'unit'>,
  { lane, pin, card, desired, login }: Rehearsal,
): Promise<Extract<Told, { kind: 'rehearsed' }>> {
  const session = await sessions.unit(lane, card, pin, desired)
  try {
    await session.signIn(login)
    return { kind: 'rehearsed', read: readBack(desired, await session.read('configured')) }
  } catch (error) {
    if (!(error instanceof WireError)) throw error
    return { kind: 'rehearsed', read: [], fault: { kind: error.kind, reason: asText(error.told).slice(0, 300) } }
  } finally {
    session.close()
  }
}
