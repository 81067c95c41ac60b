/**
 * Events as former releases kept them, in the form of today: words that were kept become messages that say just that.
 *
 * In: an event as the log has it. Out: the event in today's form. One of neither form is returned unchanged.
 */
import { formerAskedSchema, fromFormer } from '../config/former-asked'
import { type Fields, isFields } from '../input/renamed'
import { asTold, type Message } from '../message/message'

export function eventOfToday(event: unknown): unknown {
  if (!isFields(event)) return event
  switch (event.kind) {
    case 'step':
      return { ...event, state: stateOfToday(event.state) }
    case 'check':
      return { ...event, check: checkOfToday(event.check) }
    case 'log': {
      const { text, ...rest } = event
      return typeof text === 'string' ? { ...rest, told: asTold(text) } : event
    }
    case 'outcomes':
      return { ...event, outcomes: eachOf(event.outcomes, outcomeOfToday) }
    case 'proven': {
      const former = formerAskedSchema.safeParse(event.asked)
      return former.success ? { ...event, asked: fromFormer(former.data) } : event
    }
    default:
      return event
  }
}

const eachOf = (list: unknown, one: (each: unknown) => unknown): unknown => (Array.isArray(list) ? list.map(one) : list)

const told = (value: unknown): unknown => (typeof value === 'string' ? asTold(value) : value)

/** The fields of these names as messages, where they were words. */
function withTold(value: unknown, ...names: readonly string[]): unknown {
  if (!isFields(value)) return value
  const changed = names.filter((name) => typeof value[name] === 'string').map((name) => [name, told(value[name])])
  return { ...value, ...Object.fromEntries(changed) }
}

function stateOfToday(state: unknown): unknown {
  if (!isFields(state)) return state
  const { is, ...rest } = state
  const named: Fields = is === undefined ? state : { kind: is, ...rest }
  return named.kind === 'held' ? heldOfToday(named) : withTold(named, 'doing', 'waitingFor', 'note')
}

/** Before reasons had codes, a held step was its words. */
function heldOfToday(state: Fields): unknown {
  if (typeof state.code !== 'string') {
    const { kind, ...words } = state
    return { kind, code: 'as-told', params: words }
  }
  const { params } = state
  if (!isFields(params)) return state
  if (state.code === 'check-failed' && !('checks' in params))
    return {
      kind: 'held',
      code: 'as-told',
      params: { why: params.first ?? '', hands: [], more: Array.isArray(params.all) ? params.all.join(' ') : '' },
    }
  return { ...state, params: heldParamsOfToday(params) }
}

function heldParamsOfToday(params: Fields): unknown {
  const { says: _says, light, ...rest } = params
  const listed = Object.fromEntries(
    ['reasons', 'differences', 'faults']
      .filter((name) => name in rest)
      .map((name) => [name, eachOf(rest[name], told)] as const),
  )
  const lights = rest.lights ?? (light === undefined ? undefined : [light])
  return {
    ...(withTold(rest, 'said', 'what', 'why', 'reason', 'off', 'standing') as Fields),
    ...listed,
    ...(lights === undefined ? {} : { lights: eachOf(lights, lightOfToday) }),
    ...('checks' in rest ? { checks: eachOf(rest.checks, checkOfToday) } : {}),
  }
}

/** `green means on air`. */
function lightOfToday(light: unknown): unknown {
  if (typeof light !== 'string') return light
  const [looks = '', ...meaning] = light.split(' means ')
  return [looks, meaning.join(' means ')]
}

const checkCodes: readonly (readonly [RegExp, string])[] = [
  [/^ARP/, 'arp'],
  [/^Ping/, 'ping'],
  [/^New login/, 'new-login'],
  [/^Factory login/, 'factory-login'],
  [/^Factory address/, 'factory-address'],
  [/^Settings/, 'settings'],
  [/^Networks/, 'on-air'],
]

function checkOfToday(check: unknown): unknown {
  if (!isFields(check)) return check
  const { what, ...rest } = check
  const code = typeof what === 'string' ? (checkCodes.find(([pattern]) => pattern.test(what))?.[1] ?? 'former') : what
  return withTold(code === undefined ? check : { ...rest, code }, 'expected', 'observed')
}

const outcomeOfToday = (each: unknown): unknown =>
  isFields(each) ? { ...each, outcome: withTold(each.outcome, 'why', 'hands') } : each

/** A fault of a plan as it was kept in words. */
export function planFaultOfToday(fault: unknown): unknown {
  if (!isFields(fault) || typeof fault.sentence !== 'string') return fault
  const { sentence, code: _code, ...rest } = fault
  const message: Message = asTold(sentence)
  return { ...rest, ...message }
}
