/** The one seat of a unit that takes a session at a time: who has it, until it is left or idle for too long. */
import { randomBytes } from 'node:crypto'
import type { LabClock } from '../../device/clock'

const idleSeconds = 300
const mostTickets = 60

export class Seat {
  #holder: { readonly token: string; readonly user: string; readonly tickets: Set<string> } | undefined
  #usedAt = 0

  constructor(private readonly clock: LabClock) {}

  /** @returns the token of whoever takes it; undefined where it is taken */
  take(user: string): string | undefined {
    if (this.#current) return undefined
    this.#usedAt = this.clock.now()
    this.#holder = { token: randomBytes(16).toString('hex'), user, tickets: new Set() }
    return this.#holder.token
  }

  get isTaken(): boolean {
    return this.#current !== undefined
  }

  /** Who sits there with this token; that keeps it. */
  holder(token: string | undefined): string | undefined {
    if (token === undefined || this.#current?.token !== token) return undefined
    this.#usedAt = this.clock.now()
    return this.#current.user
  }

  /** A ticket that saves one form, once. */
  newTicket(): string {
    const ticket = randomBytes(8).toString('hex')
    const tickets = this.#current?.tickets
    tickets?.add(ticket)
    if (tickets && tickets.size > mostTickets) tickets.delete([...tickets][0] ?? '')
    return ticket
  }

  spend(ticket: string | null): boolean {
    return this.#current?.tickets.delete(ticket ?? '') === true
  }

  leave(): void {
    this.#holder = undefined
  }

  get #current() {
    if (this.#holder && this.clock.now() - this.#usedAt > idleSeconds * 1000) this.#holder = undefined
    return this.#holder
  }
}
