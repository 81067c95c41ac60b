/**
 * Address: the second one-way door. The session may die with the old address, so this comes last of the changes.
 */
import { type Message, message, messageOf } from '../../core/message/message'
import { WireError } from '../../wire/errors/wire-error'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'
import { freeAddress } from './free-address'
import { differing } from './settle'

export async function address(run: UnitRun): Promise<Message> {
  const { target, access, journal } = run
  const { config } = target.compiled
  run.moves('on its way')
  await freeAddress(run)
  await reachableVlan(run)
  const differences = await differing(run, 'address')
  if (differences.length === 0) return message('was-right-already')
  await journal.door('address', 'opened')
  run.moves('leaves')
  access.contact.sends()
  for (const each of differences) journal.say(messageOf(each))
  run.willChange()
  try {
    await access.dialect.write(differences, config)
  } catch (error) {
    // Where a change takes effect at once, the answer to it may get lost with the old address.
    if (!(target.card.does.applies === 'at-once' && wentAway(error))) throw error
  }
  return config.unit['management.method'] === 'dhcp'
    ? message('takes-what-dhcp-gives')
    : message('moves-to', { address: target.plan.address })
}

/** Nobody is sent where this laptop would not find it. */
async function reachableVlan({ host, target: { unit, compiled } }: UnitRun): Promise<void> {
  const { 'management.vlan': vlan = null } = compiled.config.unit
  if (vlan === null) return
  const { vlans, silentVlans, vlanFault: fault } = await host.laptop()
  if (vlans.includes(vlan)) return
  const { port } = unit
  throw silentVlans.includes(vlan)
    ? held('vlan-silent', { vlan, port })
    : held('vlan-not-carried', { vlan, port, fault })
}

/** Did the unit go away in the middle, rather than say no? */
export function wentAway(error: unknown): boolean {
  return error instanceof WireError && (error.kind === 'unreachable' || error.kind === 'timeout')
}
