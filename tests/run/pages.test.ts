/** A unit that speaks nothing but web pages: turned without a browser, and in one. */
import { afterEach, expect } from 'vitest'
import type { JobDocument } from '../../src/core/job/job-document'
import type { Step } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import { openSecret } from '../../src/store/secrets'
import { type Bench, openBench } from '../support/bench'
import { shortIt as it, longIt } from '../support/long'
import { plainP6 } from '../support/plain-p6'
import { broughtHomeAfter } from '../support/power-cut'
import { wholeBrief } from '../support/whole-brief'

let bench: Bench
afterEach(() => bench.close())

const mac = '02:50:36:10:6a:2c'
type Engine = 'forms' | 'browser'

const office =
  (engine: Engine) =>
  (job: JobDocument): void => {
    const [unit] = job.units
    if (unit) job.units = [{ ...unit, model: engine === 'forms' ? plainP6.twin : plainP6.model, mac }]
    job.cards = [plainP6.card]
    job.brief = { ...wholeBrief, networks: wholeBrief.networks.map((each) => ({ ...each, security: 'wpa2-personal' })) }
  }
const row = async () => (await bench.roll()).rows.get('hall-01')
const device = () => bench.lab.plugged(mac).unit
const open = async (engine: Engine, pace: number): Promise<void> => {
  bench = await openBench({ change: office(engine), pace, lab: { variants: plainP6.variants } })
  bench.startRunner()
  await bench.order()
}

it.each<Engine>(['forms', 'browser'])('is mustered by its pages (%s), and was never open on air', async (engine) => {
  await open(engine, 60)
  await bench.settled()
  expect(answers(await row()), JSON.stringify(await row())).toBe(true)
  expect(device().effective).toMatchObject({ country: 'NZ', wired: { address: '10.44.8.20' } })
  expect(bench.lab.air.everOpen).toEqual([])
  const cells = device()
    .air()
    .flatMap(({ networks }) => networks.map(({ bssid }) => bssid))
  expect(new Set(cells).size).toBeGreaterThan(0)
  expect((await row())?.cells.map(({ bssid }) => bssid)).toEqual(cells)
  const { networks } = device().effective
  const [first] = wholeBrief.networks
  const kept = networks.find(({ name }) => name === first?.ssid)
  expect(kept?.passphrase).toBe(await openSecret(bench.store, bench.jobId, `network/${first?.id}/passphrase`))
})

longIt.each<Step>(['networks', 'apply', 'return'])(
  'that loses its power as it comes to %s is brought home',
  async (step) => {
    await open('forms', 100)
    await broughtHomeAfter(bench, { mac, unit: 'hall-01', step })
    expect(bench.lab.air.everOpen).toEqual([])
  },
)

it('waits while somebody else is signed in, says so, and goes on when they are gone', async () => {
  bench = await openBench({ change: office('forms'), pace: 60, lab: { variants: plainP6.variants } })
  await expect.poll(() => device().serviceIsUp).toBe(true)
  const { front } = bench.lab.plugged(mac)
  const elsewhere = await fetch(`http://127.0.0.1:${front.loopbackPort(80)}/enter`, {
    method: 'POST',
    body: new URLSearchParams({ who: 'owner', word: 'owner' }),
    redirect: 'manual',
  })
  expect(elsewhere.status).toBe(303)
  bench.startRunner()
  await bench.order()
  await expect
    .poll(async () => (await row())?.steps['sign-in'])
    .toMatchObject({ kind: 'waiting', waitingFor: { code: 'somebody-signed-in' } })
  await bench.settled()
  expect(answers(await row()), JSON.stringify(await row())).toBe(true)
})
