/**
 * The lab: a shelf of stand-ins on one wire, ticking at its pace.
 */

import type { AddressInfo } from 'node:net'
import { createServer, type Server } from 'node:net'
import type { RegulatoryDatabase } from '../core/regulatory/database'
import { LabAir } from './air'
import { LabClock } from './device/clock'
import { Device } from './device/device'
import { Flash } from './device/flash'
import { sheets } from './device/sheet'
import { type DhcpOptions, DhcpServer, type Site } from './device/site'
import type { StandInSheet } from './device/stand-in-sheet'
import type { Front } from './fronts/front'
import { HearthServer } from './fronts/hearth/server'
import { NetconfServer } from './fronts/netconf/server'
import { PagesServer } from './fronts/pages/server'
import { RestconfServer } from './fronts/restconf/server'
import { ShellServer } from './fronts/shell/server'
import { SilentFront } from './fronts/silent'
import { SnmpAgent } from './fronts/snmp-agent'
import { LabJoins } from './joins'
import { LabWire, type PluggedUnit } from './wire'

export interface ShelfEntry {
  /** `maker model` of the stand-in. */
  readonly model: string
  readonly mac: string
  readonly serial: string
  /** Whether it comes out of its box with an open network on air. */
  readonly ships?: 'silent' | 'open' | undefined
}

export interface LabOptions {
  readonly pace: number
  readonly regulatory: RegulatoryDatabase
  readonly shelf: readonly ShelfEntry[]
  /** Folder of what stand-ins remember without power; undefined where the lab is not to be started again. */
  readonly memory?: string | undefined
  /** A DHCP server on the wire, with addresses that it keeps for a MAC. */
  readonly dhcp?: LabDhcp | undefined
  /** Time servers that do not answer. */
  readonly silentTimeServers?: readonly string[] | undefined
  /** VLANs that the laptop's port carries with a tag. */
  readonly vlans?: readonly number[] | undefined
  /** Sheets of made-up variants, by `maker model`. */
  readonly variants?: ReadonlyMap<string, StandInSheet> | undefined
}

export interface LabDhcp extends DhcpOptions {
  readonly reserved?: Readonly<Record<string, string>> | undefined
}

const fronts: Readonly<Record<StandInSheet['front'], (unit: Device, flash: Flash) => Promise<Front>>> = {
  hearth: (unit, flash) => HearthServer.listen(unit, flash),
  managed: async () => new SilentFront(),
  netconf: (unit, flash) => NetconfServer.listen(unit, flash),
  pages: (unit, flash) => PagesServer.listen(unit, flash),
  restconf: (unit, flash) => RestconfServer.listen(unit, flash),
  shell: (unit, flash) => ShellServer.listen(unit, flash),
}

/** Real milliseconds between two looks at the air. */
const tickMs = 20

export class Lab {
  readonly air = new LabAir()
  readonly wire: LabWire
  readonly #units: readonly PluggedUnit[]
  readonly #clock: LabClock
  readonly #ticking: NodeJS.Timeout

  readonly #door: Server

  private constructor(
    clock: LabClock,
    units: readonly PluggedUnit[],
    joins: LabJoins,
    door: Server,
    { vlans, dhcp }: { vlans?: readonly number[] | undefined; dhcp?: DhcpServer | undefined },
  ) {
    this.#clock = clock
    this.#units = units
    this.#door = door
    const doorPort = (door.address() as AddressInfo).port
    this.wire = new LabWire(units, { pace: clock.pace, vlans, dhcp, doorPort })
    const sample = (): void => this.air.sample(units.map(({ unit }) => unit))
    this.#ticking = setInterval(() => {
      joins.tick()
      sample()
    }, tickMs)
    // A network that was open for less than a tick was open.
    for (const { unit } of units) unit.onEffect = sample
  }

  /** Builds the shelf. Nothing has power yet. */
  static async open(options: LabOptions): Promise<Lab> {
    const { pace, regulatory, shelf, memory, variants = new Map() } = options
    const clock = new LabClock(pace)
    const joins = new LabJoins(clock)
    const site = { ...siteOf(options), joins }
    const known = new Map([...sheets, ...variants])
    const units = await Promise.all(
      shelf.map(async ({ model, mac, serial, ships = 'silent' }): Promise<PluggedUnit> => {
        const sheet: StandInSheet | undefined = known.get(model)
        if (!sheet) throw new RangeError(`the lab has no stand-in for ${model}; it has ${[...known.keys()].join(', ')}`)
        const flash = new Flash(memory, mac)
        const unit = new Device(sheet, { mac, serial, ships }, clock, regulatory, flash, site)
        const front = await fronts[sheet.front](unit, flash)
        unit.onPhase = (phase) => {
          if (phase === 'off' || phase === 'starting') front.dropConnections()
        }
        return { unit, front, agent: await SnmpAgent.listen(unit), cable: 'in' }
      }),
    )
    joins.watch(units)
    return new Lab(clock, units, joins, await openDoor(), { vlans: options.vlans, dhcp: site.dhcp })
  }

  get pace(): number {
    return this.#clock.pace
  }

  units(): readonly Device[] {
    return this.#units.map(({ unit }) => unit)
  }

  /** @throws RangeError where no stand-in has this MAC */
  plugged(mac: string): PluggedUnit {
    const found = this.#units.find(({ unit }) => unit.identity.mac === mac)
    if (!found) throw new RangeError(`no stand-in has the MAC ${mac}`)
    return found
  }

  /** The cable goes in: it has power over it, so the unit starts. */
  plugIn(mac: string): void {
    const plugged = this.plugged(mac)
    plugged.cable = 'in'
    plugged.unit.powerOn()
  }

  unplug(mac: string): void {
    const plugged = this.plugged(mac)
    plugged.cable = 'out'
    plugged.unit.powerOff()
    plugged.front.dropConnections()
  }

  plugInAll(): void {
    for (const { unit } of this.#units) this.plugIn(unit.identity.mac)
  }

  async close(): Promise<void> {
    clearInterval(this.#ticking)
    this.#clock.stop()
    this.#door.close()
    for (const { agent } of this.#units) agent.close()
    await Promise.all(this.#units.map(({ front }) => front.close()))
  }
}

function siteOf({ dhcp, silentTimeServers = [] }: LabOptions): Site {
  const server = dhcp && new DhcpServer(dhcp)
  for (const [mac, address] of Object.entries(dhcp?.reserved ?? {})) server?.reserve(mac, address)
  return { dhcp: server, ntpAnswers: (host) => !silentTimeServers.includes(host) }
}

/** Behind every port that is open and not spoken to: it takes the connection and ends it. */
function openDoor(): Promise<Server> {
  const door = createServer((socket) => {
    socket.on('error', () => socket.destroy())
    socket.end()
  })
  return new Promise((resolve) => door.listen(0, '127.0.0.1', () => resolve(door)))
}
