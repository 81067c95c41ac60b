/**
 * A radio that has left its channel without being told: it heard radar there, and the law makes it leave and stay away
 * for half an hour (ETSI EN 301 893 V2.1.1, 4.2.6; 47 CFR 15.407(h)(2)). It is no fault, and it is said.
 */

import type { SettingOutcome } from '../config/outcomes'
import { message } from '../message/message'

/** Minutes in which the channel may not be used after radar was heard on it. */
const nonOccupancyMinutes = 30

/** A channel that a unit has left since it heard radar there. */
export interface HeardRadar extends RadarMove {
  /** MHz; that of the channel that it left. */
  readonly width: number
  /** ms since 1970. */
  readonly at: number
}

/**
 * Until when the channel is shut for the unit that heard radar there, ms since 1970.
 * @param pace  how many times faster than life the wire runs
 */
export function shutUntil({ at }: Pick<HeardRadar, 'at'>, pace: number): number {
  return at + (nonOccupancyMinutes * 60_000) / pace
}

export interface RadarMove {
  readonly band: string
  readonly from: number
  readonly to: number
}

/** Settings that radar decides: where a radio is, and how wide. */
export const isMovedByRadar = (id: string, of: string, moves: readonly RadarMove[]): boolean =>
  (id === 'radio.channel' || id === 'radio.width') && moves.some(({ band }) => band === of)

/** What was asked and is not so since radar moved the radio is somebody's to see to, later. */
export function withRadarMoves(
  outcomes: readonly SettingOutcome[],
  moves: readonly RadarMove[],
): readonly SettingOutcome[] {
  return outcomes.map((each): SettingOutcome => {
    const move = moves.find(({ band }) => band === each.of)
    // A unit may still show the channel that it was set to: it is not on it.
    const isNotSo = each.id === 'radio.channel' || each.outcome.kind === 'open'
    if (!move || !isNotSo || !isMovedByRadar(each.id, each.of, moves)) return each
    return {
      ...each,
      outcome: {
        kind: 'by-hand',
        why: message('radar-moved', { from: move.from, to: move.to }),
        hands: message('hands-after-radar', { minutes: nonOccupancyMinutes }),
      },
    }
  })
}
