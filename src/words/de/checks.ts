/** Names of checks in German. */
import type { CheckCode } from '../../core/muster/check'

export const germanChecks: Readonly<Record<CheckCode, string>> = {
  arp: 'Antwortet auf ARP',
  ping: 'Ping',
  'new-login': 'Neuer Login',
  'factory-login': 'Werkslogin',
  'further-logins': 'Logins weiterer Benutzer',
  'factory-address': 'Werksadresse',
  service: 'Ein Dienst zur Verwaltung',
  settings: 'Zurückgelesene Einstellungen',
  'on-air': 'Netze auf Sendung',
  clock: 'Uhr',
  joined: 'Bei ihrem Controller angemeldet',
  'joined-by-snmp': 'SNMP-Agent ihres Controllers',
  'carried-by-snmp': 'Netze nach dessen SNMP-Agenten',
  http: 'Unverschlüsseltes HTTP',
  ssh: 'SSH',
  telnet: 'Telnet',
  snmp: 'SNMP als ihr Benutzer',
  'snmp-in-clear': 'SNMP ohne Benutzer',
  former: 'Früher geprüft',
}
