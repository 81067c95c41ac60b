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

it('are taken in, set and proven after the unit that they join; one too many is turned away', async () => {
  const variants = new Map([['Hearth H1', { ...hearthH1, mostPoints: 2 }]])
  bench = await openBench({ change: hearthWithUnits(3), pace: 30, lab: { dhcp, variants } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const { rows } = await bench.roll()
  const ids = [0, 1, 2].map((index) => `lodge-${index}`)
  const [tooMany] = ids.filter((id) => !answers(rows.get(id)))
  expect(rows.get(tooMany ?? '')?.steps.joined).toMatchObject({
    ...{ kind: 'held', code: 'turned-away' },
    params: { name: 'hall-01', reason: 'licence-full' },
  })
  for (const id of ['hall-01', ...ids])
    expect(answers(rows.get(id)), `${id} ${JSON.stringify(rows.get(id))}`).toBe(id !== tooMany)
  for (const [index, id] of ids.entries()) {
    if (id === tooMany) continue
    const { effective } = point(index)
    expect(effective).toMatchObject({ name: id, country: 'NZ', wired: { method: 'static' } })
    expect(effective.networks.filter(({ on }) => on).length).toBeGreaterThan(0)
    expect(effective.radios.filter(({ on }) => on).map(({ band }) => band)).toEqual(['2.4', '5'])
    expect(rows.get(id)?.checks.map(({ code, verdict }) => `${code} ${verdict}`)).toContain('joined good')
  }
  expect(bench.lab.air.everOpen).toEqual([])
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
