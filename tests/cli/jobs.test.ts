/** Jobs from the command line, against a database of their own. */

import { spawnSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { parse, stringify } from 'yaml'
import { asTold } from '../../src/core/message/message'
import { allUnits, theseUnits } from '../../src/core/muster/selection'
import { loadJob } from '../../src/jobs/load-job'
import { appendEvents } from '../../src/store/events'
import { findJob } from '../../src/store/jobs'
import { claimOrder, mostAttempts, orderThrew } from '../../src/store/orders'
import { orders } from '../../src/store/schema'
import { secretTimes } from '../../src/store/secrets'
import { demoJob, freshStore } from '../support/bench'
import { muster as command } from '../support/command'

const root = join(import.meta.dirname, '../..')
const demo = join(root, 'data/demo/port-ellery.yaml')
let fresh: Awaited<ReturnType<typeof freshStore>>
beforeEach(async () => {
  fresh = await freshStore()
})
afterEach(() => fresh.drop())

/** As a user runs it: once is enough, the words and codes are the same. */
const asProgram = (env: Record<string, string>, ...words: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(root, 'bin/muster.mjs'), ...words], {
    encoding: 'utf8',
    cwd: root,
    env: { ...process.env, ...env },
  })
  return { status, out: stdout, err: stderr }
}
const ours = () => ({ AIR_MUSTER_DB: fresh.url, AIR_MUSTER_VAULT_FILE: fresh.vaultKeyFile })
const muster = (...words: string[]) => command(ours(), ...words)
function changed(
  change: (job: { units: { mac: string }[]; brief: { country: string; management: { cidr: string } } }) => void,
): string {
  const job = parse(readFileSync(demo, 'utf8'))
  change(job)
  const file = join(dirname(fresh.vaultKeyFile), 'job.yaml')
  writeFileSync(file, stringify(job))
  return file
}

it('loads a job with a plan for each unit and secrets that nobody typed, and lists it', async () => {
  expect((await muster('jobs')).out).toBe('There are no jobs yet.\n')
  expect(asProgram(ours(), 'load', demo)).toEqual({ status: 0, out: 'port-ellery is loaded: 4 units.\n', err: '' })
  const job = await findJob(fresh.store, 'port-ellery')
  expect([...(await secretTimes(fresh.store, job?.id ?? 0)).keys()].sort()).toEqual([
    'admin/password',
    'network/crew/passphrase',
  ])
  expect((await muster('jobs')).out).toBe('port-ellery  Port Ellery ferry terminal, 0 of 4 answer\n')
  expect((await muster('roll', 'port-ellery')).out).toContain('0 of 4 answer')
  const sheet = (await muster('export', 'port-ellery', '--csv')).out.split('\r\n')
  expect(sheet[0]).toMatch(/^name,location,model,mac,serial,site switch,site port,address,/)
  expect(sheet).toHaveLength(6 - 1)
  expect(sheet[3]).toContain(
    'hall-03,gate A,Ostrel O-40,02:4f:52:10:6a:2e,OS4-7731-2E,hall ' +
      'rack,3,10.44.8.22,6,,20,11,11,14,3,,60,,40,17,17,22,5,,Ellery Crew,,not mustered',
  )
})

it('prints a whole job without its secrets, and loads it again under another name', async () => {
  expect((await muster('load', demo)).status).toBe(0)
  const whole = JSON.parse((await muster('export', 'port-ellery', '--job')).out)
  expect(whole).toMatchObject({
    format: 'air-muster-job',
    slug: 'port-ellery',
    secrets: null,
    units: [{ id: 'hall-01', address: '10.44.8.20' }, {}, { locks: { '5': 60 } }, {}],
  })
  const copy = join(dirname(fresh.vaultKeyFile), 'copy.json')
  writeFileSync(copy, JSON.stringify({ ...whole, slug: 'copy' }))
  expect((await muster('load', copy)).out).toBe('copy is loaded: 4 units.\n')
  expect(await muster('load', copy)).toMatchObject({ status: 2, err: 'There is a job "copy" already.\n' })
  expect((await muster('export', 'port-ellery')).err).toContain('Say in which form')
})

it('names file, place and fault of a job that cannot be loaded, and loads nothing of it', async () => {
  const file = changed((job) => {
    job.brief.country = 'Zealand'
    job.brief.management.cidr = '10.44.8.0'
    for (const unit of job.units.slice(1, 2)) unit.mac = '02:4f'
  })
  const { status, err } = await muster('load', file)
  expect(status).toBe(2)
  expect(err).toContain(`${file}: brief.country: a country is two capital letters, such as NZ`)
  expect(err).toContain(`${file}: brief.management.cidr: "10.44.8.0" is not a subnet such as 10.44.8.0/24`)
  expect(err).toContain(`${file}: units.1.mac: "02:4f" is not a MAC address`)
  expect(await findJob(fresh.store, 'port-ellery')).toBeUndefined()
})

it('places an order that a runner finds, for all units or for those that are named', async () => {
  await muster('load', demo)
  expect((await muster('run', 'port-ellery', '--units', 'hall-01', 'hall-02')).out).toBe('The muster begins.\n')
  expect(await claimOrder(fresh.store, 'me', 600)).toMatchObject({
    kind: 'muster',
    units: theseUnits('hall-01', 'hall-02'),
  })
  expect((await muster('sweep', 'port-ellery')).status).toBe(0)
  expect(await claimOrder(fresh.store, 'another', 600)).toMatchObject({ kind: 'sweep', units: allUnits })
})

it('says which jobs there are when it is asked for another', async () => {
  expect(await muster('roll', 'nowhere')).toMatchObject({
    status: 2,
    err: 'There is no job "nowhere". There are none yet.\n',
  })
})

it('takes units by name or id, in whatever letters, and names those that there are where one is none', async () => {
  const renamed = demoJob((job) => Object.assign(job.units[0] ?? {}, { name: 'Gate-Nine' }))
  await loadJob(fresh.store, renamed, new Date())
  expect((await muster('run', 'port-ellery', '--units', 'gate-nine', 'hall-02')).status).toBe(0)
  expect(await claimOrder(fresh.store, 'me', 600)).toMatchObject({ units: theseUnits('hall-01', 'hall-02') })
  expect(await muster('run', 'port-ellery', '--units', 'hall-9')).toEqual({
    status: 2,
    out: '',
    err: 'There is no unit "hall-9" in port-ellery. There are: Gate-Nine, hall-02, hall-03, booth-01.\n',
  })
  // One muster of a job at a time: another press joins it, or is told.
  expect((await muster('run', 'port-ellery', '--units', 'hall-02')).status).toBe(0)
  expect(await muster('run', 'port-ellery')).toMatchObject({
    status: 2,
    err: expect.stringContaining('A muster of this job is under way, for other units.'),
  })
})

it('ends with 3 and says so where it waits and no runner works', async () => {
  await loadJob(fresh.store, demoJob(), new Date())
  expect(await muster('run', 'port-ellery', '--wait')).toEqual({
    status: 3,
    out: '',
    err:
      'No runner works on the wire. The order waits, and is carried out when one runs: see whether npm run ' +
      'demo still runs.\n',
  })
})

it('ends with 1 and the reason where the muster has failed', async () => {
  await loadJob(fresh.store, demoJob(), new Date())
  const job = await findJob(fresh.store, 'port-ellery')
  const waiting = muster('run', 'port-ellery', '--wait')
  for (let attempt = 1; attempt <= mostAttempts; attempt += 1) {
    let order: Awaited<ReturnType<typeof claimOrder>>
    await expect
      .poll(async () => {
        await fresh.store.db.update(orders).set({ notBefore: null })
        order = await claimOrder(fresh.store, 'me', 600)
        return order?.jobId
      })
      .toBe(job?.id)
    await orderThrew(fresh.store, order?.id ?? 0, 'me', 'the switch is on fire')
  }
  expect(await waiting).toEqual({
    status: 1,
    out: '',
    err: 'The muster failed three times and is not begun again by itself: the switch is on fire\n',
  })
})

it.each([
  ['broken YAML', 'slug: [unclosed\nname: x\n', /job\.yaml line \d+ is not YAML: .+\.$/],
  [
    'brackets without end',
    `a: ${'['.repeat(500)}\n`,
    /job\.yaml line 1: brackets are 16 deep at the most, and closed as often as opened\.$/,
  ],
  ['broken JSON', '{"slug": ', /job\.yaml: it is not JSON \(.+\)\.$/],
  ['a doubled MAC', 'doubled', /job\.yaml: units\.1\.mac: hall-02 has the same MAC as hall-01: 02:4f:52:10:6a:2c$/],
])('says in one sentence what is wrong with a file: %s', async (_what, text, sentence) => {
  const file = changed((job) => {
    for (const unit of job.units.slice(1, 2)) unit.mac = job.units[0]?.mac ?? ''
  })
  if (text !== 'doubled') writeFileSync(file, text)
  const { status, err } = await muster('load', file)
  expect(status).toBe(2)
  expect(err.trimEnd().split('\n')).toEqual([expect.stringMatching(sentence)])
})

describe('where the installation does not answer', () => {
  it('says in one sentence that the database is down, and ends with 2', async () => {
    const { status, err } = await command(
      { AIR_MUSTER_DB: 'mariadb://air_muster:x@127.0.0.1:1/air_muster', AIR_MUSTER_VAULT_FILE: fresh.vaultKeyFile },
      'jobs',
    )
    expect({ status, err }).toEqual({
      status: 2,
      err:
        'The database does not answer. See whether npm run demo still runs; it starts a database that died ' +
        'again by itself.\n',
    })
  })

  it.each([
    ['nothing runs', undefined, 'start it with npm run demo, or on a real wire with npm start.'],
    [
      'a start was broken off',
      '{"launcher": 1',
      'running.json cannot be read: the start is still under way, or was broken off.',
    ],
    [
      'what ran has ended',
      JSON.stringify({ launcher: 2 ** 22 + 7, databaseUrl: 'mariadb://x', vaultKeyFile: 'y' }),
      'What ran here has ended without cleaning up (process 4194311): start it anew with npm run demo.',
    ],
  ])('says in one sentence that %s, and ends with 2', async (_what, note, sentence) => {
    const folder = dirname(fresh.vaultKeyFile)
    if (note !== undefined) writeFileSync(join(folder, 'running.json'), note)
    const { status, err } = await command({ AIR_MUSTER_DATA: folder, AIR_MUSTER_DB: '' }, 'jobs')
    expect(status).toBe(2)
    expect(err).toContain(sentence)
    expect(err.trimEnd().split('\n')).toHaveLength(1)
  })

  it('speaks to the installation whose folder it names, whatever else runs, and says where it looked', async () => {
    const folder = dirname(fresh.vaultKeyFile)
    const note = { launcher: process.pid, databaseUrl: fresh.url, vaultKeyFile: fresh.vaultKeyFile }
    writeFileSync(join(folder, 'running.json'), JSON.stringify(note))
    const elsewhere = { AIR_MUSTER_DATA: '/nowhere', AIR_MUSTER_DB: 'mariadb://x:y@127.0.0.1:1/z' }
    expect((await command(elsewhere, 'jobs', '--data', folder)).status).toBe(0)
    expect((await command(elsewhere, '--data', folder, 'jobs')).status).toBe(0)
    expect(await command(elsewhere, 'jobs', '--data', '/nowhere/either')).toMatchObject({
      status: 2,
      err: expect.stringContaining('/nowhere/either'),
    })
  })
})

it('deletes a job by its name, and prints its log afterwards', async () => {
  await loadJob(fresh.store, demoJob(), new Date())
  const job = await findJob(fresh.store, 'port-ellery')
  await appendEvents(fresh.store, job?.id ?? 0, [
    { at: new Date('2026-11-20T10:00:00Z'), event: { kind: 'log', unit: 'hall-01', told: asTold('signed in') } },
  ])
  expect(await muster('delete', 'port-ellery', '--name', 'Port')).toMatchObject({
    status: 2,
    err: 'To delete it, type its name as it stands: Port Ellery ferry terminal\n',
  })
  expect((await muster('delete', 'port-ellery', '--name', 'Port Ellery ferry terminal')).out).toBe(
    `Port Ellery ferry terminal is deleted. Its log is kept: muster log ${job?.id}\n`,
  )
  expect((await muster('jobs')).out).toBe('There are no jobs yet.\n')
  expect((await muster('jobs', '--deleted')).out).toMatch(
    new RegExp(`^${job?.id} {2}Port Ellery ferry terminal, deleted 20`),
  )
  expect((await muster('log', String(job?.id))).out).toBe(
    '2026-11-20T10:00:00.000Z  ' +
      '{"kind":"log","unit":"hall-01","told":{"code":"as-told","params":{"text":"signed in"}}}\n',
  )
})
