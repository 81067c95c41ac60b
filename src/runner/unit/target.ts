/** What a unit is to be, and what is known of it from before: fixed for the length of a muster. */
import type { Aftercare, FirmwareImage } from '../../core/brief/policies'
import type { SettingId } from '../../core/catalogue/catalogue'
import { settingOf } from '../../core/catalogue/catalogue'
import { type Asked, secretMark } from '../../core/config/asked'
import type { Compiled } from '../../core/config/compile'
import { markOf, type SettingOutcome } from '../../core/config/outcomes'
import { keyText, type SettingKey } from '../../core/config/unit-config'
import type { MusteredCard } from '../../core/kit/kit-card'
import type { Unit } from '../../core/kit/unit'
import { emptyRow, type Place, type RollRow } from '../../core/muster/roll'
import type { UnitPlan } from '../../core/plan/plan'
import type { Credentials } from '../../core/secrets/credentials'
import type { LoginToday } from '../../core/secrets/login-today'
import type { FormerPassword } from '../../store/secrets'

export interface TargetInput {
  readonly unit: Unit
  readonly card: MusteredCard
  readonly plan: UnitPlan
  readonly compiled: Compiled
  readonly asked: Asked
  /** Every setting that is asked of it, with what could be said of it before. */
  readonly expected: readonly SettingOutcome[]
  /** What earlier musters left: doors that were opened, what was proven. */
  readonly before: RollRow | undefined
  /** Where the last sweep saw it, and since when it answers there, ms since 1970. */
  readonly seenAt: string | undefined
  readonly seenSince: number | undefined
  /** Admin passwords that were replaced, the newest first. */
  readonly formerPasswords: readonly FormerPassword[]
  /** Logins that the client uses today, for what somebody set up before. */
  readonly loginsToday: readonly LoginToday[]
  /** Private key for SSH of the job, for units that somebody set up before. */
  readonly sshKey: string | undefined
  /** What the brief wants open, also where its model cannot be set to it. */
  readonly aftercare: Pick<Aftercare, 'httpsOnly' | 'ssh'>
  /** What the brief has for its model to run. */
  readonly image: FirmwareImage | undefined
  /** Subnets in which it may have been given an address, CIDR. */
  readonly subnets: readonly string[]
}

const subnetOf = ({ address, prefix }: Place): string => `${address}/${prefix}`

/** Some units lock out a client after failed sign-ins: no more old passwords than these are tried. */
const mostOldLogins = 3

/** All texts in a value, whatever its shape. */
const textsIn = (value: unknown): string[] =>
  typeof value === 'string' ? [value] : typeof value === 'object' && value ? Object.values(value).flatMap(textsIn) : []

export class Target {
  readonly unit: Unit
  readonly card: MusteredCard
  readonly plan: UnitPlan
  readonly compiled: Compiled
  readonly asked: Asked
  readonly expected: readonly SettingOutcome[]
  readonly before: RollRow
  readonly seenAt: string | undefined
  readonly seenSince: number | undefined
  /** Subnets in which it may be, CIDR: that of the plan first. */
  readonly subnets: readonly string[]
  readonly image: FirmwareImage | undefined
  readonly aftercare: TargetInput['aftercare']
  readonly #formerPasswords: readonly FormerPassword[]
  readonly #loginsToday: readonly LoginToday[]
  readonly #sshKey: string | undefined
  readonly #marks: ReadonlyMap<string, string>

  constructor(input: TargetInput) {
    this.unit = input.unit
    this.card = input.card
    this.plan = input.plan
    this.compiled = input.compiled
    this.asked = input.asked
    this.expected = input.expected
    this.before = input.before ?? emptyRow
    this.seenAt = input.seenAt
    this.seenSince = input.seenSince
    this.subnets = [...new Set([...input.subnets, ...this.formerPlaces.map(subnetOf)])]
    this.image = input.image
    this.aftercare = input.aftercare
    this.#formerPasswords = input.formerPasswords
    this.#loginsToday = input.loginsToday
    this.#sshKey = input.sshKey
    this.#marks = new Map(input.expected.map((each) => [keyText(each), each.mark]))
  }

  get login(): Credentials {
    return this.compiled.login
  }

  /** What another box has proven under this name says nothing of this one. */
  get proven(): Asked | undefined {
    const { proven } = this.before
    return proven?.mac === this.unit.mac ? proven : undefined
  }

  /** Where the plan sends it. */
  get goal(): Place {
    const prefix = this.compiled.config.unit['management.prefix']
    return { address: this.plan.address, prefix: prefix ?? this.card.factory.prefix }
  }

  /** Where it may be from before: where it was sent last, where it came to, where it has proven itself. */
  get formerPlaces(): Place[] {
    const { 'management.address': address, 'management.prefix': prefix } = this.proven?.config.unit ?? {}
    const proven = address === undefined ? undefined : { address, prefix: prefix ?? this.card.factory.prefix }
    return [this.before.sentTo, this.before.cameTo, proven].filter((place) => place !== undefined)
  }

  /** Every text that must not be readable on a picture of it. */
  get clearSecrets(): string[] {
    const { unit, networks } = this.compiled.config
    const ofConfig = [unit, ...Object.values(networks)].flatMap((values) =>
      Object.entries(values).flatMap(([id, value]) => (settingOf(id as SettingId).secret ? textsIn(value) : [])),
    )
    const logins = [this.login, this.card.factory.login, ...this.oldLogins, ...this.loginsToday]
    return [...new Set([...ofConfig, ...logins.map(({ password }) => password)])]
  }

  /** Marks of what was written to this very box and is not shown by it. */
  get writtenBefore(): Readonly<Record<string, string>> {
    const { mac, marks } = this.before.written
    return mac === this.unit.mac ? marks : {}
  }

  /** Mark of what is asked of a setting: it tells one value from another without being it. */
  markOf(key: SettingKey): string {
    return this.#marks.get(keyText(key)) ?? markOf(undefined)
  }

  /** Admin passwords that it may still have, the one that it was given last first. */
  get oldLogins(): Credentials[] {
    const { user, password } = this.login
    const given = this.#formerPasswords.filter(
      ({ name, changedAt }) => secretMark(name, changedAt) === this.before.givenPassword,
    )
    const passwords = [...given, ...this.#formerPasswords]
      .map(({ clear }) => clear)
      .filter((clear) => clear !== password)
    return [...new Set(passwords)].slice(0, mostOldLogins).map((each) => ({ user, password: each }))
  }

  /** What the client signs in with today; tried last, and by its own name where it has one. */
  get loginsToday(): Credentials[] {
    return this.#loginsToday.map(({ user, password }) => ({ user: user === '' ? this.login.user : user, password }))
  }

  /**
   * Logins by the job's SSH key, where it has one and the unit is spoken to over SSH: as its admin, and as out of its
   * box.
   */
  get keyLogins(): Credentials[] {
    const privateKey = this.#sshKey
    const { dialect, factory } = this.card
    const overSsh = dialect.kind === 'netconf' || (dialect.kind === 'prompt' && dialect.over === 'ssh')
    if (privateKey === undefined || !overSsh) return []
    return [...new Set([this.login.user, factory.login.user])].map((user) => ({ user, password: '', privateKey }))
  }

  /** Whether the password that it was given last was replaced since. */
  get passwordWasReplaced(): boolean {
    const { givenPassword } = this.before
    return givenPassword !== undefined && givenPassword !== this.asked.password
  }
}
