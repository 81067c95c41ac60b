/** Access points that are set through a controller, which comes first. */

import { afterEach, describe, expect } from 'vitest'
import type { JobDocument } from '../../src/core/job/job-document'
import { message } from '../../src/core/message/message'
import type { Step } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import { tarnhelmC1, tarnhelmT2, tarnhelmT3 } from '../../src/lab/device/sheet'
import type { StandInSheet } from '../../src/lab/device/stand-in-sheet'
import { musterIsOpen } from '../../src/store/orders'
import { heldWords } from '../../src/words/en/held'
import { sentence } from '../../src/words/en/sentence'
import { type Bench, demoJob, openBench } from '../support/bench'
import { blankPoint } from '../support/blank-point'
import { demoBrief } from '../support/data'
import { shortIt as it, longIt } from '../support/long'
import { patienceMs } from '../support/patience'
import { broughtHomeAfter } from '../support/power-cut'

let bench: Bench
afterEach(() => bench.close())

const controllerMac = '02:7a:c1:10:6a:01'
const macOf = (index: number): string => `02:7a:02:10:6a:0${index}`
const dhcp = { prefix: 24, first: '10.44.8.100', last: '10.44.8.199', gateway: '10.44.8.1', dns: '10.44.8.1' }
const elsewhere = { prefix: 25, first: '10.44.8.200', last: '10.44.8.220', gateway: '10.44.8.129', dns: '10.44.8.1' }
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
  job.brief = { ...demoBrief, aftercare: { ...demoBrief.aftercare, snmp: { user: 'watch' } } }
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
    // The login that it was shipped with opens nothing any more: its controller has given it another.
    const { user, password } = controller().effective.pushed ?? { user: '', password: '' }
    expect([point(index).accepts('chief', 'chief'), point(index).accepts(user, password)]).toEqual([false, true])
  }
  expect(controller().changes.saved).toBe(true)
  const checks = all.get('office-0')?.checks.map(({ code, verdict }) => `${code} ${verdict}`)
  expect(checks).toEqual(expect.arrayContaining(['joined good', 'joined-by-snmp good', 'carried-by-snmp good']))
  // Nobody reads its clock: nothing is said of it.
  expect(checks?.join()).not.toContain('clock')
})

longIt('that is one too many for the licence is turned away with that reason, and the others answer', async () => {
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
  // It is told before any of them joins, and stands with what is left for hands.
  const words = `its licence lets ${count - 1} access points join; ${count} are on the kit list`
  expect(all.get('rack')?.log.map(sentence)).toContain(words)
  const licence = all.get('rack')?.outcomes.find(({ id }) => id === 'licence.units')
  expect(licence?.outcome).toMatchObject({ kind: 'by-hand', why: message('has-value', { value: String(count - 1) }) })
})

it('that load another image first say so and join; one that was sold for another country is turned away', async () => {
  const old = new Map<string, StandInSheet>([
    // Long enough to be seen on a busy machine: it says that it loads while it does.
    ['Tarnhelm T2', { ...tarnhelmT2, firmware: '6.9.0', timing: { ...tarnhelmT2.timing, image: 500 } }],
    ['Tarnhelm T3', { ...tarnhelmT3, soldFor: 'US' }],
  ])
  bench = await openBench({ change: office, pace: 100, lab: { dhcp, variants: old } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const all = await rows()
  const loaded = all.get('office-0')
  expect(answers(loaded), JSON.stringify(loaded)).toBe(true)
  expect(loaded?.log.map(sentence)).toContain('rack: loading its image, leave it powered')
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

longIt('that are in no subnet of their controller do not find it, and it is said', async () => {
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

longIt('that DHCP sends elsewhere are held with where to', async () => {
  bench = await openBench({ change: office, pace: 300, lab: { dhcp: { ...elsewhere, controllers: ['10.44.8.77'] } } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const state = (await rows()).get('office-0')?.steps.joined
  const words = state?.kind === 'held' ? heldWords(state) : undefined
  expect(words?.why).toMatch(/^DHCP sends it to 10\.44\.8\.77, and its controller rack is at 10\.44\.8\.\d+\.$/)
  expect(words?.hands[0]).toMatch(/^Have the DHCP server give out 10\.44\.8\.\d+ in option 138\.$/)
})

it.each([
  ['option 138 of DHCP', 'controllers'],
  ['the name that their name server knows', 'namedControllers'],
])('that are in no subnet of their controller find it by %s', async (_, by) => {
  bench = await openBench({ change: office, pace: 300, lab: { dhcp: { ...elsewhere, [by]: ['10.44.8.20'] } } })
  bench.startRunner()
  await bench.order()
  await bench.settled()
  const all = await rows()
  expect(all.get('rack')?.log.map(sentence).join(), 'where it is told to look').toContain('10.44.8.20')
  expect(answers(all.get('office-0')), JSON.stringify(all.get('office-0'))).toBe(true)
})

longIt.each<Step>(['networks', 'joined'])(
  'that loses its power as it comes to %s joins again and answers',
  async (step) => {
    await open(150)
    await broughtHomeAfter(bench, { mac: macOf(1), unit: 'office-1', step })
    expect(bench.lab.air.everOpen).toEqual([])
  },
)

longIt('are brought home where their controller loses its power at ten moments of one muster', async () => {
  const moments = [
    ...(['country', 'clock', 'services', 'password', 'save', 'proof'] as const).map((step) => `rack ${step}`),
    ...(['networks', 'radios', 'joined', 'proof'] as const).map((step) => `office-1 ${step}`),
  ]
  await open(150)
  const over = async (): Promise<boolean> => {
    const all = await rows()
    return ['rack', 'office-0', 'office-1', 'office-2'].every((id) => answers(all.get(id)))
  }
  const left = new Set(moments)
  const end = Date.now() + patienceMs
  while ((left.size > 0 || !(await over())) && Date.now() < end) {
    const all = await rows()
    const now = [...left].filter((moment) => {
      const [unit = '', step = ''] = moment.split(' ')
      return (all.get(unit)?.steps[step as Step]?.kind ?? 'idle') !== 'idle'
    })
    for (const moment of now) left.delete(moment)
    if (now.length > 0) {
      bench.lab.unplug(controllerMac)
      bench.lab.plugIn(controllerMac)
    }
    if (!(await musterIsOpen(bench.store, bench.jobId))) await bench.order()
    await new Promise((resolve) => setTimeout(resolve, 10))
  }
  expect([...left]).toEqual([])
  const all = await rows()
  for (const id of ['rack', 'office-0', 'office-1', 'office-2'])
    expect(answers(all.get(id)), `${id} ${JSON.stringify(all.get(id))}`).toBe(true)
  expect(bench.lab.air.everOpen).toEqual([])
})

describe('a join that hangs', () => {
  const joinOf = async (id: string): Promise<string | undefined> => {
    const state = (await rows()).get(id)?.steps.joined
    return state?.kind === 'held' ? heldWords(state).why : state?.kind
  }
  const strangerMac = '02:7a:c1:99:99:01'

  longIt('since another controller took the unit says which, and ends when that one is gone', async () => {
    const shelf = demoJob(office).units.map(({ model, mac }) => ({ model, mac, serial: '' }))
    const stranger = { model: 'Tarnhelm C1', mac: strangerMac, serial: '' }
    bench = await openBench({ change: office, pace: 150, lab: { dhcp, shelf: [stranger, ...shelf] } })
    const other = bench.lab.plugged(strangerMac).unit
    const wired = { method: 'static', address: '10.44.8.250', prefix: 24, vlan: null } as const
    const points = [{ ...blankPoint, mac: macOf(0), name: 'theirs' }]
    other.configure({ ...other.configured, name: 'old-rack', country: 'NZ', wired, points })
    other.save()
    bench.startRunner()
    await bench.order(['rack', 'office-0'])
    await bench.settled()
    expect(await joinOf('office-0')).toBe(
      'It does not join rack: another controller, old-rack at 10.44.8.250, answers beside it.',
    )
    bench.lab.unplug(strangerMac)
    bench.lab.unplug(macOf(0))
    bench.lab.plugIn(macOf(0))
    await bench.order(['office-0'])
    await bench.settled()
    expect(answers((await rows()).get('office-0')), JSON.stringify((await rows()).get('office-0'))).toBe(true)

    // It keeps where its own is: the other one, back again and first to answer, does not get it after a power cut.
    const outcome = (await rows()).get('office-0')?.outcomes.find(({ id }) => id === 'services.controller')?.outcome
    expect(outcome).toMatchObject({ kind: 'proven', value: controller().address })
    bench.lab.plugIn(strangerMac)
    await expect.poll(() => other.phase).toBe('up')
    bench.lab.unplug(macOf(0))
    bench.lab.plugIn(macOf(0))
    await bench.order(['office-0'])
    await bench.settled()
    expect(answers((await rows()).get('office-0')), JSON.stringify((await rows()).get('office-0'))).toBe(true)
  })
})
