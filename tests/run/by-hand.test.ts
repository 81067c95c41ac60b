/** Units that hands set: found, looked at from outside, and on the roll like all others. Nothing is written to them. */
import { afterAll, afterEach, expect, it } from 'vitest'
import { secretName } from '../../src/core/brief/brief'
import type { JobDocument } from '../../src/core/job/job-document'
import { answers, isChanged, waitsForHands } from '../../src/core/muster/roll'
import type { Act } from '../../src/core/showing/act'
import { keptRecord } from '../../src/core/showing/kept-record'
import { nothingShown, type ShownRecord } from '../../src/core/showing/record'
import { sheetOf, viewJob } from '../../src/jobs/job-view'
import { changeKit } from '../../src/store/kit'
import { keepBackup, openSecret, sealSecret } from '../../src/store/secrets'
import { endBrowser } from '../../src/wire/browser/chromium'
import { type Bench, heldAt, openBench } from '../support/bench'

let bench: Bench
afterEach(() => bench.close())
afterAll(() => endBrowser())

/** Two boxes of a model that nobody has described, and one that a muster sets. */
const undescribed = (job: JobDocument): void => {
  const [one, two, other] = job.units
  if (!one || !two || !other) throw new Error('three units')
  job.units = [
    { ...one, id: 'odd-01', name: 'odd-01', model: 'Nobody N1', mac: '02:99:00:00:00:01' },
    { ...two, id: 'odd-02', name: 'odd-02', model: 'Nobody N1', mac: '02:99:00:00:00:02' },
    { ...other, id: 'hall-03', name: 'hall-03' },
  ]
}

const view = async () => {
  const found = await viewJob(bench.store, bench.job.slug)
  if (!found) throw new Error('the job is gone')
  return found
}
const row = async (unit: string) => (await view()).roll.rows.get(unit)
const addressOf = async (unit: string) => (await view()).plans.get(unit)?.address ?? ''
/** What somebody does in the box's own pages. */
const setByHand = (mac: string, part: { address?: string; telnet?: boolean }): void => {
  const { unit } = bench.lab.plugged(mac)
  const { configured } = unit
  const { address = configured.wired.address, telnet = configured.telnet } = part
  const services = { httpsOnly: true, ssh: false, telnet }
  unit.configure({ ...configured, ...services, wired: { ...configured.wired, method: 'static', address, prefix: 24 } })
  unit.apply()
}

it('is held until hands have set it, is called by itself at its address, and says who and what was seen', async () => {
  bench = await openBench({ change: undescribed, shelf: 'Ostrel O-40' })
  const [one = '', two = ''] = bench.job.units.map(({ mac }) => mac)
  bench.startRunner()
  await bench.order()
  const roll = await bench.settled()
  expect(answers(roll.rows.get('hall-03'))).toBe(true)
  for (const unit of ['odd-01', 'odd-02']) {
    expect(heldAt(roll.rows.get(unit), 'reach')?.code).toBe('set-by-hand')
    expect(waitsForHands(roll.rows.get(unit))).toBe(true)
  }

  const writes = bench.lab.plugged(one).unit.configured
  setByHand(one, { address: await addressOf('odd-01'), telnet: true })
  await expect.poll(async () => answers(await row('odd-01'))).toBe(true)
  const seen = await row('odd-01')
  expect(seen?.isByHand).toBe(true)
  expect(Object.fromEntries(seen?.checks.map(({ code, verdict }) => [code, verdict]) ?? [])).toEqual({
    arp: 'good',
    ping: 'good',
    service: 'good',
    http: 'good',
    ssh: 'good',
    telnet: 'remark',
  })
  // Nothing but what hands have set is another.
  expect(bench.lab.plugged(one).unit.configured.networks).toEqual(writes.networks)

  // What the wire has shown is proven; all else is ticked by a person.
  const [line] = sheetOf(await view()).filter(({ name }) => name === 'odd-01')
  const proven = line?.outcomes.filter(({ outcome }) => outcome.kind === 'proven').map(({ id }) => id)
  expect(proven?.toSorted()).toEqual(['management.address', 'services.https-only', 'services.ssh'])
  expect(line?.state).toBe('answers, set by hand')
  expect(line?.byHand.length).toBeGreaterThan(10)

  // Another box at its address is not taken for it.
  setByHand(one, { address: await addressOf('odd-02') })
  setByHand(two, { address: '10.44.8.77' })
  for (const mac of [one, two]) await expect.poll(() => bench.lab.plugged(mac).unit.phase).toBe('up')
  await bench.order(['odd-02'])
  expect(heldAt((await bench.settled()).rows.get('odd-02'), 'reach')?.code).toBe('address-of-another')

  // Who was seen as asked and is to be something else now, is said to be changed.
  expect(isChanged(await row('odd-01'))).toBe(false)
  const { units } = await view()
  const [listed] = units.filter(({ id }) => id === 'odd-01')
  if (!listed) throw new Error('no unit')
  await changeKit(bench.store, bench.jobId, {
    add: [],
    change: [{ ...listed, name: 'new-01' }],
    remove: [],
    order: undefined,
  })
  expect(isChanged(await row('odd-01'))).toBe(true)
})

type Puts = Extract<Act['does'], { kind: 'puts' }>['value']
/** What somebody has shown on a Pellworth P6: how one signs in, and where its name is put in. */
const signInShown = (): ShownRecord => {
  const common = { for: 'itself', after: 0 } as const
  const field = (number: number, path: string, name: string, value: Puts): Act => ({
    ...{ ...common, appeared: [], number, path, label: name },
    at: { use: 'type', by: [{ name }] },
    does: { kind: 'puts', value, stood: false, offered: [] },
  })
  const press = (number: number, path: string, text: string): Act => ({
    ...{ ...common, appeared: [], number, path, label: text },
    at: { use: 'press', by: [{ text }] },
    does: { kind: 'press', role: 'saves', row: undefined },
  })
  const acts = [
    field(1, '/', 'who', { kind: 'factory', part: 'user' }),
    field(2, '/', 'word', { kind: 'factory', part: 'password' }),
    press(3, '/', 'Enter'),
    field(4, '/box', 'title', { kind: 'setting', id: 'unit.name', of: '', how: {} }),
    press(5, '/box', 'Save'),
  ]
  return { ...nothingShown, acts }
}

it(
  'is signed in to as somebody has shown on another of its model, and held where the login on its label still ' +
    'opens it',
  async () => {
    bench = await openBench({
      shelf: 'Pellworth P6',
      change: (job) => {
        undescribed(job)
        job.units = job.units.slice(0, 2)
        job.brief.admin = { ...job.brief.admin, user: 'owner', passwords: 'one-per-job' }
      },
    })
    const { store, jobId } = bench
    const [one = '', two = ''] = bench.job.units.map(({ mac }) => mac)
    await keepBackup(store, jobId, two, 'showing', keptRecord(signInShown()), new Date())
    await sealSecret(store, jobId, secretName.labelPassword(one), 'owner', new Date())
    const { unit } = bench.lab.plugged(one)
    const set = async (passwords: ReadonlyMap<string, string>): Promise<void> => {
      const wired = {
        ...unit.configured.wired,
        method: 'static',
        address: await addressOf('odd-01'),
        prefix: 24,
      } as const
      unit.configure({ ...unit.configured, country: 'NZ', httpsOnly: true, wired }, passwords)
      unit.apply()
      await expect.poll(() => unit.phase).toBe('applying')
      await expect.poll(() => unit.phase).toBe('up')
    }
    await expect.poll(() => unit.serviceIsUp).toBe(true)
    await set(new Map())
    bench.startRunner()
    await bench.order(['odd-01'])
    const verdicts = async () =>
      Object.fromEntries((await row('odd-01'))?.checks.map(({ code, verdict }) => [code, verdict]) ?? [])
    expect(heldAt((await bench.settled()).rows.get('odd-01'), 'proof')?.code).toBe('check-failed')
    expect(await verdicts()).toMatchObject({ 'factory-login': 'bad', 'new-login': 'bad' })

    await set(new Map([['owner', (await openSecret(store, jobId, secretName.jobPassword)) ?? '']]))
    await bench.order(['odd-01'])
    expect(answers((await bench.settled()).rows.get('odd-01')), JSON.stringify(await row('odd-01'))).toBe(true)
    expect(await verdicts()).toMatchObject({ 'factory-login': 'good', 'new-login': 'good' })
  },
)
