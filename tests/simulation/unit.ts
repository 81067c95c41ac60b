/**
 * A simulated unit: nothing but behaviour. It has no protocol, only what it keeps, what it does with it, and when. It
 * shares no code with a dialect or a stand-in; what differs it is told by the program's own types.
 */
import type { Difference } from '../../src/core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../src/core/config/unit-config'
import type { KitCard } from '../../src/core/kit/kit-card'
import type { Unit } from '../../src/core/kit/unit'
import type { RadioOnAir } from '../../src/wire/dialect/dialect'
import { SimulatedRadios } from './radios'
import { firmwareVersions, timing } from './site'
import { ToldOfOthers } from './told-of-others'
import type { UnitTraits } from './traits'
import {
  boxedValues,
  changed,
  factoryPassword,
  type Kept,
  type Meddling,
  meddled,
  movesBetween,
  shown,
  type Values,
  withRadiosReset,
} from './values'
import { Visitors } from './visitors'
import type { World } from './world'

/** Seconds in which a move must be confirmed. */
export const confirmSeconds = 120
/** Nothing starts faster, however fast the wire runs, ms. */
const shortestStartMs = 3000
/** Seconds after which a change of address that takes effect at once does so. */
const moveSeconds = 2

export interface Surroundings {
  /** ms of the world for so many of the wire's seconds. */
  ms(seconds: number): number
  unit(mac: string): SimulatedUnit | undefined
  /** What DHCP gives this MAC; undefined where nobody serves. */
  lease(mac: string): string | undefined
  /** Told whenever anything about the unit is another. */
  changed(unit: SimulatedUnit): void
}

export const isSetByHand = ({ card }: SimulatedUnit): boolean => card.dialect.kind === 'by-hand'

export class SimulatedUnit {
  phase: 'off' | 'starting' | 'up' = 'off'
  /** Counts starts: what was begun before one is over. */
  boot = 0
  running: Kept
  startup: Kept
  candidate: Values | undefined
  /** What a move that is not confirmed yet takes it back to. */
  before: Values | undefined
  applying = false
  firmware: string
  certificate: string
  /** Where it answers now. */
  address: string | undefined
  readonly visitors: Visitors
  /** What it was before its last change, for answers that are late. */
  previous: Values
  readonly #radios: SimulatedRadios
  /** Somebody has put another box in its place. */
  isAway = false
  #moves = 0
  /** Writes that it was given and that changed something, for the whole of its life. */
  writes = 0

  constructor(
    readonly unit: Unit,
    readonly card: KitCard,
    readonly traits: UnitTraits,
    readonly world: World,
    readonly around: Surroundings,
  ) {
    this.#radios = new SimulatedRadios(world, around, traits)
    this.visitors = new Visitors(world, around)
    this.certificate = `${unit.mac.slice(-2)}:01`
    this.firmware = traits.firmware === 'older' ? firmwareVersions.older : firmwareVersions.wanted
    this.running = this.boxed()
    this.startup = this.running
    this.previous = this.running.values
  }

  /** What it is out of its box. */
  boxed(): Kept {
    return { values: boxedValues(this.card, this.traits), password: factoryPassword }
  }

  get mac(): string {
    return this.unit.mac
  }

  /** It speaks on the wire by itself: some do when they have asked DHCP. */
  get isHeard(): boolean {
    const { 'management.method': method } = this.running.values.unit
    if (this.phase !== 'up' || this.isAway) return false
    // Its link-local address is there in any case, and it answers an echo to all of them.
    const byLinkAlone = this.address === undefined && this.card.does.reachedBy === 'both'
    return byLinkAlone || (method === 'dhcp' && this.traits.ping === 'answers')
  }

  /** Power comes. */
  plug(): void {
    if (this.phase !== 'off') return
    this.boot += 1
    const { boot } = this
    this.phase = 'starting'
    this.running = this.startup
    this.told.restart()
    this.joined = false
    this.candidate = undefined
    this.before = undefined
    this.applying = false
    this.around.changed(this)
    this.world.after(Math.max(shortestStartMs, this.around.ms(timing.start)), () => {
      if (this.boot !== boot || this.phase !== 'starting') return
      this.phase = 'up'
      this.settle()
      this.around.changed(this)
    })
  }

  /** Power goes. */
  cut(): void {
    this.phase = 'off'
    this.boot += 1
    this.address = undefined
    this.visitors.clear()
    this.#radios.off()
    this.around.changed(this)
  }

  /** It restarts because of what it was told: it keeps that first. */
  #restartWithAll(): void {
    this.#keep()
    this.restart()
  }

  restart(): void {
    if (this.phase === 'off') return
    this.cut()
    this.world.after(this.around.ms(timing.restart - timing.start), () => this.plug())
  }

  /** Somebody holds its button. */
  reset(): void {
    this.startup = this.boxed()
    this.running = this.startup
    this.told.forget()
    this.certificate = `${this.mac.slice(-2)}:r${this.boot}`
    if (this.phase !== 'off') this.restart()
  }

  /** Takes the address and the air that its configuration says. */
  settle(): void {
    const { unit } = this.running.values
    const lease = this.around.lease(this.mac)
    this.address =
      unit['management.method'] === 'static'
        ? String(unit['management.address'])
        : (lease ?? this.card.factory.address ?? undefined)
    this.#radios.start(this.running.values)
  }

  /** Of a controller: what it was told of its access points. */
  readonly told = new ToldOfOthers()
  /** Of an access point that a controller manages. */
  joined = false

  /** A controller is told what one of its access points is to be. */
  tellOf(mac: string, differences: readonly Difference[], desired: Config<Clear>): void {
    this.writes += 1
    const told = this.told.tell(mac, differences, desired)
    if (this.traits.saves === 'itself') this.told.keep()
    this.around.changed(this)
    const own = this.around.unit(mac)
    if (own?.joined) own.join(told)
  }

  /** An access point takes what its controller says. */
  join(told: Values): void {
    this.joined = true
    const { values } = this.running
    const next = { unit: { ...values.unit, ...told.unit }, networks: told.networks, radios: told.radios }
    this.running = { ...this.running, values: next }
    this.settle()
    this.around.changed(this)
  }

  /** What is written to now. */
  get configured(): Values {
    return this.candidate ?? this.running.values
  }

  /** Keeps a value that is in effect, where it does so by itself. */
  #persist(): void {
    if (this.traits.saves === 'itself' && this.before === undefined) this.startup = this.running
  }

  /** @param desired  the whole that the differences lead to */
  write(differences: readonly Difference[], desired: Config<Clear>): void {
    this.writes += 1
    const from = this.configured
    this.previous = from
    const next = differences.reduce((values, difference) => changed(values, difference, desired), from)
    if (this.traits.applies === 'staged') {
      this.candidate = this.#afterCountry(from, next)
      this.around.changed(this)
      return
    }
    this.#take(next)
  }

  /** Something takes effect. */
  #take(next: Values): void {
    const before = this.running.values
    const countrySet = next.unit['unit.country'] !== before.unit['unit.country']
    const values = this.traits.applies === 'staged' ? next : this.#afterCountry(before, next)
    this.running = { ...this.running, values }
    const moves = movesBetween(before, values)
    if (moves && this.traits.move === 'confirmed') this.#awaitConfirmation(before)
    this.#persist()
    this.#radios.start(values, before)
    this.around.changed(this)
    const { restarts, applies } = this.traits
    if (restarts === 'country' && countrySet && applies === 'at-once') this.#restartWithAll()
    else if (moves) {
      const { boot } = this
      if (restarts === 'address' && this.before === undefined) this.#restartWithAll()
      else
        this.world.after(this.around.ms(moveSeconds), () => {
          if (this.boot !== boot) return
          this.settle()
          this.around.changed(this)
        })
    }
  }

  /** Where the country is another, its channels may be set back. */
  #afterCountry(before: Values, next: Values): Values {
    const isAnother = next.unit['unit.country'] !== before.unit['unit.country']
    return isAnother && this.traits.country === 'resets-radios' ? withRadiosReset(next) : next
  }

  #awaitConfirmation(before: Values): void {
    this.before ??= before
    this.#moves += 1
    const [boot, move] = [this.boot, this.#moves]
    this.world.after(this.around.ms(confirmSeconds), () => {
      if (this.before === undefined || this.boot !== boot || this.#moves !== move) return
      this.world.tell(this.unit.name, 'takes its move back: nobody confirmed it')
      this.running = { ...this.running, values: this.before }
      this.before = undefined
      this.settle()
      this.around.changed(this)
    })
  }

  /** It is reached where it went: it stays there. */
  confirm(): void {
    if (this.before === undefined) return
    this.before = undefined
    this.#persist()
  }

  apply(): void {
    const { candidate } = this
    if (!candidate || this.applying) return
    this.applying = true
    const { boot } = this
    this.world.after(this.around.ms(timing.apply), () => {
      if (this.boot !== boot) return
      this.applying = false
      this.candidate = undefined
      this.#take(candidate)
      if (this.traits.restarts === 'apply' && this.before === undefined) this.#restartWithAll()
    })
  }

  changePassword(password: string): void {
    this.writes += 1
    this.running = { ...this.running, password }
    this.#persist()
    this.around.changed(this)
  }

  save(): void {
    if (this.isSaved) return
    this.writes += 1
    this.#keep()
  }

  #keep(): void {
    this.startup = this.running
    this.told.keep()
  }

  install(version: string): void {
    this.writes += 1
    const { boot } = this
    this.world.after(this.around.ms(timing.image), () => {
      if (this.boot !== boot) return
      this.firmware = version
      this.restart()
    })
  }

  /** Somebody else changes it, over a session of their own. */
  meddle(what: Meddling): void {
    this.running = meddled(this.running, what)
    this.#persist()
    this.around.changed(this)
  }

  /** Hands give it its address in its own pages, for good. */
  setByHand(address: string): void {
    const { values } = this.running
    const unit = { ...values.unit, 'management.method': 'static', 'management.address': address }
    this.running = { ...this.running, values: { ...values, unit } as Values }
    this.startup = this.running
    if (this.phase === 'up') this.settle()
    this.around.changed(this)
  }

  get isSaved(): boolean {
    const isKept = this.startup === this.running && this.told.isKept
    return isKept || (this.traits.saves === 'itself' && this.before === undefined)
  }

  /** Right where it has a time server, or never was wrong. */
  get secondsOff(): number {
    const servers = this.running.values.unit['clock.ntp-servers']
    return this.traits.clock === 'right' || (Array.isArray(servers) && servers.length > 0) ? 0 : 86_400
  }

  /** As it shows itself. */
  observed(values: Values): ObservedConfig {
    const told = this.#shown.get(values) ?? shown(values, this.traits.secrets !== 'shown')
    this.#shown.set(values, told)
    const asksDhcp = values.unit['management.method'] === 'dhcp' && this.address !== undefined
    return {
      ...told,
      unit: {
        ...told.unit,
        ...(asksDhcp ? { 'management.address': { kind: 'value', value: this.address } } : {}),
        'unit.firmware': { kind: 'value', value: this.firmware },
        'clock.time': { kind: 'value', value: this.secondsOff },
      },
    } as ObservedConfig
  }

  readonly #shown = new WeakMap<Values, ObservedConfig>()

  /** What its radios do now. */
  air(): RadioOnAir[] {
    return this.#radios.air(this.running.values)
  }

  /** Networks that anybody can join now, by their id. */
  openOnAir(): string[] {
    return this.phase === 'up' ? this.#radios.open(this.running.values) : []
  }
}
