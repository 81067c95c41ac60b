/** Reasons of a radio as sentences that an installer can check. */
import { listenWords } from '../regulatory/radar-listening'
import type { RadioReason } from './explain'

/** @param nameOf the unit behind a radio of the problem */
export function reasonSentences(reason: RadioReason, channel: number, nameOf: (radio: string) => string): string[] {
  const who = (radio: string | undefined): string => (radio === undefined ? "a neighbour's network" : nameOf(radio))
  const { worst, loudest, next, withoutRadar } = reason
  const share = worst && worst.overlap < 1 ? `, over ${Math.round(worst.overlap * 100)} % of the narrower one` : ''
  return [
    worst
      ? `It hears ${who(worst.radio)} worst: ${Math.round(worst.dbm)} dBm on its own channel ${channel}${share}.`
      : loudest
        ? `Nobody whom it hears is on its channel ${channel}; the loudest is ${who(loudest.radio)} at ${Math.round(loudest.dbm)} dBm, elsewhere.`
        : `It hears nobody, on channel ${channel} or another.`,
    ...(next
      ? [
          `Channel ${next.option.channel} at ${next.option.width} MHz would be next: ${next.cost.toFixed(1)} of disturbance there, ${reason.cost.toFixed(1)} here.`,
        ]
      : []),
    ...(withoutRadar
      ? [
          `It listens for radar before it is on air, ${listenWords(withoutRadar.listens)}. Channel ${withoutRadar.option.channel} is free of that, at ${Math.max(0, withoutRadar.cost - reason.cost).toFixed(1)} more disturbance.`,
        ]
      : []),
  ]
}
