/**
 * One simulation from its beginning to its end: a job is mustered while things go wrong; then they stop, and what was
 * asked must come true.
 */
import { answers, heldStep, type RollRow } from '../../src/core/muster/roll'
import { allUnits, type Selection } from '../../src/core/muster/selection'
import { AwakeClock } from '../../src/runner/ports/awake-clock'
import { Runner } from '../../src/runner/runner'
import { atTheEnd, eventsAreWhole } from './ending'
import type { Happening } from './faults'
import { happen } from './happenings'
import { hostOf, recordsOf, sessionsOf } from './ports'
import { frozenMs, jobId, restartMs, type Scenario, Scene } from './scene'
import type { Violation } from './violation'
import { Process } from './world'

export interface Result {
  readonly scenario: Scenario
  /** Rules that were broken; none where all is well. */
  readonly violations: readonly Violation[]
  /** How each unit ended, by name: `answers`, or the code of its reason. */
  readonly ends: readonly string[]
  readonly counts: ReadonlyMap<string, number>
  /** Real seconds of the wire that were leapt over. */
  readonly leapt: number
  readonly events: number
  readonly musters: number
  readonly story: readonly string[]
}

export interface Running {
  readonly process: Process
  readonly ending: AbortController
  readonly complaints: string[]
}

export class Play {
  readonly runners: Running[] = []
  #started = 0

  constructor(readonly scene: Scene) {
    scene.happen = ({ what }) => happen(this, what as Happening)
  }

  startRunner(): void {
    const { scene } = this
    this.#started += 1
    const process = new Process(`runner-${this.#started}`, scene.world)
    const complaints: string[] = []
    const runner = new Runner({
      id: process.name,
      records: recordsOf(scene, process),
      host: hostOf(scene, process),
      sessions: sessionsOf(scene, process),
      clock: new AwakeClock(process.clock),
      sweepEverySeconds: scene.scenario.site.sweeps,
      log: {
        info: () => undefined,
        error: (fields, text) => {
          complaints.push(`${text}: ${JSON.stringify(fields)}`)
          scene.world.tell(process.name, `COMPLAINS ${text}: ${JSON.stringify(fields).slice(0, 600)}`)
        },
      },
    })
    const ending = new AbortController()
    this.runners.push({ process, ending, complaints })
    void runner.run(ending.signal)
  }

  /** The newest runner that lives. */
  get runner(): Running | undefined {
    return this.runners.findLast(({ process }) => !process.isDead)
  }

  killRunner(): void {
    const running = this.runner
    if (!running) return
    running.process.kill()
    for (const session of [...this.scene.sessions])
      if (session.process === running.process) {
        session.breakOff()
        this.scene.sessions.delete(session)
      }
    this.scene.world.after(restartMs, () => this.runner ?? this.startRunner())
  }

  freezeRunner(seconds: number): void {
    const running = this.runner
    if (!running) return
    running.process.freeze()
    this.startRunner()
    this.scene.world.after(Math.max(frozenMs, this.scene.ms(seconds)), () => running.process.wake())
  }

  /**
   * The laptop sleeps: nothing of it runs, its connections break, and its wall clock goes on. The database sleeps with
   * it, unless another laptop works on.
   */
  sleep({ seconds, monotonic, meanwhile }: Extract<Happening, { kind: 'sleep' }>): void {
    const { scene, runners } = this
    const asleep = runners.filter(({ process }) => !process.isDead)
    for (const { process } of asleep) process.freeze()
    for (const session of scene.sessions) session.loseConnection()
    const ms = seconds * 1000
    if (meanwhile === 'another-works') this.startRunner()
    else scene.databaseAwayUntil = Math.max(scene.databaseAwayUntil, scene.world.now + ms)
    scene.world.after(ms, () => {
      for (const { process } of asleep) {
        if (monotonic === 'stands') process.stoodStill += ms
        process.wake()
      }
    })
  }

  /** Somebody pauses what is under way and deletes the job. */
  deleteJob(): void {
    const { scene } = this
    scene.records.askPause(jobId)
    scene.records.deleteJob(jobId).catch(() => scene.world.after(retryMs, () => this.deleteJob()))
  }

  get isDeleted(): boolean {
    return this.scene.records.jobs.get(jobId)?.isDeleted ?? false
  }

  order(units: Selection): void {
    void this.scene.records.placeOrder({ jobId, kind: 'muster', units }).catch(() => undefined)
  }

  get row(): (unit: string) => RollRow | undefined {
    const { rows } = this.scene.records.rollNow(jobId)
    return (unit) => rows.get(unit)
  }

  /** No muster is open, nobody works. */
  get isQuiet(): boolean {
    return !this.scene.records.orders.some(({ kind, status }) => kind === 'muster' && isOpen.has(status))
  }
}

/** Between two tries to delete a job, ms. */
const retryMs = 1000
const isOpen = new Set(['open', 'claimed', 'pausing'])
/** ms in which everything that can go wrong has gone wrong, and a muster has come to its end all the same. */
const wildMs = 3 * 3600 * 1000

export async function play(scenario: Scenario, story: 'told' | 'untold' = 'untold'): Promise<Result> {
  const scene = new Scene(scenario, story)
  const simulated = new Play(scene)
  for (const unit of scene.units) unit.plug()
  simulated.startRunner()
  simulated.order(allUnits)
  const isOver = (): boolean => simulated.isQuiet || scene.violations.length > 0
  await scene.world.until(isOver, wildMs)
  for (const { change, faults } of scenario.later ?? []) {
    if (simulated.isDeleted || !isOver()) break
    happen(simulated, change)
    scene.addFaults(faults)
    simulated.order(allUnits)
    await scene.world.until(isOver, wildMs)
  }
  await atTheEnd(simulated)
  eventsAreWhole(scene)
  const rows = simulated.row
  const ends = scene.job.units.map(({ id }) => (simulated.isDeleted ? 'job deleted' : endOf(rows(id))))
  return {
    scenario,
    violations: scene.violations,
    ends,
    counts: scene.counts,
    leapt: (scene.world.now / 1000) * scenario.site.pace,
    events: scene.records.jobs.get(jobId)?.events.length ?? 0,
    musters: scene.records.orders.filter(({ kind }) => kind === 'muster').length,
    story: scene.world.story ?? [],
  }
}

export function endOf(row: RollRow | undefined): string {
  if (answers(row)) return 'answers'
  const step = row && heldStep(row)
  const state = step && row?.steps[step]
  return state?.kind === 'held' ? state.code : 'nothing'
}
