/** Why a unit is not sent to its address, or did not come to it. */
import { again, byItself, type HeldWords } from './held-words'

export const addressHolds = {
  'trades-addresses': ({ other }: { other: string }): HeldWords => ({
    why: `It and ${other} are to trade addresses.`,
    hands: [
      'Plan a free address for one of them, and muster both.',
      'Then plan the address that you want for it, and muster it again.',
    ],
  }),
  'address-taken': ({ address, mac }: { address: string; mac: string }): HeldWords => ({
    why: `${address} is taken by ${mac}.`,
    hands: ['Find that device and take it off the wire, or plan another address.', 'Then muster this unit again.'],
  }),
  'address-of-another': ({ address, other }: { address: string; other: string }): HeldWords => ({
    why: `${address} is still the address of ${other}.`,
    hands: [
      `Muster ${other} as well: it is to have another. Or plan another address for this unit.`,
      'Then muster this unit again.',
    ],
  }),
  'vlan-not-carried': (p: { vlan: number; port: number | null; fault?: string | null }): HeldWords => ({
    why: `This laptop does not reach VLAN ${p.vlan}, on which the unit is to be managed.`,
    hands: [
      ...(p.fault ? [`It has no interface for it: ${p.fault}. Make one, or work from a laptop that can.`] : []),
      `Have the switch carry VLAN ${p.vlan} with its tag, ${p.port === null ? 'to the unit' : `on port ${p.port}`} and to this laptop.`,
      again,
    ],
  }),
  'vlan-silent': ({ vlan, port }: { vlan: number; port: number | null }): HeldWords => ({
    why: `Nobody is heard on VLAN ${vlan}, on which the unit is to be managed: whether this laptop reaches it cannot be told.`,
    hands: [
      `Plug in the router, or anything else that is on VLAN ${vlan}: who is heard there shows that the way is open.`,
      `Have the switch carry VLAN ${vlan} with its tag, ${port === null ? 'to the unit' : `on port ${port}`} and to this laptop.`,
      again,
    ],
  }),
  'not-reserved': (p: { got: string; address: string; mac: string }): HeldWords => ({
    why: `The DHCP server gives it ${p.got}, and the plan has ${p.address}.`,
    hands: [
      `Have the server keep ${p.address} for ${p.mac}: Plan, Addresses has the list for it.`,
      'Take its cable out for ten seconds, so that it asks again.',
      again,
    ],
  }),
  'did-not-return': ({ address, light }: { address: string; light: string }): HeldWords => ({
    why: `It did not come back at ${address}.`,
    hands: [`Look at its light: ${light}.`, 'Take its cable out for ten seconds and put it in again.', byItself],
    resumesWhen: 'it-answers',
  }),
  'came-back-unchanged': ({ address }: { address: string }): HeldWords => ({
    why: 'It came back as it was before.',
    hands: ['Leave it powered, and muster it again.', 'If it happens twice, set it aside: its firmware may be faulty.'],
    more: `It came back at ${address}.`,
  }),
} as const
