/** What a unit's SNMP agent says to its user, and to somebody who is none. */

import type { SettingId } from '../../core/catalogue/catalogue'
import type { Message } from '../../core/message/message'
import type { Check } from '../../core/muster/check'
import { seen } from '../../core/muster/seen'
import { WireError } from '../../wire/errors/wire-error'
import type { Lane } from '../../wire/host/host'
import { notTold, type SnmpAnswer, type SnmpUser, systemGroup } from '../../wire/snmp/answer'
import type { UnitRun } from '../unit/unit-run'

/** What much equipment leaves its agent open to. */
const wellKnown = 'public'

export interface SnmpLook {
  readonly code: Extract<Check['code'], 'snmp' | 'snmp-in-clear'>
  readonly expected: Message
  readonly look: () => Promise<Message>
}

/** Where the brief wants SNMP: the new user gets an answer, and a client without a user gets none. */
export function snmpLooks(run: UnitRun): SnmpLook[] {
  const user = snmpUser(run)
  if (!user) return []
  const asked = (work: (lane: Lane) => Promise<SnmpAnswer>) => async (): Promise<Message> => {
    try {
      const answer = await work(await run.access.lane(run.target.plan.address))
      return answer.kind === 'told' ? seen.told : notTold(answer)
    } catch (error) {
      if (error instanceof WireError) return seen.noAnswer
      throw error
    }
  }
  const inClear = asked((lane) => run.sessions.snmpInClear(lane, wellKnown, [systemGroup.name]))
  return [
    {
      code: 'snmp',
      expected: seen.told,
      look: asked((lane) => run.sessions.snmpAsUser(lane, user, [systemGroup.name])),
    },
    {
      code: 'snmp-in-clear',
      expected: seen.shut,
      look: async () => ((await inClear()).code === seen.told.code ? seen.told : seen.shut),
    },
  ]
}

/** The user that this unit was given, with its keys; undefined where it was given none. */
function snmpUser({ target }: UnitRun): SnmpUser | undefined {
  const { unit } = target.compiled.config
  const of = (id: SettingId): string | undefined => {
    const value = (unit as Readonly<Partial<Record<SettingId, unknown>>>)[id]
    return typeof value === 'string' ? value : undefined
  }
  const user = of('services.snmp-user')
  const authentication = of('services.snmp-authentication')
  const privacy = of('services.snmp-privacy')
  return user && authentication && privacy ? { user, authentication, privacy } : undefined
}
