/** Plannings that overlap with what people change: the newest inputs win, whoever ends last. */
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { nothingHeard } from '../../src/core/muster/events'
import { makePlan, type PlanInput } from '../../src/core/plan/plan'
import { loadJob } from '../../src/jobs/load-job'
import { replan } from '../../src/jobs/replan'
import { appendEvents } from '../../src/store/events'
import { findJob, type Job, saveBrief } from '../../src/store/jobs'
import { changeKit, listUnits } from '../../src/store/kit'
import type { Store } from '../../src/store/open'
import { loadPlans, lockAddress, lockChannel, planIsCurrent } from '../../src/store/plans'
import { demoJob, freshStore } from '../support/bench'

let fresh: Awaited<ReturnType<typeof freshStore>>
let store: Store
let job: Job
beforeEach(async () => {
  fresh = await freshStore()
  store = fresh.store
  await loadJob(store, demoJob(), new Date())
  job = (await findJob(store, 'port-ellery')) as Job
})
afterEach(() => fresh.drop())

const moved = {
  ...demoJob().brief.management,
  cidr: '10.99.0.0/24',
  gateway: '10.99.0.1',
  dnsServers: ['10.99.0.1'],
  dhcpPool: null,
  reserved: [],
}
const addresses = async () => (await loadPlans(store, job.id)).plans.map(({ address }) => address.replace(/\d+$/, '*'))

/** A planner that works when it is told to: the order of endings is the test's, not the machine's. */
function gated() {
  const begun: { input: PlanInput; end: () => void }[] = []
  const planner = (input: PlanInput) =>
    new Promise<ReturnType<typeof makePlan>>((resolve) => {
      begun.push({ input, end: () => resolve(makePlan(input)) })
    })
  return { begun, planner }
}

describe('a planning that overlaps with a changed brief', () => {
  /** `a` is the planning that began before the change, `b` the one that came with it. */
  it.each([
    ['the older ends last', ['b', 'a']],
    ['the older ends first', ['a', 'b']],
  ])('leaves the plan of the newest brief where %s', async (_what, order) => {
    const older = gated()
    const newer = gated()
    const a = replan(store, job.id, { effort: 'thorough', planner: older.planner })
    await expect.poll(() => older.begun.length).toBe(1)
    await saveBrief(store, job.id, { ...job.brief, management: moved }, job.version)
    expect(await planIsCurrent(store, job.id)).toBe(false)
    const b = replan(store, job.id, { planner: newer.planner })
    await expect.poll(() => newer.begun.length).toBe(1)
    for (const which of order) {
      if (which === 'b') {
        newer.begun[0]?.end()
        await b
        expect(await addresses()).toEqual(Array(4).fill('10.99.0.*'))
      } else {
        older.begun[0]?.end()
        // What it had begun with is outdated: it is thrown away, and begun again from the newest.
        await expect.poll(() => older.begun.length).toBe(2)
        expect(older.begun[1]?.input.brief.management.cidr).toBe('10.99.0.0/24')
        older.begun[1]?.end()
        await a
      }
    }
    expect(await addresses()).toEqual(Array(4).fill('10.99.0.*'))
    expect(await planIsCurrent(store, job.id)).toBe(true)
  })

  it.each(['kit list', 'lock', 'floors'])('begins again where the %s has changed', async (what) => {
    const { begun, planner } = gated()
    const planning = replan(store, job.id, { planner })
    await expect.poll(() => begun.length).toBe(1)
    const [first] = await listUnits(store, job.id)
    if (!first) throw new Error('the demo has units')
    if (what === 'kit list')
      await changeKit(store, job.id, { add: [], change: [], remove: [first.id], order: undefined })
    if (what === 'lock') await lockAddress(store, job.id, first.id, '10.44.8.77')
    if (what === 'floors') {
      const { saveSite, loadSite } = await import('../../src/store/sites')
      const { site, version } = await loadSite(store, job.id)
      await saveSite(
        store,
        job.id,
        { ...site, heard: [{ ssid: 'next door', unit: null, band: '2.4', channel: 1, width: 20, dbm: -40 }] },
        version,
      )
    }
    begun[0]?.end()
    await expect.poll(() => begun.length).toBe(2)
    begun[1]?.end()
    const plan = await planning
    expect(await planIsCurrent(store, job.id)).toBe(true)
    if (what === 'kit list') expect(plan?.plans.map(({ unit }) => unit)).not.toContain(first.id)
    if (what === 'lock') expect(plan?.plans.find(({ unit }) => unit === first.id)?.address).toBe('10.44.8.77')
  })

  it('stays current where what was changed is nothing that a plan is made from', async () => {
    await saveBrief(store, job.id, { ...job.brief, client: 'Somebody else' }, job.version)
    expect(await planIsCurrent(store, job.id)).toBe(true)
  })
})

it('keeps both of two locks that are set in two tabs at once', async () => {
  await Promise.all([
    lockChannel(store, job.id, 'hall-01', '2.4', 6),
    lockChannel(store, job.id, 'hall-01', '5', 36),
    lockAddress(store, job.id, 'hall-01', '10.44.8.77'),
    lockAddress(store, job.id, 'hall-02', '10.44.8.78'),
  ])
  const { before } = await loadPlans(store, job.id)
  expect(before.get('hall-01')).toMatchObject({
    locks: { '2.4': 6, '5': 36 },
    address: '10.44.8.77',
    addressLocked: true,
  })
  expect(before.get('hall-02')).toMatchObject({ address: '10.44.8.78', addressLocked: true })
})

it('keeps off the addresses of servers that the brief names, once the site has told them', async () => {
  const first = (await loadPlans(store, job.id)).plans.map(({ address }) => address)
  expect(first).toContain('10.44.8.20')
  const heard = { ...nothingHeard, named: [{ name: 'time.mill.example', address: '10.44.8.20' }] }
  await appendEvents(store, job.id, [{ at: new Date(), event: { kind: 'sweep', sightings: [], heard } }])
  await saveBrief(store, job.id, { ...job.brief, ntpServers: ['time.mill.example'] }, job.version)
  await replan(store, job.id)
  const plans = (await loadPlans(store, job.id)).plans.map(({ address }) => address)
  expect(plans).toHaveLength(first.length)
  expect(plans).not.toContain('10.44.8.20')
})
