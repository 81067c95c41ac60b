/**
 * The roll: every unit by every step, as the events tell it. A pure fold, the same in the browser and in a process.
 */

import { type Asked, changesSince } from '../config/asked'
import type { SettingOutcome } from '../config/outcomes'
import { keyText } from '../config/unit-config'
import type { OldCrypto } from '../kit/old-crypto'
import { type Message, message } from '../message/message'
import {
  type Cell,
  type Check,
  type Heard,
  type Laptop,
  nothingHeard,
  type PlacedEvent,
  type Sighting,
  type StepState,
} from './events'
import type { Step } from './procedure'
import type { HeardRadar } from './radar-move'

/** An address with the prefix length of its subnet. */
export interface Place {
  readonly address: string
  readonly prefix: number
}

/** When it was told, ms since 1970, and what. */
export type LogLine = Message & { readonly at: number }

export interface RollRow {
  readonly steps: Readonly<Partial<Record<Step, StepState>>>
  readonly log: readonly LogLine[]
  /** The newest check of each kind. */
  readonly checks: readonly Check[]
  readonly passwordDoor: 'shut' | 'opened' | 'passed'
  readonly addressDoor: 'shut' | 'opened' | 'passed'
  /** Mark of the admin password that it was given last, or was about to be. */
  readonly givenPassword: string | undefined
  /** Where it was sent last, by us or by DHCP, or was about to be: the plan may have moved on since. */
  readonly sentTo: Place | undefined
  /** Where it was found last of the places to which it was sent. It may still be there when it is sent elsewhere. */
  readonly cameTo: Place | undefined
  /** When each copy of it was kept, ms since 1970. */
  readonly copies: Readonly<Record<'asFound' | 'asLeft' | 'fromPages' | 'pageWhenHeld', number | undefined>>
  /** What it was asked to be when it last answered. */
  readonly proven: Asked | undefined
  /** What it ran then; undefined where it does not tell. */
  readonly firmware: string | undefined
  /** The machine whose runner has proven it last. */
  readonly provenBy: string | undefined
  /** Hands have set it, and what was proven of it was seen from outside. */
  readonly isByHand: boolean
  /** The BSSID of each network, by its id, on each radio, when it was proven last. */
  readonly cells: readonly Cell[]
  /** Marks of what was written to it and is not shown by it, by setting, and which box it was written to. */
  readonly written: { readonly mac: string; readonly marks: Readonly<Record<string, string>> }
  /** What became of each setting when it was proven last, and when that was, ms since 1970. */
  readonly outcomes: readonly SettingOutcome[]
  readonly outcomesAt: number | undefined
  /** Settings that somebody has seen to by hand, by setting: who, when, and what was asked then. */
  readonly byHand: Readonly<Record<string, { readonly who: string; readonly at: number; readonly asked: string }>>
  /** The open network that it came with: when it was first seen with it and when that went off air, ms since 1970. */
  readonly shippedOpen:
    | { readonly ssid: string; readonly since: number; readonly until: number | undefined }
    | undefined
  /** Where it heard radar last, by band. */
  readonly radar: readonly HeardRadar[]
  /** What is no longer safe, and somebody lets be spoken with this unit, by name. */
  readonly old: readonly OldCrypto[]
  /** What is asked now and was not asked then. No event tells it: see `withChanges`. */
  readonly changes: readonly Message[]
}

export interface Roll {
  readonly seq: number
  readonly rows: ReadonlyMap<string, RollRow>
  readonly muster: 'idle' | 'working' | 'pausing' | 'paused'
  readonly sightings: readonly Sighting[]
  readonly heard: Heard
  /** When the wire was last swept, ms since 1970. */
  readonly sweptAt: number | undefined
  readonly laptop: Laptop | undefined
  /** Whether this laptop is to lend addresses on the bench, and who wanted that. */
  readonly lending: { readonly state: 'on' | 'off'; readonly by: string }
}

export const emptyRow: RollRow = {
  steps: {},
  log: [],
  checks: [],
  passwordDoor: 'shut',
  addressDoor: 'shut',
  givenPassword: undefined,
  sentTo: undefined,
  cameTo: undefined,
  copies: { asFound: undefined, asLeft: undefined, fromPages: undefined, pageWhenHeld: undefined },
  proven: undefined,
  firmware: undefined,
  provenBy: undefined,
  isByHand: false,
  cells: [],
  written: { mac: '', marks: {} },
  outcomes: [],
  outcomesAt: undefined,
  byHand: {},
  shippedOpen: undefined,
  radar: [],
  old: [],
  changes: [],
}
export const emptyRoll: Roll = {
  seq: 0,
  rows: new Map(),
  muster: 'idle',
  sightings: [],
  heard: nothingHeard,
  sweptAt: undefined,
  laptop: undefined,
  lending: { state: 'off', by: '' },
}

/** Lines of a unit's log that are kept at hand; all of them are in the store. */
const longestLog = 200

export function foldRoll(events: readonly PlacedEvent[], from: Roll = emptyRoll): Roll {
  if ((events.at(-1)?.seq ?? 0) <= from.seq) return from
  // Copied once, however many events there are.
  const rows = new Map(from.rows)
  return events.reduce<Roll>((roll, event) => applied(roll, event, rows), { ...from, rows })
}

/**
 * The roll after one more event. One that was seen already changes nothing, so a stream may repeat itself.
 * @param rows  those of the roll, which may be changed in place
 */
function applied(roll: Roll, { seq, at, event }: PlacedEvent, rows: Map<string, RollRow>): Roll {
  if (seq <= roll.seq) return roll
  const next: Roll = { ...roll, seq }
  switch (event.kind) {
    case 'muster':
      return {
        ...next,
        muster: event.phase === 'started' ? 'working' : event.phase === 'ended' ? 'idle' : event.phase,
        rows: event.phase === 'started' ? withStartedRows(rows, event.units) : rows,
      }
    case 'sweep':
      return { ...next, sightings: event.sightings, heard: event.heard, sweptAt: at }
    case 'laptop':
      return { ...next, laptop: event.laptop }
    case 'lending':
      return { ...next, lending: { state: event.state, by: event.by } }
    case 'reveal':
      return next
    default: {
      const row = rows.get(event.unit) ?? emptyRow
      return { ...next, rows: rows.set(event.unit, applyToRow(row, at, event)) }
    }
  }
}

type UnitEvent = Extract<
  PlacedEvent['event'],
  {
    kind:
      | 'step'
      | 'log'
      | 'check'
      | 'door'
      | 'kept'
      | 'written'
      | 'outcomes'
      | 'by-hand'
      | 'shipped-open'
      | 'radar'
      | 'proven'
      | 'window'
      | 'speaks-old'
  }
>

const copyNames = {
  'as-found': 'asFound',
  'as-left': 'asLeft',
  'from-pages': 'fromPages',
  'page-when-held': 'pageWhenHeld',
} as const

const windowTold = ({ state, by, why = 'by-hand' }: Extract<UnitEvent, { kind: 'window' }>): Message =>
  state === 'opened' ? message('window-opened', { by }) : message(`window-${why}`)

const logged = ({ log }: RollRow, at: number, told: Message): LogLine[] => [...log, { at, ...told }].slice(-longestLog)

function applyToRow(row: RollRow, at: number, event: UnitEvent): RollRow {
  switch (event.kind) {
    case 'step':
      return { ...row, steps: { ...row.steps, [event.step]: event.state } }
    case 'log':
      return { ...row, log: logged(row, at, event.told) }
    case 'window':
      return { ...row, log: logged(row, at, windowTold(event)) }
    case 'speaks-old': {
      const { by, old } = event
      const told = old.length === 0 ? message('speaks-nothing-old', { by }) : message('speaks-old', { by, old })
      return { ...row, old, log: logged(row, at, told) }
    }
    case 'check':
      return { ...row, checks: [...row.checks.filter((check) => check.code !== event.check.code), event.check] }
    case 'door':
      if (event.door === 'password')
        return { ...row, passwordDoor: event.state, givenPassword: event.secret ?? row.givenPassword }
      return event.state === 'passed'
        ? { ...row, addressDoor: event.state, cameTo: row.sentTo }
        : { ...row, addressDoor: event.state, sentTo: event.place ?? row.sentTo }
    case 'kept':
      return {
        ...row,
        copies: { ...row.copies, [copyNames[event.copy]]: at },
      }
    case 'written': {
      const before = event.from === 'before' && row.written.mac === event.mac ? row.written.marks : {}
      return { ...row, written: { mac: event.mac, marks: { ...before, ...event.marks } } }
    }
    case 'outcomes':
      return { ...row, outcomes: event.outcomes, outcomesAt: at }
    case 'by-hand': {
      const { [keyText(event)]: _before, ...others } = row.byHand
      const { who, asked } = event
      return { ...row, byHand: event.done === 'no' ? others : { ...others, [keyText(event)]: { who, at, asked } } }
    }
    case 'radar': {
      const { band, from, to, width } = event
      return { ...row, radar: [...row.radar.filter((each) => each.band !== band), { band, from, to, width, at }] }
    }
    case 'shipped-open': {
      const { ssid, state, since = at } = event
      const known = row.shippedOpen?.ssid === ssid ? row.shippedOpen : undefined
      // Found again before it was silenced, it stood there all the time.
      if (state === 'found')
        return {
          ...row,
          shippedOpen: { ssid, since: known?.until === undefined ? (known?.since ?? since) : since, until: undefined },
        }
      return { ...row, shippedOpen: { ssid, since: known?.since ?? since, until: at } }
    }
    case 'proven':
      return {
        ...row,
        proven: event.asked,
        provenBy: event.by,
        isByHand: event.how === 'by-hand',
        firmware: event.firmware,
        cells: event.cells ?? [],
      }
  }
}

/** A new muster asks every step again; what a unit has kept and which doors it passed stays known. */
function withStartedRows(rows: Map<string, RollRow>, units: readonly string[]): ReadonlyMap<string, RollRow> {
  for (const unit of units) {
    const row = rows.get(unit) ?? emptyRow
    rows.set(unit, { ...row, steps: {}, copies: { ...row.copies, pageWhenHeld: undefined } })
  }
  return rows
}

/**
 * The roll with what was changed in brief, kit list or plan since each unit has proven itself. For showing only: a
 * roll that events are still added to does without.
 */
export function withChanges(roll: Roll, asking: ReadonlyMap<string, Asked>): Roll {
  const changes = (unit: string, { proven, steps }: RollRow): readonly Message[] => {
    if (!proven || steps.proof?.kind !== 'done') return []
    const now = asking.get(unit)
    return now ? changesSince(proven, now) : [message('nothing-planned')]
  }
  const marked = (row: RollRow, sentences: readonly Message[]): RollRow =>
    sentences.length + row.changes.length === 0 ? row : { ...row, changes: sentences }
  return { ...roll, rows: new Map([...roll.rows].map(([unit, row]) => [unit, marked(row, changes(unit, row))])) }
}

/** A unit answers when its proof is done, and nothing else is asked of it since. */
export function answers(row: RollRow | undefined): boolean {
  return row?.steps.proof?.kind === 'done' && row.changes.length === 0
}

/** It has proven itself for something else than is asked now. */
export function isChanged(row: RollRow | undefined): boolean {
  return row !== undefined && row.changes.length > 0
}

/** Hands have not set it yet: nothing is wrong with it, it is their turn. */
export function waitsForHands(row: RollRow | undefined): boolean {
  const step = heldStep(row)
  const state = step && row?.steps[step]
  return state?.kind === 'held' && state.code === 'set-by-hand'
}

export function heldStep(row: RollRow | undefined): Step | undefined {
  return (Object.entries(row?.steps ?? {}) as [Step, StepState][]).find(([, state]) => state.kind === 'held')?.[0]
}
