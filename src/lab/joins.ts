/**
 * How access points come to their controller, as on a wire: each looks for one in its subnet, is let in or turned away
 * with a reason, loads an image, is told what it is to be, and works.
 */
import { sameSubnet } from '../core/address/ipv4'
import type { LabClock } from './device/clock'
import type { Device } from './device/device'
import type { DeviceSettings, ManagedPoint } from './device/device-settings'
import type { Join, Joins } from './device/join'
import { Refusal } from './device/refusal'
import type { PluggedUnit } from './wire'

/** Lab seconds that each takes. */
const takes = { discovered: 3, joining: 4, image: 120, configuring: 8 } as const
type Passing = keyof typeof takes
const after: Readonly<Record<Passing, Passing | 'run'>> = {
  discovered: 'joining',
  joining: 'configuring',
  image: 'configuring',
  configuring: 'run',
}
/** A certificate is valid from its making on: a clock before this day finds none valid. */
const certificatesBegin = Date.parse('2024-01-01T00:00:00Z')

interface Way {
  standing: Join['standing']
  reason?: Join['reason']
  /** Lab time at which it came so far. */
  since: number
  controller: Device | undefined
  /** What it was told last, and of which settings of its controller: those are replaced, never changed. */
  told: string
  of: DeviceSettings | undefined
}

export class LabJoins implements Joins {
  readonly #ways = new Map<string, Way>()
  #units: readonly PluggedUnit[] = []

  constructor(private readonly clock: LabClock) {}

  watch(units: readonly PluggedUnit[]): void {
    this.#units = units
  }

  of(mac: string, controller: string): Join {
    const way = this.#ways.get(mac)
    if (way?.controller?.identity.mac !== controller) return { standing: 'absent' }
    const unit = this.#units.find((each) => each.unit.identity.mac === mac)?.unit
    return { standing: way.standing, reason: way.reason, unit }
  }

  at(controller: string): string[] {
    return [...this.#ways].flatMap(([mac, way]) => (way.controller?.identity.mac === controller ? [mac] : []))
  }

  /** Looks at all of them; called again and again. */
  tick(): void {
    for (const { unit, cable } of this.#units) if (unit.sheet.front === 'managed') this.#step(unit, cable === 'in')
  }

  #step(unit: Device, onWire: boolean): void {
    const { mac } = unit.identity
    const way = this.#ways.get(mac)
    const controller = onWire && unit.phase === 'up' ? this.#controllerOf(unit, way?.controller) : undefined
    if (!controller) return void this.#ways.delete(mac)
    if (!way || way.controller !== controller) return this.#enter(mac, 'discovered', controller)
    const point = controller.effective.points.find((each) => each.mac === mac)
    const reason = this.#turnedAway(controller, point, unit)
    if (reason) {
      if (way.reason !== reason) this.#enter(mac, 'turned-away', controller, reason)
      return
    }
    if (!point) return
    if (way.standing === 'turned-away') {
      // What it could not load it does not load by itself.
      if (way.reason !== 'image-failed') this.#enter(mac, 'joining', controller)
      return
    }
    if (way.standing === 'run') {
      if (way.of === controller.effective) return
      if (way.told !== told(controller, point)) this.#configure(unit, controller, point, way)
      way.of = controller.effective
      return
    }
    const passing = way.standing as Passing
    const seconds = passing === 'image' ? (unit.sheet.timing.image ?? takes.image) : takes[passing]
    if ((this.clock.now() - way.since) / 1000 < seconds) return
    if (passing === 'image' && unit.sheet.losesImages)
      return this.#enter(mac, 'turned-away', controller, 'image-failed')
    if (passing === 'image') unit.runs(controller.firmware)
    if (passing === 'configuring') this.#configure(unit, controller, point, way)
    const next = passing === 'joining' && unit.firmware !== controller.firmware ? 'image' : after[passing]
    this.#enter(mac, next, controller)
  }

  /**
   * Its own by the addresses that it keeps; else in its own subnet, where a broadcast reaches it, or told of: the one
   * that it has, or the first that answers and has it on its list; else the first that answers.
   */
  #controllerOf(unit: Device, before: Device | undefined): Device | undefined {
    const { address, prefix, gateway, controllers } = unit.wired
    if (address === null || prefix === null) return undefined
    const isReached = (other: string): boolean =>
      sameSubnet(other, address, prefix) ||
      (gateway !== null && (controllers.includes(other) || unit.effective.controllers.includes(other)))
    const answering = this.#units.filter(
      ({ unit: each, cable }) =>
        each.sheet.mostPoints !== null &&
        each.sheet.maker === unit.sheet.maker &&
        cable === 'in' &&
        each.serviceIsUp &&
        each.address !== null &&
        isReached(each.address),
    )
    const own = answering.find((each) => unit.effective.controllers.includes(each.unit.address ?? ''))
    const lists = ({ unit: each }: PluggedUnit): boolean =>
      each.effective.points.some(({ mac }) => mac === unit.identity.mac)
    const kept = answering.find((each) => each.unit === before && lists(each))
    return (own ?? kept ?? answering.find(lists) ?? answering[0])?.unit
  }

  #turnedAway(controller: Device, point: ManagedPoint | undefined, { identity, sheet }: Device): Join['reason'] {
    const { mac } = identity
    if (!point) return 'not-listed'
    if (sheet.soldFor !== null && sheet.soldFor !== controller.effective.country) return 'country'
    if (controller.time.getTime() < certificatesBegin) return 'clock'
    if (sheet.certificate === 'unknown') return 'certificate'
    if (sheet.keepsLogin) return 'login'
    // Whoever has come so far holds a licence, and nobody who comes later takes it away.
    const others = [...this.#ways].filter(
      ([other, way]) =>
        other !== mac &&
        way.controller === controller &&
        way.standing !== 'discovered' &&
        way.standing !== 'turned-away',
    )
    return others.length >= (controller.sheet.mostPoints ?? 0) ? 'licence-full' : undefined
  }

  #enter(mac: string, standing: Join['standing'], controller: Device, reason?: Join['reason']): void {
    const before = this.#ways.get(mac)
    this.#ways.set(mac, {
      standing,
      reason,
      since: this.clock.now(),
      controller,
      told: before?.told ?? '',
      of: undefined,
    })
  }

  /** It is told all of it, country first. */
  #configure(unit: Device, controller: Device, point: ManagedPoint, way: Way): void {
    const { country, networks, pushed } = controller.effective
    way.told = told(controller, point)
    try {
      if (unit.configured.country !== country) unit.configure({ ...unit.configured, country })
      const own = controller.sheet.pointsCarryAll ? networks : networks.filter(({ id }) => point.networks.includes(id))
      const bands = unit.configured.radios.map(({ band }) => band)
      const next = {
        ...unit.configured,
        name: point.name || unit.configured.name,
        location: point.location,
        // Nothing is switched on before it is told what it carries.
        networks: own.map((each) => ({ ...each, bands: each.bands.filter((band) => bands.includes(band)) })),
        radios: unit.configured.radios.map((each) =>
          Object.assign(
            {},
            each,
            point.radios.find(({ band }) => band === each.band),
          ),
        ),
        wired: point.wired,
        gateway: point.gateway,
        controllers: point.controllers,
      }
      unit.configure(next, new Map(pushed === null ? [] : [[pushed.user, pushed.password]]))
    } catch (error) {
      // It does not do what it cannot do, and its controller shows what it does.
      if (!(error instanceof Refusal)) throw error
    }
  }
}

const told = (controller: Device, point: ManagedPoint): string =>
  JSON.stringify([controller.effective.country, controller.effective.networks, controller.effective.pushed, point])
