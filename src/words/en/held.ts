/** Sentences about units that are held: why, and what the hands do about it. */

import type { Held, HeldCode, HeldParams } from '../../core/muster/held'
import { prose } from '../prose'
import { failedChecks } from './checks'
import { joiningReasons } from './held-joining'
import { again, byItself, cable, type HeldWords, lightWords } from './held-parts'
import { offersWords } from './old-crypto'
import { sentence } from './sentence'

const reasons: { readonly [C in HeldCode]: (params: HeldParams<C>) => HeldWords } = {
  'as-told': ({ why, hands, more }) => ({ why, hands, more }),
  'cannot-be-set': ({ reasons: [why, ...more] }) => ({
    why: why ? sentence(why) : '',
    hands: ['Mend it in the brief, the kit or the plan.', again],
    more: more.map(sentence).join(' ') || undefined,
  }),
  'set-by-hand': ({ why, address }) => ({
    why: sentence(why),
    hands: [
      'Set it by hand: its slip has every value.',
      ...(address === undefined
        ? []
        : [`Its address, ${address}, comes last: it is called again when it answers there.`]),
      'Tick there what is done.',
    ],
  }),
  'went-wrong': () => ({
    why: 'Air Muster itself went wrong here.',
    hands: ['Muster this unit again.', 'If it happens twice, send us the log of the runner.'],
  }),
  'not-found': (p) => ({
    why: `It does not answer at ${p.addresses.join(' or ')}.`,
    hands: [
      `Check ${cable(p.port)} and that the port gives ${p.poe} power.`,
      lightWords(p.lights),
      `Compare the MAC on its label with ${p.mac}.`,
      byItself,
    ],
  }),
  'heard-only': (p) => ({
    why: prose`It is heard on the wire${p.heardAt === null ? '' : ` from ${p.heardAt}`}, and does not answer at
      ${p.addresses.join(' or ')}.`,
    hands: [
      'Leave its cable as it is: it has power, and the wire carries what it says.',
      p.heardAt === null
        ? 'Wait until it has an address, or reset it.'
        : `If ${p.name} belongs to another subnet on purpose, say so in the brief; else reset it.`,
      ...p.reset,
      byItself,
    ],
  }),
  'service-shut': ({ address, service, port }) => ({
    why: `It answers ARP at ${address}, and lets nobody in at port ${service}.`,
    hands: [
      `Take ${cable(port)} out for ten seconds and put it in again.`,
      `If port ${service} stays shut, look for a filter on the switch, or reset the unit.`,
      byItself,
    ],
  }),
  'another-model': ({ says, card }) => ({
    why: `It says that it is ${says}, not ${card}.`,
    hands: ['Read the model on its label.', 'Correct the kit list, then muster it again.'],
  }),
  'refuses-passwords': ({ reset }) => ({
    why: 'It refuses the factory password.',
    hands: [...reset, 'It carries on by itself from Reach.'],
    more: "It was set up before. Neither the job's password nor the one on its label opens it.",
  }),
  'label-password': ({ mac }) => ({
    why: 'Each box of this model has a password of its own, and nobody has told the one of this.',
    hands: [`Read it on the label that says ${mac}, and type it on its slip in the kit list.`, again],
  }),
  'session-in-use': ({ name, said }) => ({
    why: 'It takes one session at a time, and somebody else is signed in.',
    hands: [`Sign out wherever ${name} is open in a browser, and close that tab.`, again],
    more: `It said: ${sentence(said)}`,
  }),
  'laptop-lacks': ({ what }) => ({
    why: 'It takes a program that this laptop lacks.',
    hands: ['Install it: muster doctor says how.', again],
    more: `Missing: ${sentence(what)}`,
  }),
  'went-away': ({ port, lights }) => ({
    why: 'It stopped answering.',
    hands: [
      `Check ${cable(port)}.`,
      lightWords(lights),
      'Take it out for ten seconds and put it in again: it goes on by itself when it answers.',
    ],
  }),
  slow: ({ port }) => ({
    why: 'It answers too slowly.',
    hands: ['Give it a minute, then muster it again.', `If it stays slow, take ${cable(port)} out for ten seconds.`],
  }),
  'wrong-unit': ({ mac }) => ({
    why: 'Another unit answers in its place.',
    hands: [`Compare the MAC on its label with ${mac}.`, 'Put the right MAC on the kit list, then muster it again.'],
  }),
  'new-certificate': (p) => ({
    why: 'Its certificate is not the one it showed first.',
    more: sentence(p.reason),
    hands: [
      `Make sure that nobody put another device in place of ${p.name}: compare its label with ${p.mac}.`,
      'If you reset it yourself, it has made itself a new one: trust that, and it is mustered again.',
    ],
  }),
  outdated: ({ names, model }) => ({
    why: `It ${offersWords(names)}: whoever is on its wire may read along, or stand between.`,
    hands: [
      'Look whether its maker has a newer firmware.',
      `Where you accept it for the model, say so on the kit card of ${model}: old: [${names.join(', ')}] under does.`,
      again,
    ],
  }),
  garbled: ({ model }) => ({
    why: `It does not answer as ${model} should.`,
    hands: [
      'Check the model on its label against the kit list.',
      'If they agree, power it off for ten seconds and muster it again.',
    ],
  }),
  'setting-refused': ({ said }) => ({
    why: 'It refuses a setting.',
    hands: ['Read below what it said, change the brief or the plan, then muster it again.'],
    more: `It said: ${sentence(said)}`,
  }),
  'changed-meanwhile': ({ name }) => ({
    why: 'Another program or person changes it while it is being set.',
    hands: [`See that nobody else is signed in to ${name}, and no other program sets it.`, 'Then muster it again.'],
  }),
  'setting-not-kept': ({ differences }) => ({
    why: 'It took a setting and shows another.',
    hands: ['Muster it again.', 'If it happens twice, set it aside: its firmware may be faulty.'],
    more: differences.map(sentence).join(' '),
  }),
  'password-not-kept': () => ({
    why: 'It took the new password and then refused it.',
    hands: [
      'Its old password is back. Muster it again.',
      'If it happens twice, have another password made in the brief.',
    ],
  }),
  'factory-password-stays': ({ reset }) => ({
    why: 'It still takes the factory password.',
    hands: ['Muster it again.', `If it happens twice, reset it: ${reset}`, 'Do not leave it on site like this.'],
  }),
  'image-not-kept': ({ file, model }) => ({
    why: `The image ${file} for ${model} is not here any more, or is damaged.`,
    hands: ['Give it to the brief again, under its firmware.', again],
  }),
  'image-refused': ({ file, reason }) => ({
    why: `It does not take the image ${file}: ${sentence(reason)}.`,
    hands: ['Compare model and digest with those that its maker gives.', 'Give the right one to the brief.', again],
  }),
  'image-not-run': ({ found, wanted }) => ({
    why: `It was given firmware ${wanted} and runs ${found}.`,
    hands: [
      'See that the image brings the version that the brief says.',
      'Leave it powered, and muster it again.',
      'If it happens twice, set it aside: it does not keep what is written to it.',
    ],
  }),
  'still-applying': ({ seconds }) => ({
    why: `It is still applying after ${seconds} s.`,
    hands: ['Leave it powered for two minutes more.', 'Then muster it again: it goes on where it stopped.'],
  }),
  'not-saved': () => ({
    why: 'It says that it has not saved.',
    hands: ['Leave it powered, and muster it again.', 'If it happens twice, set it aside: a restart would lose all.'],
  }),
  'open-network': ({ ssid }) => ({
    why: `Network "${ssid}" is on air without security.`,
    hands: ['Take its cable out now.', 'Check the brief, then muster it again.'],
  }),
  'not-on-air': ({ faults }) => ({
    why: 'A radio is not on air as planned.',
    hands: ['Read below what differs.', 'If it heard radar, plan another channel; else muster it again.'],
    more: faults.map(sentence).join(' '),
  }),
  'clock-off': ({ off, servers }) => ({
    why: `Its clock is ${sentence(off)}.`,
    hands: [
      `See that ${servers.join(' or ')} answers as a time server (NTP, UDP 123), and that the unit reaches it.`,
      'Compare the clock of this laptop with one that is right.',
      again,
    ],
    more: 'A wrong clock breaks joins, certificates and schedules.',
  }),
  'check-failed': ({ checks }) => {
    const { first, all } = failedChecks(checks)
    return {
      why: first,
      hands: ['Muster it again: what is right is left alone.', 'If it stays, look at the same point by hand.'],
      more: all.join(' '),
    }
  },
  'trades-addresses': ({ other }) => ({
    why: `It and ${other} are to trade addresses.`,
    hands: [
      'Plan a free address for one of them, and muster both.',
      'Then plan the address that you want for it, and muster it again.',
    ],
  }),
  'address-taken': ({ address, mac }) => ({
    why: `${address} is taken by ${mac}.`,
    hands: ['Find that device and take it off the wire, or plan another address.', 'Then muster this unit again.'],
  }),
  'address-of-another': ({ address, other }) => ({
    why: `${address} is still the address of ${other}.`,
    hands: [
      `Muster ${other} as well: it is to have another. Or plan another address for this unit.`,
      'Then muster this unit again.',
    ],
  }),
  'vlan-not-carried': (p) => ({
    why: `This laptop does not reach VLAN ${p.vlan}, on which the unit is to be managed.`,
    hands: [
      ...(p.fault ? [`It has no interface for it: ${p.fault}. Make one, or work from a laptop that can.`] : []),
      prose`Have the switch carry VLAN ${p.vlan} with its tag,
        ${p.port === null ? 'to the unit' : `on port ${p.port}`} and to this laptop.`,
      again,
    ],
  }),
  'vlan-silent': ({ vlan, port }) => ({
    why: prose`Nobody is heard on VLAN ${vlan}, on which the unit is to be managed: whether this laptop reaches it
      cannot be told.`,
    hands: [
      `Plug in the router, or anything else that is on VLAN ${vlan}: who is heard there shows that the way is open.`,
      prose`Have the switch carry VLAN ${vlan} with its tag, ${port === null ? 'to the unit' : `on port ${port}`} and
        to this laptop.`,
      again,
    ],
  }),
  'not-reserved': (p) => ({
    why: `The DHCP server gives it ${p.got}, and the plan has ${p.address}.`,
    hands: [
      `Have the server keep ${p.address} for ${p.mac}: Plan, Addresses has the list for it.`,
      'Take its cable out for ten seconds, so that it asks again.',
      again,
    ],
  }),
  'did-not-return': ({ address, lights }) => ({
    why: `It did not come back at ${address}.`,
    hands: [lightWords(lights), 'Take its cable out for ten seconds and put it in again.', byItself],
  }),
  'came-back-unchanged': ({ address }) => ({
    why: 'It came back as it was before.',
    hands: ['Leave it powered, and muster it again.', 'If it happens twice, set it aside: its firmware may be faulty.'],
    more: `It came back at ${address}.`,
  }),
  ...joiningReasons,
}

export function heldWords({ code, params }: Pick<Held, 'code' | 'params'>): HeldWords {
  return (reasons[code] as (params: unknown) => HeldWords)(params)
}

export const heldPageWords = {
  show: 'See its page as it was then',
  title: (unit: string) => `The page of ${unit} when it was held`,
  alt: 'A picture of the page. What can be read in it stands below.',
  about: 'Fields and words that hold a secret of this job are blank.',
  words: 'What can be read on it',
} as const
