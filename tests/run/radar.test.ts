/** Radar moves a unit off its channel: it is no fault, and the roll, the log and the sheet say so. */
import { afterEach, expect, it } from 'vitest'
import { expectedOfAll } from '../../src/core/config/asked'
import { outcomesNow } from '../../src/core/handover/as-built'
import { answers } from '../../src/core/muster/roll'
import { viewJob } from '../../src/jobs/job-view'
import { type Bench, openBench } from '../support/bench'

let bench: Bench
afterEach(() => bench.close())

const row = async () => (await bench.roll()).rows.get('hall-01')
const channelOutcome = async () => {
  const view = await viewJob(bench.store, bench.job.slug)
  if (!view) throw new Error('the job is gone')
  return outcomesNow(expectedOfAll(view.asking).get('hall-01') ?? [], view.roll.rows.get('hall-01')).find(
    ({ id, of }) => id === 'radio.channel' && of === '5',
  )?.outcome
}

it.each([
  ['Ostrel O-40', '02:4f:52:10:6a:2c'],
  ['Brackwater B7', '02:b7:1c:10:6a:2c'],
])('%s that heard radar answers from where it went, and comes home', async (model, mac) => {
  bench = await openBench({
    change: (job) => {
      job.units = job.units.slice(0, 1).map((unit) => ({ ...unit, model, mac, locks: { '5': 60 } }))
      job.brief.radio.radar = 'welcome'
    },
  })
  bench.startRunner()
  const muster = async (): Promise<void> => {
    await bench.order()
    await bench.settled()
    expect(answers(await row()), JSON.stringify((await row())?.steps)).toBe(true)
  }
  await muster()
  expect((await row())?.steps['on-air']).toMatchObject({ note: expect.stringMatching(/^on air(, no radar heard)?$/) })
  expect(await channelOutcome()).toEqual({ kind: 'proven', value: '60' })

  const { unit } = bench.lab.plugged(mac)
  unit.hearRadar('5')
  const moved = unit.air().find(({ radio }) => radio.band === '5')?.radio.channel
  expect(moved).not.toBe(60)
  await muster()
  const steps = (await row())?.steps
  expect(steps?.['on-air']).toMatchObject({ note: `on air; at 5 GHz radar moved it from 60 to ${moved}` })
  // It is not sent back to a channel that the law keeps shut.
  expect(steps?.radios).toMatchObject({ note: 'was right already' })
  expect(await channelOutcome()).toMatchObject({
    kind: 'by-hand',
    why: `Radar was heard on channel 60, so the unit went to ${moved} by itself.`,
  })
  expect((await row())?.log.map(({ text }) => text)).toContainEqual(expect.stringMatching(/^5 GHz: radar was heard on/))
  expect(bench.lab.air.everOpen).toEqual([])

  unit.restart()
  await expect.poll(() => unit.phase, { timeout: 10_000 }).toBe('up')
  await muster()
  expect(await channelOutcome()).toEqual({ kind: 'proven', value: '60' })
})

it('stays where it is, where nobody has to listen', async () => {
  bench = await openBench({
    change: (job) => {
      job.units = job.units.slice(0, 1).map((unit) => ({ ...unit, locks: { '5': 60 } }))
      job.brief.radio.radar = 'welcome'
    },
  })
  // As it comes out of its box it is on channel 36.
  const [unit] = bench.lab.units()
  await expect.poll(() => unit?.phase, { timeout: 10_000 }).toBe('up')
  unit?.hearRadar('5')
  expect(unit?.air().map(({ left }) => left)).toEqual([undefined, undefined])
})
