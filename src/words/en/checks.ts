/** Names of checks, and what those say that failed. */
import type { Check, CheckCode } from '../../core/muster/check'
import { sentence } from './sentence'

export const checkNames: Readonly<Record<CheckCode, string>> = {
  arp: 'Answers by ARP',
  ping: 'Ping',
  'new-login': 'New login',
  'factory-login': 'Factory login',
  'further-logins': 'Logins of further users',
  'factory-address': 'Factory address',
  service: 'A service to manage it by',
  settings: 'Settings read back',
  'on-air': 'Networks on air',
  clock: 'Clock',
  joined: 'Joined its controller',
  'joined-by-snmp': "Its controller's SNMP agent",
  'carried-by-snmp': 'Networks, by its SNMP agent',
  http: 'Plain HTTP',
  ssh: 'SSH',
  telnet: 'Telnet',
  snmp: 'SNMP as its user',
  'snmp-in-clear': 'SNMP without a user',
  former: 'Checked before',
}

/** What checks that failed say: the first of them, and all, a sentence each. */
export function failedChecks(bad: readonly Check[]): { first: string; all: string[] } {
  const [first] = bad
  return {
    first: first ? `${checkNames[first.code]}: ${sentence(first.observed)}.` : '',
    all: bad.map(
      (check) => `${checkNames[check.code]}: ${sentence(check.observed)}, expected ${sentence(check.expected)}.`,
    ),
  }
}
