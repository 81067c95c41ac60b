/** Access points that are set through a controller, which comes first. */
import { afterEach, expect, it } from 'vitest'
import type { JobDocument } from '../../src/core/job/job-document'
import { heldWords } from '../../src/core/muster/held'
import type { Step } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import { type StandInSheet, tarnhelmC1, tarnhelmT2, tarnhelmT3 } from '../../src/lab/device/sheet'
import { type Bench, openBench } from '../support/bench'
import { demoBrief } from '../support/data'
import { broughtHomeAfter } from '../support/power-cut'

let bench: Bench
afterEach(() => bench.close())

const controllerMac = '02:7a:c1:10:6a:01'
const macOf = (index: number): string => `02:7a:02:10:6a:0${index}`
const dhcp = { prefix: 24, first: '10.44.8.100', last: '10.44.8.199', gateway: '10.44.8.1', dns: '10.44.8.1' }
const count = 3

const office = (job: JobDocument): void => {
  const [unit] = job.units
  if (!unit) return
  const more = Array.from({ length: count }, (_, index) => ({
    ...unit,
    id: `office-${index}`,
    name: `office-${index}`,
    model: index === 2 ? 'Tarnhelm T3' : 'Tarnhelm T2',
    mac: macOf(index),
    serial: '',
    port: index + 2,
    locks: {},
  }))
  job.units = [...more, { ...unit, id: 'rack', name: 'rack', model: 'Tarnhelm C1', mac: controllerMac, locks: {} }]
  job.brief = demoBrief
}
const rows = async () => (await bench.roll()).rows
const point = (index: number) => bench.lab.plugged(macOf(index)).unit
const controller = () => bench.lab.plugged(controllerMac).unit
const open = async (pace = 100, change = office): Promise<void> => {
  bench = await openBench({ change, pace, lab: { dhcp } })
  bench.startRunner()
  await bench.order()
}

it('wait for their controller, join it, and answer under their names at their addresses', async () => {
  await open()
  await bench.settled()
  const all = await rows()
  for (const id of ['rack', ...Array.from({ length: count }, (_, index) => `office-${index}`)])
    expect(answers(all.get(id)), `${id} ${JSON.stringify(all.get(id))}`).toBe(true)
  expect(bench.lab.air.everOpen).toEqual([])
  for (let index = 0; index < count; index += 1) {
    const { effective } = point(index)
    expect(effective).toMatchObject({ name: `office-${index}`, country: 'NZ', wired: { method: 'static' } })
    expect(effective.networks.map(({ name }) => name)).toEqual(['Ellery Crew'])
    expect(effective.radios.filter(({ on }) => on).map(({ band }) => band)).toEqual(['2.4', '5'])
  }
  expect(controller().changes.saved).toBe(true)
  const checks = all.get('office-0')?.checks.map(({ code, verdict }) => `${code} ${verdict}`)
  expect(checks).toContain('joined good')
  // Nobody reads its clock: nothing is said of it.
  expect(checks?.join()).not.toContain('clock')
})

it('that is one too many for the licence is turned away with that reason, and the others answer', async () => {
  const small = new Map([['Tarnhelm C1', { ...tarnhelmC1, mostPoints: count - 1 }]])
  bench = await openBench({ change: office, pace: 100, lab: { dhcp, variants: small } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const all = await rows()
  const states = Array.from({ length: count }, (_, index) => all.get(`office-${index}`)?.steps.joined)
  expect(states.filter((state) => state?.kind === 'done')).toHaveLength(count - 1)
  const held = states.find((state) => state?.kind === 'held')
  expect(held && heldWords(held).why).toBe('rack turns it away: no licence is left for it.')
})

it('that load another image first say so and join; one that was sold for another country is turned away', async () => {
  const old = new Map<string, StandInSheet>([
    ['Tarnhelm T2', { ...tarnhelmT2, firmware: '6.9.0' }],
    ['Tarnhelm T3', { ...tarnhelmT3, soldFor: 'US' }],
  ])
  bench = await openBench({ change: office, pace: 100, lab: { dhcp, variants: old } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const all = await rows()
  const loaded = all.get('office-0')
  expect(answers(loaded), JSON.stringify(loaded)).toBe(true)
  expect(loaded?.log.map(({ text }) => text)).toContain('rack: loading its image, leave it powered')
  const sold = all.get('office-2')?.steps.joined
  expect(sold?.kind === 'held' && heldWords(sold).why).toBe('rack turns it away: it is not made for this country.')
})

it('are held with what to do where their controller is not there, or not on the list', async () => {
  bench = await openBench({ change: office, pace: 300, lab: { dhcp } })
  bench.lab.unplug(controllerMac)
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const without = (await rows()).get('office-0')?.steps.reach
  expect(without?.kind === 'held' && heldWords(without).why).toBe('Its controller rack does not answer yet.')
  await bench.close()
  bench = await openBench({
    change: (job) => {
      office(job)
      job.units = job.units.slice(0, 2)
    },
    pace: 300,
    lab: { dhcp },
  })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const alone = (await rows()).get('office-0')?.steps.reach
  expect(alone?.kind === 'held' && heldWords(alone).why).toBe(
    'It is set through Tarnhelm C1, and none is on the kit list.',
  )
})

it('that are in no subnet of their controller do not find it, and it is said', async () => {
  const elsewhere = { prefix: 25, first: '10.44.8.200', last: '10.44.8.220', gateway: '10.44.8.129', dns: '10.44.8.1' }
  bench = await openBench({ change: office, pace: 300, lab: { dhcp: elsewhere } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const state = (await rows()).get('office-0')?.steps.joined
  expect(state?.kind === 'held' && heldWords(state)).toMatchObject({
    why: 'It does not find its controller rack.',
    more: 'rack answers a discovery from here, and has 0 of 32 joined: the way to it is missing.',
  })
})

it.each<Step>(['networks', 'joined'])(
  'that loses its power as it comes to %s joins again and answers',
  async (step) => {
    await open(150)
    await broughtHomeAfter(bench, { mac: macOf(1), unit: 'office-1', step })
    expect(bench.lab.air.everOpen).toEqual([])
  },
)

it('are brought home where their controller loses its power in the middle of it', async () => {
  await open(150)
  await broughtHomeAfter(bench, { mac: controllerMac, unit: 'office-1', step: 'joined', again: 2 })
  const all = await rows()
  for (const id of ['rack', 'office-0', 'office-1', 'office-2'])
    expect(answers(all.get(id)), `${id} ${JSON.stringify(all.get(id))}`).toBe(true)
  expect(bench.lab.air.everOpen).toEqual([])
})
