/**
 * Tables. Times are UTC; `version` grows with every change that a person makes, so that a second writer is told.
 */
import { bigint, customType, datetime, double, foreignKey, int, longtext, mysqlEnum, mysqlTable, primaryKey, unique, varchar } from 'drizzle-orm/mysql-core'
import { z } from 'zod'
import { briefSchema } from '../core/brief/brief'
import { locksSchema } from '../core/job/job-document'
import { musterEventSchema } from '../core/muster/events'
import { siteSchema } from '../core/radio/floor'
import { weaknessSchema } from '../core/secrets/weakness'
import { jsonColumn } from './json-column'
import { planFaultsSchema, radioPlansSchema } from './plan-columns'

const blob1024 = customType<{ data: Buffer }>({ dataType: () => 'varbinary(1024)' })
const longBlob = customType<{ data: Buffer }>({ dataType: () => 'longblob' })
const time = (name: string) => datetime(name, { mode: 'date', fsp: 3 })
const unitId = (name: string) => varchar(name, { length: 40 })
const briefColumn = jsonColumn(briefSchema)
const eventColumn = jsonColumn(musterEventSchema)
const unitListColumn = jsonColumn(z.array(z.string()))
const locksColumn = jsonColumn(locksSchema)
const radioPlansColumn = jsonColumn(radioPlansSchema)
const planFaultsColumn = jsonColumn(planFaultsSchema)
const siteColumn = jsonColumn(siteSchema)
const weaknessColumn = jsonColumn(weaknessSchema)

export const jobs = mysqlTable('jobs', {
  id: int('id').autoincrement().primaryKey(),
  slug: varchar('slug', { length: 60 }).notNull().unique(),
  name: varchar('name', { length: 120 }).notNull(),
  brief: briefColumn('brief').notNull(),
  version: int('version').notNull().default(1),
  /** Number of the newest event. */
  lastSeq: int('last_seq').notNull().default(0),
  createdAt: time('created_at').notNull(),
})

const jobId = () =>
  int('job_id')
    .notNull()
    .references(() => jobs.id, { onDelete: 'cascade' })

export const units = mysqlTable(
  'units',
  {
    jobId: jobId(),
    id: unitId('id').notNull(),
    position: int('position').notNull(),
    name: varchar('name', { length: 63 }).notNull(),
    place: varchar('place', { length: 80 }).notNull(),
    model: varchar('model', { length: 80 }).notNull(),
    mac: varchar('mac', { length: 17 }).notNull(),
    serial: varchar('serial', { length: 40 }).notNull(),
    port: int('port'),
    version: int('version').notNull().default(1),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.id] }), unique('one_mac_per_job').on(table.jobId, table.mac), unique('one_name_per_job').on(table.jobId, table.name)],
)

export const unitPlans = mysqlTable(
  'unit_plans',
  {
    jobId: jobId(),
    unitId: unitId('unit_id').notNull(),
    address: varchar('address', { length: 15 }).notNull(),
    radios: radioPlansColumn('radios').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.jobId, table.unitId] }),
    unique('one_address_per_job').on(table.jobId, table.address),
    foreignKey({ name: 'plan_of_unit', columns: [table.jobId, table.unitId], foreignColumns: [units.jobId, units.id] }).onDelete('cascade'),
  ],
)

/** What the user has set by hand. Apart from the plan, so that it outlives one that fails. */
export const unitLocks = mysqlTable(
  'unit_locks',
  { jobId: jobId(), unitId: unitId('unit_id').notNull(), channels: locksColumn('channels').notNull(), address: varchar('address', { length: 15 }) },
  (table) => [
    primaryKey({ columns: [table.jobId, table.unitId] }),
    foreignKey({ name: 'lock_of_unit', columns: [table.jobId, table.unitId], foreignColumns: [units.jobId, units.id] }).onDelete('cascade'),
  ],
)

/** What the newest planning of a job said. */
export const plannings = mysqlTable('plannings', {
  jobId: jobId().primaryKey(),
  faults: planFaultsColumn('faults').notNull(),
  cost: double('cost').notNull(),
  at: time('at').notNull(),
})

/** Floors, places and what was heard: edited and undone as a whole, so kept as one. */
export const sites = mysqlTable('sites', { jobId: jobId().primaryKey(), site: siteColumn('site').notNull(), version: int('version').notNull().default(1) })

export const floorDrawings = mysqlTable(
  'floor_drawings',
  { jobId: jobId(), floorId: unitId('floor_id').notNull(), type: varchar('type', { length: 20 }).notNull(), bytes: longBlob('bytes').notNull(), at: time('at').notNull() },
  (table) => [primaryKey({ columns: [table.jobId, table.floorId] })],
)

/** Kit cards of this installation; one with the name of a card that comes with the program stands in its place. */
export const kitCards = mysqlTable('kit_cards', {
  model: varchar('model', { length: 80 }).primaryKey(),
  yaml: longtext('yaml').notNull(),
  version: int('version').notNull().default(1),
  changedAt: time('changed_at').notNull(),
})

/** Files that were dropped in, by what they are for. */
export const installationFiles = mysqlTable('installation_files', {
  name: varchar('name', { length: 40 }).primaryKey(),
  label: varchar('label', { length: 120 }).notNull(),
  bytes: longBlob('bytes').notNull(),
  at: time('at').notNull(),
})

/** Sealed by the vault; clear text never comes here. */
export const secrets = mysqlTable(
  'secrets',
  {
    jobId: jobId(),
    name: varchar('name', { length: 120 }).notNull(),
    sealed: blob1024('sealed').notNull(),
    changedAt: time('changed_at').notNull(),
    weakness: weaknessColumn('weakness'),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.name] })],
)

/** Admin passwords that were replaced: a unit that was away at the time still has one of them. Sealed as they were. */
export const formerPasswords = mysqlTable('former_passwords', {
  id: bigint('id', { mode: 'number' }).autoincrement().primaryKey(),
  jobId: jobId(),
  name: varchar('name', { length: 120 }).notNull(),
  changedAt: time('changed_at').notNull(),
  sealed: blob1024('sealed').notNull(),
})

/** Configurations in the units' own form, sealed: they may hold passphrases. Of a box, whatever row of the list it has. */
export const backups = mysqlTable(
  'backups',
  {
    jobId: jobId(),
    mac: varchar('mac', { length: 17 }).notNull(),
    copy: mysqlEnum('copy', ['as-found', 'as-left']).notNull(),
    sealed: longBlob('sealed').notNull(),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.mac, table.copy] })],
)

/** Certificates as they were at first sight, SHA-256. */
export const pins = mysqlTable(
  'pins',
  { jobId: jobId(), mac: varchar('mac', { length: 17 }).notNull(), fingerprint: varchar('fingerprint', { length: 95 }).notNull(), at: time('at').notNull() },
  (table) => [primaryKey({ columns: [table.jobId, table.mac] })],
)

export const orders = mysqlTable('orders', {
  id: bigint('id', { mode: 'number' }).autoincrement().primaryKey(),
  jobId: jobId(),
  kind: mysqlEnum('kind', ['sweep', 'muster', 'restore-laptop']).notNull(),
  /** Units that it is for; empty means all on the list. */
  units: unitListColumn('units').notNull(),
  status: mysqlEnum('status', ['open', 'claimed', 'pausing', 'paused', 'done']).notNull().default('open'),
  leaseOwner: varchar('lease_owner', { length: 60 }),
  leaseUntil: time('lease_until'),
  createdAt: time('created_at').notNull(),
})

export const events = mysqlTable('events', { jobId: jobId(), seq: int('seq').notNull(), at: time('at').notNull(), event: eventColumn('event').notNull() }, (table) => [
  primaryKey({ columns: [table.jobId, table.seq] }),
])

export const runners = mysqlTable('runners', {
  id: varchar('id', { length: 60 }).primaryKey(),
  host: varchar('host', { length: 40 }).notNull(),
  seenAt: time('seen_at').notNull(),
  sweptAt: time('swept_at'),
})
