/** Proof: each point of it is a check with what was expected and what was seen; one bad one holds the unit. */

import { dequal } from 'dequal/lite'
import type { FurtherUser } from '../../core/brief/policies'
import { settingOf } from '../../core/catalogue/catalogue'
import { compare, type Difference } from '../../core/config/compare'
import { find, settled, valueAt } from '../../core/config/outcomes'
import type { Clear, Config, ObservedConfig, SettingKey } from '../../core/config/unit-config'
import { isManaged } from '../../core/kit/kit-card'
import { asTold, type Message, message, messageOf, together } from '../../core/message/message'
import type { Check, CheckCode } from '../../core/muster/check'
import type { Cell } from '../../core/muster/events'
import { isMovedByRadar, withRadarMoves } from '../../core/muster/radar-move'
import { seen } from '../../core/muster/seen'
import type { Dialect } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/errors/wire-error'
import { carriedBySnmp, carriedTold, standingTold, toldBySnmp } from '../managed/standing'
import { throughController } from '../managed/through-controller'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'
import { freeAddress } from './free-address'
import { type LoginsTried, opens, tryLogins } from './logins'
import { unmeantOpen } from './on-air'
import { plainServices } from './plain-services'
import { snmpLooks } from './snmp'

/** Seconds that a clock may take to be set after a start. */
const clockPatience = 90

export async function proof(run: UnitRun): Promise<Message> {
  const { target, access, journal } = run
  const bad: Check[] = []
  const observed = await readWithClock(run)
  // In the session in which it was read: the looks at its logins open others, and change nothing.
  const asLeft = await access.dialect.copies?.backup()
  const boxed = target.card.factory.address
  const canAsk = boxed === null || (await run.host.canAsk(boxed))
  // Nobody was asked there, so nothing is said of it.
  if (!canAsk) journal.say(message('cannot-ask-who-answers', { address: boxed }))
  for (const { code, expected, look, otherwise = 'bad' } of checksOf(run, observed)) {
    if (code === 'factory-address' && !canAsk) continue
    const observed = await look()
    const check: Check = {
      code,
      expected,
      observed,
      verdict: dequal(observed, expected) ? 'good' : otherwise,
      at: run.clock.wall(),
    }
    journal.check(check)
    if (check.verdict === 'bad') bad.push(check)
  }
  const [first] = bad
  if (first?.code === 'clock')
    throw held('clock-off', { off: first.observed, servers: target.compiled.config.unit['clock.ntp-servers'] ?? [] })
  if (bad.length > 0) throw held('check-failed', { checks: bad })
  const firmware = observed.unit['unit.firmware']
  const runs = firmware?.kind === 'value' ? firmware.value : undefined
  if (runs !== undefined) journal.say(message('runs-firmware', { version: runs }))
  const licensed = observed.unit['licence.units']
  const wanted = target.compiled.config.unit['licence.units']
  if (licensed?.kind === 'value' && wanted !== undefined && licensed.value < wanted)
    journal.say(message('licence-too-small', { licensed: licensed.value, wanted }))
  if (asLeft !== undefined) {
    await run.records.keepBackup(run.jobId, target.unit.mac, 'as-left', asLeft, run.clock.date())
    await journal.kept('as-left')
  }
  const outcomes = settled(target.expected, (key) => valueIn(run, key), observed, journal.marks)
  await journal.proven(withRadarMoves(outcomes, run.radarMoves), { firmware: runs, cells: cellsOf(run) })
  return message('every-check-good')
}

function cellsOf({ onAir }: UnitRun): Cell[] {
  return onAir.flatMap(({ band, networks }) =>
    networks.flatMap(({ id: network, bssid }) => (bssid === undefined ? [] : [{ band, network, bssid }])),
  )
}

/** What it is now. A clock that was just told its time server gets a while. */
async function readWithClock(run: UnitRun): Promise<ObservedConfig> {
  let observed = await run.inEffect()
  if (clockOf(run, observed) === undefined) return observed
  await run.waits.until(async () => {
    observed = await run.inEffect()
    return clockOf(run, observed) === undefined ? true : undefined
  }, clockPatience)
  return observed
}

/** How far its clock is off; undefined where it is right, or not asked about. */
function clockOf({ target }: UnitRun, observed: ObservedConfig): Message | undefined {
  if (target.compiled.config.unit['clock.time'] === undefined) return undefined
  const found = find(observed, { id: 'clock.time', of: '' })
  if (found.kind !== 'value') return seen.notTold
  const { same, show } = settingOf('clock.time')
  return same?.(0, found.value) ? undefined : asTold(show?.(found.value) ?? '')
}

interface Look {
  readonly code: CheckCode
  readonly expected: Message
  readonly look: () => Promise<Message>
  /** What it means where something else is seen; `bad` unless it says so. */
  readonly otherwise?: 'remark'
}

function checksOf(run: UnitRun, observed: ObservedConfig): Look[] {
  const { target, access, host } = run
  const { card, plan, unit, compiled } = target
  return [
    {
      code: 'arp',
      expected: asTold(unit.mac),
      look: async () => {
        let macs = await host.arp(plan.address)
        if (macs.some((mac) => mac !== unit.mac)) {
          await freeAddress(run, 'proof')
          macs = await host.arp(plan.address)
        }
        return macs.length > 0 ? asTold(macs.join(', ')) : seen.noAnswer
      },
    },
    ...(card.does.ignoresPing
      ? []
      : [
          {
            code: 'ping' as const,
            expected: seen.answers,
            look: async () => ((await (await access.lane(plan.address)).ping()) ? seen.answers : seen.noAnswer),
          },
        ]),
    ...(isManaged(card) ? inRunState(run) : logins(run)),
    ...factoryAddress(run),
    ...(compiled.config.unit['clock.time'] === undefined
      ? []
      : [{ code: 'clock' as const, expected: seen.right, look: async () => clockOf(run, observed) ?? seen.right }]),
    {
      code: 'settings',
      expected: seen.asAsked,
      look: async () => {
        const differences = compare(compiled.config, observed, run.asWritten).filter(
          (difference) =>
            difference.kind !== 'value' ||
            (settingOf(difference.id).onlyRead !== true &&
              !isMovedByRadar(difference.id, difference.of, run.radarMoves)),
        )
        return differences.length > 0 ? together(differences.map(messageOf)) : seen.asAsked
      },
    },
    {
      code: 'on-air',
      expected: seen.securedAsAsked,
      look: async () => {
        const open = unmeantOpen(compiled.config, await access.dialect.air())
        return open ? message('network-is-open', { ssid: open.ssid }) : seen.securedAsAsked
      },
    },
    ...plainServiceLooks(run),
    ...snmpLooks(run),
  ]
}

/** Plain HTTP, SSH and Telnet, tried on every unit: what no muster can shut on its model is told as well. */
function plainServiceLooks({ target, access }: UnitRun): Look[] {
  const { unit } = target.compiled.config
  return plainServices.flatMap(({ code, port, setting, isOpenAt, isWanted }): Look[] => {
    const set = unit[setting]
    const look = async () => ((await access.takes(target.plan.address, port)) ? seen.open : seen.shut)
    if (set !== undefined) return [{ code, expected: isOpenAt(set) ? seen.open : seen.shut, look }]
    return isWanted(target.aftercare) ? [] : [{ code, expected: seen.shut, look, otherwise: 'remark' }]
  })
}

/** The new login opens it, and the factory's does not. */
function logins(run: UnitRun): Look[] {
  const { access, target } = run
  const { address } = target.plan
  let tried: LoginsTried | undefined
  const says = async (which: keyof LoginsTried): Promise<Message> => {
    tried ??= await tryLogins(access, { address, login: target.login, card: target.card })
    return tried[which] ? seen.accepted : seen.refused
  }
  return [
    { code: 'new-login', expected: seen.accepted, look: () => says('isNewOpen') },
    { code: 'factory-login', expected: seen.refused, look: () => says('isFactoryOpen') },
    ...furtherLogins(run),
  ]
}

/**
 * Each user beside the admin signs in with the password that is in the vault, and may do what its role says: it gives
 * the unit the name that it has.
 */
function furtherLogins(run: UnitRun): Look[] {
  const { config } = run.target.compiled
  const users = config.unit['admin.further-users'] ?? []
  if (users.length === 0) return []
  const standing = async (session: Dialect, { name, role }: FurtherUser): Promise<Message | undefined> => {
    const login = { user: name, password: config.unit['admin.further-passwords']?.[name] ?? '' }
    if (!(await opens(session, login))) return message('user-refused', { user: name })
    const may = await changes(session, config)
    if (may === (role === 'administers')) return undefined
    return may ? message('user-may-change-much', { user: name }) : message('user-may-change-nothing', { user: name })
  }
  const look = async (): Promise<Message> => {
    const wrong: Message[] = []
    for (const user of users) {
      const found = await run.access.beside(run.target.plan.address, (session) => standing(session, user))
      if (found !== undefined) wrong.push(found)
    }
    return wrong.length === 0 ? seen.asTheirRolesSay : message('listed', { of: wrong })
  }
  return [{ code: 'further-logins', expected: seen.asTheirRolesSay, look }]
}

/** May this login change anything? It tries by writing the name that the unit already has. */
async function changes(session: Dialect, config: Config<Clear>): Promise<boolean> {
  const same: Difference = { kind: 'value', id: 'unit.name', of: '', ...asTold('') }
  try {
    await session.write([same], config)
    return true
  } catch (error) {
    if (error instanceof WireError && (error.kind === 'refused' || error.kind === 'rejected')) return false
    throw error
  }
}

/** Its controller has it in its run state, under its name. */
function inRunState(run: UnitRun): Look[] {
  const look = async (): Promise<Message> => {
    const found = await throughController(run).dialect.joining()
    return found ? message('joined-as', { join: found.join, name: found.name ?? null }) : seen.notListed
  }
  const { unit, plan } = run.target
  const joined: Look = { code: 'joined', expected: message('joined-as', { join: 'run', name: unit.name }), look }
  if (!throughController(run).controller.asksAgent) return [joined]
  const expected = standingTold('run', run.access.address ?? plan.address, unit.name)
  const radios = run.target.card.radios.map(({ band }) => ({ band, names: namesOn(run, band) }))
  return [
    joined,
    { code: 'joined-by-snmp', expected, look: () => toldBySnmp(run) },
    { code: 'carried-by-snmp', expected: carriedTold(radios), look: () => carriedBySnmp(run) },
  ]
}

/** Names of the networks that are to be on air in a band. */
function namesOn({ target }: UnitRun, band: string): string[] {
  return Object.values(target.compiled.config.networks).flatMap((network) => {
    const carried = network['network.enabled'] !== false && network['network.bands']?.some((each) => each === band)
    return carried ? [network['network.ssid'] ?? ''] : []
  })
}

function factoryAddress({ target, host }: UnitRun): Look[] {
  const { address } = target.card.factory
  if (address === null || address === target.plan.address) return []
  const look = async (): Promise<Message> =>
    (await host.arp(address)).includes(target.unit.mac) ? seen.stillAnswers : seen.left
  return [{ code: 'factory-address', expected: seen.left, look }]
}

function valueIn({ target }: UnitRun, key: SettingKey): unknown {
  return key.id === 'admin.user' ? target.login.user : valueAt(target.compiled.config, key)
}
