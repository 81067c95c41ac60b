/** What is asked is what is set, and what is set is what is proven: whole musters, by what the stand-ins have after. */

import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterEach, describe, it as eachTime, expect } from 'vitest'
import { parse } from 'yaml'
import { securityNames } from '../../src/core/catalogue/security-mode'
import { expectedOfAll } from '../../src/core/config/asked'
import type { SettingOutcome } from '../../src/core/config/outcomes'
import { keyText } from '../../src/core/config/unit-config'
import { outcomesNow } from '../../src/core/handover/as-built'
import { type JobDocument, jobDocumentSchema } from '../../src/core/job/job-document'
import type { CheckCode } from '../../src/core/muster/check'
import { answers } from '../../src/core/muster/roll'
import { seen } from '../../src/core/muster/seen'
import { sheetOf, viewJob } from '../../src/jobs/job-view'
import { ostrelO40 } from '../../src/lab/device/sheet'
import type { StandInSheet } from '../../src/lab/device/stand-in-sheet'
import { allEvents } from '../../src/store/events'
import { findJob, saveBrief } from '../../src/store/jobs'
import { openSecret, openSecrets, sealSecret } from '../../src/store/secrets'
import { remarkWords } from '../../src/words/en/as-built'
import { outcomesCsv } from '../../src/words/en/outcomes-csv'
import { anyBrief } from '../support/any-brief'
import { type Bench, type BenchOptions, heldAt, openBench } from '../support/bench'
import { cardOf } from '../support/data'
import { familiesTable } from '../support/families'
import { shortIt as it, longIt, often, someOf } from '../support/long'
import { plainP6 } from '../support/plain-p6'
import { wholeBrief } from '../support/whole-brief'

let bench: Bench
afterEach(() => bench.close())

const dhcp = {
  prefix: 24,
  first: '10.44.8.100',
  last: '10.44.8.199',
  gateway: '10.44.8.1',
  dns: '10.44.8.1',
}

const prefixes: Readonly<Record<string, string>> = {
  'Ostrel O-20 US': '02:4f:33',
  'Ostrel O-20': '02:4f:32',
  'Brackwater B7': '02:b7:1c',
  'Pellworth P6 plain': '02:50:36',
}

/** A job of one unit of a model. */
const one =
  (model: string, more: (job: JobDocument) => void = () => {}) =>
  (job: JobDocument): void => {
    const [unit] = job.units
    if (!unit) throw new Error('no unit')
    const prefix = prefixes[model] ?? '02:4f:52'
    job.units = [{ ...unit, model, mac: `${prefix}:10:6a:2c` }]
    more(job)
  }

async function mustered(options: BenchOptions): Promise<void> {
  bench = await openBench(options)
  bench.startRunner()
  await bench.order()
  await bench.settled()
}

const row = async () => (await bench.roll()).rows.get('hall-01')
const nobodyIsHeld = async (): Promise<boolean> =>
  [...(await bench.roll()).rows.values()].every((each) =>
    Object.values(each.steps).every((state) => state.kind !== 'held' || state.code === 'set-by-hand'),
  )
async function outcomes(): Promise<SettingOutcome[]> {
  const view = await viewJob(bench.store, bench.job.slug)
  if (!view) throw new Error('the job is gone')
  return outcomesNow(expectedOfAll(view.asking).get('hall-01') ?? [], view.roll.rows.get('hall-01'))
}
const byKind = (all: readonly SettingOutcome[], kind: SettingOutcome['outcome']['kind']): string[] =>
  all.filter(({ outcome }) => outcome.kind === kind).map(({ id, of }) => (of === '' ? id : `${id} ${of}`))
const device = () => {
  const [unit] = bench.lab.units()
  if (!unit) throw new Error('no unit')
  return unit
}
const again = async (): Promise<void> => {
  await bench.order()
  await bench.settled()
}

eachTime(
  'whatever the brief: after a muster every setting has its outcome, and what is proven the unit has',
  async () => {
    await fc.assert(
      fc.asyncProperty(
        anyBrief,
        fc.constantFrom('Ostrel O-40', 'Ostrel O-20', 'Brackwater B7'),
        async (brief, model) => {
          const { security } = cardOf(model).limits
          const carried = { ...brief, networks: brief.networks.filter((each) => security.includes(each.security)) }
          const reserved = {
            '02:4f:52:10:6a:2c': '10.44.8.20',
            '02:4f:32:10:6a:2c': '10.44.8.20',
            '02:b7:1c:10:6a:2c': '10.44.8.20',
          }
          await mustered({
            change: one(model, (job) => (job.brief = carried)),
            lab: { dhcp: { ...dhcp, reserved }, vlans: [44] },
          })
          expect(answers(await row()), JSON.stringify(heldAt(await row(), 'proof'))).toBe(true)
          const all = await outcomes()
          expect(byKind(all, 'open')).toEqual([])
          const proven = new Map(
            all.flatMap((each) =>
              each.outcome.kind === 'proven' ? [[keyText(each), each.outcome.value] as const] : [],
            ),
          )
          expect(proven.get('unit.country')).toBe(device().effective.country)
          expect(proven.get('management.address')).toBe(device().address)
          for (const { id, name, mode, hidden } of device().effective.networks) {
            expect(proven.get(`network.ssid ${id}`)).toBe(name)
            expect(proven.get(`network.security ${id}`)).toBe(securityNames[mode])
            expect(proven.get(`network.hidden ${id}`)).toBe(hidden ? 'on' : 'off')
          }
          expect(bench.lab.air.everOpen.every(({ said }) => said === 'twice')).toBe(true)
          await bench.close()
        },
      ),
      { numRuns: often(1, 10), endOnFailure: true },
    )
    bench = await openBench()
  },
)

describe('every setting', () => {
  it('reaches an O-40 and is proven, or written where the unit never shows it; nothing is left open', async () => {
    await mustered({ change: one('Ostrel O-40', (job) => (job.brief = wholeBrief)) })
    expect(heldAt(await row(), 'proof')).toBeUndefined()
    expect(answers(await row())).toBe(true)
    const all = await outcomes()
    expect(byKind(all, 'open')).toEqual([])
    expect(byKind(all, 'by-hand')).toEqual([])
    expect(byKind(all, 'written')).toEqual(['network.radius-secret office'])
    const { effective } = device()
    const crew = effective.networks.find(({ id }) => id === 'crew')
    expect(crew).toMatchObject({
      name: 'Café, pier/2 = 100%',
      on: true,
      frames: 'optional',
      vlan: 46,
      hidden: true,
      isolated: true,
      // In whole steps of 64 kbit/s.
      clientRate: 2048,
      totalRate: 20_480,
      clientLimit: 40,
      hours: { days: ['mon', 'tue'], from: '07:00', to: '22:30' },
      steer: 'lean-to-5',
      steerAbove: -70,
      letGoBelow: -82,
      roaming: true,
      clients: { rule: 'deny', macs: ['02:00:00:00:00:01'] },
    })
    expect(effective.networks.find(({ id }) => id === 'office')).toMatchObject({
      mode: 'wpa2-enterprise',
      radius: {
        servers: [
          { host: '10.44.8.6', port: 1812 },
          { host: '10.44.8.7', port: 1645 },
        ],
        accounting: [{ host: '10.44.8.6', port: 1813 }],
        secret: await openSecret(bench.store, bench.jobId, 'network/office/radius'),
      },
    })
    expect(effective).toMatchObject({
      location: 'ticket desk',
      environment: 'indoor',
      zoneName: 'Pacific/Auckland',
      timeServers: ['10.44.8.1', '10.44.8.2'],
      nameServers: ['10.44.8.1'],
      gateway: '10.44.8.1',
      httpsOnly: true,
      ssh: false,
      telnet: false,
      lights: false,
      syslog: '10.44.8.5',
      mail: { server: 'mail.example', to: 'site@client.example' },
      restart: { day: 'sun', at: '03:30' },
      snmp: { user: 'watch', privacy: await openSecret(bench.store, bench.jobId, 'snmp/privacy') },
    })
    expect(effective.radios.map(({ generation, lowRates, beacon }) => [generation, lowRates, beacon])).toEqual([
      ['n', 'dropped', 200],
      ['ac', 'dropped', 200],
    ])
  })

  it('that an O-20 cannot take is said to be done by hand, and the rest reaches it, found by DHCP', async () => {
    await mustered({ change: one('Ostrel O-20', (job) => (job.brief = wholeBrief)), lab: { dhcp } })
    expect(answers(await row())).toBe(true)
    expect(device().address).toBe('10.44.8.20')
    const all = await outcomes()
    expect(byKind(all, 'open')).toEqual([])
    expect(byKind(all, 'by-hand')).toEqual([
      'services.mail',
      'services.restart',
      'network.multicast-to-unicast crew',
      'network.rate-shared crew',
      'network.hours crew',
      'network.steering-above crew',
      'network.fast-roaming crew',
      'network.mobility-domain crew',
      'network.mac-list crew',
      'network.radius-accounting office',
      'radio.beacon-interval 2.4',
      'radio.beacon-interval 5',
    ])
    expect(byKind(all, 'written')).toContain('network.passphrase crew')
    expect(device().effective).toMatchObject({ zoneRule: '<+12>-12<+13>,M9.5.0,M4.1.0/3', syslog: '10.44.8.5' })
    expect(device().effective.networks[0]).toMatchObject({ clientRate: 2048, steer: 'lean-to-5' })
    // The words of no outcome hold a secret.
    const passphrase = (await openSecret(bench.store, bench.jobId, 'network/crew/passphrase')) ?? '?'
    expect(JSON.stringify(all)).not.toContain(passphrase)
    expect(JSON.stringify(await allEvents(bench.store, bench.jobId))).not.toContain(passphrase)
  })

  it('of a band that the brief leaves out is off, and proven off', async () => {
    await mustered({
      change: one('Ostrel O-40', ({ brief }) => {
        brief.radio.bands = [{ band: '2.4', width: 20 }]
      }),
    })
    expect(answers(await row())).toBe(true)
    expect(
      device()
        .air()
        .map(({ radio, condition }) => [radio.band, condition]),
    ).toEqual([
      ['2.4', 'on-air'],
      ['5', 'off'],
    ])
    const five = (await outcomes()).filter(({ of }) => of === '5')
    expect(five.map(({ id, outcome }) => [id, outcome.kind])).toEqual([['radio.enabled', 'proven']])
  })
})

longIt('of a whole site: the thirty-three answer, and the sheet tells what became of every setting', async () => {
  const whole = jobDocumentSchema.parse(
    parse(readFileSync(join(import.meta.dirname, '../../data/demo/port-ellery-whole.yaml'), 'utf8')),
  )
  const withoutBrowser = (job: JobDocument): void => {
    Object.assign(job, whole)
    job.units = job.units.map((unit) => (unit.model === plainP6.model ? { ...unit, model: plainP6.twin } : unit))
    job.cards = [plainP6.card]
  }
  await mustered({ change: withoutBrowser, lab: { dhcp, variants: plainP6.variants }, pace: 100 })
  // Thirty-three at once keep a busy machine so busy that one may be called away: whoever is held is called again.
  for (let calls = 1; calls < 4 && !(await nobodyIsHeld()); calls += 1) {
    await bench.order()
    await bench.settled()
  }
  const view = await viewJob(bench.store, bench.job.slug)
  if (!view) throw new Error('the job is gone')
  const rows = sheetOf(view)
  const units = (model: string, all: number) => Array.from({ length: all }, () => model)
  const answering = rows.filter(({ state }) => state === 'answers')
  expect(
    answering.map(({ model }) => model).sort(),
    rows.map((row) => `${row.name} ${row.state} ${remarkWords(row)}`).join('\n'),
  ).toEqual([
    ...units('Brackwater B7', 4),
    ...units('Ostrel O-20', 4),
    ...units('Ostrel O-40', 12),
    ...units(plainP6.twin, 4),
    ...units('Tarnhelm C1', 1),
    ...units('Tarnhelm T2', 5),
    ...units('Tarnhelm T3', 3),
  ])
  for (const row of answering) {
    expect(row.outcomes.length, row.name).toBeGreaterThan(row.model === 'Tarnhelm C1' ? 15 : 60)
    expect(
      row.outcomes.filter(({ outcome }) => outcome.kind === 'open'),
      row.name,
    ).toEqual([])
  }
  for (const row of rows.filter(({ state }) => state !== 'answers')) {
    expect(row.state, row.name).toBe('by hand')
    expect(
      row.outcomes.filter(({ outcome }) => outcome.kind === 'open'),
      row.name,
    ).toEqual([])
    expect(row.remarks, row.name).toMatchObject([{ kind: 'held', held: { code: 'set-by-hand' } }])
  }
  expect(bench.lab.air.everOpen).toEqual([])
  // What a model cannot be told to shut is told, and holds nothing: the one that is spoken to over SSH, and those that
  // are set on their pages or by their controller.
  const leftOpen = (code: CheckCode) =>
    new Set(
      answering
        .filter(({ remarks }) => remarks.some((each) => each.kind === 'not-as-asked' && each.check.code === code))
        .map(({ model }) => model),
    )
  const open = leftOpen('ssh')
  const telnet = leftOpen('telnet')
  expect([...open]).toContain('Brackwater B7')
  expect([...telnet].sort()).toEqual([...open].filter((model) => model !== 'Brackwater B7').sort())
  expect(answering.filter(({ model, remarks }) => model.startsWith('Ostrel') && remarks.length > 0)).toEqual([])
  // The page of families says what this muster has shown. AIR_MUSTER_WRITE_DOCS=1 writes it anew.
  const page = join(import.meta.dirname, '../../docs/families.md')
  const names = (model: string): string => (model === plainP6.twin ? plainP6.model : model)
  const [head = '', tail = ''] = readFileSync(page, 'utf8').split(/begin -->[\s\S]*<!-- made/)
  const written = `${head}begin -->\n${familiesTable(answering, names)}\n<!-- made${tail}`
  if (process.env.AIR_MUSTER_WRITE_DOCS) writeFileSync(page, written)
  expect(readFileSync(page, 'utf8')).toBe(written)
  // A line for each setting of each unit, and no secret in any.
  const csv = outcomesCsv(rows)
  expect(csv.split('\r\n')).toHaveLength(rows.flatMap(({ outcomes: all }) => all).length + 2)
  for (const secret of (await openSecrets(bench.store, bench.jobId)).values()) expect(csv).not.toContain(secret)
})

describe('networks', () => {
  const twin = (job: JobDocument): void => {
    const [crew] = job.brief.networks
    if (!crew) return
    job.brief.networks = [
      { ...crew, bands: ['2.4'], vlan: 46 },
      { ...crew, id: 'crew-5', bands: ['5'], vlan: 47, security: 'wpa3-personal' },
    ]
  }

  it('of one name stand twice, on another band with another security and VLAN, and converge', async () => {
    await mustered({ change: one('Ostrel O-40', twin) })
    expect(answers(await row())).toBe(true)
    expect(device().effective.networks.map(({ id, name, mode, vlan }) => [id, name, mode, vlan])).toEqual([
      ['crew', 'Ellery Crew', 'wpa2-personal', 46],
      ['crew-5', 'Ellery Crew', 'wpa3-personal', 47],
    ])
    await again()
    expect((await row())?.steps.networks).toMatchObject({ note: { code: 'was-right-already' } })
  })

  it('that are open and said so twice go on air, and are proven as what was asked', async () => {
    await mustered({
      change: one('Ostrel O-40', ({ brief }) => {
        for (const network of brief.networks)
          Object.assign(network, { security: 'open', openConfirmation: network.ssid })
      }),
    })
    expect(answers(await row())).toBe(true)
    expect(bench.lab.air.everOpen).toEqual([{ mac: device().identity.mac, ssid: 'Ellery Crew', said: 'twice' }])
    const security = (await outcomes()).find(({ id }) => id === 'network.security')
    expect(security?.outcome).toEqual({ kind: 'proven', value: 'Open' })
  })
})

describe('a unit that ships with an open network on air', () => {
  eachTime.each(
    someOf([
      ['Ostrel O-20', 'Ostrel'],
      [plainP6.twin, 'Pellworth'],
    ]),
  )(
    'is silenced before anything else is changed, and the sheet says for how long it stood: %s',
    async (model, ssid) => {
      await mustered({
        change: one(model, (job) => {
          job.cards = [plainP6.card]
        }),
        ships: 'open',
        lab: { dhcp, variants: plainP6.variants },
      })
      const found = await row()
      expect(answers(found)).toBe(true)
      const { mac } = device().identity
      expect(bench.lab.air.everOpen).toEqual([{ mac, ssid, said: 'by-its-maker' }])
      const told = (await bench.events()).map(({ event }) => event)
      const silenced = told.findIndex((event) => event.kind === 'shipped-open' && event.state === 'silenced')
      const written = told.findIndex((event) => event.kind === 'step' && event.step === 'country')
      expect(silenced).toBeGreaterThan(0)
      expect(written).toBeGreaterThan(silenced)
      const view = await viewJob(bench.store, bench.job.slug)
      const [sheet] = view ? sheetOf(view) : []
      expect(sheet?.shippedOpen).toMatchObject({ ssid })
      expect(sheet?.shippedOpen?.seconds).toBeGreaterThan(5)
      // What an earlier muster has silenced is no news any more.
      await again()
      expect((await row())?.shippedOpen).toEqual(found?.shippedOpen)
    },
  )
})

describe('a passphrase that a unit hides', () => {
  const passphrase = 'network/crew/passphrase'
  const change = (clear: string) => sealSecret(bench.store, bench.jobId, passphrase, clear, new Date())
  const has = () => device().effective.networks[0]?.passphrase

  it('is written again when it is another, and not when it is the same', async () => {
    await mustered({ change: one('Ostrel O-20') })
    expect(answers(await row())).toBe(true)
    expect(has()).toBe(await openSecret(bench.store, bench.jobId, passphrase))
    await again()
    expect((await row())?.steps.networks).toMatchObject({ note: { code: 'was-right-already' } })
    await change('another-phrase-2Wq')
    expect(answers(await row())).toBe(false)
    await again()
    expect((await row())?.steps.networks).toMatchObject({ note: { code: 'one-setting-written' } })
    expect(has()).toBe('another-phrase-2Wq')
    expect((await outcomes()).find(({ id }) => id === 'network.passphrase')?.outcome.kind).toBe('written')
  })
})

describe('SNMP that the brief wants', () => {
  const wanted = (job: JobDocument): void => {
    job.brief = wholeBrief
  }

  it('is asked with the keys, which are proven by it', async () => {
    await mustered({ change: one('Ostrel O-40', wanted) })
    const found = await row()
    expect(answers(found)).toBe(true)
    expect(found?.checks.map(({ code, observed }) => [code, observed.code])).toContainEqual(['snmp', 'seen-told'])
    const of = (id: string) => found?.outcomes.find((each) => each.id === id)?.outcome
    for (const key of ['services.snmp-authentication', 'services.snmp-privacy'])
      expect(of(key)).toEqual({ kind: 'proven', value: 'asked with it' })
  })

  it('holds a unit whose agent tells whoever asks in clear', async () => {
    const sheet = { ...ostrelO40, tellsPublic: true }
    await mustered({ lab: { variants: new Map([['Ostrel O-40', sheet]]) }, change: one('Ostrel O-40', wanted) })
    const found = await row()
    expect(heldAt(found, 'proof')).toMatchObject({ code: 'check-failed' })
    expect(found?.checks).toContainEqual(
      expect.objectContaining({ code: 'snmp-in-clear', expected: seen.shut, observed: seen.told, verdict: 'bad' }),
    )
  })
})

describe('a unit in which each change takes effect at once, and that must be told to save', () => {
  const sheet: StandInSheet = { ...ostrelO40, model: 'O-41', applies: 'at-once', saves: 'on-command', careless: true }
  const card = readFileSync(join(import.meta.dirname, '../../data/kit/ostrel-o-40.yaml'), 'utf8')
    .replace('model: O-40', 'model: O-41')
    .replace('realm: Ostrel O-40', 'realm: Ostrel O-41')
    .replace('"02:4f:52"', '"02:4f:41"')
    .replace('applies: staged, saves: itself', 'applies: at-once, saves: on-command')
  const options: BenchOptions = {
    lab: { variants: new Map([['Ostrel O-41', sheet]]) },
    change: one('Ostrel O-41', (job) => {
      job.cards = [card]
      job.brief = wholeBrief
    }),
  }

  it('has no step that applies, one that saves, and never a network on air before its security', async () => {
    await mustered(options)
    const steps = (await row())?.steps
    expect(answers(await row())).toBe(true)
    expect(steps?.apply).toBeUndefined()
    // Found again after it was silent for long, it may have been saved by then.
    expect(steps?.save?.kind).toBe('done')
    expect(device().saved).toEqual(device().effective)
    expect(bench.lab.air.everOpen).toEqual([])
    // The careless firmware would have shown it: security after the network is seen on air, however short.
    device().configure({
      ...device().configured,
      networks: [{ ...device().configured.networks[0], mode: 'open', passphrase: null } as never],
    })
    device().configure(device().configured)
    expect(bench.lab.air.everOpen).toMatchObject([{ said: 'never' }])
  })
})

describe('what holds a unit before, or instead of, setting it', () => {
  it('is a country that its model is locked to: nothing is written', async () => {
    await mustered({ change: one('Ostrel O-20 US') })
    expect(heldAt(await row(), 'reach')?.why).toContain('is locked to United States')
    expect(device().configured.country).toBe('US')
    expect(device().accepts('setup', 'setup')).toBe(true)
  })

  it('is no fault where the country is that one', async () => {
    await mustered({
      change: one('Ostrel O-20 US', ({ brief }) => {
        brief.country = 'US'
        brief.timeZone = 'America/New_York'
      }),
    })
    expect(answers(await row())).toBe(true)
    expect(device().effective.zoneRule).toBe('<-05>5<-04>,M3.2.0,M11.1.0')
  })

  it('is a clock that is off, with the reason, until its time server answers', async () => {
    await mustered({ change: one('Ostrel O-40'), lab: { silentTimeServers: ['10.44.8.1'] }, pace: 300 })
    const held = heldAt(await row(), 'proof')
    expect(held?.code).toBe('clock-off')
    expect(held?.why).toMatch(/^Its clock is \d+ days behind\.$/)
    expect(held?.hands[0]).toContain('10.44.8.1 answers as a time server')
    const job = await findJob(bench.store, bench.job.slug)
    if (!job) throw new Error('no job')
    await saveBrief(bench.store, job.id, { ...job.brief, ntpServers: ['10.44.8.2'] }, job.version)
    await again()
    expect(answers(await row())).toBe(true)
  })

  it('is a VLAN that this laptop does not reach; with it, the unit is managed there with a tag', async () => {
    const change = one('Ostrel O-40', ({ brief }) => {
      brief.managementTagged = true
    })
    await mustered({ change })
    expect(heldAt(await row(), 'address')?.code).toBe('vlan-not-carried')
    expect(device().address).toBe('192.168.77.1')
    await bench.close()
    await mustered({ change, lab: { vlans: [44] } })
    expect(answers(await row())).toBe(true)
    expect(device().vlan).toBe(44)
  })
})

describe('addresses by DHCP', () => {
  const change = one('Ostrel O-40', ({ brief }) => {
    brief.addressing = 'dhcp'
  })

  it('are proven against the reservation', async () => {
    await mustered({ change, lab: { dhcp: { ...dhcp, reserved: { '02:4f:52:10:6a:2c': '10.44.8.20' } } } })
    expect(answers(await row())).toBe(true)
    expect(device().effective.wired).toMatchObject({ method: 'dhcp', address: null })
    const address = (await outcomes()).find(({ id }) => id === 'management.address')
    expect(address?.outcome).toEqual({ kind: 'proven', value: '10.44.8.20' })
  })

  it('that the server does not keep hold the unit, and say what it got', async () => {
    await mustered({ change, lab: { dhcp } })
    const held = heldAt(await row(), 'return')
    expect(held?.code).toBe('not-reserved')
    expect(held?.why).toMatch(/^The DHCP server gives it 10\.44\.8\.1\d\d, and the plan has 10\.44\.8\.20\.$/)
  })
})
