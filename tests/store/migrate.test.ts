/** A database of the release before is brought up to date, and keeps what it held. */

import { createHash } from 'node:crypto'
import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { changesSince } from '../../src/core/config/asked'
import { asTold } from '../../src/core/message/message'
import { allUnits, theseUnits } from '../../src/core/muster/selection'
import { replan } from '../../src/jobs/replan'
import { allEvents } from '../../src/store/events'
import { readFileParts } from '../../src/store/files'
import { listUnits } from '../../src/store/kit'
import { migrateStore, standingOfTables } from '../../src/store/migrate'
import { openStore, type Store } from '../../src/store/open'
import { claimOrder } from '../../src/store/orders'
import { loadPlans, planIsCurrent } from '../../src/store/plans'
import { rollOf } from '../../src/store/rolls'
import { findDrawing } from '../../src/store/sites'
import { demoJob, freshStore, heldAt } from '../support/bench'

const migrations = join(import.meta.dirname, '../../src/store/migrations')
let folder: string
let fresh: Awaited<ReturnType<typeof freshStore>>
let store: Store
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'air-muster-migrate-'))
  fresh = await freshStore()
  const [tables] = (await fresh.store.db.execute(sql`show tables`)) as unknown as [Record<string, string>[]]
  await fresh.store.db.transaction(async (transaction) => {
    await transaction.execute(sql`set foreign_key_checks = 0`)
    for (const table of tables) await transaction.execute(sql.raw(`drop table \`${Object.values(table)[0]}\``))
    await transaction.execute(sql`set foreign_key_checks = 1`)
  })
  store = openStore({ url: fresh.url, vaultKeyFile: fresh.vaultKeyFile })
})
afterEach(async () => {
  await store.close()
  await fresh.drop()
  rmSync(folder, { recursive: true, force: true })
})

/** The first so many migrations, as a release had them. */
function release(count: number): string {
  mkdirSync(join(folder, 'meta'))
  const journal = JSON.parse(readFileSync(join(migrations, 'meta/_journal.json'), 'utf8')) as {
    entries: { tag: string }[]
  }
  const entries = journal.entries.slice(0, count)
  for (const { tag } of entries) copyFileSync(join(migrations, `${tag}.sql`), join(folder, `${tag}.sql`))
  writeFileSync(join(folder, 'meta/_journal.json'), JSON.stringify({ ...journal, entries }))
  return folder
}

it('is brought up to date once, however many begin at one moment, and says what it is of', async () => {
  await migrateStore(store, release(3))
  expect(await standingOfTables(store)).toBe('older')
  const others = [1, 2, 3].map(() => openStore({ url: fresh.url, vaultKeyFile: fresh.vaultKeyFile }))
  await Promise.all([store, ...others].map((each) => migrateStore(each)))
  expect(await standingOfTables(store)).toBe('as-they-should-be')
  expect(await standingOfTables(store, folder)).toBe('newer')
  await Promise.all(others.map((each) => each.close()))
})

it('reads what older programs told: reasons and checks in words, and requests from before settings', async () => {
  await migrateStore(store, release(3))
  const { db } = store
  const job = demoJob()
  await db.execute(
    sql`insert into jobs (id, slug, name, brief, created_at, last_seq) values (1, 'port-ellery', 'Port Ellery',
      ${JSON.stringify(job.brief)}, '2026-11-01', 4)`,
  )
  const [unit] = job.units
  if (!unit) throw new Error('no unit')
  await db.execute(
    sql`insert into units (job_id, id, position, name, place, model, mac, serial, port) values (1, ${unit.id}, 0,
      ${unit.name}, ${unit.location}, ${unit.model}, ${unit.mac}, ${unit.serial}, ${unit.port})`,
  )
  const held = { is: 'held', why: 'It was away.', hands: ['Plug it in.'], resumesWhen: 'it-answers' }
  const events = [
    { kind: 'step', unit: unit.id, step: 'reach', state: held },
    {
      kind: 'check',
      unit: unit.id,
      check: { what: 'ARP at 10.44.8.20', expected: unit.mac, observed: 'no answer', verdict: 'bad', at: 1 },
    },
    { kind: 'proven', unit: unit.id, asked: formerAsked(unit.mac) },
    { kind: 'laptop', laptop: { interfaceName: 'lab0', addresses: [], lanes: 0, pace: 1 } },
  ]
  for (const [index, event] of events.entries())
    await db.execute(
      sql`insert into events (job_id, seq, at, event) values (1, ${index + 1}, '2026-11-01', ${JSON.stringify(event)})`,
    )

  await migrateStore(store, migrations)
  const row = (await rollOf(store, 1)).rows.get(unit.id)
  expect(heldAt(row, 'reach')).toMatchObject({ code: 'as-told', why: 'It was away.', resumesWhen: 'it-answers' })
  expect(row?.checks).toMatchObject([{ code: 'arp', observed: asTold('no answer') }])
  expect(row?.proven).toMatchObject({
    networksBy: 'name',
    config: {
      unit: { 'management.address': '10.44.8.20' },
      networks: { 'Ellery Crew': { 'network.vlan': 46 } },
      radios: { '5': { 'radio.channel': 36 } },
    },
  })
  // The same network by its name is the same; what nobody asked then is what differs now.
  const asked = row?.proven
  if (!asked) throw new Error('nothing is kept')
  const now = { ...asked, config: { ...asked.config, networks: { crew: asked.config.networks['Ellery Crew'] ?? {} } } }
  expect(changesSince(asked, now)).toEqual([])
  // The column had another name then.
  expect(await listUnits(store, 1)).toMatchObject([{ id: unit.id, location: unit.location }])
})

/** As a release before the table of settings kept it. */
const formerAsked = (mac: string) => ({
  mac,
  password: 'admin/password of 2026-11-01',
  config: {
    country: 'NZ',
    clock: { timeZone: 'Pacific/Auckland', ntpServers: ['10.44.8.1'] },
    name: 'hall-01',
    management: { method: 'static', address: '10.44.8.20', prefix: 24, gateway: '10.44.8.1', dnsServers: [] },
    networks: [
      {
        ssid: 'Ellery Crew',
        enabled: true,
        hidden: false,
        security: { mode: 'wpa2-personal', passphrase: 'network/crew/passphrase of 2026-11-01' },
        vlan: 46,
        isolation: false,
        bands: ['2.4', '5'],
      },
    ],
    radios: [{ band: '5', enabled: true, channel: 36, width: 40, powerDbm: 17 }],
    admin: { user: 'setup' },
    services: { lights: true },
  },
})

/** As the release before kept them: states, checks, outcomes and lines of the log as words. */
const formerEvents = (unit: string, mac: string) => [
  { kind: 'step', unit, step: 'reach', state: { kind: 'working', doing: 'looking for it' } },
  { kind: 'step', unit, step: 'reach', state: { kind: 'waiting', until: 5, waitingFor: 'starting up' } },
  { kind: 'step', unit, step: 'reach', state: { kind: 'done', note: 'answers at 10.44.8.20' } },
  {
    ...{ kind: 'step', unit, step: 'country' },
    state: { kind: 'held', code: 'setting-refused', params: { said: 'no such country' } },
  },
  {
    ...{ kind: 'step', unit, step: 'return' },
    state: { kind: 'held', code: 'did-not-return', params: { address: '10.44.8.20', light: 'red means a fault' } },
  },
  { kind: 'check', unit, check: { code: 'arp', expected: mac, observed: 'no answer', verdict: 'bad', at: 1 } },
  {
    ...{ kind: 'outcomes', unit },
    outcomes: [
      {
        ...{ id: 'unit.name', of: '', name: '', asked: 'hall-01', mark: 'hall-01' },
        outcome: { kind: 'by-hand', why: 'It takes no name.', hands: 'Set Name to hall-01.' },
      },
    ],
  },
  { kind: 'log', unit, text: 'answers at 10.44.8.20' },
]

it('has its rows upgraded in batches, goes on where it was interrupted, and says the same as before', async () => {
  await migrateStore(store, release(10))
  const { db } = store
  const job = demoJob()
  await db.execute(
    sql`insert into jobs (id, slug, name, brief, created_at, last_seq) values (1, 'port-ellery', 'Port Ellery',
      ${JSON.stringify(job.brief)}, '2026-11-01', 1600)`,
  )
  await db.execute(
    sql`insert into plannings (job_id, faults, cost, at, revision) values (1,
      '[{"code":"no-legal-channel","unit":"hall-01","sentence":"It has no channel."}]', 0, '2026-11-01', 1)`,
  )
  const events = Array.from({ length: 200 }, () => formerEvents('hall-01', '02:4f:52:00:00:01')).flat()
  const rows = events.map((event, at) => sql`(1, ${at + 1}, '2026-11-01', ${JSON.stringify(event)})`)
  await db.execute(sql`insert into events (job_id, seq, at, event) values ${sql.join(rows, sql`, `)}`)

  // Whoever begins is ended once a batch is done; what it has done stands.
  const first = openStore({ url: fresh.url, vaultKeyFile: fresh.vaultKeyFile })
  const begun = migrateStore(first, migrations).catch(() => 'ended')
  await expect
    .poll(
      () =>
        db.execute(sql`select seq from row_upgrades where seq > 0`).then(
          ([found]) => found,
          () => [],
        ),
      {
        interval: 1,
      },
    )
    .not.toEqual([])
  await first.close()
  await begun
  expect(['older', 'as-they-should-be']).toContain(await standingOfTables(store))

  await migrateStore(store, migrations)
  expect(await standingOfTables(store)).toBe('as-they-should-be')
  const now = await allEvents(store, 1)
  expect(now).toHaveLength(1600)
  expect(now.slice(-8).map(({ event }) => event)).toEqual(now.slice(0, 8).map(({ event }) => event))
  const row = (await rollOf(store, 1)).rows.get('hall-01')
  expect(row?.steps).toMatchObject({
    reach: { kind: 'done', note: asTold('answers at 10.44.8.20') },
    country: { kind: 'held', code: 'setting-refused', params: { said: asTold('no such country') } },
    return: { kind: 'held', params: { lights: [['red', 'a fault']] } },
  })
  expect(row?.checks).toMatchObject([{ code: 'arp', expected: asTold('02:4f:52:00:00:01') }])
  expect(row?.outcomes).toMatchObject([{ outcome: { why: asTold('It takes no name.') } }])
  expect(row?.log.at(-1)).toMatchObject(asTold('answers at 10.44.8.20'))
  expect((await loadPlans(store, 1)).faults).toEqual([{ unit: 'hall-01', ...asTold('It has no channel.') }])
})

it('keeps drawings, gives orders their new form, and plans anew', async () => {
  await migrateStore(store, release(1))
  const { db } = store
  const drawing = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')
  await db.execute(
    sql`insert into jobs (id, slug, name, brief, created_at) values (1, 'port-ellery', 'Port Ellery',
      ${JSON.stringify(demoJob().brief)}, '2026-11-01')`,
  )
  for (const floor of ['hall', 'yard'])
    await db.execute(sql`insert into floor_drawings values (1, ${floor}, 'image/svg+xml', ${drawing}, '2026-11-01')`)
  for (const [units, status] of [
    ['[]', 'open'],
    ['["hall-01"]', 'open'],
    ['[]', 'done'],
  ])
    await db.execute(
      sql`insert into orders (job_id, kind, units, status, created_at) values (1, 'muster', ${units}, ${status},
        '2026-11-01')`,
    )
  await db.execute(sql`insert into orders (job_id, kind, units, created_at) values (1, 'sweep', '[]', '2026-11-01')`)

  await migrateStore(store, migrations)
  const hash = createHash('sha256').update(drawing).digest('hex')
  expect([await findDrawing(store, 1, 'hall'), await findDrawing(store, 1, 'yard')]).toEqual([
    { type: 'image/svg+xml', file: hash },
    { type: 'image/svg+xml', file: hash },
  ])
  const parts: Buffer[] = []
  for await (const part of readFileParts(store, hash)) parts.push(part)
  expect(Buffer.concat(parts).equals(drawing)).toBe(true)
  // Of two open musters the newest is left: a job has one.
  expect(await claimOrder(store, 'a', 5)).toMatchObject({ id: 2, units: theseUnits('hall-01') })
  expect(await claimOrder(store, 'a', 5, [2])).toMatchObject({ kind: 'sweep', units: allUnits })
  expect(await planIsCurrent(store, 1)).toBe(false)
  await replan(store, 1)
  expect(await planIsCurrent(store, 1)).toBe(true)
})
