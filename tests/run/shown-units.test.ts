/**
 * A unit with a controller inside that nobody has described, and access points that are set through it: hands show how
 * it is set, and then how one of them is. The others follow.
 */
import { afterAll, afterEach, expect } from 'vitest'
import { keepShownCard } from '../../src/jobs/kit'
import { wordsOf } from '../../src/lab/fronts/hearth/words'
import { endBrowser } from '../../src/wire/browser/chromium'
import { type Bench, openBench } from '../support/bench'
import { hearthWithUnits } from '../support/hearth'
import { longIt as it } from '../support/long'
import { allAnswer, handsOnWindow, shownHearth, startedDesk, withOneNetwork } from '../support/shown-hearth'

let bench: Bench
afterEach(() => bench.close())
afterAll(() => endBrowser())

const dhcp = { prefix: 24, first: '10.44.8.100', last: '10.44.8.199', gateway: '10.44.8.1', dns: '10.44.8.1' }

it('join and answer by the card that came of one of them', async () => {
  const words = wordsOf('2.1.0')
  bench = await openBench({
    change: (job) => {
      hearthWithUnits(2)(job)
      withOneNetwork(job)
      job.cards = []
      // Its own pages are shown first.
      job.units.reverse()
    },
    pace: 10,
    lab: { dhcp },
  })
  const desk = await startedDesk(bench)
  const { on, unit, address } = await shownHearth(bench, desk, 0, '2.1.0')
  await expect.poll(() => bench.lab.plugged(unit.mac).unit).toMatchObject({ address, phase: 'up' })

  const joined = bench.job.units.find(({ model }) => model === 'Hearth H2')
  if (!joined) throw new Error('one joins it')
  const { act, press, put, choose, tick, type, sees, shown, card } = await handsOnWindow(desk, on, address)
  await put({ label: words.user }, 'admin.user')
  await put({ label: words.word }, 'admin.password')
  await press({ text: words.enter })
  await sees({ label: 'MAC address' })
  act({ kind: 'act-for', unit: joined.id })
  await press({ text: words.units })
  // They stand in the order in which they found it.
  const found = () => bench.lab.plugged(unit.mac).unit.joins.at(unit.mac)
  await expect.poll(found).toHaveLength(2)
  await press({ text: words.units })
  await press({ text: words.takeIn, nth: found().indexOf(joined.mac) + 1 })
  await expect.poll(() => bench.lab.plugged(unit.mac).unit.configured.points).toHaveLength(1)
  // It joins in its own time: whoever waits looks again.
  await expect
    .poll(
      () => {
        act({ kind: 'reload' })
        return shown()?.states.map(({ state }) => state)
      },
      { interval: 1500 },
    )
    .toContain('run')
  await press({ text: words.edit })
  await put({ label: words.unitName }, 'unit.name')
  await put({ label: words.spot }, 'unit.location')
  await choose({ label: words.way }, words.fixed)
  await put({ label: words.address }, 'management.address')
  await type({ label: words.mask }, '255.255.255.0')
  await put({ label: words.router }, 'management.gateway')
  for (const [heading, channel] of [
    ['2.4 GHz', '1 - 2.412 GHz'],
    ['5 GHz', '36 - 5.180 GHz'],
  ] as const) {
    await tick({ label: words.on, heading })
    await choose({ label: words.channel, heading }, channel)
    await choose({ label: words.width, heading }, '20 MHz')
    await choose({ label: words.power, heading }, '8 dBm')
  }
  await press({ text: words.keep })
  await sees({ text: words.saved })
  act({ kind: 'make-card' })
  await expect.poll(card).toBeDefined()
  expect(card()?.missing, JSON.stringify(shown())).toEqual([])
  const { yaml = '', joined: cardOfJoined = '' } = card() ?? {}
  for (const own of [joined.name, joined.serial, joined.mac, address]) expect(yaml + cardOfJoined).not.toContain(own)
  expect(await keepShownCard(bench.store, yaml)).toMatchObject({ ok: true })
  expect(await keepShownCard(bench.store, cardOfJoined)).toMatchObject({ ok: true })
  await desk.close(on)

  await bench.order()
  await allAnswer(bench)
  for (const { id, mac } of bench.job.units.filter(({ model }) => model === 'Hearth H2')) {
    expect(bench.lab.plugged(mac).unit.effective).toMatchObject({ name: id, wired: { method: 'static' } })
    const row = (await bench.roll()).rows.get(id)
    expect(row?.checks.map(({ code, verdict }) => `${code} ${verdict}`)).toContain('joined good')
  }
  expect(bench.lab.air.everOpen).toEqual([])
})
