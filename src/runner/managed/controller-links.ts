/** Links to the controllers of a job: each is opened once, when the first of its units asks for it. */
import { parseCidr } from '../../core/addressing/ipv4'
import { adminSecretName, type Brief, secretName } from '../../core/brief/brief'
import { isDirect } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import type { Host } from '../../wire/host/host'
import type { Sessions } from '../../wire/sessions'
import type { SnmpUser } from '../../wire/snmp/answer'
import type { AwakeClock } from '../awake-clock'
import type { JobRecord, Records } from '../ports/records'
import { type ControllerCard, ControllerLink } from './controller-link'

export interface ControllerLinks {
  /** Undefined where it cannot be spoken to: it has no plan, or no password. */
  to(unit: Unit): ControllerLink | undefined
  close(): Promise<void>
}

interface Input {
  readonly records: Records
  readonly host: Host
  readonly sessions: Sessions
  readonly clock: AwakeClock
  readonly mayAct: () => Promise<void>
  readonly jobId: number
  readonly job: JobRecord
  readonly secrets: ReadonlyMap<string, string>
}

export function controllerLinks({ job, secrets, ...parts }: Input): ControllerLinks {
  const links = new Map<string, ControllerLink>()
  const opened = (unit: Unit): ControllerLink | undefined => {
    const card = job.cards.get(unit.model)
    const address = job.plans.get(unit.id)?.address
    const password = secrets.get(adminSecretName(job.brief.admin, unit.id))
    if (!card || !isDirect(card) || card.dialect.kind !== 'netconf' || address === undefined || password === undefined)
      return undefined
    const prefix = parseCidr(job.brief.management.cidr)?.prefix ?? 24
    const login = { user: card.factory.login.user, password }
    const snmpUser = snmpUserOf(job.brief, secrets)
    return new ControllerLink({
      ...parts,
      unit,
      card: card as ControllerCard,
      address,
      prefix,
      login,
      snmpUser,
    })
  }
  return {
    to: (unit) => {
      const link = links.get(unit.id) ?? opened(unit)
      if (link) links.set(unit.id, link)
      return link
    },
    close: async () => {
      await Promise.all([...links.values()].map((link) => link.close()))
    },
  }
}

function snmpUserOf({ aftercare }: Brief, secrets: ReadonlyMap<string, string>): SnmpUser | undefined {
  const user = aftercare.snmp?.user
  const authentication = secrets.get(secretName.snmpAuthentication)
  const privacy = secrets.get(secretName.snmpPrivacy)
  return user && authentication && privacy ? { user, authentication, privacy } : undefined
}
