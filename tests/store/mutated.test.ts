/**
 * A thousand files with something changed in them: each is taken or refused in words, none hangs, none is half stored.
 */

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, it } from 'vitest'
// @ts-expect-error the scripts are plain JavaScript
import { seeded } from '../../scripts/lib/chaos.mjs'
import { parseJson } from '../../src/core/input/bounded-text'
import { largestJobFile, readJobDocument } from '../../src/core/job/job-document'
import { previewImport } from '../../src/core/kit/import-csv'
import { readKitCard } from '../../src/core/kit/kit-card'
import { readRegulatoryDatabase } from '../../src/core/regulatory/database'
import { exportJob } from '../../src/jobs/export-job'
import { JobExistsError, loadJob } from '../../src/jobs/load-job'
import { StoreError } from '../../src/store/faults'
import { findJob } from '../../src/store/jobs'
import { offerRegulatory, radioRules } from '../../src/store/regulatory-file'
import { sentence } from '../../src/words/en/sentence'
import { demoJob, freshStore } from '../support/bench'
import { cards } from '../support/data'
import { often } from '../support/long'

const root = join(import.meta.dirname, '../..')
const eachKind = often(40, 250)
/** Half of what is seen of 250 files, for as many as are tried. */
const atLeast = (of250: number): number => Math.floor((of250 * eachKind) / 250 / 2)

let fresh: Awaited<ReturnType<typeof freshStore>>
let jobFile: string
beforeAll(async () => {
  fresh = await freshStore()
  await loadJob(fresh.store, demoJob(), new Date())
  const job = await findJob(fresh.store, 'port-ellery')
  if (!job) throw new Error('no job')
  jobFile = JSON.stringify(await exportJob(fresh.store, job, undefined))
})
afterAll(() => fresh.drop())

const scraps = [
  '"',
  "'",
  '{',
  '}',
  '[',
  ']',
  ':',
  ',',
  '\n',
  '\t',
  '\0',
  '\u2028',
  '-',
  '999999999999',
  '-1',
  'null',
  '1e400',
  '\\',
  '&a',
  '*a',
  '!!',
  'ö',
  '\ud800',
  '__proto__',
  '<script>',
  '=1+1',
]

/** A text with one to four places cut, doubled, or replaced by a scrap. */
function mutated(text: string, random: () => number): string {
  let now = text
  for (let change = 0; change < 1 + random() * 4; change += 1) {
    const at = Math.floor(random() * now.length)
    const length = Math.floor(random() ** 3 * 60)
    const scrap = scraps[Math.floor(random() * scraps.length)] ?? ''
    const kind = random()
    if (kind < 0.35) now = now.slice(0, at) + now.slice(at + length)
    else if (kind < 0.5) now = now.slice(0, at) + now.slice(at, at + length) + now.slice(at)
    else now = now.slice(0, at) + scrap + now.slice(at + (kind < 0.8 ? scrap.length : 0))
  }
  return now
}

/** Runs one, and fails where it throws what is no answer, or takes too long. */
async function each(
  random: () => number,
  run: (random: () => number) => Promise<string> | string,
): Promise<Map<string, number>> {
  const answers = new Map<string, number>()
  for (let tried = 0; tried < eachKind; tried += 1) {
    const answer = await run(random)
    answers.set(answer, (answers.get(answer) ?? 0) + 1)
  }
  return answers
}

it('job files', async () => {
  const rows = async () => {
    const [tables] = (await fresh.store.db.execute(
      sql`select (select count(*) from jobs) as jobs, (select count(*) from units) as units, (select count(*) from
        secrets) as secrets, (select count(*) from sites) as sites`,
    )) as unknown as [[Record<string, number>]]
    return tables[0]
  }
  const random = seeded(1)
  let number = 0
  const answers = await each(random, async () => {
    const before = await rows()
    const json = parseJson(mutated(jobFile, random), largestJobFile)
    const reading = json.ok ? readJobDocument(json.value) : undefined
    if (!reading?.ok) {
      expect(await rows()).toEqual(before)
      return 'refused'
    }
    number += 1
    try {
      await loadJob(fresh.store, { ...reading.document, slug: `copy-${number}` }, new Date())
      return 'taken'
    } catch (error) {
      if (!(error instanceof JobExistsError || error instanceof StoreError)) throw error
      expect(await rows(), `job ${number} is half stored: ${error.message}`).toEqual(before)
      return 'not stored'
    }
  })
  expect(answers.get('refused')).toBeGreaterThan(atLeast(100))
  expect(answers.get('not stored') ?? 0).toBe(0)
})

it('radio rules: none is in use before somebody says yes, and a signed one only where it is unchanged', async () => {
  const bytes = readFileSync(join(root, 'data/regulatory.db'))
  const whole = readRegulatoryDatabase(bytes)
  const answers = await each(seeded(2), async (random) => {
    const changed = Buffer.from(bytes)
    for (let change = 0; change < 1 + random() * 6; change += 1)
      changed[Math.floor(random() * changed.length)] = Math.floor(random() * 256)
    const reading = await offerRegulatory(fresh.store, {
      name: 'newer.db',
      bytes: changed,
      signature: undefined,
      countries: ['NZ'],
      at: new Date(),
    })
    if (!reading.ok) return 'refused'
    // What passes says what it would change, or changes nothing that anybody reads.
    if (reading.offer.changed > 0) return 'shown'
    expect([...readRegulatoryDatabase(changed)]).toEqual([...whole])
    return 'the same'
  })
  expect((await radioRules(fresh.store)).from).toBe('program')
  expect(answers.get('refused')).toBeGreaterThan(atLeast(100))
})

it('kit cards', async () => {
  const texts = ['brackwater-b7', 'ostrel-o-40', 'tarnhelm-c1', 'lowbeam-l24'].map((name) =>
    readFileSync(join(root, `data/kit/${name}.yaml`), 'utf8'),
  )
  const answers = await each(seeded(3), (random) => {
    const reading = readKitCard(mutated(texts[Math.floor(random() * texts.length)] ?? '', random))
    if (reading.ok) return 'taken'
    expect(reading.faults.length).toBeGreaterThan(0)
    expect(reading.faults.every(({ line, reason }) => line >= 1 && sentence(reason).length > 0)).toBe(true)
    return 'refused'
  })
  expect(answers.get('refused')).toBeGreaterThan(atLeast(50))
})

it('lists', async () => {
  const units = demoJob().units.map(({ locks: _locks, address: _address, addressLocked: _locked, ...unit }) => unit)
  const list = [
    'name,place,model,mac,serial,port',
    ...Array.from(
      { length: 20 },
      (_, index) =>
        `hall-${index},"departures, ""hall""",Ostrel O-40,02:4f:52:10:00:${String(10 + index)},S-${index},${index + 1}`,
    ),
  ].join('\n')
  const answers = await each(seeded(4), (random) => {
    const { lines, faults } = previewImport(mutated(list, random), units, cards)
    expect(lines.every(({ kind, faults: of }) => (kind === 'fault') === of.length > 0)).toBe(true)
    return faults.length === 0 ? 'read' : 'refused'
  })
  expect(answers.get('read') ?? 0).toBeGreaterThan(atLeast(50))
})
