/**
 * The datastores of a stand-in: running, a candidate that all sessions share, startup; and commits that wait for a
 * word.
 */
import type { Device } from '../../device/device'
import type { DeviceSettings } from '../../device/device-settings'
import { Refusal } from '../../device/refusal'
import { decode } from '../yang/decode'
import { encode } from '../yang/encode'
import { applyEdits, type Node, type TreeEdit } from '../yang/tree'

interface Pending {
  readonly before: DeviceSettings
  /** Word by which another session may confirm it. */
  readonly word: string | undefined
  readonly session: number
  readonly callOff: () => void
}

export interface Committer {
  readonly number: number
  readonly user: string
}

export class Datastores {
  #edits: TreeEdit[] = []
  #lockedBy: number | undefined
  #pending: Pending | undefined

  constructor(private readonly unit: Device) {}

  /** Told of each commit, and by whom: sessions that have subscribed. */
  readonly subscribers = new Map<number, (by: Committer) => void>()

  running(): Node {
    return encode(this.unit.configured, this.unit.sheet, 'as-shown')
  }

  startup(): Node {
    return encode(this.unit.saved, this.unit.sheet, 'as-shown')
  }

  candidate(): Node {
    return applyEdits(this.running(), this.#edits)
  }

  /** @throws Refusal where it would not be taken */
  edit(session: number, edits: readonly TreeEdit[]): void {
    this.#own(session)
    const all = [...this.#edits, ...edits]
    this.#tried(all)
    this.#edits = all
  }

  validate(): void {
    this.#tried(this.#edits)
  }

  commit(
    { number: session, user }: Committer,
    confirm?: { seconds: number; word: string | undefined },
    word?: string,
  ): void {
    this.#own(session)
    if (this.#pending && this.#pending.session !== session && this.#pending.word !== word)
      throw new Refusal('in-use', 'a commit waits to be confirmed by its word')
    if (!this.#pending && word !== undefined) throw new Refusal('invalid-value', 'no commit waits for this word')
    const before = this.#pending?.before ?? this.unit.configured
    this.#pending?.callOff()
    this.#pending = undefined
    const { settings, passwords } = this.#tried(this.#edits)
    this.unit.configure(settings, passwords)
    this.#edits = []
    for (const told of this.subscribers.values()) told({ number: session, user })
    if (!confirm) return
    const callOff = this.unit.clock.after(confirm.seconds, () => this.takeBack())
    this.#pending = { before, word: confirm.word, session, callOff }
  }

  /** What nobody confirmed is as it was before. */
  takeBack(): void {
    const pending = this.#pending
    if (!pending) return
    pending.callOff()
    this.#pending = undefined
    this.unit.configure(pending.before)
  }

  cancel(word: string | undefined): void {
    if (!this.#pending || this.#pending.word !== word) throw new Refusal('invalid-value', 'no such commit waits')
    this.takeBack()
  }

  discard(session: number): void {
    this.#own(session)
    this.#edits = []
  }

  lock(session: number): void {
    if (this.#lockedBy !== undefined) throw new Refusal('in-use', `it is locked by session ${this.#lockedBy}`)
    if (this.#edits.length > 0) throw new Refusal('in-use', 'somebody has written and not committed')
    this.#lockedBy = session
  }

  unlock(session: number): void {
    if (this.#lockedBy !== session) throw new Refusal('invalid-value', 'it is not yours to unlock')
    this.#lockedBy = undefined
    this.#edits = []
  }

  /** RFC 6241, 7.5 and 8.4: a lock goes with its session, and what was not committed with it. */
  ended(session: number): void {
    this.subscribers.delete(session)
    if (this.#lockedBy === session) this.unlock(session)
    if (this.#pending?.session === session && this.#pending.word === undefined) this.takeBack()
  }

  /** Without power nothing waits any more. */
  forget(): void {
    this.#pending?.callOff()
    this.#pending = undefined
    this.#lockedBy = undefined
    this.#edits = []
  }

  #own(session: number): void {
    if (this.#lockedBy !== undefined && this.#lockedBy !== session)
      throw new Refusal('in-use', `it is locked by session ${this.#lockedBy}`)
  }

  #tried(edits: readonly TreeEdit[]): ReturnType<typeof decode> {
    const { configured, sheet } = this.unit
    return decode(applyEdits(encode(configured, sheet, 'with'), edits), sheet)
  }
}
