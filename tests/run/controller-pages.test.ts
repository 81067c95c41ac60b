/** Access points that are set through the pages of a controller, which is an access point itself. */
import { afterEach, expect } from 'vitest'
import { answers } from '../../src/core/muster/roll'
import { hearthH1 } from '../../src/lab/device/sheet'
import { type Bench, openBench } from '../support/bench'
import { hearthWithUnits } from '../support/hearth'
import { longIt as it } from '../support/long'

let bench: Bench
afterEach(() => bench.close())

const dhcp = { prefix: 24, first: '10.44.8.100', last: '10.44.8.199', gateway: '10.44.8.1', dns: '10.44.8.1' }
const point = (index: number) => bench.lab.plugged(`02:48:32:10:6a:3${index}`).unit

it('are taken in, set and proven, after the unit that they join', async () => {
  bench = await openBench({ change: hearthWithUnits(2), pace: 30, lab: { dhcp } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const { rows } = await bench.roll()
  for (const [id, row] of rows) expect(answers(row), `${id} ${JSON.stringify(row)}`).toBe(true)
  for (const index of [0, 1]) {
    const { effective } = point(index)
    expect(effective).toMatchObject({ name: `lodge-${index}`, country: 'NZ', wired: { method: 'static' } })
    expect(effective.networks.filter(({ on }) => on).length).toBeGreaterThan(0)
    expect(effective.radios.filter(({ on }) => on).map(({ band }) => band)).toEqual(['2.4', '5'])
    expect(rows.get(`lodge-${index}`)?.checks.map(({ code, verdict }) => `${code} ${verdict}`)).toContain('joined good')
  }
  expect(bench.lab.air.everOpen).toEqual([])
})

it('that are one too many are turned away with that reason, and the others answer', async () => {
  const variants = new Map([['Hearth H1', { ...hearthH1, mostPoints: 1 }]])
  bench = await openBench({ change: hearthWithUnits(2), pace: 30, lab: { dhcp, variants } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const { rows } = await bench.roll()
  const states = [0, 1].map((index) => rows.get(`lodge-${index}`)?.steps.joined)
  expect(states.filter((state) => state?.kind === 'done')).toHaveLength(1)
  const held = states.find((state) => state?.kind === 'held')
  expect(held).toMatchObject({ code: 'turned-away', params: { reason: 'licence-full' } })
})

it('that stand in another subnet are not shown to their controller, and held for that', async () => {
  const elsewhere = { ...dhcp, prefix: 25, first: '10.44.8.200', last: '10.44.8.220', gateway: '10.44.8.129' }
  bench = await openBench({ change: hearthWithUnits(1), pace: 60, lab: { dhcp: elsewhere } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const { steps } = (await bench.roll()).rows.get('lodge-0') ?? {}
  expect(steps?.['sign-in']).toMatchObject({ kind: 'held', code: 'not-shown', params: { name: 'hall-01' } })
})
