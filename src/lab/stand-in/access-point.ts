/**
 * An access point as a state machine: power, start, staged changes, apply, restart, radios, lights, reset button.
 *
 * It knows nothing of sockets. What is configured (`staged`) takes effect when applied; country and accounts at once.
 */
import type { RegulatoryDatabase } from '../../core/regulatory/database'
import { judgeChannel, legalBlocks } from '../../core/regulatory/legal'
import type { YangAir, YangConfig, YangRadio } from '../../wire/codec/yang-data'
import type { YangEdit } from '../../wire/codec/yang-patch'
import type { LabClock } from '../clock'
import { Flash } from '../flash'
import { applyEdit, checked, DatastoreError } from './datastore'
import type { StandInSheet } from './sheet'

export type Phase = 'off' | 'starting' | 'up' | 'applying'

export interface Identity {
  readonly mac: string
  readonly serial: string
}

/** How long a radio listens on a channel that radar may use, seconds (ETSI EN 301 893, FCC part 15 E). */
const radarListenSeconds = 60

const networkBeforeServiceSeconds = 15

export class AccessPoint {
  #phase: Phase = 'off'
  #staged: YangConfig
  #effective: YangConfig
  /** Configurations are replaced, never changed: two that were compared once need not be again. */
  #compared: { staged: YangConfig; effective: YangConfig; differ: boolean } | undefined
  #passwords = new Map<string, string>()
  #callOff: () => void = () => {}
  /** Lab time at which it has started. */
  #startsUntil = 0
  /** Lab time at which the radios began to listen or transmit. */
  #radiosSince = 0
  /** Told whenever the unit starts or stops to answer. */
  onPhase: (phase: Phase) => void = () => {}

  constructor(
    readonly sheet: StandInSheet,
    readonly identity: Identity,
    readonly clock: LabClock,
    private readonly regulatory: RegulatoryDatabase,
    private readonly flash: Flash = new Flash(undefined, identity.mac),
  ) {
    const { config, passwords } = flash.memory
    this.#staged = this.#effective = config ?? this.#factoryConfig()
    this.#passwords = new Map(Object.entries(passwords ?? { [sheet.factory.login.user]: sheet.factory.login.password }))
  }

  get phase(): Phase {
    return this.#phase
  }

  /** Address that is in effect. */
  get address(): string | null {
    const interfaces = this.#effective['ietf-interfaces:interfaces'].interface
    return (
      interfaces.find((each) => each.name === this.sheet.managementInterface)?.['ietf-ip:ipv4']?.address[0]?.ip ?? null
    )
  }

  /** Its network stack answers ARP and ICMP some seconds before its service does. */
  get networkIsUp(): boolean {
    if (this.#phase === 'starting') return this.clock.now() >= this.#startsUntil - networkBeforeServiceSeconds * 1000
    return this.#phase !== 'off'
  }

  /** What is configured, passwords left out. */
  get configuration(): YangConfig {
    return this.#staged
  }

  get lights(): string {
    if (this.#phase === 'off') return 'dark'
    if (this.#phase === 'starting') return 'slow white'
    if (this.#phase === 'applying') return 'fast white'
    if (!this.#effective['air-muster-wireless:wireless'].lights) return 'dark'
    return this.air().radio.some((radio) => radio.network.length > 0) ? 'steady green' : 'steady white'
  }

  /** Plugged in: it starts. */
  powerOn(): void {
    if (this.#phase === 'off') this.#start(this.sheet.timing.start)
  }

  /** Power cut: what was staged and not applied is lost, and an apply that was under way did not happen. */
  powerOff(): void {
    this.#callOff()
    this.#staged = this.#effective
    this.#enter('off')
  }

  /** The pinhole button, held so many seconds: long enough, and it is as it was in its box. */
  pressReset(seconds: number): void {
    if (this.#phase === 'off' || seconds < this.sheet.timing.resetHold) return
    this.#callOff()
    this.#staged = this.#effective = this.#factoryConfig()
    this.#passwords = new Map([[this.sheet.factory.login.user, this.sheet.factory.login.password]])
    this.#remember()
    this.#start(this.sheet.timing.start)
  }

  accepts(user: string, password: string): boolean {
    return this.#passwords.get(user) === password
  }

  /**
   * Carries out edits, all or none.
   * @throws DatastoreError
   */
  edit(edits: readonly YangEdit[]): void {
    if (this.#phase === 'applying')
      throw new DatastoreError('in-use', 'changes are being applied; try again when it has restarted')
    const before = this.#staged
    let after = edits.reduce((config, edit) => {
      const next = applyEdit(config, edit)
      const country = next['air-muster-wireless:wireless'].country
      return country === config['air-muster-wireless:wireless'].country ? next : this.#withResetRadios(next)
    }, before)
    const passwords = takePasswords(after)
    this.#checkRules(after, passwords)
    after = withoutPasswords(after)
    for (const [user, password] of passwords) this.#passwords.set(user, password)
    this.#staged = after
    if (passwords.size > 0) this.#remember()
    if (before['air-muster-wireless:wireless'].country !== after['air-muster-wireless:wireless'].country)
      this.#countryTakesEffect(after)
  }

  /** Puts what is staged into effect: works on it, restarts, and then is what it was told to be. */
  apply(): void {
    if (this.#phase === 'applying') throw new DatastoreError('in-use', 'changes are being applied already')
    this.#enter('applying')
    this.#callOff = this.clock.after(this.sheet.timing.apply, () => {
      this.#effective = this.#staged
      this.#remember()
      this.#start(this.sheet.timing.restart)
    })
  }

  restart(): void {
    this.#callOff()
    this.#staged = this.#effective
    this.#start(this.sheet.timing.restart)
  }

  #remember(): void {
    this.flash.remember({ config: this.#effective, passwords: Object.fromEntries(this.#passwords) })
  }

  get changesWaiting(): boolean {
    if (this.#compared?.staged !== this.#staged || this.#compared.effective !== this.#effective) {
      this.#compared = {
        staged: this.#staged,
        effective: this.#effective,
        differ: JSON.stringify(this.#staged) !== JSON.stringify(this.#effective),
      }
    }
    return this.#compared.differ
  }

  /** What the radios really do now. */
  air(): YangAir['air-muster-wireless:wireless-state'] {
    const { network, radio } = this.#effective['air-muster-wireless:wireless']
    const powered = this.#phase === 'up' || this.#phase === 'applying'
    const listenedFor = (this.clock.now() - this.#radiosSince) / 1000
    return {
      'changes-waiting': this.changesWaiting,
      applying: this.#phase === 'applying',
      radio: radio.map((each) => {
        const networks = network.filter((one) => one.enabled && one.band.includes(each.band))
        if (!powered || !each.enabled) return { band: each.band, condition: 'off' as const, network: [] }
        const tuned = { band: each.band, channel: each.channel, width: each.width, power: each.power }
        const listensFor = this.#mustListen(each) ? Math.ceil(radarListenSeconds - listenedFor) : 0
        if (listensFor > 0) return { ...tuned, condition: 'listening' as const, 'listens-for': listensFor, network: [] }
        return {
          ...tuned,
          condition: 'on-air' as const,
          network: networks.map((one) => ({ ssid: one.ssid, security: one.security.mode })),
        }
      }),
    }
  }

  #start(seconds: number): void {
    this.#startsUntil = this.clock.now() + seconds * 1000
    this.#enter('starting')
    this.#callOff = this.clock.after(seconds, () => {
      this.#radiosSince = this.clock.now()
      this.#enter('up')
    })
  }

  #enter(phase: Phase): void {
    this.#phase = phase
    this.onPhase(phase)
  }

  #countryTakesEffect(after: YangConfig): void {
    const { country, radio } = after['air-muster-wireless:wireless']
    this.#effective = {
      ...this.#effective,
      'air-muster-wireless:wireless': { ...this.#effective['air-muster-wireless:wireless'], country, radio },
    }
    this.#remember()
    this.#radiosSince = this.clock.now()
  }

  #mustListen(radio: YangRadio): boolean {
    const judgement = this.#judge(this.#effective, radio)
    return judgement.legal && judgement.block.radar
  }

  #judge(config: YangConfig, radio: YangRadio) {
    const { country } = config['air-muster-wireless:wireless']
    const rules = this.regulatory.get(country)
    if (!rules)
      throw new DatastoreError(
        'invalid-value',
        `country ${country} is not known`,
        '/air-muster-wireless:wireless/country',
      )
    return judgeChannel(rules, radio.band, radio.channel, radio.width)
  }

  /** A change of country resets every radio to the first legal channel of its band, narrow and quiet. */
  #withResetRadios(config: YangConfig): YangConfig {
    const wireless = config['air-muster-wireless:wireless']
    const rules = this.regulatory.get(wireless.country)
    if (!rules)
      throw new DatastoreError(
        'invalid-value',
        `country ${wireless.country} is not known`,
        '/air-muster-wireless:wireless/country',
      )
    const legal = legalBlocks(rules)
    const radio = wireless.radio.map((each) => {
      const first = legal.find((block) => block.band === each.band && block.width === 20)
      return {
        ...each,
        enabled: each.enabled && first !== undefined,
        channel: first?.channel ?? each.channel,
        width: 20 as const,
        power: Math.min(...(this.sheet.powers[each.band] ?? [each.power])),
      }
    })
    return checked({ ...config, 'air-muster-wireless:wireless': { ...wireless, radio } })
  }

  #checkRules(config: YangConfig, passwords: ReadonlyMap<string, string>): void {
    const { network, radio } = config['air-muster-wireless:wireless']
    const at = '/air-muster-wireless:wireless'
    if (network.length > this.sheet.mostNetworks)
      throw new DatastoreError('invalid-value', `at most ${this.sheet.mostNetworks} networks`, `${at}/network`)
    if (radio.length !== this.sheet.factory.radios.length)
      throw new DatastoreError('invalid-value', 'radios come with the unit; none can be made or removed', `${at}/radio`)
    for (const each of network)
      if (each.security.mode === 'wpa2-personal' && each.security.passphrase === undefined)
        throw new DatastoreError('invalid-value', `network "${each.ssid}" has no passphrase`, `${at}/network`)
    for (const each of radio) {
      const judgement = this.#judge(config, each)
      if (!judgement.legal)
        throw new DatastoreError('invalid-value', judgement.refusal.reason, `${at}/radio=${each.band}/channel`)
      if (!this.sheet.powers[each.band]?.includes(each.power))
        throw new DatastoreError(
          'invalid-value',
          `${each.power} dBm is not one of its steps`,
          `${at}/radio=${each.band}/power`,
        )
      if (!this.sheet.widths[each.band]?.includes(each.width))
        throw new DatastoreError(
          'invalid-value',
          `it cannot be ${each.width} MHz wide`,
          `${at}/radio=${each.band}/width`,
        )
    }
    for (const password of passwords.values())
      if (password.length < this.sheet.passwordShortest)
        throw new DatastoreError(
          'invalid-value',
          `a password has ${this.sheet.passwordShortest} characters at least`,
          '/ietf-system:system/authentication',
        )
  }

  #factoryConfig(): YangConfig {
    const { factory, model, managementInterface } = this.sheet
    return checked({
      'ietf-system:system': {
        hostname: `${model.toLowerCase()}-${this.identity.mac.slice(-5).replace(':', '')}`,
        clock: { 'timezone-name': 'Etc/UTC' },
        authentication: { user: [{ name: factory.login.user }] },
      },
      'ietf-interfaces:interfaces': {
        interface: [
          {
            name: managementInterface,
            type: 'iana-if-type:ethernetCsmacd',
            'ietf-ip:ipv4': {
              address: [{ ip: factory.address, 'prefix-length': factory.prefix }],
              'air-muster-wireless:method': 'static',
            },
          },
        ],
      },
      'air-muster-wireless:wireless': {
        country: factory.country,
        network: [{ ssid: factory.network, enabled: false, band: factory.radios.map((radio) => radio.band) }],
        radio: factory.radios,
      },
    })
  }
}

/** RFC 7317 crypt-hash: "$0$" and clear text, which the unit hashes; this one just keeps it. */
function takePasswords(config: YangConfig): Map<string, string> {
  const given = config['ietf-system:system'].authentication.user.filter((user) => user.password !== undefined)
  return new Map(
    given.map((user) => {
      if (!user.password?.startsWith('$0$'))
        throw new DatastoreError(
          'invalid-value',
          'this unit takes passwords in clear, marked $0$',
          '/ietf-system:system/authentication',
        )
      return [user.name, user.password.slice(3)]
    }),
  )
}

function withoutPasswords(config: YangConfig): YangConfig {
  const system = config['ietf-system:system']
  return {
    ...config,
    'ietf-system:system': {
      ...system,
      authentication: { user: system.authentication.user.map(({ name }) => ({ name })) },
    },
  }
}
