/** Jobs from the command line, against a database of their own. */
import { spawnSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { parse, stringify } from 'yaml'
import { findJob } from '../../src/store/jobs'
import { claimOrder } from '../../src/store/orders'
import { secretTimes } from '../../src/store/secrets'
import { freshStore } from '../support/bench'

const root = join(import.meta.dirname, '../..')
const demo = join(root, 'data/demo/port-ellery.yaml')
let fresh: Awaited<ReturnType<typeof freshStore>>
beforeEach(async () => {
  fresh = await freshStore()
})
afterEach(() => fresh.drop())

function muster(...args: string[]): { status: number | null; out: string; err: string } {
  const env = { ...process.env, AIR_MUSTER_DB: fresh.url, AIR_MUSTER_VAULT_FILE: fresh.vaultKeyFile }
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(root, 'bin/muster.mjs'), ...args], { encoding: 'utf8', cwd: root, env })
  return { status, out: stdout, err: stderr }
}
function changed(change: (job: { units: { mac: string }[]; brief: { country: string; management: { cidr: string } } }) => void): string {
  const job = parse(readFileSync(demo, 'utf8'))
  change(job)
  const file = join(dirname(fresh.vaultKeyFile), 'job.yaml')
  writeFileSync(file, stringify(job))
  return file
}

it('loads a job with a plan for each unit and secrets that nobody typed, and lists it', async () => {
  expect(muster('jobs').out).toBe('There are no jobs yet.\n')
  expect(muster('load', demo)).toEqual({ status: 0, out: 'port-ellery is loaded: 4 units.\n', err: '' })
  const job = await findJob(fresh.store, 'port-ellery')
  expect([...(await secretTimes(fresh.store, job?.id ?? 0)).keys()].sort()).toEqual(['admin/password', 'network/crew/passphrase'])
  expect(muster('jobs').out).toBe('port-ellery  Port Ellery ferry terminal, 0 of 4 answer\n')
  expect(muster('roll', 'port-ellery').out).toContain('0 of 4 answer')
  const sheet = muster('export', 'port-ellery', '--csv').out.split('\r\n')
  expect(sheet[0]).toMatch(/^name,place,model,mac,serial,switch port,address,/)
  expect(sheet).toHaveLength(6 - 1)
  expect(sheet[3]).toContain('hall-03,gate A,Ostrel O-40,02:4f:52:10:6a:2e,OS4-7731-2E,3,10.44.8.22,6,20,11,60,40,17,Ellery Crew,not mustered')
})

it('prints a whole job without its secrets, and loads it again under another name', () => {
  expect(muster('load', demo).status).toBe(0)
  const whole = JSON.parse(muster('export', 'port-ellery', '--job').out)
  expect(whole).toMatchObject({ format: 'air-muster-job', slug: 'port-ellery', secrets: null, units: [{ id: 'hall-01', address: '10.44.8.20' }, {}, { locks: { '5': 60 } }, {}] })
  const copy = join(dirname(fresh.vaultKeyFile), 'copy.json')
  writeFileSync(copy, JSON.stringify({ ...whole, slug: 'copy' }))
  expect(muster('load', copy).out).toBe('copy is loaded: 4 units.\n')
  expect(muster('load', copy)).toMatchObject({ status: 2, err: 'There is a job "copy" already.\n' })
  expect(muster('export', 'port-ellery').err).toContain('Say in which form')
})

it('names file, place and fault of a job that cannot be loaded, and loads nothing of it', async () => {
  const file = changed((job) => {
    job.brief.country = 'Zealand'
    job.brief.management.cidr = '10.44.8.0'
    for (const unit of job.units.slice(1, 2)) unit.mac = '02:4f'
  })
  const { status, err } = muster('load', file)
  expect(status).toBe(2)
  expect(err).toContain(`${file}: brief.country: a country is two capital letters, such as NZ`)
  expect(err).toContain(`${file}: brief.management.cidr: "10.44.8.0" is not a subnet such as 10.44.8.0/24`)
  expect(err).toContain(`${file}: units.1.mac: "02:4f" is not a MAC address`)
  expect(await findJob(fresh.store, 'port-ellery')).toBeUndefined()
})

it('places an order that a runner finds, for all units or for those that are named', async () => {
  muster('load', demo)
  expect(muster('run', 'port-ellery', '--units', 'hall-01', 'hall-02').out).toBe('The muster begins.\n')
  expect(await claimOrder(fresh.store, 'me', 5)).toMatchObject({ kind: 'muster', units: ['hall-01', 'hall-02'] })
  expect(muster('sweep', 'port-ellery').status).toBe(0)
  expect(await claimOrder(fresh.store, 'me', 5)).toMatchObject({ kind: 'sweep', units: [] })
})

it('says which jobs there are when it is asked for another', () => {
  expect(muster('roll', 'nowhere')).toMatchObject({ status: 2, err: 'There is no job "nowhere". There are none yet.\n' })
})
