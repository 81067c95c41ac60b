/**
 * The runner: claims orders, keeps their leases, has the bench watched between them, and tells everything as events.
 */
import { setMaxListeners } from 'node:events'
import type { Order } from '../store/orders'
import { type Host, HostAwayError } from '../wire/host/host'
import { sharedLanes } from '../wire/host/shared-lanes'
import type { Sessions } from '../wire/sessions'
import { BenchWatch } from './bench-watch'
import { muster } from './muster'
import { EventLog } from './order/event-log'
import { type Instant, instantOf, Lease, leaseSeconds } from './order/lease'
import { UnitTurns } from './order/unit-turns'
import { AwakeClock } from './ports/awake-clock'
import type { Records } from './ports/records'
import { WindowDesk } from './window/window-desk'

export interface RunnerLog {
  info(fields: object, text: string): void
  error(fields: object, text: string): void
}

export interface RunnerOptions {
  readonly id: string
  readonly records: Records
  readonly host: Host
  readonly sessions: Sessions
  readonly log: RunnerLog
  /** The wire's seconds between two sweeps that nobody asked for; 10 unless it is said. */
  readonly sweepEverySeconds?: number
  /** What waits are measured by. */
  readonly clock?: AwakeClock
}

const lookForOrdersEveryMs = 150
const reportEveryMs = 1000

export class Runner {
  readonly #options: RunnerOptions
  readonly #host: Host
  readonly #clock: AwakeClock
  readonly #logs = new Map<number, EventLog>()
  readonly #bench: BenchWatch
  /** The job that is on the bench: the one of the newest order. */
  #onBench: number | undefined
  /** Orders that are worked on, by number. */
  readonly #working = new Map<number, Promise<void>>()
  /** Musters that were told to be pausing. */
  readonly #pausing = new Set<number>()
  readonly #turns = new UnitTurns()
  /** Windows on units' own pages, for the server of windows. */
  readonly windows: WindowDesk

  constructor(options: RunnerOptions) {
    this.#options = options
    this.#host = sharedLanes(options.host)
    this.#clock = options.clock ?? new AwakeClock()
    this.windows = new WindowDesk({
      records: options.records,
      host: this.#host,
      clock: this.#clock,
      turns: this.#turns,
      sessions: options.sessions,
      tell: (jobId, event) => this.#logOf(jobId).append(event),
    })
    this.#bench = new BenchWatch({
      records: options.records,
      host: this.#host,
      sessions: options.sessions,
      clock: this.#clock,
      sweepEverySeconds: options.sweepEverySeconds ?? 10,
      logOf: (jobId) => this.#logOf(jobId),
      complain: (error, fields) => this.#complain(error, 'sweep failed', fields),
    })
  }

  /**
   * Works until the signal is given, then ends what it does between two steps and leaves the rest to its next start.
   */
  async run(signal: AbortSignal): Promise<void> {
    const { records, id } = this.#options
    this.#clock.start()
    const reporting = this.#report(signal)
    const watching = this.windows.watchIdle(signal)
    while (!signal.aborted) {
      try {
        const askedAt = instantOf(this.#clock)
        const order = await records.claimOrder(id, leaseSeconds, [...this.#working.keys()])
        if (order) this.#start(order, askedAt, signal)
        else if (this.#onBench !== undefined)
          this.#bench.sweepByItself(this.#onBench, this.#working.size > 0 ? 'busy' : 'free')
      } catch (error) {
        if (!signal.aborted) this.#complain(error, 'the runner goes on')
      }
      await this.#clock.rest(lookForOrdersEveryMs, signal)
    }
    await Promise.allSettled([...this.#working.values(), this.#bench.over(), reporting, watching])
    await Promise.all([...this.#logs.values()].map((log) => log.close()))
    this.#clock.stop()
  }

  /** Tells every second that somebody works here, and whether the wire answers. */
  async #report(signal: AbortSignal): Promise<void> {
    const { records, id } = this.#options
    while (!signal.aborted) {
      const wire = await this.#host.laptop().then(
        () => 'works' as const,
        () => 'away' as const,
      )
      await records
        .reportRunner(id, this.#host.name, { wire, sweptMsAgo: this.#bench.sweptMsAgo })
        .catch((error: unknown) => signal.aborted || this.#complain(error, 'not reported'))
      await this.#clock.rest(reportEveryMs, signal)
    }
  }

  #complain(error: unknown, words: string, fields: object = {}): void {
    this.#options.log.error(
      { ...fields, error: error instanceof Error ? (error.stack ?? error.message) : String(error) },
      words,
    )
  }

  #logOf(jobId: number): EventLog {
    const log =
      this.#logs.get(jobId) ??
      new EventLog(this.#options.records, jobId, this.#clock, (error) =>
        this.#complain(error, 'an event is lost', { job: jobId }),
      )
    this.#logs.set(jobId, log)
    return log
  }

  #start(order: Order, askedAt: Instant, signal: AbortSignal): void {
    this.#options.log.info({ order: order.id, kind: order.kind, job: order.jobId }, 'order claimed')
    this.#onBench = order.jobId
    const work = this.#carryOut(order, askedAt, signal).finally(() => this.#working.delete(order.id))
    this.#working.set(order.id, work)
  }

  /**
   * Keeps the lease of an order while it works. If it throws, that is logged, and it begins again or has failed.
   */
  async #carryOut(order: Order, askedAt: Instant, signal: AbortSignal): Promise<void> {
    const { records, id } = this.#options
    const callOff = new AbortController()
    // Every unit of a muster waits on it: as many as there are is no leak.
    setMaxListeners(0, callOff.signal)
    const stop = (): void => callOff.abort()
    signal.addEventListener('abort', stop)
    const lease = new Lease({
      records,
      clock: this.#clock,
      orderId: order.id,
      owner: id,
      askedAt,
      onRenewed: (wish) => this.#renewed(order, wish),
      onLost: stop,
      complain: (error) => this.#complain(error, 'lease not renewed', { order: order.id }),
    })
    try {
      const status = await this.#work(order, lease, callOff.signal)
      if (status) await records.endOrder(order.id, id, status)
      if (order.kind === 'muster' && status)
        await this.#musterOver(order.jobId, status === 'paused' ? 'paused' : 'ended')
    } catch (error) {
      if (callOff.signal.aborted) return
      this.#complain(error, 'order failed', { order: order.id, kind: order.kind })
      await this.#threw(order, error).catch((second: unknown) =>
        this.#complain(second, 'order not put down', { order: order.id }),
      )
    } finally {
      lease.end()
      this.#pausing.delete(order.id)
      signal.removeEventListener('abort', stop)
    }
  }

  /** @returns how the order ends; undefined where it was called off: the runner that finds its lease expired goes on */
  async #work(order: Order, lease: Lease, signal: AbortSignal): Promise<'done' | 'paused' | undefined> {
    switch (order.kind) {
      case 'sweep':
        this.#bench.takeUp()
        await this.#bench.sweep(order.jobId)
        return 'done'
      case 'restore-laptop':
        await this.#bench.putBack(order.jobId)
        return 'done'
      case 'muster': {
        this.#bench.takeUp()
        const outcome = await muster({
          order,
          signal,
          records: this.#options.records,
          host: this.#host,
          sessions: this.#options.sessions,
          clock: this.#clock,
          turns: this.#turns,
          log: this.#logOf(order.jobId),
          mayGoOn: () => lease.wish === 'go-on' && !signal.aborted,
          mayAct: () => lease.holds(),
          complain: (error, unit) => this.#complain(error, 'a unit went wrong', { unit: unit.id }),
        })
        if (outcome === 'ended') return 'done'
        return signal.aborted ? undefined : 'paused'
      }
    }
  }

  async #renewed(order: Order, wish: 'go-on' | 'pause'): Promise<void> {
    if (order.kind !== 'muster') return
    // A pause that comes when all is done already is not told: nothing would take it back.
    if (wish === 'pause' && !this.#pausing.has(order.id) && this.#working.has(order.id)) {
      this.#pausing.add(order.id)
      await this.#logOf(order.jobId).append({ kind: 'muster', phase: 'pausing', units: [] })
    }
    await this.#bench.tellLaptop(order.jobId)
  }

  /** The order was ended before: a reader of the pause may place the next order at once. */
  async #musterOver(jobId: number, phase: 'paused' | 'ended'): Promise<void> {
    await this.#logOf(jobId).append({ kind: 'muster', phase, units: [] })
    await this.#bench.tellLaptop(jobId).catch(() => undefined)
  }

  async #threw(order: Order, error: unknown): Promise<void> {
    const { records, id } = this.#options
    const reason = error instanceof Error ? error.message : String(error)
    const counts = error instanceof HostAwayError ? 'wire-away' : 'counts'
    const next = await records.orderThrew(order.id, id, reason, counts)
    if (next === 'failed' && order.kind === 'muster') await this.#musterOver(order.jobId, 'ended')
  }
}
