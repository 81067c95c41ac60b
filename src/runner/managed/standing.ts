/**
 * How far a unit has come with its controller. Where the controller's agent keeps CAPWAP-BASE-MIB (RFC 5833), that is
 * what counts, since it is the standard's word; why one is turned away only its module says.
 */
import type { Joining } from '../../wire/dialect/managed/joining'
import type { WtpState } from '../../wire/snmp/capwap-mib'
import type { UnitRun } from '../unit-run'
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

/** @returns undefined where its controller does not list it */
export async function standingOf(run: UnitRun): Promise<Joining | undefined> {
  const { dialect, controller } = throughController(run)
  const told = await dialect.joining()
  if (told === undefined || told.join === 'turned-away') return told
  const answer = await controller.standing(run.target.unit.mac)
  if (answer?.kind !== 'told') return told
  const { state, address } = answer.standing
  return { ...told, join: joins[state], 'current-address': address }
}

/** What its controller's agent says of it, as `run at 10.44.8.21, as mast-1`. */
export async function toldBySnmp(run: UnitRun): Promise<string> {
  const answer = await throughController(run).controller.standing(run.target.unit.mac)
  if (answer === undefined || answer.kind === 'silent') return 'no answer'
  if (answer.kind === 'refused') return `refused: ${answer.why}`
  if (answer.kind === 'not-listed') return 'not listed'
  const { state, address, name } = answer.standing
  return standingWords(state, address ?? 'no address', name ?? 'nobody')
}

export const standingWords = (state: WtpState, address: string, name: string): string =>
  `${state} at ${address}, as ${name}`
