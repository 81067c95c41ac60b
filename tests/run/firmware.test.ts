/** Units that are given another firmware before anything is set on them. */

import { createHash } from 'node:crypto'
import { Readable } from 'node:stream'
import { afterEach, expect } from 'vitest'
import type { JobDocument } from '../../src/core/job/job-document'
import { answers } from '../../src/core/muster/roll'
import { tarnhelmT2 } from '../../src/lab/device/sheet'
import { keepFile } from '../../src/store/files'
import { heldWords } from '../../src/words/en/held'
import { sentence } from '../../src/words/en/sentence'
import { type Bench, openBench } from '../support/bench'
import { shortIt as it, longIt } from '../support/long'

let bench: Bench
afterEach(() => bench.close())

const mac = {
  rack: '02:7a:c1:10:6a:01',
  hall: '02:4f:52:10:6a:01',
  stand: '02:4f:52:10:6a:02',
  t2: '02:7a:02:10:6a:01',
}
const dhcp = { prefix: 24, first: '10.44.8.100', last: '10.44.8.199', gateway: '10.44.8.1', dns: '10.44.8.1' }

/** An image as the lab has it, some parts long. */
function image(model: string, version: string, more = ''): Buffer {
  const head = Buffer.from(`stand-in image\nmodel: ${model}\nversion: ${version}\n${more}`)
  return Buffer.concat([head, Buffer.alloc(700_000, version)])
}
const digest = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex')
const c1 = image('Tarnhelm C1', '7.3.0', 'telnet: on\n')
const o40 = image('Ostrel O-40', '3.5.0')

const named = (model: string, version: string, bytes: Buffer) => ({
  model,
  version,
  file: `${model} ${version}.bin`,
  bytes: bytes.length,
  sha256: digest(bytes),
})
const ours = [named('Tarnhelm C1', '7.3.0', c1), named('Ostrel O-40', '3.5.0', o40)]

const withImages =
  (images: JobDocument['brief']['aftercare']['images'], units: readonly (keyof typeof mac)[]) =>
  (job: JobDocument): void => {
    const [unit] = job.units
    if (!unit) return
    const models = { rack: 'Tarnhelm C1', hall: 'Ostrel O-40', stand: 'Ostrel O-40', t2: 'Tarnhelm T2' }
    job.units = units.map((id, at) => ({
      ...unit,
      id,
      name: id,
      model: models[id],
      mac: mac[id],
      serial: '',
      port: at + 1,
      locks: {},
    }))
    job.brief = { ...job.brief, aftercare: { ...job.brief.aftercare, images } }
  }

/** Long enough to be seen on a busy machine: its controller is asked now and then what it does. */
const variants = new Map([['Tarnhelm T2', { ...tarnhelmT2, timing: { ...tarnhelmT2.timing, image: 600 } }]])

async function open(
  change: (job: JobDocument) => void,
  kept: readonly Buffer[] = [c1, o40],
  pace = 200,
): Promise<void> {
  bench = await openBench({ change, pace, lab: { dhcp, variants } })
  for (const bytes of kept) await keepFile(bench.store, Readable.from([bytes]), bytes.length, new Date())
  bench.startRunner()
  await bench.order()
}
const row = async (unit: string) => (await bench.roll()).rows.get(unit)
const firmwareOf = (unit: keyof typeof mac): string => bench.lab.plugged(mac[unit]).unit.firmware

it('are given it after the backup, before any setting, one at a time on one power budget, and proven', async () => {
  await open(withImages(ours, ['rack', 'hall', 'stand', 't2']))
  await bench.settled()
  for (const unit of ['rack', 'hall', 'stand', 't2'])
    expect(answers(await row(unit)), `${unit} ${JSON.stringify(await row(unit))}`).toBe(true)
  expect([firmwareOf('rack'), firmwareOf('hall'), firmwareOf('stand')]).toEqual(['7.3.0', '3.5.0', '3.5.0'])
  const events = (await bench.events()).map(({ event }) => event)
  const places = (unit: string, step: string, kind: string): number[] =>
    events.flatMap((event, at) =>
      event.kind === 'step' && event.unit === unit && event.step === step && event.state.kind === kind ? [at] : [],
    )
  for (const unit of ['rack', 'hall', 'stand']) {
    // A unit that was silent for a while goes through its steps once more: the first time of each counts.
    const [kept = -1, sent = -1, installed = -1, country = -1] = [
      places(unit, 'backup', 'done')[0],
      places(unit, 'firmware', 'waiting')[0],
      places(unit, 'firmware', 'done')[0],
      places(unit, 'country', 'working')[0],
    ]
    expect([kept, sent, installed, country]).toEqual([kept, sent, installed, country].toSorted((a, b) => a - b))
    expect(kept).toBeGreaterThan(-1)
  }
  // Two that are fed by one switch are never without their old firmware, and without the new one, at once.
  const turn = (unit: string) => [places(unit, 'firmware', 'waiting')[0] ?? 0, places(unit, 'firmware', 'done')[0] ?? 0]
  const [[, firstEnds = 0] = [], [secondBegins = 0] = []] = [turn('hall'), turn('stand')].toSorted(
    ([a = 0], [b = 0]) => a - b,
  )
  expect(secondBegins).toBeGreaterThan(firstEnds)
  // What the newer one turned on by default is read, and off again.
  expect(bench.lab.plugged(mac.rack).unit.effective.telnet).toBe(false)
  const outcome = (await row('rack'))?.outcomes.find(({ id }) => id === 'unit.firmware')?.outcome
  expect(outcome).toMatchObject({ kind: 'proven', value: '7.3.0' })
  // What it manages loads the same from it.
  expect((await row('t2'))?.log.map(sentence)).toContain('rack: loading its image, leave it powered')
  expect(bench.lab.air.everOpen).toEqual([])

  await bench.order()
  await bench.settled()
  expect((await row('rack'))?.steps.firmware).toMatchObject({
    ...{ kind: 'done', note: { code: 'firmware-already', params: { version: '7.3.0' } } },
  })
})

it('whose power is cut while they write it run the old one, and are given it again', async () => {
  await open(withImages(ours, ['hall']), [o40], 100)
  // It works on nothing else before it is set.
  await expect.poll(() => bench.lab.plugged(mac.hall).unit.phase, { interval: 2 }).toBe('applying')
  bench.lab.unplug(mac.hall)
  expect(firmwareOf('hall')).toBe('3.4.1')
  bench.lab.plugIn(mac.hall)
  await bench.settled()
  expect(answers(await row('hall')), JSON.stringify(await row('hall'))).toBe(true)
  expect(firmwareOf('hall')).toBe('3.5.0')
  expect((await row('hall'))?.log.map(sentence)).toContain('runs firmware 3.5.0 now, 3.4.1 before')
})

longIt('whose runner ends while they write it are gone on with by the next one, and are given it once', async () => {
  bench = await openBench({ change: withImages(ours, ['hall']), pace: 100, lab: { dhcp } })
  await keepFile(bench.store, Readable.from([o40]), o40.length, new Date())
  const end = bench.startRunner()
  await bench.order()
  await expect.poll(() => bench.lab.plugged(mac.hall).unit.phase, { interval: 2 }).toBe('applying')
  await end()
  bench.startRunner()
  await bench.settled()
  expect(answers(await row('hall')), JSON.stringify(await row('hall'))).toBe(true)
  expect(firmwareOf('hall')).toBe('3.5.0')
  const sent = (await bench.events()).filter(
    ({ event }) => event.kind === 'step' && event.step === 'firmware' && event.state.kind === 'waiting',
  )
  expect(sent).toHaveLength(1)
})

it('that do not take it, or do not run what it should bring, say so, and nothing else is changed', async () => {
  const lying = image('Ostrel O-40', '3.4.9')
  const images = [named('Tarnhelm C1', '7.3.0', o40), named('Ostrel O-40', '3.5.0', lying)]
  await open(withImages(images, ['rack', 'hall']), [o40, lying])
  await bench.settled()
  const why = async (unit: string) => {
    const state = (await row(unit))?.steps.firmware
    return state?.kind === 'held' && heldWords(state).why
  }
  expect(await why('rack')).toBe('It does not take the image Tarnhelm C1 7.3.0.bin: it is for Ostrel O-40.')
  expect(await why('hall')).toBe('It was given firmware 3.5.0 and runs 3.4.9.')
  expect([firmwareOf('rack'), bench.lab.plugged(mac.rack).unit.effective.country]).toEqual(['7.2.0', 'US'])
})

it('whose image is not kept any more say so', async () => {
  await open(withImages([named('Ostrel O-40', '3.5.0', o40)], ['hall']), [])
  await bench.settled()
  const state = (await row('hall'))?.steps.firmware
  expect(state?.kind === 'held' && heldWords(state)).toMatchObject({
    why: 'The image Ostrel O-40 3.5.0.bin for Ostrel O-40 is not here any more, or is damaged.',
  })
  expect(firmwareOf('hall')).toBe('3.4.1')
})
