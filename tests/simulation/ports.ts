/** The ports of one process into a scene: records, host and sessions, each call of which takes time and may fail. */
import type { Difference } from '../../src/core/config/compare'
import type { ObservedConfig, UnitConfig } from '../../src/core/config/unit-config'
import type { DirectCard } from '../../src/core/kit/kit-card'
import { nothingHeard } from '../../src/core/muster/events'
import type { Records } from '../../src/runner/ports/records'
import { always, type Dialect } from '../../src/wire/dialect/dialect'
import type { Controller } from '../../src/wire/dialect/managed/controller'
import type { Host, Lane } from '../../src/wire/host/host'
import type { Sessions } from '../../src/wire/sessions'
import type { PinCheck } from '../../src/wire/trust/pin'
import { WireError } from '../../src/wire/wire-error'
import type { CallName } from './faults'
import { managedDialect } from './managed'
import type { EffectTime } from './outcome'
import type { Scene } from './scene'
import { firmwareVersions, imageHash } from './site'
import type { SimulatedUnit, Visitor } from './unit'
import type { Process } from './world'

export function recordsOf(scene: Scene, process: Process): Records {
  const { records } = scene
  return {
    claimOrder: (owner, lease, working) =>
      scene.call(process, 'claim', async () => {
        const order = await records.claimOrder(owner, lease, working)
        if (order) scene.working.set(process.name, order)
        return order
      }),
    renewLease: (...asked) => scene.call(process, 'renew', () => records.renewLease(...asked)),
    endOrder: (...asked) => scene.call(process, 'end', () => records.endOrder(...asked)),
    orderThrew: (...asked) => scene.call(process, 'threw', () => records.orderThrew(...asked)),
    placeOrder: (order) => scene.call(process, 'place', () => records.placeOrder(order)),
    musterIsOpen: (id) => scene.call(process, 'roll', () => records.musterIsOpen(id)),
    reportRunner: () => scene.call(process, 'roll', () => records.reportRunner()),
    appendEvents: (id, events, known) =>
      scene
        .call(process, 'append', (time) => {
          scene.appending(events)
          return records.appendEvents(id, events, time === 'again' ? 'perhaps-there' : known)
        })
        .then(() => {
          for (const event of events) scene.keptEvents.add(event)
        }),
    rollOf: (id) => scene.call(process, 'roll', () => records.rollOf(id)),
    bench: (id) => scene.call(process, 'bench', () => records.bench(id)),
    job: (id) => scene.call(process, 'job', () => records.job(id)),
    secrets: (id) => scene.call(process, 'secrets', () => records.secrets(id)),
    pinOnFirstSight: (id, mac, shown) => scene.call(process, 'pin', () => records.pinOnFirstSight(id, mac, shown)),
    hasBackup: (...asked) => scene.call(process, 'copy', () => records.hasBackup(...asked)),
    keepBackup: (id, mac, copy, text) => scene.call(process, 'copy', () => records.keepBackup(id, mac, copy, text)),
    fileParts: (sha256) => records.fileParts(sha256),
  }
}

const macNumber = (mac: string): number => Number.parseInt(mac.slice(-2), 16)

export function hostOf(scene: Scene, process: Process): Host {
  const isIn = (address: string, cidrs: readonly string[]): boolean =>
    cidrs.some((cidr) => address.startsWith(cidr.slice(0, cidr.lastIndexOf('.') + 1)))
  return {
    name: 'simulated',
    interruptions: () => scene.interruptions,
    laptop: () =>
      scene.call(process, 'laptop', () => ({
        interfaceName: 'wired0',
        addresses: [],
        lanes: 0,
        vlans: [],
        silentVlans: [],
        vlanFault: null,
        pace: scene.scenario.site.pace,
      })),
    canAsk: async () => true,
    onLink: async () => undefined,
    arp: (address) => scene.call(process, 'arp', () => scene.answering(address), address),
    neighbours: (subnets) =>
      scene.call(process, 'neighbours', () =>
        scene.units.flatMap(({ mac, address, phase, isAway }) =>
          phase === 'up' && !isAway && address !== undefined && isIn(address, subnets) ? [{ mac, address }] : [],
        ),
      ),
    heard: () => scene.call(process, 'heard', () => ({ ...nothingHeard, introductions: [] })),
    keepOff: () => scene.call(process, 'keep-off', () => undefined),
    reachVlans: async () => undefined,
    restore: async () => undefined,
    openLane: (target) => scene.call(process, 'lane', () => laneOf(scene, process, target), target.address),
  }
}

function laneOf(scene: Scene, process: Process, target: { mac: string; address: string; prefix: number }): Lane {
  const { mac, address } = target
  return {
    ...target,
    source: `198.18.0.${macNumber(mac)}`,
    connect: (port) =>
      scene.call(
        process,
        'connect',
        () => {
          const unit = scene.reached(mac, address)
          const { 'services.https-only': httpsOnly, 'services.ssh': ssh } = unit?.running.values.unit ?? {}
          const isOpen =
            unit !== undefined &&
            ((port === 80 && httpsOnly === false) || (port === 22 && ssh === true) || port === unit.card.factory.port)
          if (!isOpen) throw new WireError('unreachable', `${address} port ${port}`)
          return { destroy: () => undefined } as never
        },
        `${address}:${port}`,
      ),
    datagrams: () => Promise.reject(new WireError('unreachable', 'nobody takes datagrams')),
    ping: () =>
      scene.call(process, 'ping', () => {
        const unit = scene.reached(mac, address)
        return unit !== undefined && unit.traits.ping === 'answers'
      }),
    close: async () => undefined,
  }
}

/** A session of a process with whoever a lane leads to. */
export class SimulatedSession implements Dialect {
  #unit: SimulatedUnit | undefined
  #visitor: Visitor | undefined
  #password = ''

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

  async signIn({ password }: { password: string }): Promise<void> {
    const certificate = await this.#call('identify', () => this.#reached().certificate)
    await this.pin(certificate)
    await this.#call('sign-in', () => {
      const unit = this.#reached()
      if (unit.certificate !== certificate) throw new WireError('unreachable', 'the connection is gone')
      if (unit.mac !== this.lane.mac) throw new WireError('wrong-unit', `${unit.mac} answers`)
      if (unit.traits.sessions !== 'many' && unit.isOccupied(this.#visitor))
        throw new WireError('occupied', 'somebody else is signed in')
      this.scene.isShownPassword(unit)
      if (unit.running.password !== password) throw new WireError('refused', 'the password is wrong')
      if (this.#visitor) unit.visitors.delete(this.#visitor)
      this.#unit = unit
      this.#password = password
      this.#visitor = { usedAt: this.scene.world.now, boot: unit.boot, left: false }
      unit.visitors.add(this.#visitor)
      if (this.process.isDead) this.breakOff()
    })
  }

  async read(reading: 'configured' | 'in-effect'): Promise<ObservedConfig> {
    return this.#call('read', (time) => {
      const unit = this.signedIn()
      if (time === 'older') return unit.observed(unit.previous)
      return unit.observed(reading === 'configured' ? unit.configured : unit.running.values)
    })
  }

  async backup(): Promise<string> {
    return this.#call('backup', () => JSON.stringify(this.signedIn().startup.values))
  }

  async write(differences: readonly Difference[], desired: UnitConfig, mayChange = always): Promise<void> {
    const whole = this.#unit?.traits.writes !== 'piece-by-piece'
    for (const piece of whole ? [differences] : piecesOf(differences)) {
      if (!whole) await mayChange()
      this.scene.sends(this.process, this.#unit)
      await this.#call('write', () => {
        const unit = this.signedIn()
        this.scene.writes(this.process, unit, { kind: 'write', differences: piece })
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

  changes() {
    return this.#call('changes', () => {
      const unit = this.signedIn()
      const standing = unit.applying ? 'applying' : unit.candidate ? 'waiting' : 'none'
      return { standing, saved: unit.isSaved ? 'saved' : 'unsaved' } as const
    })
  }

  revision(): Promise<string | undefined> {
    return this.#call('revision', () => {
      const unit = this.signedIn()
      // Whatever is staged and hides secrets must tell one configuration from another: see docs/limits.md.
      const isTold = unit.traits.secrets !== 'hidden' || unit.traits.applies === 'staged'
      return !isTold ? undefined : JSON.stringify([unit.configured, unit.running.password])
    })
  }

  apply(): Promise<void> {
    this.scene.sends(this.process, this.#unit)
    return this.#call('apply', () => {
      const unit = this.signedIn()
      this.scene.writes(this.process, unit, { kind: 'apply' })
      // RFC 6241, 8.4: nobody else commits while a commit waits to be confirmed.
      if (unit.before !== undefined) throw new WireError('rejected', 'a move waits to be confirmed')
      unit.apply()
    })
  }

  async confirm(): Promise<void> {
    await this.#call('confirm', () => this.signedIn().confirm())
  }

  save() {
    this.scene.sends(this.process, this.#unit)
    return this.#call('save', () => {
      const unit = this.signedIn()
      this.scene.writes(this.process, unit, { kind: 'save' })
      unit.save()
      return 'saved' as const
    })
  }

  async restart(): Promise<void> {
    throw new Error('no step restarts a unit')
  }

  async install({ sha256, parts }: { sha256: string; parts: () => AsyncIterable<Uint8Array> }): Promise<void> {
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

export function sessionsOf(scene: Scene, process: Process): Sessions {
  const silent = { kind: 'silent' } as const
  return {
    unit: async (lane, card, pin) => new SimulatedSession(scene, process, lane, card, pin),
    controller: async (lane, card, pin) =>
      new SimulatedSession(scene, process, lane, card, pin) as unknown as Controller,
    managed: (mac, _card, use) => managedDialect(scene, process, mac, use),
    discover: async () => undefined,
    snmpAsUser: async () => silent,
    snmpInClear: async () => silent,
    wtpStanding: async () => silent,
    carriedNetworks: async () => silent,
  }
}
