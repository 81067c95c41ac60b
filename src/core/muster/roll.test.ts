import { describe, expect, it } from 'vitest'
import type { Brief } from '../brief/brief'
import { asBuilt, asBuiltCsv, missing } from '../handover/as-built'
import type { Unit } from '../kit/unit'
import { secondsLeft } from './estimate'
import type { MusterEvent, PlacedEvent, StepState } from './events'
import { nextMove } from './next-move'
import { type Step, steps, stepsFor } from './procedure'
import { answers, emptyRoll, foldRoll } from './roll'
import { rollText } from './roll-text'
import { standings } from './stages'

const unit: Unit = { id: 'a', name: 'hall-01', place: 'desk', model: 'Ostrel O-40', mac: '02:4f:52:10:6a:2c', serial: 'S', port: 7 }
const placed = (...events: MusterEvent[]): PlacedEvent[] => events.map((event, index) => ({ seq: index + 1, at: 1000 * (index + 1), event }))
const step = (name: Step, state: StepState): MusterEvent => ({ kind: 'step', unit: 'a', step: name, state })
const allDone = steps.map((name) => step(name, { is: 'done' }))
const card = { role: 'access-point' as const, timing: { start: 70, apply: 90, restart: 70 } }

describe('the roll', () => {
  it('is the same however the events are cut, and however often they are told', () => {
    const events = placed(
      { kind: 'muster', phase: 'started', units: ['a'] },
      step('reach', { is: 'working', doing: 'looking' }),
      { kind: 'log', unit: 'a', text: 'hello' },
      step('reach', { is: 'done' }),
    )
    const whole = foldRoll(events)
    expect(foldRoll(events.slice(2), foldRoll(events.slice(0, 2)))).toEqual(whole)
    expect(foldRoll(events, whole)).toBe(whole)
    expect(whole.rows.get('a')?.log).toEqual([{ at: 3000, text: 'hello' }])
  })

  it('asks every step again in a new muster, and remembers the doors', () => {
    const roll = foldRoll(placed(...allDone, { kind: 'door', unit: 'a', door: 'password', state: 'passed' }, { kind: 'muster', phase: 'started', units: ['a'] }))
    expect(roll.rows.get('a')).toMatchObject({ steps: {}, passwordDoor: 'passed', addressDoor: 'shut' })
    expect(answers(roll.rows.get('a'))).toBe(false)
  })

  it('keeps the newest check of each kind', () => {
    const check = (observed: string): MusterEvent => ({
      kind: 'check',
      unit: 'a',
      check: { what: 'Ping', expected: 'answers', observed, verdict: observed === 'answers' ? 'good' : 'bad', at: 1 },
    })
    expect(
      foldRoll(placed(check('no answer'), check('answers')))
        .rows.get('a')
        ?.checks.map((each) => each.verdict),
    ).toEqual(['good'])
  })
})

describe('your next move', () => {
  const move = (...events: MusterEvent[]) => nextMove(unit, foldRoll(placed(...events)).rows.get('a'), foldRoll(placed(...events)), '10.0.0.20')
  const seen = (answersBy: 'service' | 'arp-only'): MusterEvent => ({
    kind: 'sweep',
    sightings: [{ mac: unit.mac, address: '192.168.77.1', model: null, unit: 'a', seen: 'at-factory-address', answers: answersBy }],
  })

  it.each<[string, MusterEvent[], string, string]>([
    ['a unit that is not there', [], 'Plug it into port 7', 'hands'],
    ['a unit that starts', [seen('arp-only')], 'starting up', 'waiting'],
    ['a unit that is ready', [seen('service')], 'ready to muster', 'quiet'],
    ['a unit that is held', [step('sign-in', { is: 'held', why: 'No.', hands: ['Press it.'] })], 'Press it.', 'held'],
    ['a unit that answers', allDone, 'answers at 10.0.0.20', 'answers'],
  ])('of %s', (_name, events, words, tone) => {
    expect(move(...events)).toMatchObject({ words, tone })
  })

  it('tells until when a wait lasts', () => {
    expect(move(step('address', { is: 'waiting', until: 9000, waitingFor: 'applying' }))).toEqual({ words: 'applying', tone: 'waiting', until: 9000 })
  })
})

it('estimates by the slowest unit, and counts a wait down', () => {
  const fresh = { row: undefined, card, listensForRadar: false }
  expect(secondsLeft([fresh, { ...fresh, listensForRadar: true }], 0, 1)).toBe(90 + 70 + 60 + 9 * 2)
  const waiting = foldRoll(
    placed(...allDone.filter((event) => event.kind === 'step' && event.step !== 'address'), step('address', { is: 'waiting', until: 60_000, waitingFor: 'x' })),
  ).rows.get('a')
  expect(secondsLeft([{ ...fresh, row: waiting }], 59_000, 30)).toBe(30)
  expect(secondsLeft([], 0, 1)).toBe(0)
})

it('lets only what a controller manages join one', () => {
  expect(stepsFor(card)).not.toContain('joined')
  expect(stepsFor({ role: 'managed-access-point' })).toContain('joined')
})

it('is printed for a terminal with a sign for each step', () => {
  const text = rollText([unit], foldRoll(placed(...allDone)), new Map([['a', '10.0.0.20']]))
  expect(text).toContain('1 of 1 answer')
  expect(text.split('\n')[1]?.match(/\+/g)).toHaveLength(12)
})

describe('stages and handover', () => {
  const brief = { networks: [{ ssid: '=Crew' }] } as unknown as Brief
  const stand = (events: MusterEvent[]) =>
    standings({ brief, countryName: 'New Zealand', units: [unit], planned: 1, faults: { brief: 0, kit: 2, plan: 0 }, roll: foldRoll(placed(...events)) })

  it('says in a few words where each stage stands', () => {
    expect(stand([])).toMatchObject({
      brief: { words: 'New Zealand, 1 network', mark: 'done' },
      kit: { words: '2 things to mend', mark: 'attention' },
      bench: { words: 'nothing on the wire yet' },
      muster: { words: '0 of 1 answer' },
      handover: { mark: 'none' },
    })
    expect(stand(allDone).handover).toEqual({ words: 'ready to print', mark: 'done' })
  })

  it('names what is missing until every unit answers', () => {
    const sheet = (events: MusterEvent[]) => asBuilt(brief, [unit], new Map(), foldRoll(placed(...events)))
    expect(missing(sheet([]))).toEqual(['hall-01 has not been mustered.'])
    expect(missing(sheet([step('reach', { is: 'held', why: 'It is away.', hands: [] })]))).toEqual(['hall-01 is held. Reach: It is away.'])
    expect(missing(sheet(allDone))).toEqual([])
  })

  it('writes CSV that no spreadsheet takes for a formula', () => {
    const [row] = asBuilt(brief, [{ ...unit, place: 'desk, "left"' }], new Map(), emptyRoll)
    const csv = row ? asBuiltCsv([row]) : ''
    expect(csv).toContain(`"desk, ""left"""`)
    expect(csv).toContain(`'=Crew`)
    expect(csv.endsWith('\r\n')).toBe(true)
  })
})
