/**
 * Waits until nobody else has a unit's new address: a unit of the same muster that is to leave it is waited for,
 * anybody else keeps the address from us. ICMP can be filtered, ARP cannot.
 */
import { held } from '../explain'
import type { UnitRun } from '../unit-run'

export async function freeAddress(run: UnitRun): Promise<void> {
  const { address } = run.plan
  const { apply, restart } = run.card.timing
  let told = ''
  for (;;) {
    const other = await holder(run, address)
    if (other === undefined) return
    const mover = run.movers.get(other)
    if (mover && (await leadsBack(run, mover.address)))
      throw held(`It and ${mover.name} are to trade addresses.`, [
        `Plan a free address for one of them, and muster both.`,
        'Then plan the address that you want for it, and muster it again.',
      ])
    if (!mover || mover.is === 'over') throw taken(address, other, run.names.get(other))
    if (told !== mover.name) {
      told = mover.name
      await run.tell('address', {
        is: 'waiting',
        until: run.due(apply + restart),
        waitingFor: `${mover.name} leaves ${address} first`,
      })
    }
    await run.pause(2)
  }
}

/** MAC of somebody else at this address. */
async function holder(run: UnitRun, address: string): Promise<string | undefined> {
  return (await run.host.arp(address)).find((mac) => mac !== run.unit.mac)
}

/** Whether whoever sits at `address` waits, perhaps through others, for this unit to leave its own. */
async function leadsBack(run: UnitRun, address: string): Promise<boolean> {
  let next = address
  for (let links = 0; links <= run.movers.size; links += 1) {
    if (next === run.address) return true
    const mover = run.movers.get((await holder(run, next)) ?? '')
    if (!mover) return false
    next = mover.address
  }
  return true
}

function taken(address: string, mac: string, name: string | undefined): Error {
  return name === undefined
    ? held(`${address} is taken by ${mac}.`, [
        'Find that device and take it off the wire, or plan another address.',
        'Then muster this unit again.',
      ])
    : held(`${address} is still the address of ${name}.`, [
        `Muster ${name} as well: it is to have another. Or plan another address for this unit.`,
        'Then muster this unit again.',
      ])
}
