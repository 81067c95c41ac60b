/** Sessions of one process with the units of a scene, each call of which takes time and may fail. */
import type { Difference } from '../../src/core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../src/core/config/unit-config'
import { type DirectCard, makesItsAdmin } from '../../src/core/kit/kit-card'
import {
  always,
  type ConfirmedMove,
  type Copies,
  type Dialect,
  type Firmware,
  type Saving,
  type Staging,
} from '../../src/wire/dialect/dialect'
import { WireError } from '../../src/wire/errors/wire-error'
import type { Lane } from '../../src/wire/host/host'
import type { PinCheck } from '../../src/wire/trust/pin'
import type { CallName } from './faults'
import type { EffectTime } from './outcome'
import type { Scene } from './scene'
import { firmwareVersions, imageHash } from './site'
import type { SimulatedUnit } from './unit'
import { factoryPassword } from './values'
import type { Visitor } from './visitors'
import type { Process } from './world'

/** A session of a process with whoever a lane leads to. */
export class SimulatedSession implements Dialect {
  #unit: SimulatedUnit | undefined
  #visitor: Visitor | undefined
  #password = ''
  #made: { user: string; password: string } | undefined

  constructor(
    readonly scene: Scene,
    readonly process: Process,
    readonly lane: Lane,
    readonly card: DirectCard,
    readonly pin: PinCheck,
  ) {
    scene.sessions.add(this)
  }

  /** The connection breaks, where it is one: requests that stand by themselves go on. */
  loseConnection(): void {
    if (this.#unit?.traits.session !== 'requests') this.breakOff()
  }

  /** The process is gone, without a goodbye. */
  breakOff(): void {
    const unit = this.#unit
    if (!this.#visitor || !unit) return
    if (unit.card.dialect.kind === 'pages') this.#visitor.left = true
    else unit.visitors.delete(this.#visitor)
    this.#visitor = undefined
  }

  #reached(): SimulatedUnit {
    const unit = this.scene.reached(this.lane.mac, this.lane.address)
    if (!unit) throw new WireError('unreachable', `nobody answers at ${this.lane.address}`)
    return unit
  }

  /** The unit that this session is signed in to. */
  signedIn(): SimulatedUnit {
    const unit = this.#reached()
    if (unit !== this.#unit || !this.#visitor) throw new WireError('unreachable', 'the connection is gone')
    if (unit.traits.session === 'connection' && this.#visitor.boot !== unit.boot)
      throw new WireError('unreachable', 'the connection is gone')
    // Where each request signs in by itself, a password that was changed meanwhile is refused.
    if (unit.traits.session === 'requests' && unit.running.password !== this.#password)
      throw new WireError('refused', 'the password is wrong')
    this.#visitor.usedAt = this.scene.world.now
    return unit
  }

  async identify() {
    const unit = await this.#call('identify', () => this.#reached())
    await this.pin(unit.certificate)
    return { realm: unit.card.recognise.realm }
  }

  async signIn({ password }: { password: string }, toBe?: { user: string; password: string }): Promise<void> {
    this.#made = undefined
    const certificate = await this.#call('identify', () => this.#reached().certificate)
    await this.pin(certificate)
    await this.#call('sign-in', () => {
      const unit = this.#reached()
      if (unit.certificate !== certificate) throw new WireError('unreachable', 'the connection is gone')
      if (unit.mac !== this.lane.mac) throw new WireError('wrong-unit', `${unit.mac} answers`)
      if (unit.traits.sessions !== 'many' && unit.visitors.holdOff(this.#visitor))
        throw new WireError('occupied', 'somebody else is signed in')
      this.scene.isShownPassword(unit)
      const made = this.#makesAdmin(unit, toBe)
      const opens = made?.password ?? password
      if (unit.running.password !== opens) throw new WireError('refused', 'the password is wrong')
      if (this.#visitor) unit.visitors.delete(this.#visitor)
      this.#unit = unit
      this.#password = opens
      this.#made = made
      this.#visitor = { usedAt: this.scene.world.now, boot: unit.boot, left: false }
      unit.visitors.add(this.#visitor)
      if (this.process.isDead) this.breakOff()
    })
  }

  madeLogin(): { user: string; password: string } | undefined {
    return this.#made
  }

  /** Whoever comes first makes its admin; nobody signs in before that. */
  #makesAdmin(unit: SimulatedUnit, toBe: { user: string; password: string } | undefined) {
    if (!makesItsAdmin(unit.card) || unit.running.password !== factoryPassword) return undefined
    if (!toBe) throw new WireError('refused', 'nobody has made its admin yet')
    this.scene.sends(this.process, unit)
    this.scene.writes(this.process, unit, { kind: 'admin', password: toBe.password })
    unit.changePassword(toBe.password)
    return toBe
  }

  async read(reading: 'configured' | 'in-effect'): Promise<ObservedConfig> {
    return this.#call('read', (time) => {
      const unit = this.signedIn()
      if (time === 'older') return unit.observed(unit.previous)
      return unit.observed(reading === 'configured' ? unit.configured : unit.running.values)
    })
  }

  readonly copies: Copies = {
    backup: () => this.#call('backup', () => JSON.stringify(this.signedIn().startup.values)),
  }

  async write(differences: readonly Difference[], desired: Config<Clear>, mayChange = always): Promise<void> {
    const whole = this.#unit?.traits.writes !== 'piece-by-piece'
    for (const piece of whole ? [differences] : piecesOf(differences)) {
      if (!whole) await mayChange()
      this.scene.sends(this.process, this.#unit)
      await this.#call('write', () => {
        const unit = this.signedIn()
        this.scene.writes(this.process, unit, { kind: 'write', differences: piece, desired })
        unit.write(piece, desired)
      })
    }
  }

  async changePassword(_user: string, password: string): Promise<void> {
    this.scene.sends(this.process, this.#unit)
    await this.#call('password', () => {
      const unit = this.signedIn()
      this.scene.writes(this.process, unit, { kind: 'password', password })
      unit.changePassword(password)
      this.#password = password
    })
  }

  readonly staging: Staging = {
    standing: () =>
      this.#call('changes', () => {
        const unit = this.signedIn()
        return unit.applying ? 'applying' : unit.candidate ? 'waiting' : 'none'
      }),
    revision: () =>
      this.#call('revision', () => {
        const unit = this.signedIn()
        // Whatever is staged and hides secrets must tell one configuration from another: see docs/limits.md.
        const isTold = unit.traits.secrets !== 'hidden' || unit.traits.applies === 'staged'
        return !isTold ? undefined : JSON.stringify([unit.configured, unit.running.password])
      }),
    apply: () => {
      this.scene.sends(this.process, this.#unit)
      return this.#call('apply', () => {
        const unit = this.signedIn()
        this.scene.writes(this.process, unit, { kind: 'apply' })
        // RFC 6241, 8.4: nobody else commits while a commit waits to be confirmed.
        if (unit.before !== undefined) throw new WireError('rejected', 'a move waits to be confirmed')
        unit.apply()
      })
    },
  }

  readonly confirmedMove: ConfirmedMove = {
    confirm: () => this.#call('confirm', () => this.signedIn().confirm()),
  }

  readonly saving: Saving = {
    isSaved: () => this.#call('changes', () => this.signedIn().isSaved),
    save: () => {
      this.scene.sends(this.process, this.#unit)
      return this.#call('save', () => {
        const unit = this.signedIn()
        this.scene.writes(this.process, unit, { kind: 'save' })
        unit.save()
        return true
      })
    },
  }

  readonly firmware: Firmware = { install: (image) => this.#install(image) }

  async #install({ sha256, parts }: { sha256: string; parts: () => AsyncIterable<Uint8Array> }): Promise<void> {
    for await (const part of parts()) if (part.length === 0) throw new Error('an empty part')
    this.scene.sends(this.process, this.#unit)
    await this.#call('install', () => {
      const unit = this.signedIn()
      if (sha256 !== imageHash) throw new WireError('rejected', 'it is damaged')
      this.scene.writes(this.process, unit, { kind: 'install' })
      unit.install(firmwareVersions.wanted)
    })
  }

  air() {
    return this.#call('air', () => this.signedIn().air())
  }

  close(): void {
    this.scene.sessions.delete(this)
    if (this.process.isDead || !this.#visitor) return
    this.#unit?.visitors.delete(this.#visitor)
    this.#visitor = undefined
  }

  #call<T>(name: CallName, effect: (time: EffectTime) => T): Promise<Awaited<T>> {
    return this.scene.call(this.process, name, effect, this.lane.mac.slice(-2))
  }
}

/** Each network, each radio and the unit itself by themselves, as models with a page or a command for each do it. */
function piecesOf(differences: readonly Difference[]): Difference[][] {
  const pieces = new Map<string, Difference[]>()
  for (const each of differences) {
    const scope = each.kind === 'value' ? each.of : `${each.scope} ${each.of}`
    pieces.set(scope, [...(pieces.get(scope) ?? []), each])
  }
  return [...pieces.values()]
}
