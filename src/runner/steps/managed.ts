/** What is done otherwise with a unit that is set through its controller. */
import { type Message, message } from '../../core/message/message'
import type { Step } from '../../core/muster/procedure'
import { switchPortSeconds } from '../../core/muster/whereabouts'
import { findsNobody, joined } from '../managed/joined'
import { throughController } from '../managed/through-controller'
import { heardOnly, notFound } from '../unit/explain'
import type { UnitRun } from '../unit/unit-run'
import { heardFrom } from './reach'

export const managedWork: Readonly<Partial<Record<Step, (run: UnitRun) => Promise<Message>>>> = {
  reach: onTheWire,
  'sign-in': throughItsController,
  joined,
}

/** Nothing listens on it: it is there, or it is not. */
async function onTheWire(run: UnitRun): Promise<Message> {
  const { target, host, journal, waits, access } = run
  const { mac } = target.unit
  const wait = target.card.timing.start
  const until = waits.due(wait)
  let told = false
  let heard: Awaited<ReturnType<typeof heardFrom>>
  const found = await waits.until(async () => {
    const there = (await host.neighbours(target.subnets)).find((each) => each.mac === mac)
    if (there) return there.address
    // It may have kept the address that it had in another subnet: nobody speaks to it, so it need only be there.
    heard = await heardFrom(run)
    if (heard?.address) return heard.address
    // Without an address it may still be on its way to one.
    if (!told) await journal.tell('reach', { kind: 'waiting', until, waitingFor: message('looking-on-wire') })
    told = true
    return undefined
  }, wait + switchPortSeconds)
  if (found === undefined) throw heard ? heardOnly(target, target.subnets, null) : notFound(target, target.subnets)
  access.address = found
  return message('on-wire-at', { address: found })
}

async function throughItsController(run: UnitRun): Promise<Message> {
  const { target, access } = run
  const { dialect, controller } = throughController(run)
  // That it answers is asked at once, and told in its name.
  await dialect.saving?.isSaved()
  if (dialect.takeIn) {
    await found(run)
    await run.mayAct()
    await dialect.takeIn()
  }
  access.keep(access.guard(dialect), target.login, access.here)
  return message('through-controller', { name: controller.name })
}

/** Seconds in which it finds its controller, which shows nobody before. */
const findsWithin = 120

/** Waits until its controller shows it: only then is it taken in. */
async function found(run: UnitRun): Promise<void> {
  const { journal, waits } = run
  const { dialect, controller } = throughController(run)
  const until = waits.due(findsWithin)
  let told = false
  const seen = await waits.until(async () => {
    const standing = await dialect.joining()
    if (standing && standing.join !== 'absent') return standing
    if (!told)
      await journal.tell('sign-in', {
        kind: 'waiting',
        until,
        waitingFor: message('not-shown-yet', { name: controller.name }),
      })
    told = true
    return undefined
  }, findsWithin)
  if (!seen) throw await findsNobody(run, controller)
}
