/**
 * What goes wrong around a runner, one by one: orders that throw, slow sweeps, clocks that jump, faults that no hand
 * can cure.
 */

import { sql } from 'drizzle-orm'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { asTold } from '../../src/core/message/message'
import { answers } from '../../src/core/muster/roll'
import { allUnits, theseUnits } from '../../src/core/muster/selection'
import { loadJob } from '../../src/jobs/load-job'
import { appendEvents } from '../../src/store/events'
import { orderState, placeOrder } from '../../src/store/orders'
import { pinOnFirstSight } from '../../src/store/secrets'
import { type Host, HostAwayError } from '../../src/wire/host/host'
import { type Bench, heldAt, openBench } from '../support/bench'
import { cardText } from '../support/data'

let bench: Bench
afterEach(async () => {
  vi.restoreAllMocks()
  await bench.close()
})

const sweepOrder = (jobId = bench.jobId) => placeOrder(bench.store, { jobId, kind: 'sweep', units: allUnits })
const statusOf = async (id: number) => (await orderState(bench.store, id))?.status
const placed = async () => {
  const [rows] = (await bench.store.db.execute(
    sql`select count(*) as count from orders where kind = 'muster'`,
  )) as unknown as [[{ count: number }]]
  return Number(rows[0].count)
}
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
describe('an order that always throws', () => {
  it(
    'fails within a minute with its reason, is no longer said to be under way, and the others are worked ' +
      'meanwhile',
    async () => {
      bench = await openBench()
      const other = await loadJob(bench.store, { ...bench.job, slug: 'harbour', name: 'Harbour' }, new Date())
      await appendEvents(bench.store, other, [
        { at: new Date(), event: { kind: 'log', unit: 'hall-01', told: asTold('x') } },
      ])
      await bench.store.db.execute(
        sql`update events set event = '{"kind":"from a newer program"}' where job_id = ${other}`,
      )
      const stop = bench.startRunner()
      const broken = await placeOrder(bench.store, { jobId: other, kind: 'muster', units: allUnits })
      const whole = await bench.order()
      await expect.poll(() => statusOf(broken), { interval: 200 }).toBe('failed')
      expect(await orderState(bench.store, broken)).toMatchObject({
        reason: expect.stringMatching(/^row-unreadable .*events\.event/),
      })
      await bench.settled()
      expect(await statusOf(whole)).toBe('done')
      const roll = await bench.roll()
      expect([...roll.rows.values()].filter(answers)).toHaveLength(4)
      await expect(stop()).rejects.toThrow('order failed')
    },
  )
})

describe('a wire that is away when an order begins', () => {
  it('is waited for as long as it takes: no attempt of the order is spent on it', async () => {
    bench = await openBench()
    let away = true
    const host = (own: Host): Host => ({
      ...own,
      laptop: () => (away ? Promise.reject(new HostAwayError(asTold('the wire does not work'))) : own.laptop()),
      arp: (address) => (away ? Promise.reject(new HostAwayError(asTold('the wire does not work'))) : own.arp(address)),
    })
    const stop = bench.startRunner({ host })
    const order = await bench.order(['hall-01'])
    await rest(9000)
    expect(await statusOf(order)).not.toBe('failed')
    away = false
    const roll = await bench.settled()
    expect(await statusOf(order)).toBe('done')
    expect(answers(roll.rows.get('hall-01'))).toBe(true)
    // It says that the wire was away, and that is no fault of this test.
    await stop().catch((error: unknown) => expect(String(error)).toContain('the wire does not work'))
  })
})

describe('a sweep that is slow', () => {
  it('keeps no order waiting where nobody asked for it', async () => {
    bench = await openBench()
    let held: 'no' | 'from now on' | 'a sweep' = 'no'
    let letGo = (): void => undefined
    const gate = new Promise<void>((resolve) => {
      letGo = resolve
    })
    bench.startRunner({
      host: (own) => ({
        ...own,
        arp: async (address) => {
          if (held !== 'no') held = 'a sweep'
          if (held === 'a sweep') await gate
          return own.arp(address)
        },
      }),
    })
    const first = await sweepOrder()
    await expect.poll(() => statusOf(first)).toBe('done')
    held = 'from now on'
    // The next sweep, which comes by itself, does not end before it is let go.
    await expect.poll(() => held).toBe('a sweep')
    const order = await bench.order(['hall-01'])
    await expect.poll(() => statusOf(order)).toBe('claimed')
    held = 'no'
    letGo()
    await bench.settled()
  })

  it('tells a unit with another certificate from one that still starts', async () => {
    bench = await openBench()
    await pinOnFirstSight(bench.store, bench.jobId, '02:4f:52:10:6a:2c', 'AA:BB:CC:DD', new Date())
    bench.startRunner()
    await sweepOrder()
    await expect
      .poll(async () => (await bench.roll()).sightings.map(({ answers: how }) => how))
      .toEqual(['untrusted', 'service', 'service', 'service'])
  })
})

describe('a fault that no hand can cure', () => {
  it.each([
    ['an open network that was not said twice', 'has no security: no open network is put on air'],
    ['a model that is not set', 'Ostrel O-41 is set by hand: out of its box it is reached through its own network'],
    ['a gateway outside the subnet', 'The gateway 10.9.9.1 is not in 10.44.8.0/24'],
  ])('is held once and mustered by nobody: %s', async (what, why) => {
    bench = await openBench({
      change: (job) => {
        if (what.startsWith('an open'))
          job.brief.networks[0] = { ...job.brief.networks[0], security: 'open', openConfirmation: '' } as never
        if (what.startsWith('a model') && job.units[0]) {
          job.units[0].model = 'Ostrel O-41'
          const text = cardText('ostrel-o-40').replace('model: O-40', 'model: O-41')
          job.cards = [text.replace(/^factory:$/m, 'factory:\n  setupSsid: Some-setup')]
        }
        if (what.startsWith('a gateway')) job.brief.management.gateway = '10.9.9.1'
      },
      ...(what.startsWith('a model') ? { shelf: 'Ostrel O-40' } : {}),
    })
    bench.startRunner()
    await bench.order(['hall-01'])
    const roll = await bench.settled()
    const held = heldAt(roll.rows.get('hall-01'), 'reach')
    expect(held?.why).toContain(why)
    expect(held?.hands[0]).toMatch(what.startsWith('a model') ? /^Set it by hand/ : /^Mend it in the brief/)
    // Several sweeps see the unit answer meanwhile.
    await rest(3500)
    expect(await placed()).toBe(1)
  })

  it('but one that hands have cured is mustered by itself, once', async () => {
    bench = await openBench()
    bench.lab.unplug('02:4f:52:10:6a:2c')
    bench.startRunner()
    await bench.order(['hall-01'])
    expect(heldAt((await bench.settled()).rows.get('hall-01'), 'reach')?.resumesWhen).toBe('it-answers')
    bench.lab.plugIn('02:4f:52:10:6a:2c')
    await expect.poll(async () => answers((await bench.roll()).rows.get('hall-01'))).toBe(true)
    await rest(1500)
    expect(await placed()).toBe(2)
  })
})

it('musters with the plan of the newest brief, although it was changed and nobody has planned since', async () => {
  bench = await openBench()
  const { findJob, saveBrief } = await import('../../src/store/jobs')
  const job = await findJob(bench.store, bench.job.slug)
  if (!job) throw new Error('no job')
  const management = {
    ...job.brief.management,
    cidr: '10.99.0.0/24',
    gateway: '10.99.0.1',
    dnsServers: ['10.99.0.1'],
    dhcpPool: null,
  }
  await saveBrief(bench.store, job.id, { ...job.brief, management }, job.version)
  bench.startRunner()
  await placeOrder(bench.store, { jobId: bench.jobId, kind: 'muster', units: theseUnits('hall-01') })
  const roll = await bench.settled()
  expect(answers(roll.rows.get('hall-01'))).toBe(true)
  expect(bench.lab.units()[0]?.address).toMatch(/^10\.99\.0\.\d+$/)
})
