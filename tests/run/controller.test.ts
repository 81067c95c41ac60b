/** A controller that speaks NETCONF, out of its box to its place. */
import { afterEach, expect } from 'vitest'
import type { JobDocument } from '../../src/core/job/job-document'
import type { Step } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import { type Bench, openBench } from '../support/bench'
import { shortIt as it, longIt } from '../support/long'
import { broughtHomeAfter } from '../support/power-cut'
import { mixedBrief } from '../support/whole-brief'

let bench: Bench
afterEach(() => bench.close())

const mac = '02:7a:c1:10:6a:01'
const rack = (job: JobDocument): void => {
  const [unit] = job.units
  if (unit) job.units = [{ ...unit, model: 'Tarnhelm C1', role: 'controller', mac } as typeof unit]
  job.brief = mixedBrief
}
const row = async () => (await bench.roll()).rows.get('hall-01')
const device = () => bench.lab.plugged(mac).unit
const open = async (pace: number): Promise<void> => {
  bench = await openBench({ change: rack, pace })
  bench.startRunner()
  await bench.order()
}

it('is mustered over NETCONF: its move confirmed from its new address, and saved', async () => {
  await open(200)
  await bench.settled()
  expect(answers(await row()), JSON.stringify(await row())).toBe(true)
  expect(device().effective).toMatchObject({ country: 'NZ', name: 'hall-01', wired: { address: '10.44.8.20' } })
  expect(device().changes.saved).toBe(true)
  // Nothing waits that would take it back.
  await new Promise((resolve) => setTimeout(resolve, 3200))
  expect(device().effective.wired.address).toBe('10.44.8.20')
})

it('has the users of the brief, of whom one may look alone, and loses a user that nobody asked for', async () => {
  bench = await openBench({ change: rack, pace: 200 })
  device().powerOn()
  await expect.poll(() => device().phase).toBe('up')
  const { configured } = device()
  device().configure({ ...configured, users: [...configured.users, 'former'] }, new Map([['former', 'left long ago']]))
  bench.startRunner()
  await bench.order()
  await bench.settled()
  expect(answers(await row()), JSON.stringify(await row())).toBe(true)
  expect(device().effective.users.toSorted()).toEqual(['chief', 'depot', 'night-watch'])
  expect(['chief', 'depot', 'night-watch'].map((user) => device().mayChange(user))).toEqual([true, true, false])
  expect(device().accepts('former', 'left long ago')).toBe(false)
  expect((await row())?.checks.find(({ code }) => code === 'further-logins')).toMatchObject({ verdict: 'good' })
  const outcomes = (await row())?.outcomes.filter(({ id }) => id.startsWith('admin.further'))
  expect(outcomes?.map(({ id, outcome }) => [id, outcome.kind])).toEqual([
    ['admin.further-users', 'proven'],
    ['admin.further-passwords', 'proven'],
  ])
})

it.each(['own', 'same'] as const)('gives its units the login that the brief asks for: %s', async (pushedLogin) => {
  bench = await openBench({
    change: (job) => {
      rack(job)
      job.brief = { ...mixedBrief, admin: { ...mixedBrief.admin, pushedLogin } }
    },
    pace: 200,
  })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const { pushed } = device().effective
  expect(pushed?.user).toBe('chief')
  expect(pushed?.password).not.toBe('chief')
  expect(device().accepts('chief', pushed?.password ?? '')).toBe(pushedLogin === 'same')
  const outcomes = (await row())?.outcomes.filter(({ id }) => id.startsWith('pushed.'))
  expect(outcomes?.map(({ id, outcome }) => [id, outcome.kind])).toEqual([
    ['pushed.user', 'proven'],
    ['pushed.password', 'written'],
  ])
})

longIt.each<Step>(['country', 'password', 'return'])(
  'that loses its power as it comes to %s is brought home',
  async (step) => {
    await open(200)
    await broughtHomeAfter(bench, { mac, unit: 'hall-01', step })
    expect(device().changes.saved).toBe(true)
  },
)
