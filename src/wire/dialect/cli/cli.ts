/** The cli dialect: commands over SSH, Telnet or a console, as the unit's kit card has them. */
import { type Difference, stepOf } from '../../../core/config/compare'
import type { SettingId } from '../../../core/config/setting-ids'
import { settingOf } from '../../../core/config/settings/settings'
import type { ObservedConfig, UnitConfig } from '../../../core/config/unit-config'
import { findFirst } from '../../../core/input/pattern'
import type { CliCommand, CliDialect, CliWrite } from '../../../core/kit/cli-dialect'
import { fillIn } from '../../../core/kit/cli-template'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { Evidence } from '../../../core/kit/recognise'
import type { Lane } from '../../host/host'
import type { PinCheck } from '../../trust/pin'
import { plainReason, WireError } from '../../wire-error'
import { always, type Changes, type Credentials, type Dialect, type RadioOnAir } from '../dialect'
import { airIn } from './air'
import { escapes, inInput, typedAt } from './escape'
import { greetingOf, openSession } from './open-session'
import { networkPlaces, type Places, placesOf, radioPlaces, type Situation } from './places'
import { observedIn, type Printed } from './reading'
import type { CliSession } from './session'

type CliCard = DirectCard & { readonly dialect: CliDialect }

const readingSeconds = 60

export function cli(lane: Lane, card: CliCard, pin: PinCheck): Dialect {
  return new Cli(lane, card, pin)
}

class Cli implements Dialect {
  readonly #lane: Lane
  readonly #card: CliCard
  readonly #pin: PinCheck
  #session: CliSession | undefined
  /** What this session read last: an address is changed from what it is, never from what it was thought to be. */
  #current: { address: string; prefix: number } | undefined
  /** Secrets that went to the unit: they are taken out of whatever it says. */
  readonly #secrets = new Set<string>()

  constructor(lane: Lane, card: CliCard, pin: PinCheck) {
    this.#lane = lane
    this.#card = card
    this.#pin = pin
  }

  get #dialect(): CliDialect {
    return this.#card.dialect
  }

  async identify(): Promise<Evidence> {
    return { banner: await greetingOf(this.#lane, this.#card) }
  }

  async signIn(login: Credentials): Promise<void> {
    this.close()
    this.#secrets.add(login.password)
    this.#session = await openSession(this.#lane, this.#card, login, this.#pin)
    const { run, value } = this.#dialect.mac
    const mac = findFirst(value, await this.#print(run))?.groups.value?.toLowerCase()
    if (mac === undefined) throw new WireError('garbled', 'it does not tell its MAC')
    if (mac !== this.#lane.mac) throw new WireError('wrong-unit', `${mac} answers where ${this.#lane.mac} should`)
  }

  async read(): Promise<ObservedConfig> {
    const printed: Printed[] = []
    for (const reading of this.#dialect.read) {
      const before = Date.now()
      const text = await this.#print(reading.run)
      // A clock is compared with ours as it was then: what is read after it takes time too.
      printed.push({ reading, text, at: (before + Date.now()) / 2 })
    }
    const observed = observedIn(this.#card, this.#dialect, printed)
    const { 'management.address': address, 'management.prefix': prefix } = observed.unit
    if (address?.kind === 'value' && prefix?.kind === 'value')
      this.#current = { address: address.value, prefix: prefix.value }
    return observed
  }

  backup(): Promise<string> {
    return this.#print(this.#dialect.backup)
  }

  async write(differences: readonly Difference[], desired: UnitConfig, mayChange = always): Promise<void> {
    for (const values of [desired.unit, ...Object.values(desired.networks)])
      for (const [id, value] of Object.entries(values))
        if (settingOf(id as SettingId).secret && typeof value === 'string') this.#secrets.add(value)
    const situation = await this.#situation(desired)
    const whole = placesOf(situation)
    const part = async (command: CliCommand, places: Places): Promise<void> => {
      await mayChange()
      await this.#carryOut(command, places)
    }
    for (const { kind, of } of differences)
      if (kind === 'surplus') for (const command of this.#dialect.remove) await part(command, { network: { id: of } })
    for (const write of this.#dialect.write) {
      const concerned = differences.filter((difference) => concerns(write, difference))
      if (concerned.length === 0) continue
      for (const places of eachOf(write, concerned, situation))
        for (const command of write.commands) await part(command, { ...whole, ...places })
    }
  }

  async #situation(desired: UnitConfig): Promise<Situation> {
    if (!this.#current) await this.read()
    const current = this.#current ?? { address: this.#lane.address, prefix: this.#lane.prefix }
    return { card: this.#card, dialect: this.#dialect, desired, current }
  }

  async changePassword(user: string, password: string): Promise<void> {
    this.#secrets.add(password)
    for (const command of this.#dialect.password) await this.#carryOut(command, { login: { user, password } })
  }

  async changes(): Promise<Changes> {
    const { unsaved } = this.#dialect
    const saved =
      unsaved && findFirst(unsaved.value, await this.#print(unsaved.run)) !== undefined ? 'unsaved' : 'saved'
    return { standing: 'none', saved }
  }

  async revision(): Promise<undefined> {
    return undefined
  }

  async apply(): Promise<void> {
    // Everything takes effect at once.
  }

  async confirm(desired: UnitConfig): Promise<void> {
    const places = placesOf(await this.#situation(desired))
    for (const command of this.#dialect.confirm) await this.#carryOut(command, places)
  }

  async save(): Promise<Changes['saved']> {
    for (const command of this.#dialect.save) await this.#carryOut(command, {})
    return (await this.changes()).saved
  }

  async restart(): Promise<void> {
    for (const command of this.#dialect.restart)
      await this.#carryOut(command, {}).catch((error: unknown) => {
        // It may be gone before the answer is here.
        if (!(error instanceof WireError && error.kind === 'unreachable')) throw error
      })
  }

  async air(): Promise<readonly RadioOnAir[]> {
    return airIn(this.#card, this.#dialect, await this.#print(this.#dialect.air.run))
  }

  close(): void {
    this.#session?.close()
    this.#session = undefined
  }

  /** What a command prints that only looks. */
  async #print(command: string): Promise<string> {
    const { text, status } = await this.#open.run(command, undefined, readingSeconds)
    if (status !== undefined && status !== 0) throw new WireError('rejected', this.#reasonIn(text, status))
    return text
  }

  async #carryOut({ run, input, within }: CliCommand, places: Places): Promise<void> {
    const command = fillIn(run, places, typedAt(this.#dialect, escapes[this.#dialect.escape]))
    if (command.trim() === '') return
    const sent = input === undefined ? undefined : fillIn(input, places, inInput)
    const { text, status } = await this.#open.run(command, sent, within)
    const refused = this.#dialect.refused.some((pattern) => findFirst(pattern, text) !== undefined)
    if (refused || (status !== undefined && status !== 0)) throw new WireError('rejected', this.#reasonIn(text, status))
  }

  get #open(): CliSession {
    if (!this.#session) throw new WireError('unreachable', 'no session is open')
    return this.#session
  }

  /** The last words that it said, without any secret that went to it. */
  #reasonIn(text: string, status: number | undefined): string {
    let words = text.trim().split('\n').at(-1) ?? ''
    for (const secret of this.#secrets) if (secret !== '') words = words.replaceAll(secret, '…')
    return plainReason(words) || `the command ended with ${status ?? 'no status'}`
  }
}

/** Does a difference call for this write? */
function concerns({ sets }: CliWrite, difference: Difference): boolean {
  if (difference.kind === 'value')
    return sets.some((id) => id === difference.id || id === `${difference.id.split('.')[0]}.*`)
  return sets.some((id) => id.startsWith(`${difference.scope}.`))
}

/** The places for each time that a write is carried out. */
function eachOf({ per }: CliWrite, concerned: readonly Difference[], situation: Situation): Places[] {
  const { desired, card } = situation
  if (per === 'unit') return [{}]
  if (per === 'network') {
    const ids = new Set(concerned.filter((each) => stepOf(each) === 'networks').map(({ of }) => of))
    return Object.entries(desired.networks)
      .filter(([id]) => ids.has(id))
      .map(([id, values], index) => networkPlaces(situation, id, values, index))
  }
  const bands = new Set(concerned.map(({ of }) => of))
  // A network may stand on any radio.
  const all = concerned.some((each) => stepOf(each) === 'networks')
  return card.radios
    .filter(({ band }) => desired.radios[band] && (all || bands.has(band)))
    .map((radio) => radioPlaces(situation, radio))
}
