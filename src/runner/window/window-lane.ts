/** The way to a unit's pages: where it answers now, and the first port there that takes a connection. */
import { lentPrefix } from '../../core/addressing/bench-subnet'
import { isManaged, ofOneBox } from '../../core/kit/kit-card'
import type { Host, Lane } from '../../wire/host/host'
import { pinCheck } from '../../wire/trust/pin'
import type { WindowDoor } from '../../wire/window/unit-window'
import type { AwakeClock } from '../awake-clock'
import type { Records } from '../ports/records'
import { NoWindow } from './no-window'

/** Ports at which pages usually are, and how they are spoken to. */
const usualDoors: readonly WindowDoor[] = [
  { scheme: 'https', port: 443 },
  { scheme: 'http', port: 80 },
]

/** @param at  where somebody says that it answers @throws NoWindow */
export async function laneToPages(
  { records, host, clock }: { readonly records: Records; readonly host: Host; readonly clock: AwakeClock },
  { jobId, unit: id }: { readonly jobId: number; readonly unit: string },
  at: string | undefined,
) {
  const [bench, roll] = await Promise.all([records.bench(jobId), records.rollOf(jobId)])
  const unit = bench?.units.find((each) => each.id === id)
  if (!bench || !unit) throw new NoWindow({ code: 'no-such-unit' })
  const card = bench.cards.get(unit.model)
  const direct = card && !isManaged(card) ? card : undefined
  const sighting = roll.sightings.find(({ mac }) => mac === unit.mac)
  const heard = roll.heard.onLink.find(({ mac, address }) => mac === unit.mac && address !== null)
  const plan = bench.plans.find((each) => each.unit === id)
  // The last look at the bench may be older than a move.
  const places = [at, sighting?.address, heard?.address, plan?.address, direct?.factory.address]
  const pin = pinCheck((fingerprint) => records.pinOnFirstSight(jobId, unit.mac, fingerprint, clock.date()))
  const prefix = direct?.factory.prefix ?? usualPrefix
  const addresses = [...new Set(places.flatMap((address) => address ?? []))]
  const named = roll.rows.get(id)?.old ?? []
  const { reachedBy, old } = direct ? ofOneBox(direct, { old: named }).does : { reachedBy: 'both' as const, old: named }
  const doorAt = async (address: string, by: typeof reachedBy) => {
    const lane = await host.openLane({ mac: unit.mac, address, prefix: lentPrefix(address) ?? prefix, by, old })
    const door = await doorOf(lane, direct?.factory.port)
    if (door) return { lane, pin, door, mac: unit.mac, planned: plan?.address }
    await lane.close()
    return undefined
  }
  for (const address of addresses) {
    if (!(await host.arp(address)).includes(unit.mac)) continue
    const found = await doorAt(address, reachedBy)
    if (found) return found
    throw new NoWindow({ code: 'no-pages', address, ports: usualDoors.map(({ port }) => port) })
  }
  // It may have no IPv4 address at all, and show its pages by its link-local one.
  const isOnLink = roll.heard.onLink.some(({ mac, address }) => mac === unit.mac && address === null)
  const [likely] = addresses
  const found =
    isOnLink && likely !== undefined && reachedBy !== 'ipv4' ? await doorAt(likely, 'link-local') : undefined
  if (found) return found
  throw new NoWindow({ code: 'not-seen', addresses })
}

const usualPrefix = 24

/** The first port that takes a connection. @param known  of the card */
async function doorOf(lane: Lane, known: number | undefined): Promise<WindowDoor | undefined> {
  const own: WindowDoor[] =
    known === undefined || usualDoors.some(({ port }) => port === known) ? [] : [{ scheme: 'https', port: known }]
  for (const door of [...usualDoors, ...own]) {
    const socket = await lane.connect(door.port).catch(() => undefined)
    if (!socket) continue
    socket.destroy()
    return door
  }
  return undefined
}
