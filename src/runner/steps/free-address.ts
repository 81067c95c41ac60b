/**
 * Waits until nobody else has a unit's new address: a unit of the same muster that is to leave it is waited for,
 * anybody else keeps the address from us. ICMP can be filtered, ARP cannot.
 */
import { message } from '../../core/message/message'
import { held } from '../unit/held-error'
import type { Mover, UnitRun } from '../unit/unit-run'

/** @param step  that waits; in proof the unit is there already, and somebody who was off may be there again */
export async function freeAddress(run: UnitRun, step: 'address' | 'proof' = 'address'): Promise<void> {
  const { target, journal, waits, movers, names } = run
  const { address } = target.plan
  const { apply, restart } = target.card.timing
  let told = ''
  if (!(await run.host.canAsk(address))) {
    journal.say(message('cannot-ask-who-has', { address }))
    return
  }
  for (;;) {
    const other = await holder(run, address)
    if (other === undefined) return
    const mover = movers.get(other)
    if (mover && (await leadsBack(run, mover))) throw held('trades-addresses', { other: mover.name })
    if (!mover || mover.kind === 'over') throw taken(address, other, names.get(other))
    if (told !== mover.name) {
      told = mover.name
      const waitingFor = message('leaves-first', { name: mover.name, address })
      await journal.tell(step, { kind: 'waiting', until: waits.due(apply + restart), waitingFor })
    }
    await waits.pause(2)
  }
}

/** MAC of somebody else at this address. */
async function holder({ host, target }: UnitRun, address: string): Promise<string | undefined> {
  return (await host.arp(address)).find((mac) => mac !== target.unit.mac)
}

/** Whether a unit that is to move waits, perhaps through others, for this unit to leave its own address. */
async function leadsBack(run: UnitRun, first: Mover): Promise<boolean> {
  let mover = first
  for (let links = 0; links <= run.movers.size; links += 1) {
    // It no longer waits for another unit.
    if (mover.kind === 'leaves') return false
    // It moves only when this unit, its controller, is done.
    if (mover.after === run.target.unit.mac) return true
    if (mover.address === run.access.address) return true
    const next = run.movers.get((await holder(run, mover.address)) ?? '')
    if (!next) return false
    // The next unit has reached its own address meanwhile: the address that was asked about first is free by now.
    if (next.address === mover.address) return false
    mover = next
  }
  return true
}

function taken(address: string, mac: string, other: string | undefined): Error {
  return other === undefined ? held('address-taken', { address, mac }) : held('address-of-another', { address, other })
}
