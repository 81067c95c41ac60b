/** Of four units out of their boxes that nobody has described, the first is set by hand; the others follow. */
import { afterAll, afterEach, expect } from 'vitest'
import type { SettingId } from '../../src/core/config/setting-ids'
import type { JobDocument } from '../../src/core/job/job-document'
import { answers } from '../../src/core/muster/roll'
import type { Hand, Told } from '../../src/core/showing/window-talk'
import { keepShownCard } from '../../src/jobs/kit'
import { wordsOf } from '../../src/lab/fronts/hearth/words'
import { storedRecords } from '../../src/runner/ports/stored-records'
import type { Runner } from '../../src/runner/runner'
import { openSecret } from '../../src/store/secrets'
import { endBrowser } from '../../src/wire/chromium'
import { type Bench, openBench } from '../support/bench'
import { hands } from '../support/hands'
import { hearths } from '../support/hearth'
import { setHearth } from '../support/hearth-hands'
import { longIt as it } from '../support/long'

let bench: Bench
afterEach(() => bench.close())
afterAll(() => endBrowser())

const four = (job: JobDocument): void => {
  const { brief } = job
  hearths(4, [])(job)
  const [first] = brief.networks
  if (!first) throw new Error('the demo has networks')
  const crew = { ...first, security: 'wpa2-personal', bands: ['2.4', '5'], hidden: false } as typeof first
  job.brief = { ...brief, networks: [crew], admin: { ...brief.admin, passwords: 'one-per-job' } }
}

it('answer by the card that came of it, and nothing of the first stands in it', async () => {
  bench = await openBench({ change: four, pace: 10 })
  let runner: Runner | undefined
  bench.startRunner({
    given: (started) => {
      runner = started
    },
  })
  const desk = runner?.windows
  const { brief, units } = bench.job
  const [unit] = units
  const [network] = brief.networks
  if (!desk || !unit || !network) throw new Error('it has all of them')
  await expect.poll(() => bench.lab.units().every(({ serviceIsUp }) => serviceIsUp)).toBe(true)
  const on = { jobId: bench.jobId, unit: unit.id }
  // Nobody has described it, so nobody knows where it answers: its label says.
  await expect(desk.window(on, 'Kea')).rejects.toMatchObject({ refusal: { code: 'not-seen' } })
  const window = await desk.window(on, 'Kea', '192.168.18.1')
  const told: Told[] = []
  window.watch({ told: (each) => void told.push(each), picture: () => undefined })
  await desk.act(on, [{ kind: 'show', on: true }])
  const act = (hand: Hand): void => void desk.act(on, [hand])
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
    await h.type(by, '')
    act({ kind: 'put-in', id, of })
  }
  await setHearth(h, { value, put, network, words: wordsOf('2.1.0') })
  const shown = () => told.findLast((each) => each.kind === 'shown')?.acts ?? []
  await expect.poll(() => bench.lab.plugged(unit.mac).unit.changes.standing).toBe('applying')
  const first = shown().find(({ value: meant }) => meant?.kind === 'unknown')
  expect(first?.label).toContain('Name of your first network')
  await desk.act(on, [{ kind: 'means', act: first?.number ?? 0, value: 'always' }, { kind: 'make-card' }])
  const card = told.findLast((each) => each.kind === 'card')
  expect(card?.missing, JSON.stringify(shown())).toEqual([])
  const yaml = card?.yaml ?? ''
  const secret = (name: string) => openSecret(bench.store, bench.jobId, name)
  for (const name of ['admin/password', `network/${network.id}/passphrase`])
    expect(yaml).not.toContain(await secret(name))
  for (const own of [network.ssid, unit.name, unit.place, plan?.address ?? '']) expect(yaml).not.toContain(own)
  await desk.close(on)
  expect(await keepShownCard(bench.store, yaml)).toMatchObject({ ok: true })

  // The card is tried on the unit that hands have set, before it writes to any.
  const { address = '' } = plan ?? {}
  await expect.poll(() => bench.lab.plugged(unit.mac).unit).toMatchObject({ address, phase: 'up' })
  const again = await desk.window(on, 'Kea', address)
  again.watch({ told: (each) => void told.push(each), picture: () => undefined })
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
  const { rows } = await bench.settled()
  const left = [...rows.values()].filter((row) => !answers(row))
  expect(left.flatMap(({ steps, log }) => [JSON.stringify(steps), ...log.map(({ text }) => text)])).toEqual([])
  for (const { effective } of bench.lab.units()) {
    const [only, ...others] = effective.networks
    expect({ others, ssid: only?.name }).toEqual({ others: [], ssid: network.ssid })
    expect(only?.passphrase).toBe(await secret(`network/${network.id}/passphrase`))
  }
  expect(bench.lab.air.everOpen).toEqual([])
})
