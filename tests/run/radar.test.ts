/** Radar moves a unit off its channel: it is no fault, and the roll, the log and the sheet say so. */

import { afterEach, it as eachTime, expect } from 'vitest'
import { expectedOfAll } from '../../src/core/config/asked'
import { outcomesNow } from '../../src/core/handover/as-built'
import { shutUntil } from '../../src/core/muster/radar-move'
import { answers } from '../../src/core/muster/roll'
import { shutChannels } from '../../src/core/muster/shut-channels'
import { viewJob } from '../../src/jobs/job-view'
import { replan } from '../../src/jobs/replan'
import { allEvents, appendEvents } from '../../src/store/events'
import { sentence } from '../../src/words/en/sentence'
import { type Bench, openBench } from '../support/bench'
import { shortIt as it, someOf } from '../support/long'

const nowhere = { interfaceName: 'lab0', addresses: [], lanes: 0, vlans: [], silentVlans: [], vlanFault: null }
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

eachTime.each(
  someOf([
    ['Ostrel O-40', '02:4f:52:10:6a:2c'],
    ['Brackwater B7', '02:b7:1c:10:6a:2c'],
  ]),
)('%s that heard radar answers from where it went, and comes home', async (model, mac) => {
  const pace = 120
  bench = await openBench({
    pace,
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
  expect((await row())?.steps['on-air']).toMatchObject({
    note: { code: expect.stringMatching(/^on-air-(now|no-radar)$/) },
  })
  expect(await channelOutcome()).toEqual({ kind: 'proven', value: '60' })

  const { unit } = bench.lab.plugged(mac)
  unit.hearRadar('5')
  const moved = unit.air().find(({ radio }) => radio.band === '5')?.radio.channel
  expect(moved).not.toBe(60)
  await muster()
  const steps = (await row())?.steps
  expect(steps?.['on-air']).toMatchObject({
    note: { code: 'on-air-after-radar', params: { band: '5', from: 60, to: moved } },
  })
  // It is not sent back to a channel that the law keeps shut.
  expect(steps?.radios).toMatchObject({ note: { code: 'was-right-already' } })
  expect(await channelOutcome()).toMatchObject({
    kind: 'by-hand',
    why: { code: 'radar-moved', params: { from: 60, to: moved } },
  })
  expect((await row())?.log.map(sentence)).toContainEqual(expect.stringMatching(/^5 GHz: radar was heard on/))
  expect(bench.lab.air.everOpen).toEqual([])
  // Told once, with its time, however often it is called meanwhile.
  await muster()
  const heard = (await allEvents(bench.store, bench.jobId)).filter(({ event }) => event.kind === 'radar')
  const event = { kind: 'radar', unit: 'hall-01', band: '5', from: 60, to: moved, width: expect.any(Number) }
  for (const [index, each] of heard.entries()) {
    expect(each.event).toEqual(event)
    // On a slow machine half an hour of the lab may pass in between: from then on it is told again.
    if (index > 0) expect(each.at).toBeGreaterThanOrEqual(shutUntil({ at: heard[index - 1]?.at ?? 0 }, pace))
  }
  expect((await row())?.radar).toMatchObject([{ band: '5', from: 60, to: moved, at: heard.at(-1)?.at }])

  unit.restart()
  await expect.poll(() => unit.phase).toBe('up')
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
  await expect.poll(() => unit?.phase).toBe('up')
  unit?.hearRadar('5')
  expect(unit?.air().map(({ left }) => left)).toEqual([undefined, undefined])
})

it('is planned off the channel for half an hour, and then may come back', async () => {
  bench = await openBench({
    pace: 60,
    change: (job) => {
      job.units = job.units.slice(0, 1)
      job.brief.radio.radar = 'welcome'
      job.brief.country = 'NZ'
    },
  })
  const planned = async (): Promise<number | undefined> => {
    const planning = await replan(bench.store, bench.jobId)
    return planning?.plans[0]?.radios.find(({ band }) => band === '5')?.channel
  }
  const channel = (await planned()) ?? 0
  await appendEvents(bench.store, bench.jobId, [
    { at: new Date(), event: { kind: 'radar', unit: 'hall-01', band: '5', from: channel, to: 36, width: 40 } },
  ])
  const elsewhere = await planned()
  expect(elsewhere).not.toBe(channel)
  const roll = await bench.roll()
  const at = roll.rows.get('hall-01')?.radar[0]?.at ?? 0
  const spans = (now: number, pace: number) =>
    [...shutChannels({ rows: roll.rows, laptop: { ...nowhere, pace } }, now)].map(([unit, [span]]) => [
      unit,
      span?.band,
    ])
  expect(spans(at + 30 * 60_000 - 1, 1)).toEqual([['hall-01', '5']])
  expect(spans(at + 30 * 60_000, 1)).toEqual([])
  // A rehearsal's half hour is as much shorter as its wire is faster.
  expect(spans(at + 31_000, 60)).toEqual([])
})
