/**
 * The lab: a shelf of stand-ins on one wire, ticking at its pace.
 */
import type { RegulatoryDatabase } from '../core/regulatory/database'
import { LabAir } from './air'
import { LabClock } from './clock'
import { Flash } from './flash'
import { AccessPoint } from './stand-in/access-point'
import { RestconfServer } from './stand-in/restconf-server'
import { sheets } from './stand-in/sheet'
import { LabWire, type PluggedUnit } from './wire'

export interface ShelfEntry {
  /** `maker model` of the stand-in. */
  readonly model: string
  readonly mac: string
  readonly serial: string
}

export interface LabOptions {
  readonly pace: number
  readonly regulatory: RegulatoryDatabase
  readonly shelf: readonly ShelfEntry[]
  /** Folder of what stand-ins remember without power; undefined where the lab is not to be started again. */
  readonly memory?: string | undefined
}

/** Real milliseconds between two looks at the air. */
const tickMs = 20

export class Lab {
  readonly air = new LabAir()
  readonly wire: LabWire
  readonly #units: readonly PluggedUnit[]
  readonly #clock: LabClock
  readonly #ticking: NodeJS.Timeout

  private constructor(clock: LabClock, units: readonly PluggedUnit[]) {
    this.#clock = clock
    this.#units = units
    this.wire = new LabWire(units, clock.pace)
    this.#ticking = setInterval(() => this.air.sample(units.map(({ unit }) => unit)), tickMs)
  }

  /** Builds the shelf. Nothing has power yet. */
  static async open({ pace, regulatory, shelf, memory }: LabOptions): Promise<Lab> {
    const clock = new LabClock(pace)
    const units = await Promise.all(
      shelf.map(async ({ model, mac, serial }): Promise<PluggedUnit> => {
        const sheet = sheets.get(model)
        if (!sheet)
          throw new RangeError(`the lab has no stand-in for ${model}; it has ${[...sheets.keys()].join(', ')}`)
        const flash = new Flash(memory, mac)
        const unit = new AccessPoint(sheet, { mac, serial }, clock, regulatory, flash)
        const server = await RestconfServer.listen(unit, flash)
        unit.onPhase = (phase) => {
          if (phase === 'off' || phase === 'starting') server.dropConnections()
        }
        return { unit, server, cable: 'in' }
      }),
    )
    return new Lab(clock, units)
  }

  get pace(): number {
    return this.#clock.pace
  }

  units(): readonly AccessPoint[] {
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
    plugged.server.dropConnections()
  }

  plugInAll(): void {
    for (const { unit } of this.#units) this.plugIn(unit.identity.mac)
  }

  async close(): Promise<void> {
    clearInterval(this.#ticking)
    this.#clock.stop()
    await Promise.all(this.#units.map(({ server }) => server.close()))
  }
}
