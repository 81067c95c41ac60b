/** The papers that a client gets, in English. */
import { countryName } from '../../core/regulatory/country'
import type { PaperWords } from '../paper-words'
import { checkNames } from './checks'
import { heldWords } from './held'
import { offersWords } from './old-crypto'
import { outcomeNames } from './outcomes'
import { securityWords, settingName } from './parts'
import { sentence } from './sentence'
import { stepTitles } from './steps'

export const englishPapers: PaperWords = {
  locale: 'en-GB',
  sentence,
  stepTitles,
  checkNames,
  outcomeNames,
  states: {
    answers: 'answers',
    'answers, set by hand': 'answers, set by hand',
    'changed since': 'changed since',
    held: 'held',
    'not mustered': 'not mustered',
    'by hand': 'by hand',
  },
  whyHeld: (held) => heldWords(held).why,
  settingName,
  securityWords,
  countryName,
  cameOpen: (ssid, seconds) => `It came with "${ssid}" open on air, silenced ${seconds} s after it was first seen.`,
  itOffers: (old) => `It ${offersWords(old)}.`,
  serviceFound: (check, found) => `${check}: ${found}.`,
  notAsked: (check, found) => `${check} is ${found}, and was not asked for.`,
  none: 'none',
  sheet: {
    about: (site, country) => `As built: ${site}, ${country}.`,
    proven: (date, zone) => `Proven ${date} (${zone}).`,
    management: 'Management network',
    gateway: 'gateway',
    networks: (count) => (count === 1 ? 'Wireless network' : 'Wireless networks'),
    columns: ['Unit', 'Location', 'Address', 'MAC, serial', 'Site switch, port', 'Channels', 'State'],
    firmware: (version) => `firmware ${version}`,
    planned: (channel) => `planned ${channel}, radar`,
    provenBy: (machine) => `proven by ${machine}`,
    settings: 'Settings',
    nothingPlanned: 'nothing is planned for it',
    seenToBy: (who) => `Seen to by ${who}.`,
    secrets: 'Passwords and passphrases are not on this sheet. They are handed over apart, sealed.',
  },
  pictures: {
    title: 'Received level',
    about: (fitted) =>
      `What a phone hears of the loudest unit, worked out from the plan${
        fitted ? ' with the model fitted to levels measured on the site' : ', not measured'
      }. Units stand with their names and channels.`,
    levels: ['very loud', 'loud', 'fast', 'voice', 'works', 'weak'],
    hatched: (dbm) => `hatched: below ${dbm} dBm`,
    of: (floor, band) => `Received level on ${floor} at ${band} GHz`,
  },
  site: {
    title: 'For whoever runs router and switch',
    about: 'None of this is set by the units. They count on it.',
    subnets: [
      'Subnet',
      'VLAN',
      'Addresses',
      'Gateway',
      'DHCP hands out',
      'DNS',
      'Networks on it',
      'May open connections to',
    ],
    untagged: 'untagged',
    range: (first, last) => `${first} to ${last}`,
    noneOfTheOthers: 'none of the others',
    unserved: (vlans) =>
      vlans.length === 1
        ? `VLAN ${vlans} has networks and no subnet in this job: somebody else serves addresses there.`
        : `VLANs ${vlans.join(', ')} have networks and no subnet in this job: somebody else serves addresses there.`,
    ports: ['Site switch', 'Port', 'Unit', 'Without a tag', 'With a tag'],
    managementOnPort: 'management',
  },
}
