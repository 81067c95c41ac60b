/** Musters after something was changed in brief, kit list or plan: what was proven is kept, and nothing is stranded. */

import { afterEach, beforeEach, describe, expect } from 'vitest'
import type { Brief } from '../../src/core/brief/brief'
import { gapsIn } from '../../src/core/handover/as-built'
import type { Unit } from '../../src/core/kit/unit'
import { message } from '../../src/core/message/message'
import { answers, heldStep, type RollRow } from '../../src/core/muster/roll'
import { sheetOf, viewJob } from '../../src/jobs/job-view'
import { makeMissingSecrets } from '../../src/jobs/make-secrets'
import { replan } from '../../src/jobs/replan'
import { allEvents } from '../../src/store/events'
import { jobById, saveBrief } from '../../src/store/jobs'
import { changeKit, listUnits } from '../../src/store/kit'
import { lockAddress } from '../../src/store/plans'
import { forgetPin, openBackup, openSecrets, sealSecret } from '../../src/store/secrets'
import { gapWords } from '../../src/words/en/as-built'
import { type Bench, heldAt, openBench } from '../support/bench'
import { english } from '../support/english'
import { shortIt as it, longIt } from '../support/long'

let bench: Bench
beforeEach(async () => {
  bench = await openBench()
  bench.startRunner()
  await bench.order()
  await bench.settled()
  expect(await whoAnswers()).toEqual(['hall-01', 'hall-02', 'hall-03', 'booth-01'])
})
afterEach(() => bench.close())

const whoAnswers = async (): Promise<string[]> => {
  const { rows } = await bench.roll()
  return bench.job.units.map((unit) => unit.id).filter((unit) => answers(rows.get(unit)))
}
const rowOf = async (unit: string): Promise<RollRow | undefined> => (await bench.roll()).rows.get(unit)
const again = async (units: string[] = []): Promise<void> => {
  await bench.order(units)
  await bench.settled()
}
const addresses = () => bench.lab.units().map((unit) => unit.address)
const changeBrief = async (change: (brief: Brief) => void): Promise<void> => {
  const job = await jobById(bench.store, bench.jobId)
  if (!job) throw new Error('the job is gone')
  const brief = structuredClone(job.brief)
  change(brief)
  await saveBrief(bench.store, bench.jobId, brief, job.version)
  await makeMissingSecrets(bench.store, bench.jobId, brief, new Date())
  await replan(bench.store, bench.jobId)
}
const lock = async (locks: Record<string, string>): Promise<void> => {
  for (const [unit, address] of Object.entries(locks)) await lockAddress(bench.store, bench.jobId, unit, address)
  await replan(bench.store, bench.jobId)
}
const changeRow = async (id: string, change: Partial<Unit>): Promise<void> => {
  const row = (await listUnits(bench.store, bench.jobId)).find((unit) => unit.id === id)
  if (row)
    await changeKit(bench.store, bench.jobId, {
      add: [],
      remove: [],
      order: undefined,
      change: [{ ...row, ...change }],
    })
}

describe('a brief that is changed after a muster', () => {
  it('takes back that units answer, says what is asked since, and prints the sheet as they were left', async () => {
    await changeBrief((brief) => {
      for (const network of brief.networks) network.hidden = true
    })
    expect(await whoAnswers()).toEqual([])
    expect(english((await rowOf('hall-01'))?.changes)).toEqual(['Network "Ellery Crew": hidden is off, to be on.'])
    const view = await viewJob(bench.store, bench.job.slug)
    if (!view) throw new Error('the job is gone')
    const rows = sheetOf(view)
    expect(gapsIn(rows).map(gapWords)[0]).toBe(
      'hall-01 was changed since it was mustered. Network "Ellery Crew": hidden is off, to be on. Muster it again.',
    )
    await again()
    expect(await whoAnswers()).toHaveLength(4)
    expect(bench.lab.units()[0]?.effective.networks[0]?.hidden).toBe(true)
    expect(bench.lab.air.everOpen).toEqual([])
  })

  it('with another passphrase tells that it is another, and never which', async () => {
    await sealSecret(bench.store, bench.jobId, 'network/crew/passphrase', 'another-phrase-2Wq', new Date())
    expect(english((await rowOf('booth-01'))?.changes)).toEqual(['Network "Ellery Crew": passphrase differs.'])
    await again()
    expect(await whoAnswers()).toHaveLength(4)
    expect(bench.lab.units()[3]?.effective.networks[0]?.passphrase).toBe('another-phrase-2Wq')
    expect(JSON.stringify(await allEvents(bench.store, bench.jobId))).not.toContain('another-phrase-2Wq')
  })

  it('with another management network moves every unit over', async () => {
    await changeBrief((brief) => {
      brief.management = {
        ...brief.management,
        cidr: '10.45.0.0/25',
        gateway: '10.45.0.1',
        dhcpPool: null,
        dnsServers: ['10.45.0.1'],
      }
    })
    await again()
    expect(await whoAnswers()).toHaveLength(4)
    expect(addresses().every((address) => address?.startsWith('10.45.0.'))).toBe(true)
  })
})

describe('an admin password that is replaced', () => {
  const first = () => bench.lab.units()[0]

  it('is set by signing in with the one before', async () => {
    const before = (await openSecrets(bench.store, bench.jobId)).get('admin/password') ?? ''
    for (const many of ['once', 'thrice', 'often', 'again', 'twice'])
      await sealSecret(bench.store, bench.jobId, 'admin/password', `Replaced-Pw-77-${many}`, new Date())
    expect((await rowOf('hall-01'))?.changes).toEqual([message('admin-password-another')])
    await again()
    expect(await whoAnswers()).toHaveLength(4)
    expect(first()?.accepts('setup', 'Replaced-Pw-77-twice')).toBe(true)
    expect(first()?.accepts('setup', before)).toBe(false)
    // The one that it was given last was the first that was tried.
    expect((await rowOf('hall-01'))?.log.filter(({ code }) => code === 'key-refused')).toEqual([])
  })
})

describe('addresses that are planned anew', () => {
  it('are moved to from where a unit was left, and the sweep sees it there in the meantime', async () => {
    await lock({ 'hall-02': '10.44.8.77' })
    expect(english((await rowOf('hall-02'))?.changes)).toEqual(['Address is 10.44.8.21, to be 10.44.8.77.'])
    await expect
      .poll(async () => (await bench.roll()).sightings.find(({ unit }) => unit === 'hall-02'))
      .toMatchObject({ address: '10.44.8.21', seen: 'elsewhere', answers: 'service' })
    await again(['hall-02'])
    expect(await whoAnswers()).toHaveLength(4)
    expect(addresses()[1]).toBe('10.44.8.77')
  })

  longIt('that are traded hold both, with the way out', async () => {
    const units = bench.job.units.map((unit) => unit.id)
    await lock({ 'hall-01': '10.44.8.90' })
    await lock({ 'hall-02': '10.44.8.20' })
    await lock({ 'hall-01': '10.44.8.21' })
    await again(units.slice(0, 2))
    for (const [unit, other] of [
      ['hall-01', 'hall-02'],
      ['hall-02', 'hall-01'],
    ] as const) {
      const row = await rowOf(unit)
      expect(heldStep(row)).toBe('address')
      expect(heldAt(row, 'address')?.why).toBe(`It and ${other} are to trade addresses.`)
    }
    expect(addresses().slice(0, 2)).toEqual(['10.44.8.20', '10.44.8.21'])
    await lock({ 'hall-01': '10.44.8.90' })
    await again(units.slice(0, 2))
    expect(addresses().slice(0, 2)).toEqual(['10.44.8.90', '10.44.8.20'])
  })
})

describe('a box that is another', () => {
  it('under the same name does not answer for the one before', async () => {
    await changeRow('hall-01', { mac: '02:4f:52:10:6a:99' })
    expect(english((await rowOf('hall-01'))?.changes)).toEqual([
      'It was 02:4f:52:10:6a:2c, and is 02:4f:52:10:6a:99 now.',
    ])
    expect(await whoAnswers()).not.toContain('hall-01')
  })

  it('has copies of its own: they stay with the box when its row is taken off and put on again', async () => {
    const row = (await listUnits(bench.store, bench.jobId)).find((unit) => unit.id === 'hall-01')
    if (!row) throw new Error('no unit')
    const found = await openBackup(bench.store, bench.jobId, row.mac, 'as-found')
    await changeKit(bench.store, bench.jobId, { add: [], remove: [row.id], order: undefined, change: [] })
    await changeKit(bench.store, bench.jobId, { add: [row], remove: [], order: undefined, change: [] })
    expect(await openBackup(bench.store, bench.jobId, row.mac, 'as-found')).toBe(found)
    expect(found).toContain('192.168.77.1')
  })
})

it('a unit that was reset and shows another certificate is held, until somebody says that it was reset', async () => {
  const [first] = bench.job.units
  if (!first) throw new Error('no unit')
  const plugged = bench.lab.plugged(first.mac)
  plugged.unit.pressReset(10)
  await plugged.front.renewIdentity()
  await expect.poll(() => plugged.unit.phase).toBe('up')
  await again([first.id])
  const row = await rowOf(first.id)
  expect(heldAt(row, 'sign-in')).toMatchObject({
    why: 'Its certificate is not the one it showed first.',
    press: 'trust-new-certificate',
  })
  expect(plugged.unit.accepts('setup', 'setup')).toBe(true)
  await forgetPin(bench.store, bench.jobId, first.mac)
  await again([first.id])
  expect(await whoAnswers()).toHaveLength(4)
})
