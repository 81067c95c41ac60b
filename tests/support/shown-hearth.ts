/** A Hearth that nobody has described is set by hand in its window, and what hands show becomes a card. */

import { expect } from 'vitest'
import type { SettingId } from '../../src/core/catalogue/catalogue'
import type { JobDocument } from '../../src/core/job/job-document'
import { answers } from '../../src/core/muster/roll'
import type { Hand, Told } from '../../src/core/showing/window-talk'
import { wordsOf } from '../../src/lab/fronts/hearth/words'
import { storedRecords } from '../../src/runner/ports/stored-records'
import type { Runner } from '../../src/runner/runner'
import type { WindowDesk } from '../../src/runner/window/window-desk'
import { openSecret } from '../../src/store/secrets'
import { UnitWindow } from '../../src/wire/window/unit-window'
import { sentence } from '../../src/words/en/sentence'
import type { Bench } from './bench'
import { hands } from './hands'
import { hearths } from './hearth'
import { setHearth } from './hearth-hands'

/** The job gets one network, as a showing takes time for each. */
export function withOneNetwork(job: JobDocument): void {
  const { brief } = job
  const [first] = brief.networks
  if (!first) throw new Error('the demo has networks')
  const crew = { ...first, security: 'wpa2-personal', bands: ['2.4', '5'], hidden: false } as typeof first
  job.brief = { ...brief, networks: [crew], admin: { ...brief.admin, passwords: 'one-per-job' } }
}

export const hearthsWithOneNetwork =
  (count: number) =>
  (job: JobDocument): void => {
    const { brief } = job
    hearths(count, [])(job)
    job.brief = brief
    withOneNetwork(job)
  }

/** Hands on the window of a unit that is open. */
export async function handsOnWindow(desk: WindowDesk, on: { jobId: number; unit: string }, at: string) {
  const window = await desk.window(on, 'Kea', at)
  const told: Told[] = []
  window.watch({ told: (each) => void told.push(each), picture: () => undefined })
  await desk.act(on, [{ kind: 'show', on: true }])
  const act = (hand: Hand): void => void desk.act(on, [hand])
  if (!(window instanceof UnitWindow)) throw new Error('it shows no pages')
  const h = hands({ act, placeOf: (place) => window.placeOf(place) })
  const put = async (by: Parameters<typeof h.type>[0], id: SettingId, of = ''): Promise<void> => {
    // What stands there gives way.
    await h.type(by, 'before')
    act({ kind: 'put-in', id, of })
  }
  const shown = () => told.findLast((each) => each.kind === 'shown')
  const card = () => told.findLast((each) => each.kind === 'card')
  return { ...h, put, act, shown, card, told }
}

/** The window on a unit is opened where its label says, and it is set by hand. @returns the card that came of it */
export async function shownHearth(bench: Bench, desk: WindowDesk, index: number, firmware: string) {
  const { brief, units } = bench.job
  const [unit, [network]] = [units[index], brief.networks]
  if (!unit || !network) throw new Error('it has both')
  const on = { jobId: bench.jobId, unit: unit.id }
  const h = await handsOnWindow(desk, on, '192.168.18.1')
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
  await setHearth(h, { value, put: h.put, network, words: wordsOf(firmware) })
  const acts = () => h.shown()?.acts ?? []
  await expect.poll(() => bench.lab.plugged(unit.mac).unit.changes.standing).toBe('applying')
  const first = acts().find(({ value: meant }) => meant?.kind === 'unknown')
  expect(first?.label).toContain(wordsOf(firmware).firstNet)
  await desk.act(on, [{ kind: 'means', act: first?.number ?? 0, value: 'always' }, { kind: 'make-card' }])
  const card = h.card()
  expect(card?.missing, JSON.stringify(acts())).toEqual([])
  const yaml = card?.yaml ?? ''
  const secret = (name: string) => openSecret(bench.store, bench.jobId, name)
  for (const name of ['admin/password', `network/${network.id}/passphrase`])
    expect(yaml).not.toContain(await secret(name))
  for (const own of [network.ssid, unit.name, unit.location, plan?.address ?? '']) expect(yaml).not.toContain(own)
  await desk.close(on)
  return { on, yaml, unit, network, address: plan?.address ?? '', secret }
}

export async function startedDesk(bench: Bench): Promise<WindowDesk> {
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

export async function allAnswer(bench: Bench): Promise<void> {
  const { rows } = await bench.settled()
  const left = [...rows.values()].filter((row) => !answers(row))
  expect(left.flatMap(({ steps, log }) => [JSON.stringify(steps), ...log.map(sentence)])).toEqual([])
}
