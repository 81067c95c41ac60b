import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, inject, it } from 'vitest'
import { adminSecretName, secretName } from '../../src/core/brief/brief'
import { answers, heldStep, type Roll } from '../../src/core/muster/roll'
import { keepLoginToday } from '../../src/jobs/login-today'
import { plainNetwork } from '../../src/lab/device/device-settings'
import { allEvents } from '../../src/store/events'
import { changeKit } from '../../src/store/kit'
import { askPause } from '../../src/store/orders'
import { openBackup, openSecrets } from '../../src/store/secrets'
import { type Bench, heldAt, openBench } from '../support/bench'

let bench: Bench

const everybodyAnswers = async (): Promise<boolean> => {
  const roll = await bench.roll()
  return bench.job.units.every((unit) => answers(roll.rows.get(unit.id)))
}
const waitFor = async (what: () => Promise<boolean> | boolean): Promise<void> => {
  await expect.poll(what, { interval: 40 }).toBe(true)
}

describe('a muster of four units with one factory address', () => {
  let first: Roll
  beforeAll(async () => {
    bench = await openBench()
    bench.startRunner()
    await bench.order()
    first = await bench.settled()
    await bench.order()
    await bench.settled()
  })
  afterAll(() => bench.close())

  it('ends with four that answer at addresses of their own, as the brief says', async () => {
    expect(await everybodyAnswers()).toBe(true)
    expect(bench.lab.units().map((unit) => unit.address)).toEqual([
      '10.44.8.20',
      '10.44.8.21',
      '10.44.8.22',
      '10.44.8.23',
    ])
    for (const unit of bench.lab.units()) {
      const row = bench.job.units.find(({ mac }) => mac === unit.identity.mac)
      const cells = unit.air().flatMap(({ networks }) => networks.map(({ bssid }) => bssid))
      expect(first.rows.get(row?.id ?? '')?.cells.map(({ bssid }) => bssid)).toEqual(cells)
      expect(unit.effective.country).toBe('NZ')
      expect(unit.effective.networks.map(({ name, mode }) => [name, mode])).toEqual([['Ellery Crew', 'wpa2-personal']])
      expect(unit.accepts('setup', 'setup')).toBe(false)
    }
    // The one that is locked to a radar channel listened first.
    expect(
      bench.lab
        .units()[2]
        ?.air()
        .find(({ radio }) => radio.band === '5'),
    ).toMatchObject({ radio: { channel: 60 }, condition: 'on-air' })
    await expect.poll(() => bench.lab.wire.laptop().lanes).toBe(0)
  })

  it('never puts an open network on air, by a look at every tick', () => {
    expect(bench.lab.air.samples).toBeGreaterThan(50)
    expect(bench.lab.air.heard).toEqual(['Ellery Crew'])
    expect(bench.lab.air.everOpen).toEqual([])
  })

  it('changes nothing when the roll is called again', async () => {
    const again = (await allEvents(bench.store, bench.jobId)).filter(
      ({ seq, event }) => seq > first.seq && event.kind === 'step' && event.state.kind === 'done',
    )
    const notes = again.flatMap(({ event }) =>
      event.kind === 'step' &&
      event.state.kind === 'done' &&
      ['country', 'clock', 'networks', 'radios', 'address'].includes(event.step)
        ? [event.state.note?.code]
        : [],
    )
    expect(notes).toHaveLength(20)
    expect(new Set(notes)).toEqual(new Set(['was-right-already']))
    expect(await everybodyAnswers()).toBe(true)
  })

  it('keeps what was found and what was left, and the first copy stays', async () => {
    expect(await openBackup(bench.store, bench.jobId, '02:4f:52:10:6a:2c', 'as-found')).toContain('192.168.77.1')
    expect(await openBackup(bench.store, bench.jobId, '02:4f:52:10:6a:2c', 'as-left')).toContain('10.44.8.20')
  })

  it('leaves passphrase and passwords nowhere in clear: not in the database files, not in events', async () => {
    const secrets = await openSecrets(bench.store, bench.jobId)
    const wanted = [secretName.passphrase({ id: 'crew' }), adminSecretName(bench.job.brief.admin, 'hall-01')].map(
      (name) => secrets.get(name) ?? '',
    )
    expect(wanted.every((secret) => secret.length >= 16)).toBe(true)
    const events = JSON.stringify(await allEvents(bench.store, bench.jobId))
    expect(events).toContain('"code":"network-missing"')
    for (const secret of wanted) expect(events).not.toContain(secret)
    const data = join(inject('databaseFolder'), 'data')
    // The tables of this job, and what all databases share: the redo log, the undo space.
    const files = [data, join(data, bench.database)].flatMap((folder) =>
      readdirSync(folder, { withFileTypes: true })
        .filter((entry) => entry.isFile())
        .map((entry) => join(folder, entry.name)),
    )
    expect(files).toEqual(
      expect.arrayContaining([
        join(data, bench.database, 'secrets.ibd'),
        join(data, bench.database, 'events.ibd'),
        join(data, 'ib_logfile0'),
      ]),
    )
    let holdTheNetworkName = 0
    for (const file of files) {
      const bytes = readFileSync(file)
      if (bytes.includes('Ellery Crew')) holdTheNetworkName += 1
      for (const secret of wanted) expect(bytes.includes(secret), `${file} holds a secret`).toBe(false)
    }
    // What is no secret is found: the search sees what the database has written.
    expect(holdTheNetworkName).toBeGreaterThan(0)
  })
})

describe('when something is wrong', () => {
  afterEach(() => bench.close())

  it('holds the one that was set up before, musters the others, and goes on by itself after a reset', async () => {
    bench = await openBench()
    const [first, second, third] = bench.lab.units()
    await waitFor(() => bench.lab.units().every(({ phase }) => phase === 'up'))
    first?.configure(first.configured, new Map([['setup', 'somebody-else']]))
    // Two more were set up before, and the client has told what opens them: one of them, and all others.
    second?.configure(second.configured, new Map([['setup', 'of-this-box']]))
    third?.configure(third.configured, new Map([['setup', 'of-the-client']]))
    const job = { ...bench.job, id: bench.jobId }
    const box = { mac: second?.identity.mac ?? '' }
    for (const [of, password] of [
      [box, 'of-this-box'],
      ['job', 'of-the-client'],
    ] as const)
      expect(await keepLoginToday(bench.store, job, of, { user: 'setup', password })).toEqual({ ok: true })
    bench.startRunner()
    await bench.order()
    const roll = await bench.settled()
    expect(bench.job.units.filter((unit) => answers(roll.rows.get(unit.id)))).toHaveLength(3)
    const row = roll.rows.get('hall-01')
    expect(heldStep(row)).toBe('sign-in')
    expect(heldAt(row, 'sign-in')?.why).toBe('It refuses the factory password.')
    expect(heldAt(row, 'sign-in')?.hands[0]).toContain('pinhole')
    first?.pressReset(10)
    // At this pace a restart is over between two sweeps: the unit is kept away long enough to be missed.
    bench.lab.unplug(first?.identity.mac ?? '')
    await waitFor(async () => !(await bench.roll()).sightings.some((sighting) => sighting.mac === first?.identity.mac))
    bench.lab.plugIn(first?.identity.mac ?? '')
    await waitFor(everybodyAnswers)
  })

  it('says which unit is not on the wire, and what the hands do', async () => {
    bench = await openBench()
    bench.lab.unplug('02:4f:52:10:6a:2d')
    bench.startRunner()
    await bench.order()
    const roll = await bench.settled()
    expect(heldAt(roll.rows.get('hall-02'), 'reach')).toMatchObject({
      code: 'not-found',
      why: 'It does not answer at 192.168.77.1 or 10.44.8.21.',
    })
    expect(answers(roll.rows.get('hall-01'))).toBe(true)
    bench.lab.plugIn('02:4f:52:10:6a:2d')
    await waitFor(everybodyAnswers)
  })

  it('finds a unit that somebody gave another address, by what it says on the wire', async () => {
    bench = await openBench()
    const [unit] = bench.lab.units()
    await waitFor(() => unit?.serviceIsUp ?? false)
    const { effective } = unit as NonNullable<typeof unit>
    unit?.configure({ ...effective, wired: { ...effective.wired, method: 'static', address: '172.29.3.9' } })
    unit?.apply()
    await waitFor(() => unit?.address === '172.29.3.9')
    bench.startRunner()
    await bench.order()
    await waitFor(everybodyAnswers)
    expect(unit?.address).toBe('10.44.8.20')
  })

  it.each([
    ['one of the list that is not mustered with it', [], '10.44.8.20 is still the address of hall-02.'],
    ['a stranger', ['hall-02'], '10.44.8.20 is taken by 02:4f:52:10:6a:2d.'],
  ])('refuses an address that somebody else has, and says who: %s', async (_name, remove, why) => {
    bench = await openBench()
    const other = bench.lab.units()[1]
    await waitFor(() => other?.phase === 'up')
    other?.configure({ ...other.configured, wired: { ...other.configured.wired, address: '10.44.8.20' } })
    other?.apply()
    await waitFor(() => other?.address === '10.44.8.20' && other.phase === 'up')
    await changeKit(bench.store, bench.jobId, { add: [], change: [], remove, order: undefined })
    bench.startRunner()
    await bench.order(['hall-01'])
    const roll = await bench.settled()
    expect(heldAt(roll.rows.get('hall-01'), 'address')?.why).toBe(why)
    expect(bench.lab.units()[0]?.address).toBe('192.168.77.1')
  })

  it('holds an open network at the door: no unit hears of it', async () => {
    bench = await openBench({
      change: (job) => {
        for (const network of job.brief.networks) network.security = 'open'
      },
    })
    bench.startRunner()
    await bench.order()
    const roll = await bench.settled()
    for (const unit of bench.job.units)
      expect(heldAt(roll.rows.get(unit.id), 'reach')).toMatchObject({
        why:
          '"Ellery Crew" has no security: no open network is put on air unless its name is typed a second time ' +
          'in the brief.',
      })
    expect(bench.lab.units().every((unit) => unit.effective.country === 'US')).toBe(true)
  })

  it('pauses after the steps under way, and goes on when told to', async () => {
    bench = await openBench({ pace: 60 })
    bench.startRunner()
    await bench.order()
    await waitFor(async () => (await bench.roll()).rows.get('hall-01')?.steps.backup?.kind === 'done')
    await askPause(bench.store, bench.jobId)
    await waitFor(async () => (await bench.roll()).muster === 'paused')
    expect(await everybodyAnswers()).toBe(false)
    await bench.order()
    await bench.settled()
    expect(await everybodyAnswers()).toBe(true)
  })
})

describe('the air monitor', () => {
  afterEach(() => bench.close())

  it('would have seen an open network', async () => {
    bench = await openBench()
    const [unit] = bench.lab.units()
    await waitFor(() => unit?.phase === 'up')
    unit?.configure({
      ...unit.configured,
      networks: [
        { ...plainNetwork, id: 'free', name: 'Free', on: true, bands: ['2.4'], mode: 'open', passphrase: null },
      ],
    })
    unit?.apply()
    await waitFor(() => bench.lab.air.everOpen.length > 0)
    expect(bench.lab.air.everOpen[0]?.ssid).toBe('Free')
  })
})
