/** Why units are held, in German: what the papers say of it. */
import type { JoinReason } from '../../core/kit/joining'
import type { Held, HeldCode, HeldParams } from '../../core/muster/held'
import { prose } from '../prose'
import { germanChecks } from './checks'
import { offersWords } from './parts'
import { sentence } from './sentence'

const joinReasons: Readonly<Record<JoinReason, string>> = {
  'not-listed': 'ihre MAC steht nicht auf der Liste',
  'licence-full': 'für sie ist keine Lizenz mehr frei',
  clock: 'nach seiner Uhr ist das Zertifikat nicht gültig',
  country: 'sie ist nicht für dieses Land gemacht',
  certificate: 'ihr Zertifikat ist von niemandem, dem der Controller vertraut',
  login: 'sie hat einen anderen Login als den aus der Schachtel',
  'image-failed': 'ihr Image lädt nicht',
}

const or = new Intl.ListFormat('de', { type: 'disjunction' })

const reasons: { readonly [C in HeldCode]: (params: HeldParams<C>) => string } = {
  'as-told': ({ why }) => why,
  'cannot-be-set': ({ reasons: [why] }) => (why ? sentence(why) : ''),
  'set-by-hand': ({ why }) => sentence(why),
  'went-wrong': () => 'Air Muster selbst hat hier einen Fehler gemacht.',
  'not-found': ({ addresses }) => `Sie antwortet nicht unter ${or.format(addresses)}.`,
  'heard-only': ({ addresses, heardAt }) =>
    prose`Sie ist auf der Leitung zu hören${heardAt === null ? '' : `, von ${heardAt}`}, und antwortet nicht unter
      ${or.format(addresses)}.`,
  'service-shut': ({ address, service }) =>
    `Sie antwortet auf ARP unter ${address} und lässt niemanden an Port ${service} ein.`,
  'another-model': ({ says, card }) => `Sie sagt, sie sei ${says}, nicht ${card}.`,
  'refuses-passwords': () => 'Sie lehnt das Werkspasswort ab.',
  'label-password': () =>
    'Jede Schachtel dieses Modells hat ihr eigenes Passwort, und das von dieser hat niemand genannt.',
  'session-in-use': () => 'Sie nimmt nur eine Sitzung zugleich, und jemand anderes ist angemeldet.',
  'laptop-lacks': () => 'Sie braucht ein Programm, das auf diesem Laptop fehlt.',
  'went-away': () => 'Sie hat aufgehört zu antworten.',
  slow: () => 'Sie antwortet zu langsam.',
  'wrong-unit': () => 'Eine andere Einheit antwortet an ihrer Stelle.',
  'new-certificate': () => 'Ihr Zertifikat ist nicht das, das sie zuerst gezeigt hat.',
  outdated: ({ names }) =>
    `Sie ${offersWords(names)}: Wer an ihrer Leitung ist, könnte mitlesen oder dazwischenstehen.`,
  garbled: ({ model }) => `Sie antwortet nicht, wie ${model} es sollte.`,
  'setting-refused': () => 'Sie lehnt eine Einstellung ab.',
  'changed-meanwhile': () => 'Ein anderes Programm oder jemand anderes ändert sie, während sie eingerichtet wird.',
  'setting-not-kept': () => 'Sie hat eine Einstellung genommen und zeigt eine andere.',
  'password-not-kept': () => 'Sie hat das neue Passwort genommen und es dann abgelehnt.',
  'factory-password-stays': () => 'Sie nimmt immer noch das Werkspasswort.',
  'image-not-kept': ({ file, model }) => `Das Image ${file} für ${model} ist nicht mehr hier oder ist beschädigt.`,
  'image-refused': ({ file, reason }) => `Sie nimmt das Image ${file} nicht: ${sentence(reason)}.`,
  'image-not-run': ({ found, wanted }) => `Sie bekam die Firmware ${wanted} und läuft mit ${found}.`,
  'still-applying': ({ seconds }) => `Sie wendet nach ${seconds} s noch an.`,
  'not-saved': () => 'Sie sagt, dass sie nicht gesichert hat.',
  'open-network': ({ ssid }) => `Das Netz „${ssid}“ ist ohne Sicherheit auf Sendung.`,
  'not-on-air': () => 'Ein Funkmodul ist nicht wie geplant auf Sendung.',
  'clock-off': ({ off }) => `Ihre Uhr: ${sentence(off)}.`,
  'check-failed': ({ checks: [first] }) => (first ? `${germanChecks[first.code]}: ${sentence(first.observed)}.` : ''),
  'trades-addresses': ({ other }) => `Sie und ${other} sollen ihre Adressen tauschen.`,
  'address-taken': ({ address, mac }) => `${address} ist von ${mac} belegt.`,
  'address-of-another': ({ address, other }) => `${address} ist noch die Adresse von ${other}.`,
  'vlan-not-carried': ({ vlan }) =>
    `Dieser Laptop erreicht VLAN ${vlan} nicht, in dem die Einheit verwaltet werden soll.`,
  'vlan-silent': ({ vlan }) =>
    prose`In VLAN ${vlan}, in dem die Einheit verwaltet werden soll, ist niemand zu hören: Ob dieser Laptop es
      erreicht, ist nicht zu sagen.`,
  'not-reserved': ({ got, address }) => `Der DHCP-Server gibt ihr ${got}, und der Plan hat ${address}.`,
  'did-not-return': ({ address }) => `Sie kam unter ${address} nicht zurück.`,
  'came-back-unchanged': () => 'Sie kam zurück, wie sie vorher war.',
  'no-controller': ({ by }) => `Sie wird über ${or.format(by)} eingerichtet, und nichts davon steht auf der Kit-Liste.`,
  'controller-not-ready': ({ name }) => `Ihr Controller ${name} antwortet noch nicht.`,
  'no-discovery': ({ name, address, told = [] }) =>
    told.length > 0
      ? `DHCP schickt sie zu ${told.join(', ')}, und ihr Controller ${name} ist unter ${address}.`
      : `Sie findet ihren Controller ${name} nicht.`,
  'not-shown': ({ name }) => `Ihr Controller ${name} zeigt sie nicht.`,
  'another-controller': ({ name, other, at }) =>
    prose`Sie meldet sich nicht bei ${name} an: Ein anderer Controller, ${other || 'ohne Namen'} unter ${at},
      antwortet daneben.`,
  'turned-away': ({ name, reason }) => `${name} weist sie ab: ${joinReasons[reason]}.`,
  'state-unknown': ({ name, said }) =>
    `${name} sagt „${said}“ von ihr, und die Karte von ${name} weiß nicht, was das heißt.`,
  'join-hangs': ({ standing, seconds }) => `Nach ${seconds} s ist ihr Stand noch: ${sentence(standing)}.`,
}

export function whyHeld({ code, params }: Pick<Held, 'code' | 'params'>): string {
  return (reasons[code] as (params: unknown) => string)(params)
}
