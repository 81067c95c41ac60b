/** Reasons of a radio as sentences that an installer can check. */

import type { HeardRadio, Priced, RadioReason } from '../../core/radio/channels/explain'
import { prose } from '../prose'
import { listenWords } from './duration'

/** @param nameOf the unit behind a radio of the problem */
export function reasonSentences(reason: RadioReason, channel: number, nameOf: (radio: string) => string): string[] {
  const who = (radio: string | undefined): string => (radio === undefined ? "a neighbour's network" : nameOf(radio))
  const { worst, loudest, next, withoutRadar, afterRadar, sharing } = reason
  return [
    worst
      ? worstHere(worst, channel, who(worst.radio))
      : loudest
        ? prose`Nobody whom it hears is on its channel ${channel}; the loudest is ${who(loudest.radio)} at
          ${Math.round(loudest.dbm)} dBm, elsewhere.`
        : `It hears nobody, on channel ${channel} or another.`,
    ...(sharing > 1
      ? [`${sharing} share the air here: when all of them talk, ${shareOf(sharing)} of the airtime is its own.`]
      : []),
    ...(next
      ? [`Next would be channel ${next.option.channel} at ${next.option.width} MHz: ${heardThere(next, who)}.`]
      : []),
    ...(withoutRadar
      ? [
          prose`It listens for radar before it is on air, ${listenWords(withoutRadar.listens)}. Channel
            ${withoutRadar.option.channel} is free of that: ${heardThere(withoutRadar, who)}.`,
        ]
      : []),
    ...(afterRadar
      ? [
          prose`Should radar be heard on it, channel ${afterRadar.option.channel} at ${afterRadar.option.width} MHz is
            the second choice: ${heardThere(afterRadar, who)}.`,
        ]
      : []),
  ]
}

function worstHere({ dbm, overlap, lossDb }: HeardRadio, channel: number, name: string): string {
  const level = Math.round(dbm)
  if (overlap === 0)
    return prose`Nobody is on its channel ${channel}; of ${name}, at ${level} dBm on a channel beside it,
      ${Math.round(dbm - lossDb)} dBm come through.`
  const share = overlap < 1 ? `, over ${Math.round(overlap * 100)} % of the narrower one` : ''
  return `It hears ${name} worst: ${level} dBm on its own channel ${channel}${share}.`
}

function heardThere({ worst, sharing }: Priced, who: (radio: string | undefined) => string): string {
  if (!worst) return 'nobody is heard there'
  if (worst.overlap === 0)
    return `of ${who(worst.radio)} beside it ${Math.round(worst.dbm - worst.lossDb)} dBm come through`
  const turns = sharing > 1 ? `${shareOf(sharing)} of the airtime would be its own` : 'too faint to wait for'
  return `${who(worst.radio)} is heard there at ${Math.round(worst.dbm)} dBm, ${turns}`
}

/** Whoever is heard on a channel takes turns there: n of them have an nth each when all talk. */
const shareOf = (sharing: number): string => `${Math.round(100 / sharing)} %`
