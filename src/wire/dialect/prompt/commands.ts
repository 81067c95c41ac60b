/** A signed-in session of commands with one unit: what looks, what changes, and no secret in what it says of either. */

import type { SettingId } from '../../../core/catalogue/catalogue'
import { settingOf } from '../../../core/catalogue/catalogue'
import type { Clear, Config } from '../../../core/config/unit-config'
import { findFirst } from '../../../core/input/pattern'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { PromptDialect } from '../../../core/kit/prompt-dialect'
import type { PromptCommand } from '../../../core/kit/prompt-parts'
import { fillIn } from '../../../core/kit/prompt-template'
import { type Message, message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { plainReason, WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import type { PinCheck } from '../../trust/pin'
import { escapes, inInput, typedAt } from './escape'
import { openSession } from './open-session'
import type { Places } from './places'
import type { CommandSession } from './session'

export type PromptCard = DirectCard & { readonly dialect: PromptDialect }

const readingSeconds = 60

export class Commands {
  readonly #lane: Lane
  readonly #card: PromptCard
  readonly #pin: PinCheck
  #session: CommandSession | undefined
  /** Secrets that went to the unit: they are taken out of whatever it says. */
  readonly #secrets = new Set<string>()

  constructor(lane: Lane, card: PromptCard, pin: PinCheck) {
    this.#lane = lane
    this.#card = card
    this.#pin = pin
  }

  async signIn(login: Credentials): Promise<void> {
    this.close()
    this.keepSecret(login.password)
    this.#session = await openSession(this.#lane, this.#card, login, this.#pin)
  }

  keepSecret(secret: string): void {
    this.#secrets.add(secret)
  }

  keepSecretsOf({ unit, networks }: Config<Clear>): void {
    for (const values of [unit, ...Object.values(networks)])
      for (const [id, value] of Object.entries(values))
        if (settingOf(id as SettingId).secret && typeof value === 'string') this.keepSecret(value)
  }

  /** What a command prints that only looks. @param places  of its template; left out where it is none */
  async print(command: string, places?: Places): Promise<string> {
    const run = places ? this.#filled(command, places) : command
    const { text, status } = await this.#open.run(run, undefined, readingSeconds)
    if (status !== undefined && status !== 0) throw new WireError('rejected', this.#reasonIn(text, status))
    return text
  }

  /** @throws WireError rejected where the unit says no, or a value cannot be written to it */
  async carryOut({ run, input, within }: PromptCommand, places: Places): Promise<void> {
    const command = this.#filled(run, places)
    if (command.trim() === '') return
    const sent = input === undefined ? undefined : fillIn(input, places, inInput)
    const { text, status } = await this.#open.run(command, sent, within)
    const refused = this.#dialect.refused.some((pattern) => findFirst(pattern, text) !== undefined)
    if (refused || (status !== undefined && status !== 0)) throw new WireError('rejected', this.#reasonIn(text, status))
  }

  close(): void {
    this.#session?.close()
    this.#session = undefined
  }

  get #dialect(): PromptDialect {
    return this.#card.dialect
  }

  get #open(): CommandSession {
    if (!this.#session) throw new WireError('unreachable', message('no-session-open'))
    return this.#session
  }

  #filled(template: string, places: Places): string {
    return fillIn(template, places, typedAt(this.#dialect, escapes[this.#dialect.escape]))
  }

  /** The last words that it said, without any secret that went to it. */
  #reasonIn(text: string, status: number | undefined): string | Message {
    let words = text.trim().split('\n').at(-1) ?? ''
    for (const secret of this.#secrets) if (secret !== '') words = words.replaceAll(secret, '…')
    return plainReason(words) || message('command-ended', { status: status ?? null })
  }
}
