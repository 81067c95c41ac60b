/** Joined: its controller has it in its run state, at its address, under its name. A join that hangs has a reason. */

import type { Joining } from '../../core/kit/joining'
import { type Message, message } from '../../core/message/message'
import type { ControllerLink } from '../unit/controller-link'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'
import { anotherController } from './another-controller'
import { type Seen, standingOf } from './standing'
import { throughController } from './through-controller'

/** Seconds that it may stand where it is, before something is wrong; an image takes the longest. */
const patience: Readonly<Record<Joining['join'], number>> = {
  absent: 120,
  discovered: 60,
  joining: 90,
  image: 900,
  configuring: 120,
  run: 60,
  'turned-away': 30,
  unknown: 300,
}

const told: Readonly<Record<Joining['join'], Message>> = {
  absent: message('join-looks-for-controller'),
  discovered: message('join-asks'),
  joining: message('join-joins'),
  image: message('join-loads-image'),
  configuring: message('join-is-told'),
  run: message('join-moves'),
  'turned-away': message('join-turned-away'),
  unknown: message('join-unknown'),
}

export async function joined(run: UnitRun): Promise<Message> {
  const { target, journal, waits, access } = run
  const { controller } = throughController(run)
  const goal = target.compiled.config.unit['management.method'] === 'dhcp' ? undefined : target.plan.address
  let standing: Joining['join'] | undefined
  let seen: Seen | undefined
  let last: Joining | undefined
  let deadline = waits.deadline(patience.absent)
  const done = await waits.until(
    async () => {
      seen = await standingOf(run, seen)
      last = seen.standing && (await withAddress(run, seen.standing, goal))
      const now = last?.join ?? 'absent'
      if (now === 'run' && (goal === undefined || last?.['current-address'] === goal)) return last
      if (now !== standing) {
        standing = now
        deadline = waits.deadline(patience[now])
        await journal.tell('joined', { kind: 'waiting', until: waits.due(patience[now]), waitingFor: told[now] })
        journal.say(message('controller-says', { name: controller.name, told: told[now] }))
      }
      return undefined
    },
    () => deadline,
  )
  if (!done) throw await hangs(run, controller, last, standing ?? 'absent')
  access.address = done['current-address'] ?? target.plan.address
  if (goal === undefined && access.address !== target.plan.address)
    throw held('not-reserved', { got: access.address, address: target.plan.address, mac: target.unit.mac })
  await journal.door('address', 'passed')
  await journal.tookEffect()
  return message('runs-at', { address: access.address })
}

/** Where it answers: as its controller says, else as the wire shows. */
async function withAddress({ host, target }: UnitRun, standing: Joining, goal: string | undefined): Promise<Joining> {
  if (standing.join !== 'run' || standing['current-address'] !== undefined) return standing
  const there = await host.arp(goal ?? target.plan.address)
  return there.includes(target.unit.mac) ? { ...standing, 'current-address': goal ?? target.plan.address } : standing
}

async function hangs(
  run: UnitRun,
  controller: ControllerLink,
  last: Joining | undefined,
  standing: Joining['join'],
): Promise<Error> {
  const { name } = controller
  // It was put on the list before: somebody has taken it off since.
  if (last === undefined) return held('turned-away', { name, reason: 'not-listed' })
  if (standing === 'absent') return findsNobody(run, controller)
  if (standing === 'turned-away') return held('turned-away', { name, reason: last.reason ?? 'not-listed' })
  if (standing === 'unknown') return held('state-unknown', { name, said: last.said ?? '' })
  return held('join-hangs', { standing: told[standing], seconds: patience[standing] })
}

/** Why it does not find its controller, as far as that is seen from here. */
export async function findsNobody(run: UnitRun, controller: ControllerLink): Promise<Error> {
  const { name, address } = controller
  const { port } = run.target.unit
  if (controller.showsUnitsAs === 'rows') return held('not-shown', { name, address, port })
  const other = await anotherController(run, controller)
  if (other) return held('another-controller', { name, other: other.name ?? '', at: other.address, port })
  // Whether it is the controller that keeps silent, or the way to it that is missing, is seen from here.
  const seen = await controller.discovered()
  const answers = seen ? { joined: seen.joined, most: seen.most } : null
  const heard = await run.host.heard()
  const told = [...new Set(heard.servers.flatMap(({ controllers }) => controllers))]
  return held('no-discovery', { name, address, port, answers, told: told.includes(address) ? [] : told })
}
