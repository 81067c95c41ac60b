/** `muster lane`: a local port that leads to one unit, for a person's own browser or ssh. */

import { once } from 'node:events'
import { ipv4Schema } from '../core/address/ipv4'
import { macSchema } from '../core/address/mac'
import { type UnitPlace, unitPlace } from '../jobs/find-unit'
import type { Host } from '../wire/host/host'
import { leadTo } from '../wire/host/lead-to'
import { linuxHost } from '../wire/host/linux'
import { plainHost } from '../wire/host/plain'
import { CommandError } from './command-error'
import { running } from './installation'
import { withStore } from './with-store'

const factoryPrefix = 24

/** Holds the lane until it is told to end. */
export async function lane(unit: string, options: { ports?: string[] }, print: (text: string) => void): Promise<void> {
  const { interfaceName, helperSocket } = running()
  if (interfaceName === undefined)
    throw new CommandError(2, 'The demo has no wire of its own: its lab shows the lanes. Start with npm start.')
  const place = byHand(unit) ?? (await onAList(unit))
  const ports = (options.ports ?? [String(place.port ?? 443)]).map(portOf)
  const host: Host = helperSocket ? linuxHost(helperSocket) : plainHost(interfaceName)
  const open = await host.openLane(place)
  const servers = await Promise.all(ports.map((port) => leadTo(open, port, '127.0.0.1')))
  for (const [index, { port: local }] of servers.entries())
    print(`127.0.0.1:${local} leads to ${place.name} (${place.mac}) at ${place.address} port ${ports[index]}`)
  print('Ctrl+C closes it.')
  await Promise.race([once(process, 'SIGINT'), once(process, 'SIGTERM')])
  for (const { close } of servers) close()
  await open.close()
  process.exit(0)
}

/** `02:4f:52:00:00:01@192.168.77.1`: a unit on no list. */
function byHand(text: string): UnitPlace | undefined {
  const [mac, address] = text.split('@')
  if (address === undefined) return undefined
  const parsed = { mac: macSchema.safeParse(mac), address: ipv4Schema.safeParse(address) }
  if (!parsed.mac.success || !parsed.address.success)
    throw new CommandError(2, `"${text}" is not MAC@address, such as 02:4f:52:00:00:01@192.168.77.1.`)
  return { name: text, mac: parsed.mac.data, address: parsed.address.data, prefix: factoryPrefix, by: 'both' }
}

async function onAList(name: string): Promise<UnitPlace> {
  const place = await withStore((store) => unitPlace(store, name))
  if (place) return place
  throw new CommandError(
    2,
    `No unit "${name}" was seen on the wire. Sweep the bench first (muster sweep <job>), or name it as MAC@address.`,
  )
}

function portOf(text: string): number {
  const port = Number(text)
  if (!Number.isInteger(port) || port < 1 || port > 65535) throw new CommandError(2, `"${text}" is not a port.`)
  return port
}
