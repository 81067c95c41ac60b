/** Sentences about units that are held because they do not join a controller, or have none. */
import type { JoinReason } from '../../core/kit/joining'
import type { HeldCode, HeldParams } from '../../core/muster/held'
import { prose } from '../prose'
import { again, byItself, cable, type HeldWords } from './held-parts'
import { sentence } from './sentence'

/** Why a controller turns an access point away. */
const joinReasons: Readonly<Record<JoinReason, { why: string; hands: readonly string[] }>> = {
  'not-listed': { why: 'its MAC is not on the list', hands: ['Compare the MAC on its label with the kit list.'] },
  'licence-full': {
    why: 'no licence is left for it',
    hands: ['Take an access point that is not used off its list, or get it another licence.'],
  },
  clock: {
    why: 'by its clock the certificate is not valid',
    hands: ['See that the controller reaches its time server, and that its clock is right.'],
  },
  country: { why: 'it is not made for this country', hands: ['Compare its model with the country of the brief.'] },
  certificate: {
    why: 'its certificate is by nobody that the controller trusts',
    hands: [
      'Compare its maker and model with those that the controller takes.',
      'If they are right, set it aside: it needs its maker.',
    ],
  },
  login: {
    why: 'it has another login than out of its box',
    hands: ['Reset it: somebody has set it up before.'],
  },
  'image-failed': {
    why: 'its image does not load',
    hands: ['Look at its cable, and leave it powered; a slow link takes minutes.'],
  },
}

type OfJoining = Extract<
  HeldCode,
  | 'no-controller'
  | 'controller-not-ready'
  | 'no-discovery'
  | 'not-shown'
  | 'another-controller'
  | 'turned-away'
  | 'state-unknown'
  | 'join-hangs'
>

export const joiningReasons: { readonly [C in OfJoining]: (params: HeldParams<C>) => HeldWords } = {
  'no-controller': ({ by }) => ({
    why: `It is set through ${by.join(' or ')}, and none is on the kit list.`,
    hands: ['Put its controller on the kit list.', again],
  }),
  'controller-not-ready': ({ name }) => ({
    why: `Its controller ${name} does not answer yet.`,
    hands: [`Muster ${name} first, or with it.`, again],
  }),
  'no-discovery': ({ name, address, port, answers, told = [] }) => ({
    why:
      told.length > 0
        ? `DHCP sends it to ${told.join(', ')}, and its controller ${name} is at ${address}.`
        : `It does not find its controller ${name}.`,
    more: answers
      ? prose`${name} answers a discovery from here, and has ${answers.joined} of ${answers.most} joined: the way to
        it is missing.`
      : `${name} answers no discovery from here either (CAPWAP, UDP 5246).`,
    hands: [
      ...(told.length > 0 ? [`Have the DHCP server give out ${address} in option 138.`] : []),
      prose`See that ${port === null ? 'its port' : `port ${port}`} is in the subnet of ${address}, or that DHCP tells
        it the address (option 138 or 43).`,
      'Take its cable out for ten seconds, so that it looks again.',
      byItself,
    ],
  }),
  'not-shown': ({ name, address, port }) => ({
    why: `Its controller ${name} does not show it.`,
    hands: [
      `See that ${port === null ? 'its port' : `port ${port}`} is in the subnet of ${address}.`,
      'Take its cable out for ten seconds, so that it looks again.',
      byItself,
    ],
  }),
  'another-controller': (p) => ({
    why: prose`It does not join ${p.name}: another controller, ${p.other || 'without a name'} at ${p.at}, answers
      beside it.`,
    hands: [
      `Take it off the list of ${p.other || p.at}, or take that controller off this network.`,
      `Take ${cable(p.port)} out for ten seconds, so that it looks again.`,
      byItself,
    ],
  }),
  'turned-away': ({ name, reason }) => ({
    why: `${name} turns it away: ${joinReasons[reason].why}.`,
    hands: [...joinReasons[reason].hands, again],
  }),
  'state-unknown': ({ name, said }) => ({
    why: `${name} says "${said}" of it, and the card of ${name} does not know what that means.`,
    hands: [
      `Look at it in the window on ${name}: has it joined?`,
      `Add "${said}" to the states on the card of ${name}, and muster it again.`,
    ],
  }),
  'join-hangs': ({ standing, seconds }) => ({
    why: `It is still ${sentence(standing)} after ${seconds} s.`,
    hands: ['Leave it powered for two minutes more, and muster it again.', 'If it stays, reset it.'],
  }),
}
