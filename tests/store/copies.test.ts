/** Copies of a unit's configuration: got out by whoever asks, and every asking is on record. */
import { afterAll, beforeAll, expect, it } from 'vitest'
import { revealCopy } from '../../src/jobs/copies'
import { jobLog } from '../../src/jobs/delete-job'
import { listUnits } from '../../src/store/kit'
import { keepBackup } from '../../src/store/secrets'
import { freshDemoJob } from '../support/bench'

let fresh: Awaited<ReturnType<typeof freshDemoJob>>
let job: typeof fresh.job
beforeAll(async () => {
  fresh = await freshDemoJob()
  job = fresh.job
})
afterAll(() => fresh.drop())

const somebody = { name: 'somebody' }
const reveals = async () =>
  (await jobLog(fresh.store, job.id)).flatMap((line) =>
    'event' in line && line.event.kind === 'reveal' ? [line.event] : [],
  )

it('is told to be missing before there is one, and nothing is recorded', async () => {
  expect(await revealCopy(fresh.store, job, 'hall-01', 'as-left', somebody)).toMatchObject({ ok: false })
  expect(await revealCopy(fresh.store, job, 'nobody', 'as-left', somebody)).toMatchObject({ ok: false })
  expect(await reveals()).toEqual([])
})

it('comes out as it was kept, named by its unit and its kind, and who asked is recorded', async () => {
  const [unit] = await listUnits(fresh.store, job.id)
  const texts = { 'as-found': '<config>whispered</config>\n', 'as-left': '{"passphrase":"whispered"}' } as const
  for (const [copy, text] of Object.entries(texts))
    await keepBackup(fresh.store, job.id, unit?.mac ?? '', copy as 'as-found', text, new Date())
  const shown = await Promise.all(
    (['as-found', 'as-left'] as const).map((copy) => revealCopy(fresh.store, job, 'hall-01', copy, somebody)),
  )
  expect(shown).toEqual([
    { ok: true, value: { name: 'hall-01-as-found.xml', text: texts['as-found'] } },
    { ok: true, value: { name: 'hall-01-as-left.json', text: texts['as-left'] } },
  ])
  const told = await reveals()
  expect(told.map(({ secret, by }) => [secret, by]).sort()).toEqual([
    ['copy/hall-01/as-found', 'somebody'],
    ['copy/hall-01/as-left', 'somebody'],
  ])
  expect(JSON.stringify(told)).not.toContain('whispered')
})
