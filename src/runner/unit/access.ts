/** How a unit is reached: where it was found, the lanes to it, and the session that is open. */

import { parseCidr, parseIpv4 } from '../../core/address/ipv4'
import { lentPrefix } from '../../core/addressing/bench-subnet'
import { isDirect, servicePorts } from '../../core/kit/kit-card'
import { message } from '../../core/message/message'
import type { Credentials } from '../../core/secrets/credentials'
import type { Dialect, MayChange } from '../../wire/dialect/dialect'
import { WireError } from '../../wire/errors/wire-error'
import type { Host, Lane } from '../../wire/host/host'
import type { PagePicture } from '../../wire/page-elements/picture'
import type { Sessions } from '../../wire/sessions'
import type { PinCheck } from '../../wire/trust/pin'
import type { Contact } from './contact'
import { guarded } from './guarded'
import type { Target } from './target'

/** A page that does not finish loading is waited for no longer than this, real ms. */
const longestLookMs = 4000

export class Access {
  readonly #target: Target
  readonly #pin: PinCheck
  readonly #sessions: Sessions
  readonly #lanes = new Map<string, Lane>()
  readonly #mayChange: MayChange
  /** The session that is kept, and how it is used. */
  #kept: Dialect | undefined
  /** Address at which it was found. */
  address: string | undefined
  /** What it showed where something failed last. */
  shown: PagePicture | undefined
  /** Login that opened the session. */
  credentials: Credentials | undefined

  constructor(
    target: Target,
    readonly host: Host,
    sessions: Sessions,
    pin: PinCheck,
    mayChange: MayChange,
    readonly contact: Contact,
  ) {
    this.#target = target
    this.#sessions = sessions
    this.#pin = pin
    this.#mayChange = mayChange
  }

  /** Where it answers as far as is known. */
  get here(): string {
    return this.address ?? this.#target.card.factory.address ?? this.#target.plan.address
  }

  /** The session that is signed in. */
  get dialect(): Dialect {
    if (!this.#kept) throw new WireError('unreachable', message('no-session-open'))
    return this.#kept
  }

  /** Who else has changed it since this was asked last, where it tells. */
  get others(): readonly string[] {
    return this.#kept?.othersWhoChanged?.() ?? []
  }

  /** The lane to this unit at an address. */
  async lane(address: string): Promise<Lane> {
    const open = this.#lanes.get(address)
    if (open) return open
    const lane = await this.host.openLane({
      mac: this.#target.unit.mac,
      address,
      prefix: this.#prefixAt(address),
      by: this.#target.card.does.reachedBy,
      old: this.#target.card.does.old,
    })
    this.#lanes.set(address, lane)
    return lane
  }

  #prefixAt(address: string): number {
    const { card, formerPlaces, subnets } = this.#target
    const { factory } = card
    if (address === factory.address) return factory.prefix
    const former = formerPlaces.find((place) => place.address === address)
    const within = subnets.map((cidr) => parseCidr(cidr)).find((cidr) => cidr && isWithin(address, cidr))
    return former?.prefix ?? within?.prefix ?? lentPrefix(address) ?? factory.prefix
  }

  /**
   * A session of its own at an address, not signed in yet. The caller closes it. Where the unit takes one at a time,
   * the one before is let go.
   */
  async session(address: string): Promise<Dialect> {
    const { card } = this.#target
    if (!isDirect(card)) throw new WireError('unreachable', message('controller-alone-speaks'))
    if (card.does.sessions === 'one') this.dropSession()
    const session = await this.#sessions.unit(await this.lane(address), card, this.#pin, this.#target.compiled.config)
    return this.guard(session)
  }

  /** Signs in and takes the session over. */
  async signIn(login: Credentials, address: string): Promise<void> {
    const dialect = await this.session(address)
    try {
      await dialect.signIn(login)
    } catch (error) {
      await this.look(dialect)
      dialect.close()
      throw error
    }
    this.keep(dialect, login, address)
  }

  /**
   * Work with a session beside the one that is kept. Where the unit takes one at a time, that one is opened again
   * afterwards.
   */
  async beside<T>(address: string, work: (dialect: Dialect) => Promise<T>): Promise<T> {
    const { credentials, here } = this
    const dialect = await this.session(address)
    try {
      return await work(dialect)
    } finally {
      dialect.close()
      if (!this.#kept && credentials) await this.signIn(credentials, here)
    }
  }

  /** Does a port of the unit take a connection? */
  async takes(address: string, port: number): Promise<boolean> {
    try {
      const socket = await (await this.lane(address)).connect(port)
      socket.destroy()
      return true
    } catch (error) {
      if (error instanceof WireError && error.kind === 'unreachable') return false
      throw error
    }
  }

  /** Does its management service take a connection, wherever it listens? */
  async takesSessions(address: string): Promise<boolean> {
    for (const port of servicePorts(this.#target.card)) if (await this.takes(address, port)) return true
    return false
  }

  /** Its changes ask first, and its answers are heard. */
  guard(session: Dialect): Dialect {
    return guarded(session, this.#mayChange, this.contact)
  }

  /** Takes over a session that is signed in, and lets go of the one before. */
  keep(session: Dialect, credentials: Credentials, address: string): void {
    if (this.#kept !== session) {
      this.#kept?.close()
      this.#kept = session
    }
    this.credentials = credentials
    this.address = address
  }

  dropSession(): void {
    this.#kept?.close()
    this.#kept = undefined
  }

  /** Keeps in mind what a session showed last, where it shows anything: it is about to be closed by what failed. */
  async look(dialect: Dialect | undefined = this.#kept): Promise<void> {
    if (!dialect?.picture) return
    const late = new Promise<undefined>((resolve) => {
      setTimeout(() => resolve(undefined), longestLookMs).unref()
    })
    const picture = dialect.picture(this.#target.clearSecrets).catch(() => undefined)
    this.shown = (await Promise.race([picture, late])) ?? this.shown
  }

  async closeLane(address: string): Promise<void> {
    const lane = this.#lanes.get(address)
    this.#lanes.delete(address)
    await lane?.close()
  }

  async close(): Promise<void> {
    this.dropSession()
    await Promise.allSettled([...this.#lanes.keys()].map((address) => this.closeLane(address)))
  }
}

function isWithin(address: string, cidr: NonNullable<ReturnType<typeof parseCidr>>): boolean {
  const number = parseIpv4(address)
  return number !== undefined && number >= cidr.network && number <= cidr.broadcast
}
