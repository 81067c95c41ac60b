/** Why a unit does not come to its controller. */
import { again, byItself, cable, type HeldWords } from './held-words'
import { type JoinReason, joinReasons } from './join-reasons'

export const joinHolds = {
  'no-controller': ({ by }: { by: readonly string[] }): HeldWords => ({
    why: `It is set through ${by.join(' or ')}, and none is on the kit list.`,
    hands: ['Put its controller on the kit list.', again],
  }),
  'controller-not-ready': ({ name }: { name: string }): HeldWords => ({
    why: `Its controller ${name} does not answer yet.`,
    hands: [`Muster ${name} first, or with it.`, again],
  }),
  'no-discovery': ({
    name,
    address,
    port,
    answers,
    told = [],
  }: {
    name: string
    address: string
    port: number | null
    /** What the controller answers to a discovery of ours; null where it does not. */
    answers: { joined: number; most: number } | null
    /** Where DHCP sends it, and it should not; muster of before did not ask. */
    told?: readonly string[]
  }): HeldWords => ({
    why:
      told.length > 0
        ? `DHCP sends it to ${told.join(', ')}, and its controller ${name} is at ${address}.`
        : `It does not find its controller ${name}.`,
    more: answers
      ? `${name} answers a discovery from here, and has ${answers.joined} of ${answers.most} joined: the way to it is missing.`
      : `${name} answers no discovery from here either (CAPWAP, UDP 5246).`,
    hands: [
      ...(told.length > 0 ? [`Have the DHCP server give out ${address} in option 138.`] : []),
      `See that ${port === null ? 'its port' : `port ${port}`} is in the subnet of ${address}, or that DHCP tells it the address (option 138 or 43).`,
      'Take its cable out for ten seconds, so that it looks again.',
      byItself,
    ],
    resumesWhen: 'it-was-away',
  }),
  'not-shown': ({ name, address, port }: { name: string; address: string; port: number | null }): HeldWords => ({
    why: `Its controller ${name} does not show it.`,
    hands: [
      `See that ${port === null ? 'its port' : `port ${port}`} is in the subnet of ${address}.`,
      'Take its cable out for ten seconds, so that it looks again.',
      byItself,
    ],
    resumesWhen: 'it-was-away',
  }),
  'another-controller': (p: { name: string; other: string; at: string; port: number | null }): HeldWords => ({
    why: `It does not join ${p.name}: another controller, ${p.other || 'without a name'} at ${p.at}, answers beside it.`,
    hands: [
      `Take it off the list of ${p.other || p.at}, or take that controller off this network.`,
      `Take ${cable(p.port)} out for ten seconds, so that it looks again.`,
      byItself,
    ],
    resumesWhen: 'it-was-away',
  }),
  'turned-away': ({ name, reason }: { name: string; reason: JoinReason }): HeldWords => ({
    why: `${name} turns it away: ${joinReasons[reason].why}.`,
    hands: [...joinReasons[reason].hands, again],
  }),
  'state-unknown': ({ name, said }: { name: string; said: string }): HeldWords => ({
    why: `${name} says "${said}" of it, and the card of ${name} does not know what that means.`,
    hands: [
      `Look at it in the window on ${name}: has it joined?`,
      `Add "${said}" to the states on the card of ${name}, and muster it again.`,
    ],
  }),
  'join-hangs': ({ standing, seconds }: { standing: string; seconds: number }): HeldWords => ({
    why: `It is still ${standing} after ${seconds} s.`,
    hands: ['Leave it powered for two minutes more, and muster it again.', 'If it stays, reset it.'],
  }),
} as const
