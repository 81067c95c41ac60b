import { describe, expect, it } from 'vitest'
import { cardOf } from '../../../tests/support/data'
import { english } from '../../../tests/support/english'
import { asBuiltCsv, gapWords } from '../../words/en/as-built'
import { nextMove } from '../../words/en/next-move'
import { rollText } from '../../words/en/roll-text'
import { sentence } from '../../words/en/sentence'
import type { Brief } from '../brief/brief'
import type { Asked } from '../config/asked'
import type { SettingOutcome } from '../config/outcomes'
import { asBuilt, gapsIn } from '../handover/as-built'
import { ofOneBox } from '../kit/kit-card'
import type { OldCrypto } from '../kit/old-crypto'
import type { Unit } from '../kit/unit'
import { asTold, message } from '../message/message'
import { secondsLeft } from './estimate'
import { type MusterEvent, musterEventSchema, nothingHeard, type PlacedEvent, type StepState } from './events'
import { heldFor } from './held'
import { type Step, steps, stepsFor } from './procedure'
import { answers, emptyRoll, foldRoll, withChanges } from './roll'
import { type Standings, standings } from './stages'

const unit: Unit = {
  id: 'a',
  name: 'hall-01',
  location: 'desk',
  model: 'Ostrel O-40',
  mac: '02:4f:52:10:6a:2c',
  serial: 'S',
  port: 7,
  siteSwitch: '',
  sitePort: '',
}
const placed = (...events: MusterEvent[]): PlacedEvent[] =>
  events.map((event, index) => ({ seq: index + 1, at: 1000 * (index + 1), event }))
const step = (name: Step, state: StepState): MusterEvent => ({ kind: 'step', unit: 'a', step: name, state })
const allDone = steps.map((name) => step(name, { kind: 'done' }))
const asked: Asked = {
  mac: unit.mac,
  password: 'admin/password of then',
  config: {
    unit: {
      'unit.country': 'NZ',
      'unit.name': 'hall-01',
      'clock.time-zone': 'Pacific/Auckland',
      'management.method': 'static',
      'management.address': '10.0.0.20',
      'management.prefix': 24,
    },
    networks: {},
    radios: { '5': { 'radio.enabled': true, 'radio.channel': 36, 'radio.width': 40, 'radio.power': 17 } },
  },
}
const withUnit = (values: object): Asked => ({
  ...asked,
  config: { ...asked.config, unit: { ...asked.config.unit, ...values } },
})
const isHeld = heldFor('went-wrong', {})
const changed = (events: MusterEvent[]) =>
  withChanges(
    foldRoll(placed(...events, { kind: 'proven', unit: 'a', asked })),
    new Map([['a', withUnit({ 'unit.country': 'GB' })]]),
  )
const { does, dialect, factory } = cardOf('Ostrel O-40')
const card = { role: 'access-point' as const, timing: { start: 70, apply: 90, restart: 70 }, does, dialect, factory }

describe('the roll', () => {
  it('is the same however the events are cut, and however often they are told', () => {
    const events = placed(
      { kind: 'muster', phase: 'started', units: ['a'] },
      step('reach', { kind: 'working', doing: asTold('looking') }),
      { kind: 'log', unit: 'a', told: asTold('hello') },
      step('reach', { kind: 'done' }),
    )
    const whole = foldRoll(events)
    expect(foldRoll(events.slice(2), foldRoll(events.slice(0, 2)))).toEqual(whole)
    expect(foldRoll(events, whole)).toBe(whole)
    expect(english(whole.rows.get('a')?.log)).toEqual([{ at: 3000, says: 'hello' }])
  })

  it('asks every step again in a new muster, and remembers the doors', () => {
    const roll = foldRoll(
      placed(
        ...allDone,
        { kind: 'door', unit: 'a', door: 'password', state: 'passed' },
        { kind: 'muster', phase: 'started', units: ['a'] },
      ),
    )
    expect(roll.rows.get('a')).toMatchObject({ steps: {}, passwordDoor: 'passed', addressDoor: 'shut' })
    expect(answers(roll.rows.get('a'))).toBe(false)
  })

  it('knows where a unit was sent, also when it is called again and the plan has moved on', () => {
    const place = { address: '10.44.8.21', prefix: 24 }
    const sent = foldRoll(
      placed(
        { kind: 'door', unit: 'a', door: 'address', state: 'opened', place },
        { kind: 'door', unit: 'a', door: 'address', state: 'passed' },
        { kind: 'muster', phase: 'started', units: ['a'] },
      ),
    )
    expect(sent.rows.get('a')).toMatchObject({ addressDoor: 'passed', sentTo: place, cameTo: place })
    // Sent elsewhere it may still be where it came to.
    const next = { address: '10.50.0.21', prefix: 24 }
    const again = foldRoll(
      [{ seq: 9, at: 9, event: { kind: 'door', unit: 'a', door: 'address', state: 'opened', place: next } }],
      sent,
    )
    expect(again.rows.get('a')).toMatchObject({ addressDoor: 'opened', sentTo: next, cameTo: place })
    // Events of older programs do not say it.
    const before = foldRoll(placed({ kind: 'door', unit: 'a', door: 'address', state: 'opened' }))
    expect(before.rows.get('a')?.sentTo).toBeUndefined()
  })

  it('takes an answer back where something else is asked since, until it is proven anew', () => {
    const proven = foldRoll(placed(...allDone, { kind: 'proven', unit: 'a', asked }))
    const marked = (now: Asked) => withChanges(proven, new Map([['a', now]])).rows.get('a')
    expect(answers(marked(asked))).toBe(true)
    const moved = marked({ ...withUnit({ 'unit.name': 'gate-01' }), password: 'admin/password of later' })
    expect(answers(moved)).toBe(false)
    expect(english(moved?.changes.map(({ code, params }) => ({ code, params })))).toEqual([
      'Name is hall-01, to be gate-01.',
      'The admin password is another.',
    ])
    expect(withChanges(proven, new Map()).rows.get('a')?.changes).toEqual([message('nothing-planned')])
    // A roll that was marked may be marked again, and one that is being mustered is not measured by the last time.
    expect(answers(withChanges(withChanges(proven, new Map()), new Map([['a', asked]])).rows.get('a'))).toBe(true)
    const begun = foldRoll(
      placed(...allDone, { kind: 'proven', unit: 'a', asked }, { kind: 'muster', phase: 'started', units: ['a'] }),
    )
    expect(withChanges(begun, new Map()).rows.get('a')?.changes).toEqual([])
  })

  it('keeps the newest check of each kind', () => {
    const check = (observed: string): MusterEvent => ({
      kind: 'check',
      unit: 'a',
      check: {
        code: 'ping',
        expected: asTold('answers'),
        observed: asTold(observed),
        verdict: observed === 'answers' ? 'good' : 'bad',
        at: 1,
      },
    })
    expect(
      foldRoll(placed(check('no answer'), check('answers')))
        .rows.get('a')
        ?.checks.map((each) => each.verdict),
    ).toEqual(['good'])
  })
})

it('keeps what was heard last on the wire; of a sweep of before nothing was', () => {
  const servers = [{ mac: '02:00:00:00:00:01', vlan: null, address: '10.0.0.1', controllers: [] }]
  const heard = { ...nothingHeard, servers }
  expect(foldRoll(placed({ kind: 'sweep', sightings: [], heard })).heard.servers).toEqual(servers)
  const former = musterEventSchema.parse({ kind: 'sweep', sightings: [] })
  expect(foldRoll(placed({ kind: 'sweep', sightings: [], heard }, former)).heard).toEqual(nothingHeard)
})

describe('your next move', () => {
  const of = { address: '10.0.0.20', card: cardOf('Ostrel O-40'), now: 0 }
  const move = (...events: MusterEvent[]) =>
    nextMove(unit, foldRoll(placed(...events)).rows.get('a'), foldRoll(placed(...events)), of)
  it('is to set a unit by hand whose model no muster sets, which is no failure', () => {
    const state = heldFor('set-by-hand', { why: asTold('Windrow W5 cannot be mustered: links are planned.') })
    expect(move({ kind: 'step', unit: 'a', step: 'reach', state })).toMatchObject({
      words: 'Set it by hand: its slip has every value.',
      tone: 'hands',
    })
    const broken = heldFor('cannot-be-set', { reasons: [asTold('no')] })
    expect(move({ kind: 'step', unit: 'a', step: 'reach', state: broken }).tone).toBe('held')
  })
  const seen = (answersBy: 'service' | 'arp-only'): MusterEvent => ({
    kind: 'sweep',
    heard: nothingHeard,
    sightings: [
      {
        mac: unit.mac,
        address: '192.168.77.1',
        model: null,
        by: [],
        unit: 'a',
        seen: 'at-factory-address',
        answers: answersBy,
      },
    ],
  })

  it.each<[string, MusterEvent[], string, string]>([
    ['a unit that is not there', [], 'Plug it into port 7', 'hands'],
    ['a unit that starts', [seen('arp-only')], 'starting up', 'waiting'],
    ['a unit that is ready', [seen('service')], 'ready to muster', 'quiet'],
    ['a unit that is held', [step('sign-in', isHeld)], 'Muster this unit again.', 'held'],
    ['a unit that answers', allDone, 'answers at 10.0.0.20', 'answers'],
  ])('of %s', (_name, events, words, tone) => {
    expect(move(...events)).toMatchObject({ words, tone })
  })

  it('tells whether hands have set a unit that answers', () => {
    const by = (how?: 'by-hand'): MusterEvent => ({ kind: 'proven', unit: 'a', asked, ...(how ? { how } : {}) })
    const words = (event: MusterEvent) => move(...allDone, event).words
    expect(words(by('by-hand'))).toBe('answers at 10.0.0.20, set by hand')
    expect(words(by())).toBe('answers at 10.0.0.20')
  })

  it('of a unit that is to be something else now', () => {
    const roll = changed(allDone)
    expect(nextMove(unit, roll.rows.get('a'), roll, of)).toMatchObject({
      words: 'changed since: muster it again',
      tone: 'hands',
    })
  })

  it('of a unit that no muster sets, before and while the others are mustered', () => {
    const link = { ...unit, model: 'Windrow W5' }
    const words = (roll: ReturnType<typeof foldRoll>) =>
      nextMove(link, roll.rows.get('a'), roll, { ...of, card: cardOf('Windrow W5') }).words
    expect(words(emptyRoll)).toBe('by hand: its slip has every value')
    const going = foldRoll(placed({ kind: 'muster', phase: 'started', units: ['b'] }))
    expect(words(going)).toBe('by hand: its slip has every value')
  })

  it('tells until when a wait lasts', () => {
    expect(move(step('address', { kind: 'waiting', until: 9000, waitingFor: asTold('applying') }))).toEqual({
      words: 'applying',
      tone: 'waiting',
      until: 9000,
    })
  })
})

it('estimates by the slowest unit, and counts a wait down', () => {
  const fresh = { row: undefined, card, listenSeconds: 0 }
  expect(secondsLeft([fresh, { ...fresh, listenSeconds: 60 }], 0, 1)).toBe(90 + 70 + 60 + 11 * 2)
  const waiting = foldRoll(
    placed(
      ...allDone.filter((event) => event.kind === 'step' && event.step !== 'apply'),
      step('apply', { kind: 'waiting', until: 60_000, waitingFor: asTold('x') }),
    ),
  ).rows.get('a')
  expect(secondsLeft([{ ...fresh, row: waiting }], 59_000, 30)).toBe(30)
  expect(secondsLeft([], 0, 1)).toBe(0)
})

it('lets only what a controller manages join one', () => {
  expect(stepsFor(card)).not.toContain('joined')
  expect(stepsFor({ ...card, role: 'managed-access-point' })).toContain('joined')
})

it('is printed for a terminal with a sign for each step', () => {
  const text = rollText([unit], foldRoll(placed(...allDone)), () => ({
    address: '10.0.0.20',
    card: cardOf('Ostrel O-40'),
    now: 0,
  }))
  expect(text).toContain('1 of 1 answer')
  expect(text.split('\n')[1]?.match(/\+/g)).toHaveLength(15)
})

describe('stages and handover', () => {
  const brief = { country: 'NZ', networks: [{ ssid: '=Crew' }] } as unknown as Brief
  const stand = (events: MusterEvent[], incomplete = () => false, more: Partial<Standings> = {}) =>
    standings({
      incomplete,
      brief,
      units: [unit],
      planned: 1,
      faults: { brief: 0, kit: 2, plan: 0 },
      roll: foldRoll(placed(...events)),
      ...more,
    })

  it('says in a few words where each stage stands', () => {
    expect(stand([])).toMatchObject({
      brief: { told: { code: 'stage-networks', params: { country: 'NZ', count: 1 } }, mark: 'done' },
      kit: { told: { code: 'stage-to-mend', params: { count: 2 } }, mark: 'attention' },
      bench: { told: { code: 'stage-wire-empty' } },
      muster: { told: { code: 'stage-answering', params: { answering: 0, units: 1 } } },
      handover: { mark: 'none' },
    })
    const onLink = [{ mac: unit.mac, address: '192.168.18.1' }]
    const heard = { ...foldRoll([]), heard: { ...foldRoll([]).heard, onLink } }
    expect(stand([], undefined, { roll: heard, called: [] }).bench.told).toEqual(
      message('stage-for-hands', { count: 1 }),
    )
    expect(stand(allDone).handover).toEqual({ told: message('stage-papers-ready'), mark: 'done' })
    // All answer, and the papers say that something is left: the tab says no more than they do.
    expect(stand(allDone, () => true).handover).toEqual({ told: message('stage-papers-incomplete'), mark: 'attention' })
    expect(stand([], () => true).handover.told.code).toBe('stage-papers-shut')
    // A brief is not done before there is a network.
    const fresh = { brief: { networks: [] } as unknown as Brief, units: [], planned: 0 }
    expect(standings({ ...fresh, faults: { brief: 0, kit: 0, plan: 0 }, roll: foldRoll([]) }).brief.mark).toBe('none')
  })

  it('adds held and changed units up where a tab has no room for both', () => {
    const events: MusterEvent[] = [
      ...allDone,
      { kind: 'proven', unit: 'a', asked },
      { kind: 'step', unit: 'b', step: 'reach', state: isHeld },
    ]
    const roll = withChanges(foldRoll(placed(...events)), new Map())
    const units = [unit, { ...unit, id: 'b' }]
    expect(
      sentence(standings({ brief, units, planned: 2, faults: { brief: 0, kit: 0, plan: 0 }, roll }).muster.told),
    ).toBe('0 of 2 answer, 2 need you')
  })

  it('is complete with a unit that no muster sets, once somebody has seen to all of it', () => {
    const byHand = { kind: 'by-hand', why: 'Set it.' } as const
    const setting = {
      id: 'unit.name',
      of: '',
      asked: '"quay"',
      mark: 'm',
      outcome: byHand,
    } as unknown as SettingOutcome
    const sheet = (events: MusterEvent[]) =>
      asBuilt({
        brief,
        units: [unit],
        cards: new Map(),
        plans: new Map(),
        roll: foldRoll(placed(...events)),
        expected: new Map([['a', [setting]]]),
      })
    const held = step('reach', heldFor('set-by-hand', { why: asTold('a switch is not set by this release') }))
    for (const events of [[], [held]]) {
      expect(sheet(events)[0]?.state).toBe('by hand')
      expect(gapsIn(sheet(events))).toMatchObject([{ kind: 'by-hand', rows: [{ name: 'hall-01' }] }])
    }
    const by: MusterEvent = {
      kind: 'by-hand',
      unit: 'a',
      id: 'unit.name',
      of: '',
      asked: setting.asked,
      who: 'Kea',
      done: 'yes',
    }
    expect(gapsIn(sheet([held, by]))).toEqual([])
  })

  it('prints a unit that is to be something else now as it was left', () => {
    const roll = changed(allDone)
    expect(
      english(
        standings({
          brief,
          units: [unit],
          planned: 1,
          faults: { brief: 0, kit: 0, plan: 0 },
          roll,
        }),
      ),
    ).toMatchObject({
      muster: { told: '0 of 1 answer, 1 changed', mark: 'attention' },
      handover: { told: 'opens when all answer', mark: 'none' },
    })
    const [row] = asBuilt({
      brief,
      units: [{ ...unit, name: 'gate-01' }],
      cards: new Map(),
      plans: new Map(),
      roll: roll,
      expected: new Map(),
    })
    expect(row).toMatchObject({
      name: 'hall-01',
      address: '10.0.0.20',
      state: 'changed since',
      radios: [{ band: '5', channel: 36, width: 40, powerDbm: 17 }],
    })
  })

  it('prints the BSSID of each network on each radio, as it was proven', () => {
    const proven: MusterEvent = {
      ...{ kind: 'proven', unit: 'a', asked },
      by: 'bench-laptop',
      cells: [{ band: '5', network: 'n1', bssid: '06:00:00:00:00:01' }],
    }
    const roll = foldRoll(placed(...allDone, proven))
    const [row] = asBuilt({ brief, units: [unit], cards: new Map(), plans: new Map(), roll, expected: new Map() })
    expect(row?.provenBy).toBe('bench-laptop')
    expect(row?.cells).toMatchObject([{ band: '5', bssid: '06:00:00:00:00:01' }])
    expect(row && asBuiltCsv([row])).toContain('06:00:00:00:00:01')
    // Another proof, of a unit that does not tell, leaves nothing of the one before.
    expect(foldRoll(placed(...allDone, proven, { kind: 'proven', unit: 'a', asked })).rows.get('a')?.cells).toEqual([])
  })

  it('names what is missing until every unit answers', () => {
    const sheet = (events: MusterEvent[]) =>
      asBuilt({
        brief,
        units: [unit],
        cards: new Map(),
        plans: new Map(),
        roll: foldRoll(placed(...events)),
        expected: new Map(),
      })
    expect(gapsIn(sheet([]))).toMatchObject([{ kind: 'not-mustered', rows: [{ name: 'hall-01' }] }])
    const [gap, ...more] = gapsIn(sheet([step('reach', isHeld)]))
    expect(more).toEqual([])
    expect(gap && gapWords(gap)).toBe('hall-01 is held. Reach: Air Muster itself went wrong here.')
    expect(gapsIn(sheet(allDone))).toEqual([])
  })

  it('says of a unit that it was set over what is no longer safe', () => {
    const card = cardOf('Ostrel O-40')
    const rowWith = (old: OldCrypto[]) =>
      asBuilt({
        ...{ brief, units: [unit], plans: new Map(), roll: emptyRoll, expected: new Map() },
        cards: new Map([[unit.model, { ...card, does: { ...card.does, old } }]]),
      })[0]
    expect(rowWith(['tls-1.0'])?.remarks).toEqual([{ kind: 'old', old: ['tls-1.0'] }])
    expect(rowWith([])?.remarks).toEqual([])
  })

  it('says so where somebody has accepted that for one unit alone, until nobody does any more', () => {
    const accepts = (old: OldCrypto[]): MusterEvent => ({ kind: 'speaks-old', unit: 'a', old, by: 'Kea' })
    const remarksAfter = (...events: MusterEvent[]) => {
      const roll = foldRoll(placed(...events))
      const cards = new Map([[unit.model, cardOf('Ostrel O-40')]])
      return asBuilt({ brief, units: [unit], plans: new Map(), roll, expected: new Map(), cards })[0]?.remarks
    }
    expect(remarksAfter(accepts(['tls-1.1']))).toEqual([{ kind: 'old', old: ['tls-1.1'] }])
    expect(remarksAfter(accepts(['tls-1.1']), accepts([]))).toEqual([])
    const box = ofOneBox(cardOf('Ostrel O-40'), { old: ['tls-1.1'] })
    expect(box.does.old).toEqual(['tls-1.1'])
  })

  it('writes CSV that no spreadsheet takes for a formula', () => {
    const [row] = asBuilt({
      brief,
      units: [{ ...unit, location: 'desk, "left"' }],
      cards: new Map(),
      plans: new Map(),
      roll: emptyRoll,
      expected: new Map(),
    })
    const csv = row ? asBuiltCsv([row]) : ''
    expect(csv).toContain(`"desk, ""left"""`)
    expect(csv).toContain(`'=Crew`)
    expect(csv.endsWith('\r\n')).toBe(true)
  })
})
