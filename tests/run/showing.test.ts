/** Of four units out of their boxes that nobody has described, the first is set by hand; the others follow. */
import { afterAll, afterEach, expect } from 'vitest'
import type { SettingId } from '../../src/core/config/setting-ids'
import type { JobDocument } from '../../src/core/job/job-document'
import { answers, heldStep } from '../../src/core/muster/roll'
import type { Hand, Told } from '../../src/core/showing/window-talk'
import { pageWhenHeld } from '../../src/jobs/copies'
import { keepShownCard } from '../../src/jobs/kit'
import { hearthH1 } from '../../src/lab/device/sheet'
import { wordsOf } from '../../src/lab/fronts/hearth/words'
import { storedRecords } from '../../src/runner/ports/stored-records'
import type { Runner } from '../../src/runner/runner'
import type { WindowDesk } from '../../src/runner/window/window-desk'
import { openSecret } from '../../src/store/secrets'
import { endBrowser } from '../../src/wire/chromium'
import { UnitWindow } from '../../src/wire/window/unit-window'
import { type Bench, demoJob, openBench } from '../support/bench'
import { hands } from '../support/hands'
import { hearths } from '../support/hearth'
import { setHearth } from '../support/hearth-hands'
import { longIt as it } from '../support/long'

let bench: Bench
afterEach(() => bench.close())
afterAll(() => endBrowser())

const hearthsWithOneNetwork =
  (count: number) =>
  (job: JobDocument): void => {
    const { brief } = job
    hearths(count, [])(job)
    const [first] = brief.networks
    if (!first) throw new Error('the demo has networks')
    const crew = { ...first, security: 'wpa2-personal', bands: ['2.4', '5'], hidden: false } as typeof first
    job.brief = { ...brief, networks: [crew], admin: { ...brief.admin, passwords: 'one-per-job' } }
  }

/** The window on a unit is opened where its label says, and it is set by hand. @returns what its window told of it */
async function shown(desk: WindowDesk, index: number, firmware: string) {
  const { brief, units } = bench.job
  const [unit, [network]] = [units[index], brief.networks]
  if (!unit || !network) throw new Error('it has both')
  const on = { jobId: bench.jobId, unit: unit.id }
  const window = await desk.window(on, 'Kea', '192.168.18.1')
  const told: Told[] = []
  window.watch({ told: (each) => void told.push(each), picture: () => undefined })
  await desk.act(on, [{ kind: 'show', on: true }])
  const act = (hand: Hand): void => void desk.act(on, [hand])
  if (!(window instanceof UnitWindow)) throw new Error('it shows no pages')
  const h = hands({ act, placeOf: (at) => window.placeOf(at) })
  const plan = (await storedRecords(bench.store).job(bench.jobId))?.plans.get(unit.id)
  const value = (id: SettingId, of = ''): string => {
    const radio = plan?.radios.find(({ band }) => band === of)
    if (id === 'radio.channel') return String(radio?.channel)
    if (id === 'radio.width') return String(radio?.width)
    // What is planned before anybody knows its powers may be none of them: the muster sets what it can.
    if (id === 'radio.power') return '8'
    if (id === 'clock.time-zone') return brief.timeZone
    return (id === 'clock.ntp-servers' ? brief.ntpServers : brief.management.dnsServers).join(' ')
  }
  const put = async (by: Parameters<typeof h.type>[0], id: SettingId, of = ''): Promise<void> => {
    // What stands there gives way.
    await h.type(by, 'before')
    act({ kind: 'put-in', id, of })
  }
  await setHearth(h, { value, put, network, words: wordsOf(firmware) })
  const acts = () => told.findLast((each) => each.kind === 'shown')?.acts ?? []
  await expect.poll(() => bench.lab.plugged(unit.mac).unit.changes.standing).toBe('applying')
  const first = acts().find(({ value: meant }) => meant?.kind === 'unknown')
  expect(first?.label).toContain(wordsOf(firmware).firstNet)
  await desk.act(on, [{ kind: 'means', act: first?.number ?? 0, value: 'always' }, { kind: 'make-card' }])
  const card = told.findLast((each) => each.kind === 'card')
  expect(card?.missing, JSON.stringify(acts())).toEqual([])
  const yaml = card?.yaml ?? ''
  const secret = (name: string) => openSecret(bench.store, bench.jobId, name)
  for (const name of ['admin/password', `network/${network.id}/passphrase`])
    expect(yaml).not.toContain(await secret(name))
  for (const own of [network.ssid, unit.name, unit.place, plan?.address ?? '']) expect(yaml).not.toContain(own)
  await desk.close(on)
  return { on, yaml, unit, network, address: plan?.address ?? '', secret }
}

async function started(): Promise<WindowDesk> {
  let runner: Runner | undefined
  bench.startRunner({
    given: (given) => {
      runner = given
    },
  })
  await expect.poll(() => bench.lab.units().every(({ serviceIsUp }) => serviceIsUp)).toBe(true)
  if (!runner) throw new Error('it runs')
  return runner.windows
}

async function allAnswer(): Promise<void> {
  const { rows } = await bench.settled()
  const left = [...rows.values()].filter((row) => !answers(row))
  expect(left.flatMap(({ steps, log }) => [JSON.stringify(steps), ...log.map(({ text }) => text)])).toEqual([])
}

it('answer by the card that came of it, and nothing of the first stands in it', async () => {
  bench = await openBench({ change: hearthsWithOneNetwork(4), pace: 10 })
  const desk = await started()
  // Nobody has described it, so nobody knows where it answers: its label says.
  const [{ id = '' } = {}] = bench.job.units
  await expect(desk.window({ jobId: bench.jobId, unit: id }, 'Kea')).rejects.toMatchObject({
    refusal: { code: 'not-seen' },
  })
  const { on, yaml, unit, network, address, secret } = await shown(desk, 0, '2.1.0')
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
  await allAnswer()
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
  const desk = await started()
  const first = await shown(desk, 0, '2.1.0')
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
  const { yaml } = await shown(desk, 1, '2.2.0')
  expect(await keepShownCard(bench.store, yaml)).toMatchObject({ ok: true })

  await bench.order()
  await allAnswer()
  const held = (await bench.events()).flatMap(({ event }) =>
    event.kind === 'step' && event.state.kind === 'held' && event.state.code !== 'set-by-hand' ? [event.unit] : [],
  )
  expect(new Set(held)).toEqual(new Set([second.id]))
  expect(bench.lab.air.everOpen).toEqual([])
})
