/**
 * A stand-in as a state machine: power, start, changes that are staged or take effect at once, apply, save, restart,
 * radios, lights, clock, reset button.
 *
 * It knows nothing of sockets, and of no protocol. Country and accounts always take effect at once.
 */
import type { ChannelBlock } from '../../core/regulatory/blocks'
import type { RegulatoryDatabase } from '../../core/regulatory/database'
import type { LabClock } from './clock'
import type { DeviceSettings, ManagedPoint } from './device-settings'
import { factorySettings, type Identity } from './factory'
import { Flash } from './flash'
import { ImageSlot } from './image-slot'
import type { Joins } from './join'
import type { RadioNow } from './radio-now'
import { RadioRules } from './radio-rules'
import { Refusal } from './refusal'
import { same } from './same'
import { checkSettings, inWholeSteps } from './settings-rules'
import { quietSite, type Site } from './site'
import type { StandInSheet } from './stand-in-sheet'
import { Transmitters } from './transmitters'

export type Phase = 'off' | 'starting' | 'up' | 'applying'

export interface Wired {
  readonly address: string | null
  readonly prefix: number | null
  readonly gateway: string | null
  readonly dns: readonly string[]
  /** Of other subnets, that it is told of. */
  readonly controllers: readonly string[]
}

const networkBeforeServiceSeconds = 15
/** A clock without power begins here. */
const clockBegins = Date.parse('2021-01-01T00:00:00Z')

export class Device {
  #phase: Phase = 'off'
  #staged: DeviceSettings
  #effective: DeviceSettings
  #saved: DeviceSettings
  #passwords: Map<string, string>
  #firmware: string
  readonly #slot = new ImageSlot()
  readonly #rules: RadioRules
  readonly #transmitters: Transmitters
  #callOff: () => void = () => {}
  /** Lab time at which it has started. */
  #startsUntil = 0
  /** Lab time at which it came up. */
  #upSince = 0
  /** Told whenever the unit starts or stops to answer. */
  onPhase: (phase: Phase) => void = () => {}
  /** Told after each change of what is in effect. */
  onEffect: () => void = () => {}

  constructor(
    readonly sheet: StandInSheet,
    readonly identity: Identity,
    readonly clock: LabClock,
    regulatory: RegulatoryDatabase,
    private readonly flash: Flash = new Flash(undefined, identity.mac),
    private readonly site: Site = quietSite,
  ) {
    const { settings, passwords, firmware } = flash.memory
    this.#firmware = firmware ?? sheet.firmware
    const { login } = sheet.factory
    this.#rules = new RadioRules(sheet, regulatory)
    this.#transmitters = new Transmitters(this.#rules, clock, identity.mac)
    this.#staged = this.#effective = this.#saved = settings ?? factorySettings(sheet, identity)
    this.#passwords = new Map(Object.entries(passwords ?? { [login.user]: login.password }))
  }

  /** Version that it runs. */
  get firmware(): string {
    return this.#firmware
  }

  get phase(): Phase {
    return this.#phase
  }

  /** Its address, and where it comes from: what is set, what DHCP gave, or the factory's where nobody gave any. */
  get wired(): Wired {
    const { wired, gateway, nameServers } = this.#effective
    if (wired.method === 'static') return { ...wired, gateway, dns: nameServers, controllers: [] }
    const lease = this.site.dhcp?.lease(this.identity.mac)
    if (lease) return { ...lease, dns: [lease.dns] }
    const { address, prefix } = this.sheet.factory
    return { address, prefix, gateway: null, dns: [], controllers: [] }
  }

  get address(): string | null {
    return this.wired.address
  }

  /** Tag of the VLAN on which it is managed. */
  get vlan(): number | null {
    return this.#effective.wired.vlan
  }

  /** Its network stack answers ARP and ICMP some seconds before its service does. */
  get networkIsUp(): boolean {
    if (this.#phase === 'starting') return this.clock.now() >= this.#startsUntil - networkBeforeServiceSeconds * 1000
    return this.#phase !== 'off'
  }

  get serviceIsUp(): boolean {
    return this.#phase === 'up' || this.#phase === 'applying'
  }

  /** Ports that take connections beside HTTPS. */
  get openPorts(): readonly number[] {
    const { httpsOnly, ssh, telnet } = this.#effective
    return [...(httpsOnly ? [] : [80]), ...(ssh ? [22] : []), ...(telnet ? [23] : [])]
  }

  /** What is configured, and may wait to be applied. */
  get configured(): DeviceSettings {
    return this.#staged
  }

  /** What it does. */
  get effective(): DeviceSettings {
    return this.#effective
  }

  /** Of a controller: who has joined it. */
  get joins(): Joins {
    return this.site.joins ?? { of: () => ({ standing: 'absent' }), at: () => [] }
  }

  /** What it will be after a restart. */
  get saved(): DeviceSettings {
    return this.#saved
  }

  /** By a time server that answers, or from where its clock began. */
  get time(): Date {
    if (this.#effective.timeServers.some((server) => this.site.ntpAnswers(server))) return new Date(Date.now())
    return new Date(clockBegins + this.clock.now() - this.#upSince)
  }

  get lights(): string {
    if (this.#phase === 'off') return 'dark'
    const { lights } = this.sheet
    if (this.#phase === 'starting' || this.#phase === 'applying') return lights[this.#phase]
    if (!this.#effective.lights) return 'dark'
    if (!this.changes.saved) return lights['not-saved']
    return lights[this.air().some((radio) => radio.networks.length > 0) ? 'on-air' : 'silent']
  }

  get changes(): { standing: 'none' | 'waiting' | 'applying'; saved: boolean } {
    const standing =
      this.#phase === 'applying' ? 'applying' : same(this.#staged, this.#effective) ? ('none' as const) : 'waiting'
    return { standing, saved: this.sheet.saves === 'itself' || same(this.#effective, this.#saved) }
  }

  /** Plugged in: it starts. */
  powerOn(): void {
    if (this.#phase === 'off') this.#start(this.sheet.timing.start)
  }

  /** Power cut: what was staged or not saved is lost, and an apply that was under way did not happen. */
  powerOff(): void {
    this.#callOff()
    this.#staged = this.#effective = this.#saved
    this.#enter('off')
  }

  /** The pinhole button, held so many seconds: long enough, and it is as it was in its box. */
  pressReset(seconds: number): void {
    if (this.#phase === 'off' || seconds < this.sheet.timing.resetHold) return
    this.#callOff()
    this.#staged = this.#effective = this.#saved = factorySettings(this.sheet, this.identity)
    this.#passwords = new Map([[this.sheet.factory.login.user, this.sheet.factory.login.password]])
    this.#remember()
    this.#start(this.sheet.timing.start)
  }

  /** Blocks that a radio of it may be set to, 20 MHz wide. */
  channels(band: string): readonly ChannelBlock[] {
    return this.#rules.channels(this.#staged, band)
  }

  accepts(user: string, password: string): boolean {
    return this.#passwords.get(user) === password
  }

  /** May this user change anything, or only look? */
  mayChange(user: string): boolean {
    const { administrators, administratorsMay } = this.#staged
    // Its maker's login may always (RFC 8341, 3.4.1: a recovery session).
    return user === this.sheet.factory.login.user || (administratorsMay && administrators.includes(user))
  }

  /**
   * Is told what to be, with new passwords by user.
   * @throws Refusal where it will not be that; nothing is changed then
   */
  configure(next: DeviceSettings, passwords: ReadonlyMap<string, string> = new Map()): void {
    if (this.#phase === 'applying')
      throw new Refusal('in-use', 'changes are being applied; try again when it has restarted')
    const countryChanged = next.country !== this.#staged.country
    const after = inWholeSteps(this.sheet, countryChanged ? this.#rules.reset(next) : next)
    checkSettings(this.sheet, after, passwords)
    this.#rules.check(after)
    for (const user of this.#staged.users) if (!after.users.includes(user)) this.#passwords.delete(user)
    for (const [user, password] of passwords) this.#passwords.set(user, password)
    this.#staged = after
    if (this.sheet.applies === 'at-once') this.#takeEffect(after)
    else if (countryChanged) this.#takeEffect({ ...this.#effective, country: after.country, radios: after.radios })
    else if (passwords.size > 0) this.#remember()
  }

  /** Of a controller: what the units that it manages are to be. That takes effect at once. */
  manage(points: readonly ManagedPoint[]): void {
    const withPoints = (settings: DeviceSettings): DeviceSettings => ({ ...settings, points: [...points] })
    this.#staged = withPoints(this.#staged)
    this.#effective = withPoints(this.#effective)
    this.#saved = withPoints(this.#saved)
    this.#remember()
  }

  /** Puts what is staged into effect: works on it, restarts, and then is what it was told to be. */
  apply(): void {
    if (this.#phase === 'applying') throw new Refusal('in-use', 'changes are being applied already')
    this.#enter('applying')
    this.#callOff = this.clock.after(this.sheet.timing.apply, () => {
      this.#effective = this.#staged
      if (this.sheet.saves === 'itself') this.#saved = this.#effective
      this.#remember()
      this.#start(this.sheet.timing.restart)
    })
  }

  /** What is in effect survives a restart from now on. */
  save(): void {
    this.#saved = this.#effective
    this.#remember()
  }

  /** Runs this version from now on. */
  runs(version: string): void {
    this.#firmware = version
    this.flash.remember({ firmware: version })
  }

  /** A part of an image. @throws Refusal */
  takeImagePart(image: string, offset: number, content: Buffer): void {
    this.#slot.take(image, offset, content)
  }

  /**
   * Installs the image that has come, beside what it runs: only when that is done it runs it, from its next start on.
   * @returns what has to be called once whoever asked has the answer @throws Refusal where it is not for it
   */
  install(image: string): () => void {
    const { maker, model, timing } = this.sheet
    if (this.#phase === 'applying') throw new Refusal('in-use', 'changes are being applied; try again later')
    const { version, turnsTelnetOn } = this.#slot.read(image, `${maker} ${model}`)
    return () => {
      this.#enter('applying')
      this.#callOff = this.clock.after(timing.image ?? 0, () => {
        this.runs(version)
        const telnet = turnsTelnetOn || this.#saved.telnet
        this.#staged = this.#effective = this.#saved = { ...this.#saved, telnet }
        this.#remember()
        this.#start(timing.restart)
      })
    }
  }

  restart(): void {
    this.#callOff()
    this.#staged = this.#effective = this.#saved
    this.#start(this.sheet.timing.restart)
  }

  /** Radar on the channel of a radio that must listen for it: it leaves for one where it need not, at once. */
  hearRadar(band: string): void {
    if (this.serviceIsUp) this.#transmitters.hearRadar(this.#effective, band)
  }

  /** What the radios really do now. */
  air(): RadioNow[] {
    return this.serviceIsUp ? this.#transmitters.now(this.#effective) : this.#transmitters.off(this.#effective)
  }

  #takeEffect(settings: DeviceSettings): void {
    const before = this.#effective
    this.#effective = settings
    if (this.sheet.saves === 'itself') this.#saved = settings
    if (before.country !== settings.country) this.#transmitters.listenAnew()
    this.#remember()
    this.onEffect()
    const moved = !same(before.wired, settings.wired)
    // The answer to whoever moved it still goes out; then nobody is connected any more.
    if (moved) this.clock.after(1, () => this.onPhase(this.#phase === 'up' ? 'starting' : this.#phase))
  }

  #remember(): void {
    this.flash.remember({ settings: this.#saved, passwords: Object.fromEntries(this.#passwords) })
  }

  #start(seconds: number): void {
    this.#startsUntil = this.clock.now() + seconds * 1000
    this.#enter('starting')
    this.#callOff = this.clock.after(seconds, () => {
      this.#upSince = this.clock.now()
      this.#transmitters.start()
      this.#enter('up')
    })
  }

  #enter(phase: Phase): void {
    this.#phase = phase
    this.onPhase(phase)
  }
}
