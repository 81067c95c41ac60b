/**
 * Tables. Times are UTC; `version` grows with every change that a person makes, so that a second writer is told.
 */
import { sql } from 'drizzle-orm'
import {
  bigint,
  customType,
  datetime,
  double,
  foreignKey,
  int,
  longtext,
  mysqlEnum,
  mysqlTable,
  primaryKey,
  unique,
  varchar,
} from 'drizzle-orm/mysql-core'
import { briefSchema } from '../core/brief/brief'
import { locksSchema } from '../core/job/job-document'
import { musterEventSchema } from '../core/muster/events'
import { selectionSchema } from '../core/muster/selection'
import { siteSchema } from '../core/radio/propagation/floor'
import { weaknessSchema } from '../core/secrets/weakness'
import { jsonColumn } from './json-column'
import { planFaultsSchema, radioPlansSchema } from './plan-columns'

/** Up to 64 kB: the longest secret is a private key. */
const sealedBlob = customType<{ data: Buffer }>({ dataType: () => 'blob' })
const longBlob = customType<{ data: Buffer }>({ dataType: () => 'longblob' })
const time = (name: string) => datetime(name, { mode: 'date', fsp: 3 })
const unitId = (name: string) => varchar(name, { length: 40 })
const briefColumn = jsonColumn('jobs.brief', briefSchema)
const eventColumn = jsonColumn('events.event', musterEventSchema)
const selectionColumn = jsonColumn('orders.units', selectionSchema)
const locksColumn = jsonColumn('unit_locks.channels', locksSchema)
const radioPlansColumn = jsonColumn('unit_plans.radios', radioPlansSchema)
const planFaultsColumn = jsonColumn('plannings.faults', planFaultsSchema)
const siteColumn = jsonColumn('sites.site', siteSchema)
const weaknessColumn = jsonColumn('secrets.weakness', weaknessSchema)

export const jobs = mysqlTable('jobs', {
  id: int('id').autoincrement().primaryKey(),
  slug: varchar('slug', { length: 60 }).notNull().unique(),
  name: varchar('name', { length: 120 }).notNull(),
  brief: briefColumn('brief').notNull(),
  version: int('version').notNull().default(1),
  /** Number of the newest event. */
  lastSeq: int('last_seq').notNull().default(0),
  /** Grows with each change of what a plan is made from: brief, kit list, floors, locks, kit cards, radio rules. */
  revision: int('revision').notNull().default(1),
  createdAt: time('created_at').notNull(),
  /** When somebody deleted it: of a deleted job the log alone is kept. */
  deletedAt: time('deleted_at'),
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
    location: varchar('location', { length: 80 }).notNull(),
    model: varchar('model', { length: 80 }).notNull(),
    mac: varchar('mac', { length: 17 }).notNull(),
    serial: varchar('serial', { length: 40 }).notNull(),
    port: int('port'),
    siteSwitch: varchar('site_switch', { length: 40 }).notNull().default(''),
    sitePort: varchar('site_port', { length: 20 }).notNull().default(''),
    version: int('version').notNull().default(1),
  },
  (table) => [
    primaryKey({ columns: [table.jobId, table.id] }),
    unique('one_mac_per_job').on(table.jobId, table.mac),
    unique('one_name_per_job').on(table.jobId, table.name),
  ],
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
    foreignKey({
      name: 'plan_of_unit',
      columns: [table.jobId, table.unitId],
      foreignColumns: [units.jobId, units.id],
    }).onDelete('cascade'),
  ],
)

/** What the user has set by hand. Apart from the plan, so that it outlives one that fails. */
export const unitLocks = mysqlTable(
  'unit_locks',
  {
    jobId: jobId(),
    unitId: unitId('unit_id').notNull(),
    channels: locksColumn('channels').notNull(),
    address: varchar('address', { length: 15 }),
  },
  (table) => [
    primaryKey({ columns: [table.jobId, table.unitId] }),
    foreignKey({
      name: 'lock_of_unit',
      columns: [table.jobId, table.unitId],
      foreignColumns: [units.jobId, units.id],
    }).onDelete('cascade'),
  ],
)

/** What the newest planning of a job said. */
export const plannings = mysqlTable('plannings', {
  jobId: jobId().primaryKey(),
  faults: planFaultsColumn('faults').notNull(),
  cost: double('cost').notNull(),
  at: time('at').notNull(),
  /** Revision of the job that it was made from; another than the job's is outdated. */
  revision: int('revision').notNull().default(0),
})

/** Floors, places and what was heard: edited and undone as a whole, so kept as one. */
export const sites = mysqlTable('sites', {
  jobId: jobId().primaryKey(),
  site: siteColumn('site').notNull(),
  version: int('version').notNull().default(1),
})

/** Files, kept once by what they hold: the name is the SHA-256 of the bytes, hexadecimal. */
export const files = mysqlTable('files', {
  hash: varchar('hash', { length: 64 }).primaryKey(),
  size: int('size').notNull(),
  at: time('at').notNull(),
})

/** Their bytes in parts, so that neither a statement nor the memory ever holds a whole one. */
export const fileParts = mysqlTable(
  'file_parts',
  {
    file: varchar('file', { length: 64 }).notNull(),
    part: int('part').notNull(),
    bytes: longBlob('bytes').notNull(),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.file, table.part] })],
)

export const floorDrawings = mysqlTable(
  'floor_drawings',
  {
    jobId: jobId(),
    floorId: unitId('floor_id').notNull(),
    type: varchar('type', { length: 20 }).notNull(),
    file: varchar('file', { length: 64 })
      .notNull()
      .references(() => files.hash),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.floorId] })],
)

/** Kit cards of this installation; one with the name of a card of the program replaces it. */
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
    sealed: sealedBlob('sealed').notNull(),
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
  sealed: sealedBlob('sealed').notNull(),
})

/**
 * Configurations in the units' own form, sealed: they may hold passphrases. Of a box, whatever row of the list it has.
 */
export const backups = mysqlTable(
  'backups',
  {
    jobId: jobId(),
    mac: varchar('mac', { length: 17 }).notNull(),
    copy: mysqlEnum('copy', ['as-found', 'as-left', 'from-pages', 'page-when-held', 'showing']).notNull(),
    sealed: longBlob('sealed').notNull(),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.mac, table.copy] })],
)

/** Certificates as they were at first sight, SHA-256. */
export const pins = mysqlTable(
  'pins',
  {
    jobId: jobId(),
    mac: varchar('mac', { length: 17 }).notNull(),
    fingerprint: varchar('fingerprint', { length: 95 }).notNull(),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.mac] })],
)

export const orders = mysqlTable(
  'orders',
  {
    id: bigint('id', { mode: 'number' }).autoincrement().primaryKey(),
    jobId: jobId(),
    kind: mysqlEnum('kind', ['sweep', 'muster', 'restore-laptop']).notNull(),
    units: selectionColumn('units').notNull(),
    status: mysqlEnum('status', ['open', 'claimed', 'pausing', 'paused', 'done', 'failed']).notNull().default('open'),
    leaseOwner: varchar('lease_owner', { length: 60 }),
    leaseUntil: time('lease_until'),
    createdAt: time('created_at').notNull(),
    /** How often it was begun and threw. */
    attempts: int('attempts').notNull().default(0),
    /** Nobody claims it before. */
    notBefore: time('not_before'),
    endedAt: time('ended_at'),
    /** Why it failed. */
    reason: varchar('reason', { length: 500 }),
    /** 1 while this is an open muster: a job has one at the most. */
    openMuster: int('open_muster').generatedAlwaysAs(
      sql`(if(kind = 'muster' and status in ('open', 'claimed', 'pausing'), 1, null))`,
      { mode: 'stored' },
    ),
  },
  (table) => [unique('one_open_muster_per_job').on(table.jobId, table.openMuster)],
)

export const events = mysqlTable(
  'events',
  { jobId: jobId(), seq: int('seq').notNull(), at: time('at').notNull(), event: eventColumn('event').notNull() },
  (table) => [primaryKey({ columns: [table.jobId, table.seq] })],
)

/**
 * The roll of a job as it was at an event, so that not all of its history is folded. Made again where it is missing.
 */
export const rolls = mysqlTable('rolls', {
  jobId: jobId().primaryKey(),
  seq: int('seq').notNull(),
  /** Of what shape the roll is: one of another program is not read. */
  form: int('form').notNull(),
  roll: longtext('roll').notNull(),
})

/** How far rows that a former release has kept are brought to the form of today. */
export const rowUpgrades = mysqlTable('row_upgrades', {
  name: varchar('name', { length: 60 }).primaryKey(),
  /** The event up to which all is done. */
  jobId: int('job_id').notNull().default(0),
  seq: int('seq').notNull().default(0),
  state: mysqlEnum('state', ['under-way', 'done']).notNull().default('under-way'),
})

export const runners = mysqlTable('runners', {
  id: varchar('id', { length: 60 }).primaryKey(),
  host: varchar('host', { length: 40 }).notNull(),
  /** Whether what it reaches the wire by answers it. */
  wire: mysqlEnum('wire', ['works', 'away']).notNull().default('works'),
  seenAt: time('seen_at').notNull(),
  sweptAt: time('swept_at'),
})
