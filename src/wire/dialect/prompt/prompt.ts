/** The prompt dialect: commands over SSH, Telnet or a console, as the unit's kit card has them. */

import type { Difference } from '../../../core/config/compare'
import type { Clear, Config, ObservedConfig } from '../../../core/config/unit-config'
import { findFirst } from '../../../core/input/pattern'
import type { PromptDialect } from '../../../core/kit/prompt-dialect'
import type { PromptCommand, PromptReading } from '../../../core/kit/prompt-parts'
import type { Evidence } from '../../../core/kit/recognise'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import type { PinCheck } from '../../trust/pin'
import { always, type ConfirmedMove, type Copies, type Dialect, type RadioOnAir, type Saving } from '../dialect'
import type { RowsController, UnitRows } from '../managed/controller'
import { asController } from '../managed/rows'
import { airIn } from './air'
import { Commands, type PromptCard } from './commands'
import { greetingOf } from './open-session'
import { type Places, placesOf, type Situation } from './places'
import { observedIn, type Printed } from './reading'
import { UnitsPrinted } from './units-printed'
import { writingsFor } from './writing'

export function prompt(lane: Lane, card: PromptCard, pin: PinCheck): Dialect {
  return new Prompt(lane, card, pin)
}

/** @throws WireError garbled where its card says nothing of units that it manages */
export function controllerPrompt(lane: Lane, card: PromptCard, pin: PinCheck): RowsController {
  return asController(new Prompt(lane, card, pin))
}

class Prompt implements Dialect {
  readonly #lane: Lane
  readonly #card: PromptCard
  readonly #commands: Commands
  /** Access points that are set through it, where it is a controller. */
  readonly units: UnitRows | undefined
  /** What this session read last: an address is changed from what it is, never from what it was thought to be. */
  #current: { address: string; prefix: number } | undefined

  constructor(lane: Lane, card: PromptCard, pin: PinCheck) {
    this.#lane = lane
    this.#card = card
    this.#commands = new Commands(lane, card, pin)
    const { units } = card.dialect
    const networks = async () => (await this.#readBy(({ per }) => per === 'network')).networks
    this.units = units && new UnitsPrinted(this.#commands, card.dialect, units, networks)
  }

  get #dialect(): PromptDialect {
    return this.#card.dialect
  }

  async identify(): Promise<Evidence> {
    return { banner: await greetingOf(this.#lane, this.#card) }
  }

  async signIn(login: Credentials): Promise<void> {
    await this.#commands.signIn(login)
    const { run, value } = this.#dialect.mac
    const mac = findFirst(value, await this.#commands.print(run))?.groups.value?.toLowerCase()
    if (mac === undefined) throw new WireError('garbled', message('tells-no-mac'))
    if (mac !== this.#lane.mac)
      throw new WireError('wrong-unit', message('other-mac-answers', { other: mac, mac: this.#lane.mac }))
  }

  async read(): Promise<ObservedConfig> {
    const observed = await this.#readBy(() => true)
    const { 'management.address': address, 'management.prefix': prefix } = observed.unit
    if (address?.kind === 'value' && prefix?.kind === 'value')
      this.#current = { address: address.value, prefix: prefix.value }
    return observed
  }

  async #readBy(isMeant: (reading: PromptReading) => boolean): Promise<ObservedConfig> {
    const printed: Printed[] = []
    for (const reading of this.#dialect.read.filter(isMeant)) {
      const before = Date.now()
      const text = await this.#commands.print(reading.run)
      // A clock is compared with ours as it was then: what is read after it takes time too.
      printed.push({ reading, text, at: (before + Date.now()) / 2 })
    }
    return observedIn(this.#card, this.#dialect, printed)
  }

  readonly copies: Copies = { backup: () => this.#commands.print(this.#dialect.backup) }

  async write(differences: readonly Difference[], desired: Config<Clear>, mayChange = always): Promise<void> {
    this.#commands.keepSecretsOf(desired)
    const part = async (command: PromptCommand, places: Places): Promise<void> => {
      await mayChange()
      await this.#commands.carryOut(command, places)
    }
    const situation = await this.#situation(desired)
    for (const { kind, of } of differences)
      if (kind === 'surplus') for (const command of this.#dialect.remove) await part(command, { network: { id: of } })
    for (const { write, places } of writingsFor(this.#dialect.write, differences, situation))
      for (const command of write.commands) await part(command, places)
  }

  async #situation(desired: Config<Clear>): Promise<Situation> {
    if (!this.#current) await this.read()
    const current = this.#current ?? { address: this.#lane.address, prefix: this.#lane.prefix }
    return { card: this.#card, dialect: this.#dialect, desired, current }
  }

  async changePassword(user: string, password: string): Promise<void> {
    this.#commands.keepSecret(password)
    for (const command of this.#dialect.password) await this.#commands.carryOut(command, { login: { user, password } })
  }

  readonly confirmedMove: ConfirmedMove = {
    confirm: async (desired) => {
      const places = placesOf(await this.#situation(desired))
      for (const command of this.#dialect.confirm) await this.#commands.carryOut(command, places)
    },
  }

  readonly saving: Saving = {
    isSaved: async () => {
      const { unsaved } = this.#dialect
      return !unsaved || findFirst(unsaved.value, await this.#commands.print(unsaved.run)) === undefined
    },
    save: async () => {
      for (const command of this.#dialect.save) await this.#commands.carryOut(command, {})
      return this.saving.isSaved()
    },
  }

  async restart(): Promise<void> {
    for (const command of this.#dialect.restart)
      await this.#commands.carryOut(command, {}).catch((error: unknown) => {
        // It may be gone before the answer is here.
        if (!(error instanceof WireError && error.kind === 'unreachable')) throw error
      })
  }

  async air(): Promise<readonly RadioOnAir[]> {
    const { air } = this.#dialect
    return air ? airIn(this.#card, this.#dialect, air, await this.#commands.print(air.run)) : []
  }

  close(): void {
    this.#commands.close()
  }
}
