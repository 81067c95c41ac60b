/**
 * Which held units are mustered again without a press: those that somebody can help, once they show that it is done.
 * One that was tried again like that and is held again must go away and come back before it is tried once more, so that
 * nothing goes on for ever.
 */
import type { Unit } from '../core/kit/unit'
import type { Sighting } from '../core/muster/events'
import type { Roll } from '../core/muster/roll'
import { waitingForHands } from './muster'

export class Resumption {
  /** Units seen to be away since they were held. */
  readonly #wasAway = new Set<string>()
  /** Units that were mustered again by themselves, and not seen away since. */
  readonly #tried = new Set<string>()

  /** Units to muster now, by what the newest sweep has seen. @param planned  address of each unit */
  ready(jobId: number, units: readonly Unit[], roll: Roll, planned: ReadonlyMap<string, string>): string[] {
    const ready: string[] = []
    for (const [id, resumesWhen] of waitingForHands(roll.rows)) {
      const key = `${jobId} ${id}`
      const unit = units.find((each) => each.id === id)
      const isAsked = ({ address, answers }: Sighting): boolean =>
        resumesWhen === 'it-is-at-its-address' ? address === planned.get(id) : answers === 'service'
      const answers =
        unit !== undefined && roll.sightings.some((sighting) => sighting.mac === unit.mac && isAsked(sighting))
      if (!answers) {
        this.#wasAway.add(key)
        this.#tried.delete(key)
      } else if (!this.#tried.has(key) && (resumesWhen !== 'it-was-away' || this.#wasAway.has(key))) {
        this.#wasAway.delete(key)
        this.#tried.add(key)
        ready.push(id)
      }
    }
    return ready
  }
}
