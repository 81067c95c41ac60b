/** Links to the controllers of a job: each is opened once, when the first of its units asks for it. */
import { parseCidr } from '../../core/address/ipv4'
import { adminSecretName, type Brief, secretName } from '../../core/brief/brief'
import type { Clear, Config } from '../../core/config/unit-config'
import { adminUser, isDirect } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import type { Host } from '../../wire/host/host'
import type { Sessions } from '../../wire/sessions'
import type { SnmpUser } from '../../wire/snmp/answer'
import type { AwakeClock } from '../ports/awake-clock'
import type { JobRecord, Records } from '../ports/records'
import { ControllerLink, showsUnitsAs } from '../unit/controller-link'

export interface ControllerLinks {
  /**
   * Undefined where it cannot be spoken to: it has no plan, or no password.
   * @param desired  what the access point is to be that asks for it
   */
  to(unit: Unit, desired: Config<Clear>): ControllerLink | undefined
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
  const opened = (unit: Unit, desired: Config<Clear>): ControllerLink | undefined => {
    const card = job.cards.get(unit.model)
    const address = job.plans.get(unit.id)?.address
    const password = secrets.get(adminSecretName(job.brief.admin, unit.id))
    if (!card || !isDirect(card) || !showsUnitsAs(card) || address === undefined || password === undefined)
      return undefined
    const prefix = parseCidr(job.brief.management.cidr)?.prefix ?? 24
    const login = { user: adminUser(card, job.brief.admin.user), password }
    const snmpUser = snmpUserOf(job.brief, secrets)
    return new ControllerLink({
      ...parts,
      unit,
      card,
      desired,
      address,
      prefix,
      login,
      snmpUser,
    })
  }
  return {
    to: (unit, desired) => {
      const link = links.get(unit.id) ?? opened(unit, desired)
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
