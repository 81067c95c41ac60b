/** Typical parameters for every code: what the page of messages and the test of all languages are made with. */
import type { Code, CodeTable, Kind, Message } from '../core/message/message'
import { asTold } from '../core/message/message'
import { table } from '../core/message/table'
import type { HeldCode, HeldParams } from '../core/muster/held'

/** Parameters that are looked up in a list. What is in no list stands as its own name. */
const listed: Readonly<Record<string, string>> = {
  band: '5',
  copy: 'as-found',
  country: 'DE',
  locked: 'DE',
  scope: 'unit',
  security: 'wpa2-personal',
  setting: 'unit.country',
  step: 'networks',
}

function typicalValue(name: string, kind: Kind): Message['params'][string] {
  const text = listed[name] ?? `‹${name}›`
  switch (kind) {
    case 'text':
    case 'text-or-none':
      return text
    case 'texts':
      return [text]
    case 'number':
    case 'number-or-none':
      return 7
    case 'numbers':
      return [7]
    case 'flag':
      return true
    case 'message':
      return asTold(text)
    case 'messages':
      return [asTold(text)]
  }
}

export function typicalMessage(code: Code): Message {
  const kinds = (table as CodeTable)[code] ?? {}
  const params = Object.entries(kinds).map(([name, kind]) => [name, typicalValue(name, kind)])
  return { code, params: Object.fromEntries(params) }
}

const [name, address, mac, model, port, lights] = [
  '‹name›',
  '‹address›',
  '‹mac›',
  '‹model›',
  7,
  [['‹light›', '‹meaning›']],
] as const
const reason = asTold('‹reason›')

export const typicalHeld: { readonly [C in HeldCode]: HeldParams<C> } = {
  'as-told': { why: '‹why›', hands: ['‹hands›'] },
  'cannot-be-set': { reasons: [reason] },
  'set-by-hand': { why: asTold('‹why›'), address },
  'went-wrong': {},
  'not-found': { addresses: [address], port, poe: '‹poe›', lights, mac },
  'heard-only': { addresses: [address], heardAt: '‹heardAt›', name, reset: ['‹reset›'] },
  'service-shut': { address, service: 443, port },
  'another-model': { says: '‹says›', card: '‹card›' },
  'refuses-passwords': { reset: ['‹reset›'] },
  'label-password': { mac },
  'session-in-use': { name, said: asTold('‹said›') },
  'laptop-lacks': { what: asTold('‹what›') },
  'went-away': { port, lights },
  slow: { port },
  'wrong-unit': { mac },
  'new-certificate': { reason, name, mac },
  outdated: { names: ['tls-1.0'], model },
  garbled: { model },
  'setting-refused': { said: asTold('‹said›') },
  'changed-meanwhile': { name },
  'setting-not-kept': { differences: [asTold('‹difference›')] },
  'password-not-kept': {},
  'factory-password-stays': { reset: '‹reset›' },
  'image-not-kept': { file: '‹file›', model },
  'image-refused': { file: '‹file›', reason },
  'image-not-run': { found: '‹found›', wanted: '‹wanted›' },
  'still-applying': { seconds: 7 },
  'not-saved': {},
  'open-network': { ssid: '‹ssid›' },
  'not-on-air': { faults: [asTold('‹fault›')] },
  'clock-off': { off: asTold('‹off›'), servers: ['‹server›'] },
  'check-failed': {
    checks: [{ code: 'ping', verdict: 'bad', expected: asTold('‹expected›'), observed: asTold('‹observed›'), at: 0 }],
  },
  'trades-addresses': { other: '‹other›' },
  'address-taken': { address, mac },
  'address-of-another': { address, other: '‹other›' },
  'vlan-not-carried': { vlan: 7, port, fault: '‹fault›' },
  'vlan-silent': { vlan: 7, port },
  'not-reserved': { got: '‹got›', address, mac },
  'did-not-return': { address, lights },
  'came-back-unchanged': { address },
  'no-controller': { by: ['‹controller›'] },
  'controller-not-ready': { name },
  'no-discovery': { name, address, port, answers: { joined: 7, most: 7 } },
  'not-shown': { name, address, port },
  'another-controller': { name, other: '‹other›', at: '‹at›', port },
  'turned-away': { name, reason: 'licence-full' },
  'state-unknown': { name, said: '‹said›' },
  'join-hangs': { standing: asTold('‹standing›'), seconds: 7 },
}
