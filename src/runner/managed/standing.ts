/**
 * How far a unit has come with its controller. Where the controller's agent keeps CAPWAP-BASE-MIB (RFC 5833), that is
 * what counts, since it is the standard's word; why one is turned away only its module says.
 */

import type { Joining } from '../../core/kit/joining'
import { type Message, message } from '../../core/message/message'
import { seen } from '../../core/muster/seen'
import { notTold } from '../../wire/snmp/answer'
import type { WtpState } from '../../wire/snmp/capwap-mib'
import type { UnitRun } from '../unit/unit-run'
import { throughController } from './through-controller'

const joins: Readonly<Record<WtpState, Joining['join']>> = {
  dtls: 'discovered',
  join: 'joining',
  image: 'image',
  configure: 'configuring',
  'data-check': 'configuring',
  run: 'run',
  reset: 'absent',
  'dtls-teardown': 'absent',
  unknown: 'absent',
}

/** What was seen last: by its controller's module, and of both together. */
export interface Seen {
  readonly told: Joining | undefined
  /** Undefined where its controller does not list it. */
  readonly standing: Joining | undefined
}

/** @param before  what was seen last: as long as the module says the same and it does not run, nobody asks by SNMP */
export async function standingOf(run: UnitRun, before: Seen | undefined): Promise<Seen> {
  const { dialect, controller } = throughController(run)
  const told = await dialect.joining()
  if (told === undefined || told.join === 'turned-away') return { told, standing: told }
  if (told.join !== 'run' && told.join === before?.told?.join) return { told, standing: before.standing }
  const answer = await controller.standing(run.target.unit.mac, 'as-is')
  if (answer?.kind !== 'told') return { told, standing: told }
  const { state, address } = answer.standing
  return { told, standing: { ...told, join: joins[state], 'current-address': address } }
}

/** What its controller's agent says of it, as `run at 10.44.8.21, as mast-1`. */
export async function toldBySnmp(run: UnitRun): Promise<Message> {
  const answer = await throughController(run).controller.standing(run.target.unit.mac, 'with-name')
  if (answer === undefined) return seen.noAnswer
  if (answer.kind === 'not-listed') return seen.notListed
  if (answer.kind !== 'told') return notTold(answer)
  const { state, address, name } = answer.standing
  return standingTold(state, address, name)
}

export const standingTold = (state: WtpState, address: string | undefined, name: string | undefined): Message =>
  message('standing-at', { state, address: address ?? null, name: name ?? null })

/** What its controller's agent says that each radio carries, as `2.4 GHz: Crew; 5 GHz: Crew, Guests`. */
export async function carriedBySnmp(run: UnitRun): Promise<Message> {
  const { controller } = throughController(run)
  const { radios } = run.target.card
  const answer = await controller.standing(run.target.unit.mac, 'as-is')
  if (answer?.kind !== 'told' || answer.standing.profile === undefined) return seen.notTold
  const carried = await controller.carried(answer.standing.profile, radios.length)
  if (carried.kind !== 'told') return notTold(carried)
  return carriedTold(radios.map(({ band }, at) => ({ band, names: carried.radios[at] ?? [] })))
}

export function carriedTold(
  radios: readonly { readonly band: string; readonly names: readonly string[] }[],
): Message<'carried-by-radios'> {
  const carried = radios.map(({ band, names }) => message('carried-by-radio', { band, networks: [...names].sort() }))
  return message('carried-by-radios', { radios: carried })
}
