/** Of four units out of their boxes that nobody has described, the first is set by hand; the others follow. */
import { afterAll, afterEach, expect } from 'vitest'
import { heldStep } from '../../src/core/muster/roll'
import type { Told } from '../../src/core/showing/window-talk'
import { pageWhenHeld } from '../../src/jobs/copies'
import { keepShownCard } from '../../src/jobs/kit'
import { hearthH1 } from '../../src/lab/device/sheet'
import { endBrowser } from '../../src/wire/browser/chromium'
import { type Bench, demoJob, openBench } from '../support/bench'
import { longIt as it } from '../support/long'
import { allAnswer, hearthsWithOneNetwork, shownHearth, startedDesk } from '../support/shown-hearth'

let bench: Bench
afterEach(() => bench.close())
afterAll(() => endBrowser())

it('answer by the card that came of it, and nothing of the first stands in it', async () => {
  bench = await openBench({ change: hearthsWithOneNetwork(4), pace: 10 })
  const desk = await startedDesk(bench)
  // Nobody has described it, so nobody knows where it answers: its label says.
  const [{ id = '' } = {}] = bench.job.units
  await expect(desk.window({ jobId: bench.jobId, unit: id }, 'Kea')).rejects.toMatchObject({
    refusal: { code: 'not-seen' },
  })
  const { on, yaml, unit, network, address, secret } = await shownHearth(bench, desk, 0, '2.1.0')
  expect(await keepShownCard(bench.store, yaml)).toMatchObject({ ok: true })

  // The card is tried on the unit that hands have set, before it writes to any.
  await expect.poll(() => bench.lab.plugged(unit.mac).unit).toMatchObject({ address, phase: 'up' })
  const again = await desk.window(on, 'Kea', address)
  const told: Told[] = []
  again.watch({ told: (each) => void told.push(each), picture: () => undefined })
  // What was shown is not lost with its window, and is forgotten when somebody says so.
  const acts = () => told.findLast((each) => each.kind === 'shown')?.acts.length ?? 0
  await desk.act(on, [{ kind: 'show', on: true }])
  expect(acts()).toBeGreaterThan(10)
  await desk.act(on, [{ kind: 'show', on: true, anew: true }])
  expect(acts()).toBe(0)
  const before = bench.lab.plugged(unit.mac).unit.configured
  await desk.act(on, [{ kind: 'rehearse' }])
  const tried = () => told.findLast((each) => each.kind === 'rehearsed')
  await expect.poll(tried).toBeDefined()
  const rehearsed = tried()
  expect(rehearsed?.fault).toBeUndefined()
  const results = new Map(rehearsed?.read.map(({ id, of, result }) => [`${id} ${of}`.trim(), result]))
  expect(results.get('unit.name')).toBe('as-asked')
  expect(results.get('radio.channel 5')).toBe('as-asked')
  // What is planned by the card's own powers is not what hands chose, and what is shown nowhere cannot be read.
  expect(results.get('radio.power 5')).toBe('otherwise')
  expect(results.get(`network.passphrase ${network.id}`)).toBe('not-readable')
  expect(bench.lab.plugged(unit.mac).unit.configured).toEqual(before)
  await desk.close(on)

  await bench.order()
  await allAnswer(bench)
  for (const { effective } of bench.lab.units()) {
    const [only, ...others] = effective.networks
    expect({ others, ssid: only?.name }).toEqual({ others: [], ssid: network.ssid })
    expect(only?.passphrase).toBe(await secret(`network/${network.id}/passphrase`))
  }
  expect(bench.lab.air.everOpen).toEqual([])
})

it('of a later firmware are held once, and all follow what was shown on that one', async () => {
  const later = 'Hearth H1 of a later firmware'
  const change = hearthsWithOneNetwork(5)
  const { units } = demoJob(change)
  const shelf = units.map(({ mac, serial }, index) => ({ model: index === 0 ? 'Hearth H1' : later, mac, serial }))
  const variants = new Map([[later, { ...hearthH1, firmware: '2.2.0' }]])
  bench = await openBench({ change, pace: 10, lab: { shelf, variants } })
  const desk = await startedDesk(bench)
  const first = await shownHearth(bench, desk, 0, '2.1.0')
  expect(await keepShownCard(bench.store, first.yaml)).toMatchObject({ ok: true })
  // One more is mustered before all are: nothing is written where no description fits.
  const [, second] = bench.job.units
  if (!second) throw new Error('there are five')
  const before = bench.lab.plugged(second.mac).unit.configured
  await bench.order([second.id])
  const { rows } = await bench.settled()
  expect(heldStep(rows.get(second.id))).toBe('sign-in')
  expect(bench.lab.plugged(second.mac).unit.configured).toEqual(before)
  // What it showed then is seen by whoever comes to it, and names nothing that is secret.
  const page = await pageWhenHeld(bench.store, { id: bench.jobId }, second.id)
  if (!page.ok || !page.value) throw new Error('its page was kept')
  expect([...Buffer.from(page.value.base64, 'base64').subarray(0, 2)]).toEqual([0xff, 0xd8])
  expect(page.value.words).toContain('Where is it?')
  const { yaml } = await shownHearth(bench, desk, 1, '2.2.0')
  expect(await keepShownCard(bench.store, yaml)).toMatchObject({ ok: true })

  await bench.order()
  await allAnswer(bench)
  const held = (await bench.events()).flatMap(({ event }) =>
    event.kind === 'step' && event.state.kind === 'held' && event.state.code !== 'set-by-hand' ? [event.unit] : [],
  )
  expect(new Set(held)).toEqual(new Set([second.id]))
  expect(bench.lab.air.everOpen).toEqual([])
})
