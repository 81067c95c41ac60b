/** Jobs as files, kit lists, floors, kit cards and radio rules, against a real database. */

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { jobDocumentSchema, jobJsonSchema, readJobDocument, slugOf } from '../../src/core/job/job-document'
import type { Unit } from '../../src/core/kit/unit'
import { makePlan, type PlanInput } from '../../src/core/plan/plan'
import { emptySite, type Floor, plainFloor } from '../../src/core/radio/propagation/floor'
import { exportJob } from '../../src/jobs/export-job'
import { JobExistsError, loadJob } from '../../src/jobs/load-job'
import { planInThread } from '../../src/jobs/plan-in-thread'
import { replan } from '../../src/jobs/replan'
import { openSecretsUnder, sealSecretsUnder } from '../../src/jobs/sealed-secrets'
import { keepFile } from '../../src/store/files'
import { findJob, type Job, StaleVersionError, saveBrief } from '../../src/store/jobs'
import { changeKit, listUnits } from '../../src/store/kit'
import { cardTexts, kitCardsOf, removeCard, saveCard } from '../../src/store/kit-card-files'
import type { Store } from '../../src/store/open'
import { loadPlans, lockAddress, lockChannel } from '../../src/store/plans'
import { openSecrets, sealSecret, weakSecrets } from '../../src/store/secrets'
import { findDrawing, keepDrawing, loadSite, saveSite } from '../../src/store/sites'
import { sentence } from '../../src/words/en/sentence'
import { demoJob, freshStore } from '../support/bench'
import { english } from '../support/english'

const root = join(import.meta.dirname, '../..')
let store: Store
let drop: () => Promise<void>
let job: Job
beforeEach(async () => {
  const fresh = await freshStore()
  store = fresh.store
  drop = fresh.drop
  await loadJob(store, demoJob(), new Date())
  job = (await findJob(store, 'port-ellery')) as Job
})
afterEach(() => drop())

const floor: Floor = {
  id: 'hall',
  name: 'Hall',
  storey: 0,
  heightM: 3,
  environment: 'indoor',
  widthM: 30,
  depthM: 20,
  drawing: null,
  walls: [],
  ...plainFloor,
}
const unit = (part: Partial<Unit>): Unit => ({
  id: 'shop-01',
  name: 'shop-01',
  location: '',
  model: 'Ostrel O-40',
  mac: '02:4f:52:00:00:99',
  serial: '',
  port: null,
  siteSwitch: '',
  sitePort: '',
  ...part,
})

describe('a job as a file', () => {
  it('is refused with a drawing of no floor of its own, or whose content is something else', () => {
    const png = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0]).toString('base64')
    const withFloor = { ...demoJob(), site: { ...emptySite, floors: [floor] } }
    const faults = (drawing: object): (string | number | symbol)[][] =>
      (jobDocumentSchema.safeParse({ ...withFloor, drawings: [drawing] }).error?.issues ?? []).map(({ path }) => path)
    expect(faults({ floor: 'hall', type: 'image/png', data: png })).toEqual([])
    expect(faults({ floor: 'nowhere', type: 'image/png', data: png })).toEqual([['drawings', 0, 'floor']])
    const text = Buffer.from('no picture').toString('base64')
    for (const type of ['image/png', 'image/jpeg', 'image/svg+xml'])
      expect(faults({ floor: 'hall', type, data: text })).toEqual([['drawings', 0, 'data']])
  })

  it('comes back as it was, with locks, floors, drawings and sealed secrets', async () => {
    await saveSite(
      store,
      job.id,
      { ...emptySite, floors: [floor], placements: [{ unit: 'hall-01', floor: 'hall', x: 3, y: 4 }] },
      1,
    )
    const { hash } = await keepFile(
      store,
      Readable.from([Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>')]),
      1000,
      new Date(),
    )
    await keepDrawing(store, job.id, 'hall', { type: 'image/svg+xml', file: hash }, new Date())
    await lockAddress(store, job.id, 'hall-02', '10.44.8.77')
    await replan(store, job.id)
    const document = await exportJob(store, job, 'correct horse battery')
    const secrets = await openSecretsUnder(
      'correct horse battery',
      document.secrets as NonNullable<typeof document.secrets>,
    )
    const text = JSON.stringify(document)
    for (const clear of (await openSecrets(store, job.id)).values()) expect(text).not.toContain(clear)

    const reading = readJobDocument(JSON.parse(text))
    if (!reading.ok) throw new Error(reading.faults.join('\n'))
    await loadJob(store, { ...reading.document, slug: 'twin' }, new Date(), secrets)
    const twin = (await findJob(store, 'twin')) as Job
    expect(twin.brief).toEqual(job.brief)
    expect((await listUnits(store, twin.id)).map(({ version: _version, ...rest }) => rest)).toEqual(
      (await listUnits(store, job.id)).map(({ version: _version, ...rest }) => rest),
    )
    expect((await loadSite(store, twin.id)).site).toEqual((await loadSite(store, job.id)).site)
    // The same picture, kept once.
    expect(await findDrawing(store, twin.id, 'hall')).toEqual({ type: 'image/svg+xml', file: hash })
    expect(await openSecrets(store, twin.id)).toEqual(await openSecrets(store, job.id))
    const { before } = await loadPlans(store, twin.id)
    expect(before.get('hall-02')).toMatchObject({ address: '10.44.8.77', addressLocked: true })
    expect(before.get('hall-03')?.locks).toEqual({ '5': 60 })
  })

  it('leaves secrets out where no passphrase is given, and the taker makes its own', async () => {
    const document = await exportJob(store, job, undefined)
    expect(document.secrets).toBeNull()
    await loadJob(store, { ...document, slug: 'twin' }, new Date())
    const twin = (await findJob(store, 'twin')) as Job
    const [mine, theirs] = [await openSecrets(store, job.id), await openSecrets(store, twin.id)]
    expect([...theirs.keys()].sort()).toEqual([...mine.keys()].sort())
    expect(theirs.get('admin/password')).not.toBe(mine.get('admin/password'))
  })

  it('opens with its own passphrase only, and not at all where a letter was changed', async () => {
    const sealed = await sealSecretsUnder('the right words', new Map([['a', 'b']]))
    expect(await openSecretsUnder('the right words', sealed)).toEqual(new Map([['a', 'b']]))
    expect(await openSecretsUnder('the wrong words', sealed)).toBeUndefined()
    const turned = Buffer.from(sealed.sealed, 'base64')
    turned[0] = (turned[0] ?? 0) ^ 1
    expect(await openSecretsUnder('the right words', { ...sealed, sealed: turned.toString('base64') })).toBeUndefined()
    expect(await openSecretsUnder('the right words', { ...sealed, tag: 'AAAA' })).toBeUndefined()
  })

  it('has the form that is published', () => {
    expect(JSON.parse(readFileSync(join(root, 'docs/job.schema.json'), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(jobJsonSchema())),
    )
  })

  it('that is none is refused with each place and its fault', () => {
    const reading = readJobDocument({ ...demoJob(), format: 'something', units: [{ ...unit({}), mac: 'zz' }] })
    expect(english(reading.ok ? [] : reading.faults)).toEqual([
      'format: this is not a job file: its format is not "air-muster-job"',
      'units.0.mac: "zz" is not a MAC address: it takes six pairs of 0-9 and a-f, such as 02:4f:52:10:6a:2c',
    ])
  })

  it('does not write over a job of the same name', async () => {
    await expect(loadJob(store, demoJob(), new Date())).rejects.toThrow(JobExistsError)
    expect(slugOf('Port Éllery!', new Set(['port-ellery']))).toBe('port-ellery-2')
  })
})

describe('the kit list', () => {
  it('lets two rows trade names and MACs at one stroke', async () => {
    const [a, b, ...others] = await listUnits(store, job.id)
    if (!a || !b) throw new Error('the demo has units')
    await changeKit(store, job.id, {
      add: [],
      remove: [],
      order: undefined,
      change: [
        { ...a, name: b.name, mac: b.mac },
        { ...b, name: a.name, mac: a.mac },
      ],
    })
    expect((await listUnits(store, job.id)).map(({ name, mac }) => [name, mac])).toEqual([
      [b.name, b.mac],
      [a.name, a.mac],
      ...others.map(({ name, mac }) => [name, mac]),
    ])
  })

  it('changes all or nothing: a row that somebody else changed stops the whole', async () => {
    const [a] = await listUnits(store, job.id)
    if (!a) throw new Error('the demo has units')
    const change = {
      add: [unit({})],
      remove: ['booth-01'],
      order: undefined,
      change: [{ ...a, version: a.version + 1, place: 'elsewhere' }],
    }
    await expect(changeKit(store, job.id, change)).rejects.toThrow(StaleVersionError)
    expect((await listUnits(store, job.id)).map((each) => each.id)).toEqual([
      'hall-01',
      'hall-02',
      'hall-03',
      'booth-01',
    ])
  })

  it('keeps the order that it is given', async () => {
    await changeKit(store, job.id, {
      add: [unit({})],
      remove: [],
      change: [],
      order: ['shop-01', 'booth-01', 'hall-01', 'hall-02', 'hall-03'],
    })
    expect((await listUnits(store, job.id)).map((each) => each.id)).toEqual([
      'shop-01',
      'booth-01',
      'hall-01',
      'hall-02',
      'hall-03',
    ])
  })
})

describe('the plan', () => {
  it('keeps a lock although the plan of its unit fails, and says why there is none', async () => {
    await lockChannel(store, job.id, 'hall-01', '2.4', 13)
    const abroad = { ...job.brief, country: 'US' }
    await saveBrief(store, job.id, abroad, job.version)
    const planning = await replan(store, job.id)
    expect(planning?.plans.map((plan) => plan.unit)).not.toContain('hall-01')
    const kept = await loadPlans(store, job.id)
    expect(kept.faults.map(sentence).join()).toContain('Channel 13 at 20 MHz is not legal in US')
    expect(kept.before.get('hall-01')?.locks).toEqual({ '2.4': 13 })
    await saveBrief(store, job.id, job.brief, job.version + 1)
    await replan(store, job.id)
    expect((await loadPlans(store, job.id)).plans.find((plan) => plan.unit === 'hall-01')?.radios[0]?.channel).toBe(13)
  })

  it('says when a locked address cannot be kept', async () => {
    await lockAddress(store, job.id, 'hall-01', '10.44.8.150')
    const planning = await replan(store, job.id)
    expect(planning?.faults.map(sentence)).toEqual([
      "hall-01 is locked to 10.44.8.150, which is in use, a server's, reserved, in the DHCP pool or outside " +
        'the subnet: it would get 10.44.8.20. Lock another address.',
    ])
    expect((await loadPlans(store, job.id)).faults).toMatchObject([
      { code: 'locked-address-not-free', unit: 'hall-01' },
    ])
    await lockAddress(store, job.id, 'hall-01', undefined)
    expect((await replan(store, job.id))?.faults).toEqual([])
  })

  it('follows places on a floor, planned in a thread of its own', async () => {
    await changeKit(store, job.id, {
      change: [],
      remove: [],
      order: undefined,
      add: Array.from({ length: 8 }, (_, index) =>
        unit({ id: `far-0${index}`, name: `far-0${index}`, mac: `02:4f:52:00:01:0${index}` }),
      ),
    })
    const units = await listUnits(store, job.id)
    const channelsAt = async (metresApart: number) => {
      const { version } = await loadSite(store, job.id)
      const placements = units.map(({ id }, index) => ({ unit: id, floor: 'yard', x: index * metresApart, y: 5 }))
      await saveSite(
        store,
        job.id,
        { ...emptySite, floors: [{ ...floor, id: 'yard', widthM: 5000 }], placements },
        version,
      )
      const inputs: PlanInput[] = []
      const planning = await replan(store, job.id, {
        effort: 'thorough',
        planner: (input) => {
          inputs.push(input)
          return planInThread(input)
        },
      })
      // The thread comes to what this one comes to, and it is what is kept.
      const [input] = inputs
      if (!input || !planning) throw new Error('nothing was planned')
      const here = makePlan(input)
      expect(planning.plans).toEqual(here.plans)
      const kept = await loadPlans(store, job.id)
      expect(kept.plans.toSorted((a, b) => a.unit.localeCompare(b.unit))).toEqual(
        here.plans.toSorted((a, b) => a.unit.localeCompare(b.unit)),
      )
      return new Set(planning.plans.map(({ radios }) => radios.find(({ band }) => band === '5')?.channel)).size
    }
    // Who cannot hear each other shares a channel; who stands side by side does not.
    expect(await channelsAt(400)).toBeLessThan(await channelsAt(2))
  })
})

describe('floors', () => {
  it('tell the second writer, and lose nothing', async () => {
    const { version } = await loadSite(store, job.id)
    expect(await saveSite(store, job.id, { ...emptySite, floors: [floor] }, version)).toBe(version + 1)
    await expect(saveSite(store, job.id, emptySite, version)).rejects.toThrow(
      'version-stale {"what":{"code":"what-floors"',
    )
    expect((await loadSite(store, job.id)).site.floors).toHaveLength(1)
  })
})

describe('kit cards of an installation', () => {
  const yaml = readFileSync(join(root, 'data/kit/ostrel-o-40.yaml'), 'utf8')

  it('stand beside those of the program, or replace one of the same name, until they are taken off', async () => {
    expect(await saveCard(store, yaml.replace('model: O-40', 'model: O-41'), 0, new Date())).toMatchObject({ ok: true })
    expect(await saveCard(store, yaml.replace('watts: 13.5', 'watts: 12'), 0, new Date())).toMatchObject({ ok: true })
    const cards = await kitCardsOf(store)
    expect([cards.get('Ostrel O-41')?.power.watts, cards.get('Ostrel O-40')?.power.watts]).toEqual([13.5, 12])
    expect((await cardTexts(store)).filter((text) => text.from === 'installation').map((text) => text.model)).toEqual([
      'Ostrel O-40',
      'Ostrel O-41',
    ])
    await removeCard(store, 'Ostrel O-40')
    expect((await kitCardsOf(store)).get('Ostrel O-40')?.power.watts).toBe(13.5)
  })

  it('are not kept with a fault, and tell the second writer', async () => {
    expect(await saveCard(store, yaml.replace('prefix: 24', 'prefix: 99'), 0, new Date())).toMatchObject({
      ok: false,
      faults: [{ line: 11 }],
    })
    await saveCard(store, yaml, 0, new Date())
    await saveCard(store, yaml, 1, new Date())
    await expect(saveCard(store, yaml, 1, new Date())).rejects.toThrow(StaleVersionError)
  })

  it('go with a job file that uses them', async () => {
    await saveCard(store, yaml.replace('model: O-40', 'model: O-41'), 0, new Date())
    await changeKit(store, job.id, { add: [unit({ model: 'Ostrel O-41' })], remove: [], change: [], order: undefined })
    const document = await exportJob(store, job, undefined)
    expect(document.cards).toHaveLength(1)
    await removeCard(store, 'Ostrel O-41')
    await loadJob(store, { ...document, slug: 'twin' }, new Date())
    expect((await kitCardsOf(store)).has('Ostrel O-41')).toBe(true)
  })
})

it('keeps what is weak about a passphrase beside it in clear, and forgets it with the next', async () => {
  await sealSecret(store, job.id, 'network/crew/passphrase', 'Ellery Crew', new Date(), { kind: 'same-as-name' })
  expect(await weakSecrets(store, job.id)).toEqual(new Map([['network/crew/passphrase', { kind: 'same-as-name' }]]))
  await sealSecret(store, job.id, 'network/crew/passphrase', 'hJ7k-Wm3p-Tz9c-Rq4x', new Date())
  expect((await weakSecrets(store, job.id)).size).toBe(0)
})
