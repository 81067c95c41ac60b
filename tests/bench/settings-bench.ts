/** How fast the table of settings is: compiling and comparing many units, and opening the roll of a long job. */

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { parse } from 'yaml'
import { briefSchema } from '../../src/core/brief/brief'
import type { Asking } from '../../src/core/config/asking'
import { compare } from '../../src/core/config/compare'
import { desiredOf } from '../../src/core/config/compile'
import { expectedOf } from '../../src/core/config/outcomes'
import { asObserved } from '../../src/core/config/unit-config'
import { jobDocumentSchema } from '../../src/core/job/job-document'
import { asTold } from '../../src/core/message/message'
import { makePlan } from '../../src/core/plan/plan'
import { viewJob } from '../../src/jobs/job-view'
import { loadJob } from '../../src/jobs/load-job'
import { makeMissingSecrets } from '../../src/jobs/make-secrets'
import { loadKitCards } from '../../src/store/kit-card-files'
import { migrateStore } from '../../src/store/migrate'
import { openStore } from '../../src/store/open'
import { loadRegulatory } from '../../src/store/regulatory-file'
import { rollOf } from '../../src/store/rolls'

const root = process.env.AIR_MUSTER_ROOT ?? process.cwd()
const print = (text: string): void => {
  process.stdout.write(`${text}\n`)
}
const document = jobDocumentSchema.parse(parse(readFileSync(join(root, 'data/demo/port-ellery.yaml'), 'utf8')))
const card = loadKitCards().get('Ostrel O-40')
const country = loadRegulatory().get('NZ')
if (!card || !country) throw new Error('no card or no rules')

const brief = briefSchema.parse({
  ...document.brief,
  networks: Array.from({ length: 16 }, (_, index) => ({
    ...document.brief.networks[0],
    id: `n${index}`,
    ssid: `Network ${index}`,
    vlan: 100 + index,
  })),
})
const secrets = new Map(brief.networks.map(({ id }) => [`network/${id}/passphrase`, 'eight or more']))
const [first] = document.units
if (!first) throw new Error('no unit')
const units = Array.from({ length: 1000 }, (_, index) => ({ ...first, id: `u-${index}`, name: `u-${index}` }))
const [plan] = makePlan({
  brief,
  units: [first],
  cards: new Map([[first.model, card]]),
  country,
  before: new Map(),
}).plans
if (!plan) throw new Error('no plan')
const today = new Date()

globalThis.gc?.()
const before = process.memoryUsage().rss
const begun = performance.now()
let settings = 0
let differences = 0
for (const unit of units) {
  const asking: Asking<never> = { brief, unit, plan, card, secrets, today }
  const desired = desiredOf(asking)
  differences += compare(desired, asObserved(desired)).length
  settings += expectedOf(asking).length
}
const seconds = (performance.now() - begun) / 1000
const megabytes = (process.memoryUsage().rss - before) / 1024 / 1024
print(
  `1,000 units with 16 networks: ${settings} settings compiled, compared and foretold, ${differences} ` +
    `differ: ${seconds.toFixed(2)} s (wanted: under 1), ${megabytes.toFixed(0)} MB more (wanted: under 200)`,
)

const store = openStore({ url: process.env.AIR_MUSTER_DB ?? '', vaultKeyFile: process.env.AIR_MUSTER_VAULT_FILE ?? '' })
await migrateStore(store, join(root, 'src/store/migrations'))
const jobId = await loadJob(store, document, new Date())
await makeMissingSecrets(store, jobId, document.brief, new Date())
const events = 50_000
for (let from = 1; from <= events; from += 1000) {
  const rows = Array.from({ length: 1000 }, (_, index) => {
    const unit = document.units[(from + index) % document.units.length]?.id
    const event = JSON.stringify({ kind: 'log', unit, told: asTold(`line ${from + index}`) })
    return sql`(${jobId}, ${from + index}, '2026-11-25', ${event})`
  })
  await store.db.execute(sql`insert into events (job_id, seq, at, event) values ${sql.join(rows, sql`, `)}`)
}
await store.db.execute(sql`update jobs set last_seq = ${events} where id = ${jobId}`)
const timed = async (what: string, act: () => Promise<unknown>): Promise<void> => {
  const start = performance.now()
  await act()
  print(`${what}: ${((performance.now() - start) / 1000).toFixed(2)} s`)
}
await timed('roll of a job with 50,000 events, folded for the first time', () => rollOf(store, jobId))
await timed('the same, from its snapshot (wanted: under 1)', () => rollOf(store, jobId))
await timed('the whole view of the job that a page needs (wanted: under 1)', () => viewJob(store, document.slug))
await store.close()
