/** The papers that a client gets, in German. */
import type { PaperWords } from '../paper-words'
import { prose } from '../prose'
import { germanChecks } from './checks'
import { whyHeld } from './held'
import { countryName, offersWords, securityWords } from './parts'
import { sentence } from './sentence'
import { settingNames } from './settings'
import { stepTitles } from './steps'

export const germanPapers: PaperWords = {
  locale: 'de-DE',
  sentence,
  stepTitles,
  checkNames: germanChecks,
  outcomeNames: {
    proven: 'nachgewiesen',
    written: 'geschrieben, nicht lesbar',
    'by-hand': 'von Hand',
    'not-for-it': 'betrifft sie nicht',
    open: 'noch nicht gesetzt',
  },
  states: {
    answers: 'antwortet',
    'answers, set by hand': 'antwortet, von Hand eingerichtet',
    'changed since': 'seither geändert',
    held: 'gehalten',
    'not mustered': 'nicht in Betrieb genommen',
    'by hand': 'von Hand',
  },
  whyHeld,
  settingName: (id) => settingNames[id],
  securityWords,
  countryName,
  cameOpen: (ssid, seconds) =>
    `Sie kam mit „${ssid}“ offen auf Sendung; ${seconds} s, nachdem sie zuerst gesehen wurde, war es still.`,
  itOffers: (old) => `Sie ${offersWords(old)}.`,
  serviceFound: (check, found) => `${check}: ${found}.`,
  notAsked: (check, found) => `${check}: ${found}, und das war nicht verlangt.`,
  none: 'keine',
  sheet: {
    about: (site, country) => `Wie gebaut: ${site}, ${country}.`,
    proven: (date, zone) => `Nachgewiesen am ${date} (${zone}).`,
    management: 'Management-Netz',
    gateway: 'Gateway',
    networks: (count) => (count === 1 ? 'WLAN' : 'WLANs'),
    columns: ['Einheit', 'Standort', 'Adresse', 'MAC, Seriennummer', 'Switch, Port', 'Kanäle', 'Zustand'],
    firmware: (version) => `Firmware ${version}`,
    planned: (channel) => `geplant ${channel}, Radar`,
    provenBy: (machine) => `nachgewiesen von ${machine}`,
    settings: 'Einstellungen',
    nothingPlanned: 'für sie ist nichts geplant',
    seenToBy: (who) => `Erledigt von ${who}.`,
    secrets: 'Passwörter und Passphrasen stehen nicht auf diesem Blatt. Sie werden getrennt und versiegelt übergeben.',
  },
  pictures: {
    title: 'Empfangspegel',
    about: (fitted) =>
      `Was ein Telefon von der lautesten Einheit hört, berechnet aus dem Plan${
        fitted ? ' mit einem Modell, das an Messungen vor Ort angepasst ist' : ', nicht gemessen'
      }. Die Einheiten stehen mit Namen und Kanal darin.`,
    levels: ['sehr laut', 'laut', 'schnell', 'Sprache', 'brauchbar', 'schwach'],
    hatched: (dbm) => `schraffiert: unter ${dbm} dBm`,
    of: (floor, band) => `Empfangspegel auf ${floor} bei ${band} GHz`,
  },
  site: {
    title: 'Für die, die Router und Switch betreiben',
    about: 'Nichts davon stellen die Einheiten ein. Sie verlassen sich darauf.',
    subnets: [
      'Subnetz',
      'VLAN',
      'Adressen',
      'Gateway',
      'DHCP vergibt',
      'DNS',
      'Netze darauf',
      'Darf Verbindungen öffnen zu',
    ],
    untagged: 'ungetaggt',
    range: (first, last) => `${first} bis ${last}`,
    noneOfTheOthers: 'keinem der anderen',
    unserved: (vlans) =>
      vlans.length === 1
        ? `VLAN ${vlans} hat Netze, aber in diesem Auftrag kein Subnetz: Jemand anderes vergibt dort Adressen.`
        : prose`Die VLANs ${vlans.join(', ')} haben Netze, aber in diesem Auftrag kein Subnetz: Jemand anderes vergibt
          dort Adressen.`,
    ports: ['Switch', 'Port', 'Einheit', 'Ohne Tag', 'Mit Tag'],
    managementOnPort: 'Management',
  },
}
