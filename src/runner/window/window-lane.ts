/** The way to a unit: where it answers now, and the first port there at which its pages or its prompt can be shown. */
import { lentPrefix } from '../../core/addressing/bench-subnet'
import { isManaged, type KitCard, ofOneBox } from '../../core/kit/kit-card'
import type { Host, Lane } from '../../wire/host/host'
import { type PinCheck, pinCheck } from '../../wire/trust/pin'
import type { TerminalDoor } from '../../wire/window/unit-terminal'
import type { WindowDoor } from '../../wire/window/unit-window'
import type { AwakeClock } from '../ports/awake-clock'
import type { Records } from '../ports/records'
import { NoWindow } from './no-window'

/** Ports at which pages usually are, and how they are spoken to; then those of a prompt. */
const usualPages: readonly WindowDoor[] = [
  { scheme: 'https', port: 443 },
  { scheme: 'http', port: 80 },
]
const usualPrompts: readonly TerminalDoor[] = [
  { over: 'ssh', port: 22 },
  { over: 'telnet', port: 23 },
]

export interface FoundWay {
  readonly lane: Lane
  readonly pin: PinCheck
  readonly door: WindowDoor | TerminalDoor
  readonly mac: string
  /** Where it is to answer in the end. */
  readonly planned: string | undefined
}

/** @param at  where somebody says that it answers @throws NoWindow */
export async function laneToUnit(
  { records, host, clock }: { readonly records: Records; readonly host: Host; readonly clock: AwakeClock },
  { jobId, unit: id }: { readonly jobId: number; readonly unit: string },
  at: string | undefined,
): Promise<FoundWay> {
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
  const doors = doorsOf(direct)
  const doorAt = async (address: string, by: typeof reachedBy): Promise<FoundWay | undefined> => {
    const lane = await host.openLane({ mac: unit.mac, address, prefix: lentPrefix(address) ?? prefix, by, old })
    const door = await firstOpen(lane, doors)
    if (door) return { lane, pin, door, mac: unit.mac, planned: plan?.address }
    await lane.close()
    return undefined
  }
  for (const address of addresses) {
    if (!(await host.arp(address)).includes(unit.mac)) continue
    const found = await doorAt(address, reachedBy)
    if (found) return found
    throw new NoWindow({ code: 'no-pages', address, ports: doors.map(({ port }) => port) })
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

/** Where a card says that it has a prompt, that comes first. */
function doorsOf(card: KitCard | undefined): readonly (WindowDoor | TerminalDoor)[] {
  const { dialect, factory } = card ?? {}
  if (factory && dialect?.kind === 'prompt') return [{ over: dialect.over, port: factory.port }, ...usualPages]
  const usual = [...usualPages, ...usualPrompts]
  const isKnown = factory === undefined || usual.some(({ port }) => port === factory.port)
  return isKnown ? usual : [...usualPages, { scheme: 'https', port: factory.port }, ...usualPrompts]
}

/** The first that takes a connection. */
async function firstOpen<D extends { readonly port: number }>(lane: Lane, doors: readonly D[]): Promise<D | undefined> {
  for (const door of doors) {
    const socket = await lane.connect(door.port).catch(() => undefined)
    if (!socket) continue
    socket.destroy()
    return door
  }
  return undefined
}
