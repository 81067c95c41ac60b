/** The runner's smaller parts, against a real database and a real wire. */

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { dequal } from 'dequal/lite'
import { afterEach, describe, expect, it } from 'vitest'
import { asTold } from '../../src/core/message/message'
import { answers, heldStep } from '../../src/core/muster/roll'
import { allUnits } from '../../src/core/muster/selection'
import { whereaboutsOf } from '../../src/core/muster/whereabouts'
import { keepLabelPasswords } from '../../src/jobs/secrets'
import { ostrelO40 } from '../../src/lab/device/sheet'
import { EventLog } from '../../src/runner/order/event-log'
import { systemClock } from '../../src/runner/ports/clock'
import { storedRecords } from '../../src/runner/ports/stored-records'
import { sweep } from '../../src/runner/sweep'
import { explain } from '../../src/runner/unit/explain'
import { allEvents } from '../../src/store/events'
import { findJob } from '../../src/store/jobs'
import { addUnits, changeKit, listUnits } from '../../src/store/kit'
import { loadKitCards } from '../../src/store/kit-card-files'
import { orderState, placeOrder } from '../../src/store/orders'
import { loadPlans } from '../../src/store/plans'
import { newestReport } from '../../src/store/runners'
import { WireError, wireErrorKinds } from '../../src/wire/errors/wire-error'
import { labHost } from '../../src/wire/host/lab'
import { wireSessions } from '../../src/wire/wire-sessions'
import { heldWords } from '../../src/words/en/held'
import { sentence } from '../../src/words/en/sentence'
import { type Bench, demoJob, freshStore, heldAt, openBench } from '../support/bench'
import { cardOf } from '../support/data'

let bench: Bench | undefined
afterEach(async () => {
  await bench?.close()
  bench = undefined
})

const sweepOf = async (opened: Bench) => {
  const host = labHost({
    url: opened.env.AIR_MUSTER_LAB_URL ?? '',
    token: opened.env.AIR_MUSTER_LAB_TOKEN ?? '',
  })
  const { introductions } = await host.heard()
  const { plans } = await loadPlans(opened.store, opened.jobId)
  return sweep({
    records: storedRecords(opened.store),
    host,
    sessions: wireSessions,
    jobId: opened.jobId,
    units: await listUnits(opened.store, opened.jobId),
    plans: new Map(plans.map((plan) => [plan.unit, plan])),
    cards: loadKitCards(),
    management: '10.44.8.0/24',
    provenAt: new Map(),
    before: [],
    lent: [],
    old: new Map(),
    introductions: new Map(introductions.map(({ mac, words }) => [mac, words])),
    now: 1_000,
  })
}
const allUp = (opened: Bench) => expect.poll(() => opened.lab.units().every((unit) => unit.phase === 'up')).toBe(true)

describe('a sweep', () => {
  it('sees every unit by its MAC in the order of the list, and what each says that it is', async () => {
    bench = await openBench()
    await allUp(bench)
    const sightings = await sweepOf(bench)
    expect(sightings.map(({ unit, model, seen, answers: by }) => [unit, model, seen, by])).toEqual(
      ['hall-01', 'hall-02', 'hall-03', 'booth-01'].map((unit) => [
        unit,
        unit === 'booth-01' ? 'Ostrel O-20' : 'Ostrel O-40',
        'at-factory-address',
        'service',
      ]),
    )
  })

  it('tells a stray from the units of the list, and puts it last', async () => {
    bench = await openBench()
    await allUp(bench)
    await changeKit(bench.store, bench.jobId, { add: [], change: [], remove: ['hall-01'], order: undefined })
    const sightings = await sweepOf(bench)
    expect(sightings.map((sighting) => sighting.unit)).toEqual(['hall-02', 'hall-03', 'booth-01', null])
    expect(sightings.at(-1)?.mac).toBe('02:4f:52:10:6a:2c')
  })

  it('asks SNMP where what a unit says of itself is on no card', async () => {
    const sheet = { ...ostrelO40, model: 'O-49', tellsPublic: true, objectId: '1.3.6.1.4.1.32473.24.1' }
    bench = await openBench({ lab: { variants: new Map([['Ostrel O-40', sheet]]) } })
    await allUp(bench)
    const models = (await sweepOf(bench)).map(({ model }) => model)
    expect(models).toEqual(['Lowbeam L24', 'Lowbeam L24', 'Lowbeam L24', 'Ostrel O-20'])
  })

  it('knows a unit by its words over LLDP, where its service says nothing that a card knows or is silent', async () => {
    const sheet = { ...ostrelO40, model: 'O-49', lldp: 'Brackwater B7, firmware 1.7' }
    bench = await openBench({ lab: { variants: new Map([['Ostrel O-40', sheet]]) } })
    await allUp(bench)
    expect((await sweepOf(bench)).map(({ model }) => model)).toEqual([
      ...['Brackwater B7', 'Brackwater B7', 'Brackwater B7', 'Ostrel O-20'],
    ])
    await bench.close()
    // While it starts it answers ARP, and nothing else.
    bench = await openBench({
      ...{ lab: { variants: new Map([['Ostrel O-40', sheet]]) }, pace: 15 },
      change: (job) => void job.units.pop(),
    })
    await expect.poll(() => bench?.lab.wire.arp('192.168.77.1').length, { interval: 10 }).toBe(3)
    expect((await sweepOf(bench)).map(({ model, answers }) => [model, answers])).toEqual(
      Array.from({ length: 3 }, () => ['Brackwater B7', 'arp-only']),
    )
  })

  it('says what speaks for a model: two things that agree, or its maker by its MAC while it starts', async () => {
    bench = await openBench({ change: (job) => void job.units.pop() })
    await allUp(bench)
    const by = ['realm', 'certificate', 'mac']
    const agreeing = { model: 'Ostrel O-40', by }
    expect(await sweepOf(bench)).toMatchObject([agreeing, agreeing, agreeing])
    await bench.close()
    bench = await openBench({ pace: 15, change: (job) => void job.units.pop() })
    await expect.poll(() => bench?.lab.wire.arp('192.168.77.1').length, { interval: 10 }).toBe(3)
    const perhaps = { model: null, by: [], perhaps: 'Ostrel O-40', answers: 'arp-only' }
    expect(await sweepOf(bench)).toMatchObject([perhaps, perhaps, perhaps])
  })

  it('shows a unit that only answers ARP as still starting', async () => {
    // Those that take equally long to start.
    bench = await openBench({ pace: 15, change: (job) => void job.units.pop() })
    await expect.poll(() => bench?.lab.wire.arp('192.168.77.1').length, { interval: 10 }).toBe(3)
    expect((await sweepOf(bench)).map((sighting) => sighting.answers)).toEqual(
      Array.from({ length: 3 }, () => 'arp-only'),
    )
  })
})

it('tells a unit that is on the wire at an address of another subnet from one of which there is no sign', async () => {
  bench = await openBench({
    change: (job) => {
      const [first, second] = job.units
      job.units = [
        { ...first, model: 'Brackwater B7', mac: '02:b7:1c:10:6a:2c' },
        { ...second, model: 'Brackwater B7', mac: '02:b7:1c:10:6a:2d' },
      ] as never
    },
  })
  await allUp(bench)
  const [far, gone] = bench.lab.units()
  far?.configure({ ...far.configured, wired: { method: 'static', address: '192.168.5.9', prefix: 24, vlan: null } })
  bench.lab.unplug(gone?.identity.mac ?? '')
  const stop = bench.startRunner()
  const kinds = async () => {
    const roll = await bench?.roll()
    return bench?.job.units.map((unit) =>
      roll ? whereaboutsOf({ unit, card: cardOf(unit.model), roll, now: Date.now() }).kind : undefined,
    )
  }
  await placeOrder(bench.store, { jobId: bench.jobId, kind: 'sweep', units: allUnits })
  await expect.poll(kinds).toEqual(['other-subnet', 'silent'])
  await stop()
})

describe('the runner', () => {
  it('reports that it is there, and leaves nothing of the laptop changed when told to put it back', async () => {
    bench = await openBench()
    const stop = bench.startRunner()
    await bench.order()
    await bench.settled()
    expect(await newestReport(bench.store)).toMatchObject({
      wire: 'works',
      silentMs: expect.toSatisfy((ms: number) => ms >= 0 && ms < 3000),
    })
    await allUp(bench)
    // Its own sweeps go on otherwise, and open lanes anew.
    await stop()
    const host = labHost({ url: bench.env.AIR_MUSTER_LAB_URL ?? '', token: bench.env.AIR_MUSTER_LAB_TOKEN ?? '' })
    await host.restore()
    expect(await host.laptop()).toMatchObject({ lanes: 0, addresses: [{ cidr: '10.44.8.250/24', origin: 'own' }] })
  })

  it('keeps a sweep in the log only where it saw something else than the one before', async () => {
    const opened = await openBench()
    bench = opened
    await allUp(opened)
    opened.startRunner()
    const { jobId, store } = opened
    for (let sweeps = 0; sweeps < 4; sweeps += 1) {
      const order = await placeOrder(store, { jobId, kind: 'sweep', units: allUnits })
      await expect.poll(async () => (await orderState(store, order))?.status).toBe('done')
    }
    const seen = (await allEvents(store, jobId)).flatMap(({ event }) => (event.kind === 'sweep' ? [event] : []))
    expect(seen.length).toBeGreaterThan(0)
    expect(seen.filter((each, index) => index > 0 && dequal(each, seen[index - 1]))).toEqual([])
  })

  it('adds no interface for a VLAN to a laptop that was put back, before somebody sweeps again', async () => {
    const opened = await openBench({
      change: (job) => {
        job.brief.managementTagged = true
      },
    })
    bench = opened
    let asked: (readonly number[])[] = []
    opened.startRunner({ host: (own) => ({ ...own, reachVlans: async (vlans) => void asked.push(vlans) }) })
    const { jobId } = opened
    await placeOrder(opened.store, { jobId, kind: 'sweep', units: allUnits })
    await expect.poll(() => asked[0]).toEqual([44])
    const report = async (): Promise<number> =>
      (await newestReport(opened.store))?.sweptMsAgo ?? Number.POSITIVE_INFINITY
    const restored = await placeOrder(opened.store, { jobId, kind: 'restore-laptop', units: allUnits })
    await expect.poll(async () => (await orderState(opened.store, restored))?.status).toBe('done')
    asked = []
    const since = Date.now()
    // It sweeps on by itself.
    await expect.poll(async () => (await report()) < Date.now() - since).toBe(true)
    expect(asked).toEqual([])
    await placeOrder(opened.store, { jobId, kind: 'sweep', units: allUnits })
    await expect.poll(() => asked[0]).toEqual([44])
  })

  it('plans and musters a unit that came to the list late', async () => {
    bench = await openBench()
    const late = bench.job.units.at(-1)
    if (!late) throw new Error('no unit')
    await changeKit(bench.store, bench.jobId, { add: [], change: [], remove: [late.id], order: undefined })
    await addUnits(bench.store, bench.jobId, [{ ...late, id: 'late', name: 'late-01' }])
    bench.startRunner()
    await bench.order()
    const roll = await bench.settled()
    expect(answers(roll.rows.get('late'))).toBe(true)
    expect(bench.lab.units().map((unit) => unit.address)).toEqual([
      '10.44.8.20',
      '10.44.8.21',
      '10.44.8.22',
      '10.44.8.23',
    ])
  })

  it('signs in with the password on the label of each box, and says whose is not known', async () => {
    const { factory } = ostrelO40
    const sheet = { ...ostrelO40, factory: { ...factory, login: { user: 'setup', password: 'k7-x9-Wet' } } }
    const yaml = readFileSync(join(import.meta.dirname, '../../data/kit/ostrel-o-40.yaml'), 'utf8')
    const card = yaml
      .replace('password: setup', 'password: "", passwordIs: on-its-label')
      .replace('model: O-40', 'model: O-41')
    bench = await openBench({
      shelf: 'Ostrel O-40',
      lab: { variants: new Map([['Ostrel O-40', sheet]]) },
      change: (job) => {
        job.cards = [card]
        job.units = job.units.slice(0, 2).map((unit) => ({ ...unit, model: 'Ostrel O-41' }))
      },
    })
    const [first] = bench.job.units
    const job = await findJob(bench.store, bench.job.slug)
    if (!job || !first) throw new Error('no job')
    expect(await keepLabelPasswords(bench.store, job, [{ mac: first.mac, password: 'k7-x9-Wet' }])).toEqual({
      ok: true,
    })
    bench.startRunner()
    await bench.order(['hall-01', 'hall-02'])
    const roll = await bench.settled()
    expect(answers(roll.rows.get('hall-01'))).toBe(true)
    const checks = roll.rows.get('hall-01')?.checks
    expect(checks?.find(({ code }) => code === 'factory-login')).toMatchObject({
      observed: { code: 'seen-refused' },
      verdict: 'good',
    })
    expect(heldAt(roll.rows.get('hall-02'), 'reach')?.code).toBe('label-password')
    expect(JSON.stringify(await bench.events())).not.toContain('k7-x9-Wet')
  })

  it('leaves a unit of a model without a card to hands, and musters the others', async () => {
    bench = await openBench()
    const [unit] = bench.job.units
    if (!unit) throw new Error('no unit')
    await addUnits(bench.store, bench.jobId, [
      { ...unit, id: 'odd', name: 'odd', mac: '02:99:00:00:00:01', model: 'Nobody X', port: null },
    ])
    bench.startRunner()
    await bench.order(['odd', 'hall-01'])
    const roll = await bench.settled()
    expect(heldAt(roll.rows.get('odd'), 'reach')?.code).toBe('set-by-hand')
    expect(answers(roll.rows.get('hall-01'))).toBe(true)
    expect(heldStep(roll.rows.get('hall-02'))).toBeUndefined()
  })
})

describe('what is told', () => {
  it('keeps its order when many tell at once, and throws a fault of the store at the next', async () => {
    const fresh = await freshStore()
    try {
      const { loadJob } = await import('../../src/jobs/load-job')
      const records = storedRecords(fresh.store)
      const log = new EventLog(records, await loadJob(fresh.store, demoJob(), new Date()), systemClock)
      const texts = Array.from({ length: 50 }, (_, index) => `line ${index}`)
      for (const text of texts) log.note({ kind: 'log', unit: 'hall-01', told: asTold(text) })
      await log.append({ kind: 'log', unit: 'hall-01', told: asTold('last') })
      // Again after the queue ran empty: a log that sleeps wakes up.
      await log.append({ kind: 'log', unit: 'hall-01', told: asTold('after') })
      const kept = (await allEvents(fresh.store, log.jobId)).flatMap(({ event }) =>
        event.kind === 'log' ? [sentence(event.told)] : [],
      )
      expect(kept).toEqual([...texts, 'last', 'after'])
      const lost = new EventLog(records, 999_999, systemClock)
      await expect
        .poll(() =>
          lost.append({ kind: 'log', unit: 'x', told: asTold('y') }).then(
            () => 'stored',
            () => 'refused',
          ),
        )
        .toBe('refused')
    } finally {
      await fresh.drop()
    }
  })

  it('says for every kind of failure why, and what the hands do, in words without codes', () => {
    const card = loadKitCards().get('Ostrel O-40')
    const [unit] = demoJob().units
    if (!card || !unit) throw new Error('no card')
    for (const kind of wireErrorKinds) {
      const held = heldWords(explain({ unit, card }, new WireError(kind, 'HTTP 418 teapot')).held)
      expect(held.why, kind).toMatch(/^It|^Another|^Its/)
      expect(held.hands.length, kind).toBeGreaterThan(0)
      expect(`${held.why} ${held.hands.join(' ')}`, kind).not.toMatch(/418|TLS|exception|undefined|!/)
    }
  })
})
