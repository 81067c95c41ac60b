/** Access points that are set through a controller with a command line, which has no radio of its own. */
import { afterEach, expect } from 'vitest'
import { answers } from '../../src/core/muster/roll'
import { brackwaterB9 } from '../../src/lab/device/sheet'
import { type Bench, openBench } from '../support/bench'
import { brackwaterMac, brackwaterNineCard, brackwaterPointMac, brackwaterWithUnits } from '../support/brackwater'
import { shortIt as it, longIt } from '../support/long'

let bench: Bench
afterEach(() => bench.close())

const dhcp = { prefix: 24, first: '10.44.8.100', last: '10.44.8.199', gateway: '10.44.8.1', dns: '10.44.8.1' }
const point = (index: number) => bench.lab.plugged(brackwaterPointMac(index)).unit
const rows = async () => (await bench.roll()).rows
const mustered = async (options: Parameters<typeof openBench>[0]): Promise<void> => {
  bench = await openBench({ pace: 200, lab: { dhcp }, ...options })
  bench.startRunner()
  await bench.order()
  await bench.settled()
}

it('are taken in, carry the networks that it was given, and are set and proven', async () => {
  await mustered({ change: brackwaterWithUnits(2) })
  for (const id of ['rack', 'barn-0', 'barn-1']) {
    const row = (await rows()).get(id)
    expect(answers(row), `${id} ${JSON.stringify(row)}`).toBe(true)
    if (id !== 'rack') expect(row?.checks.map(({ code, verdict }) => `${code} ${verdict}`)).toContain('joined good')
  }
  const { networks } = bench.lab.plugged(brackwaterMac).unit.effective
  for (const index of [0, 1]) {
    const { effective } = point(index)
    expect(effective).toMatchObject({ name: `barn-${index}`, country: 'NZ', wired: { method: 'static' } })
    expect(effective.radios.filter(({ on }) => on).map(({ band }) => band)).toEqual(['2.4', '5'])
    expect(effective.networks.filter(({ on }) => on).map(({ name }) => name)).toEqual(networks.map(({ name }) => name))
  }
  expect(networks.length).toBeGreaterThan(0)
  expect(bench.lab.air.everOpen).toEqual([])
})

longIt('of which one is too many is held with that reason', async () => {
  const variants = new Map([['Brackwater B9', { ...brackwaterB9, mostPoints: 1 }]])
  await mustered({ change: brackwaterWithUnits(2), lab: { dhcp, variants } })
  const all = [...(await rows())].filter(([id]) => id.startsWith('barn'))
  const held = all.filter(([, row]) => !answers(row)).map(([, row]) => row.steps.joined)
  expect(held).toMatchObject([{ code: 'turned-away', params: { name: 'rack', reason: 'licence-full' } }])
})

longIt('whose state its card does not know is held with those words, and nothing is guessed', async () => {
  const silent = brackwaterNineCard.replace(/^( +)(\w+): run$/m, '$1elsewise: run')
  await mustered({
    change: (job) => {
      brackwaterWithUnits(1)(job)
      job.cards = [silent, ...job.cards.slice(1)]
    },
  })
  const said = /^ +(\w+): run$/m.exec(brackwaterNineCard)?.[1]
  const row = (await rows()).get('barn-0')
  expect(row?.steps.joined).toMatchObject({ kind: 'held', code: 'state-unknown', params: { name: 'rack', said } })
})
