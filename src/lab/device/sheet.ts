/**
 * A stand-in's own sheet: what its maker built. Kept apart from the kit cards on purpose: a card that is wrong about a
 * model is found out against its stand-in.
 */
import { type DeviceRadio, modeSchema } from './device-settings'
import type { StandInSheet } from './stand-in-sheet'

const radio = (band: DeviceRadio['band'], rest: Pick<DeviceRadio, 'channel' | 'width' | 'power'>): DeviceRadio => ({
  band,
  on: true,
  generation: null,
  lowRates: 'kept',
  beacon: 100,
  ...rest,
})

export const ostrelO40: StandInSheet = {
  maker: 'Ostrel',
  model: 'O-40',
  firmware: '3.4.1',
  factory: {
    address: '192.168.77.1',
    prefix: 24,
    asksDhcp: false,
    login: { user: 'setup', password: 'setup' },
    country: 'US',
    radios: [radio('2.4', { channel: 6, width: 20, power: 20 }), radio('5', { channel: 36, width: 80, power: 17 })],
    network: 'Ostrel',
  },
  timing: { start: 70, apply: 90, restart: 70, resetHold: 10, image: 120 },
  front: 'restconf',
  root: '/restconf',
  slots: null,
  mostPoints: null,
  lldp: null,
  ignoresPing: false,
  sessions: 'many',
  lights: {
    starting: 'slow white',
    applying: 'fast white',
    'on-air': 'steady green',
    silent: 'steady white',
    'not-saved': 'steady green',
  },
  managementInterface: 'uplink',
  powers: { '2.4': [5, 8, 11, 14, 17, 20], '5': [5, 8, 11, 14, 17, 20, 23] },
  widths: { '2.4': [20, 40], '5': [20, 40, 80] },
  mostNetworks: 8,
  passwordShortest: 8,
  securities: modeSchema.options,
  lacks: ['time-zone-rule'],
  rateStep: 64,
  zones: 'names',
  showsPassphrases: true,
  soldFor: null,
  applies: 'staged',
  saves: 'itself',
  objectId: '1.3.6.1.4.1.32473.4.40',
  tellsPublic: false,
  losesImages: false,
  careless: false,
}

/** The older sister: it asks DHCP first, shows no passphrase, and knows less. */
export const ostrelO20: StandInSheet = {
  ...ostrelO40,
  model: 'O-20',
  objectId: '1.3.6.1.4.1.32473.4.20',
  firmware: '2.9.6',
  factory: {
    ...ostrelO40.factory,
    asksDhcp: true,
    radios: [radio('2.4', { channel: 6, width: 20, power: 20 }), radio('5', { channel: 36, width: 80, power: 17 })],
  },
  root: '/management/api',
  timing: { start: 85, apply: 90, restart: 85, resetHold: 10 },
  powers: { '2.4': [5, 8, 11, 14, 17, 20], '5': [5, 8, 11, 14, 17, 20, 22] },
  securities: ['open', 'wpa2-personal', 'wpa2-enterprise'],
  lacks: [
    'timezone-name',
    'environment',
    'mail',
    'restart',
    'accounting',
    'rate-shared',
    'hours',
    'steering-above',
    'fast-roaming',
    'mobility-domain',
    'client-list',
    'beacon-interval',
  ],
  rateStep: 512,
  zones: 'rules',
  showsPassphrases: false,
}

export const ostrelO20Us: StandInSheet = { ...ostrelO20, model: 'O-20 US', soldFor: 'US' }

/** For halls and yards, set over its command line: silent out of its box, and what is not kept is lost. */
export const brackwaterB7: StandInSheet = {
  ...ostrelO40,
  maker: 'Brackwater',
  model: 'B7',
  objectId: '1.3.6.1.4.1.32473.7.1',
  lldp: 'Brackwater B7, firmware 1.7',
  firmware: '5.11.0',
  factory: {
    address: '172.31.9.1',
    prefix: 24,
    asksDhcp: false,
    login: { user: 'field', password: 'field' },
    country: 'US',
    radios: [
      { ...radio('2.4', { channel: 1, width: 20, power: 8 }), on: false },
      { ...radio('5', { channel: 36, width: 20, power: 8 }), on: false },
    ],
    network: 'Brackwater',
  },
  timing: { start: 110, apply: 5, restart: 110, resetHold: 15 },
  front: 'shell',
  ignoresPing: true,
  sessions: 'one',
  lights: {
    starting: 'amber, turning',
    applying: 'amber, turning',
    'on-air': 'blue',
    silent: 'amber',
    'not-saved': 'blue, blinking',
  },
  powers: { '2.4': [8, 11, 14, 17, 20, 23], '5': [8, 11, 14, 17, 20, 23] },
  passwordShortest: 10,
  securities: ['open', 'wpa2-personal'],
  lacks: [],
  showsPassphrases: false,
  applies: 'at-once',
  saves: 'on-command',
}

/** For small offices: web pages and nothing else, and it asks where it stands before it does anything. */
export const pellworthP6: StandInSheet = {
  ...ostrelO40,
  maker: 'Pellworth',
  model: 'P6',
  objectId: '1.3.6.1.4.1.32473.6.1',
  firmware: '1.8.3',
  factory: {
    address: '192.168.50.1',
    prefix: 24,
    asksDhcp: false,
    login: { user: 'owner', password: 'owner' },
    country: null,
    radios: [
      { ...radio('2.4', { channel: 1, width: 20, power: 14 }), on: false },
      { ...radio('5', { channel: 36, width: 20, power: 14 }), on: false },
    ],
    network: 'Pellworth',
  },
  timing: { start: 55, apply: 60, restart: 50, resetHold: 8 },
  front: 'pages',
  slots: 4,
  sessions: 'one',
  lights: {
    starting: 'white, blinking',
    applying: 'white, blinking fast',
    'on-air': 'green',
    silent: 'white',
    'not-saved': 'green',
  },
  powers: { '2.4': [8, 11, 14, 17, 20], '5': [8, 11, 14, 17, 20, 23] },
  mostNetworks: 8,
  securities: ['open', 'wpa2-personal', 'wpa3-personal', 'wpa3-wpa2-mixed'],
  lacks: [],
  showsPassphrases: false,
}

/** Pages drawn by script and nothing else, and whoever comes first makes its admin. */
export const hearthH1: StandInSheet = {
  ...pellworthP6,
  maker: 'Hearth',
  model: 'H1',
  objectId: '1.3.6.1.4.1.32473.11.1',
  firmware: '2.1.0',
  factory: {
    ...pellworthP6.factory,
    address: '192.168.18.1',
    // Nobody signs in with it: it is there until somebody makes an admin.
    login: { user: '', password: '' },
    network: 'Hearth',
  },
  timing: { start: 75, apply: 30, restart: 60, resetHold: 10 },
  front: 'hearth',
  namesNetworkByMac: true,
  mostPoints: 8,
  pointsCarryAll: true,
  slots: null,
  sessions: 'many',
  passwordShortest: 10,
}

/** A controller: it has no radio of its own, and its clock begins anew whenever it does. */
export const tarnhelmC1: StandInSheet = {
  ...ostrelO40,
  maker: 'Tarnhelm',
  model: 'C1',
  objectId: '1.3.6.1.4.1.32473.9.1',
  firmware: '7.2.0',
  factory: {
    address: '192.168.77.250',
    prefix: 24,
    asksDhcp: false,
    login: { user: 'chief', password: 'chief' },
    country: 'US',
    radios: [],
    network: '',
  },
  timing: { start: 180, apply: 10, restart: 180, resetHold: 20, image: 120 },
  front: 'netconf',
  mostPoints: 32,
  sessions: 'many',
  lights: {
    starting: 'white, turning',
    applying: 'white, turning',
    'on-air': 'white',
    silent: 'white',
    'not-saved': 'white',
  },
  managementInterface: 'mgmt0',
  powers: {},
  widths: {},
  mostNetworks: 16,
  passwordShortest: 10,
  lacks: ['time-zone-rule', 'lights'],
  showsPassphrases: false,
  applies: 'at-once',
  saves: 'on-command',
}

/** Set through a controller: until it has joined one it has no settings, and nobody to speak to. */
export const tarnhelmT2: StandInSheet = {
  ...ostrelO40,
  maker: 'Tarnhelm',
  model: 'T2',
  objectId: '1.3.6.1.4.1.32473.9.2',
  firmware: '7.2.0',
  factory: {
    address: null,
    prefix: 24,
    asksDhcp: true,
    login: { user: 'chief', password: 'chief' },
    country: null,
    radios: [
      { ...radio('2.4', { channel: 1, width: 20, power: 8 }), on: false },
      { ...radio('5', { channel: 36, width: 20, power: 8 }), on: false },
      { ...radio('6', { channel: 5, width: 20, power: 8 }), on: false },
    ],
    network: '',
  },
  timing: { start: 100, apply: 20, restart: 100, resetHold: 10 },
  front: 'managed',
  lights: {
    starting: 'white, turning',
    applying: 'white, turning',
    'on-air': 'green',
    silent: 'white, blinking',
    'not-saved': 'green',
  },
  powers: {
    '2.4': [2, 5, 8, 11, 14, 17, 20],
    '5': [2, 5, 8, 11, 14, 17, 20, 23],
    '6': [2, 5, 8, 11, 14, 17, 20],
  },
  widths: { '2.4': [20], '5': [20, 40, 80], '6': [20, 40, 80, 160] },
  mostNetworks: 6,
  passwordShortest: 10,
  lacks: [],
  showsPassphrases: false,
  applies: 'at-once',
}

/** Joins a Hearth, and has no pages of its own. */
export const hearthH2: StandInSheet = {
  ...hearthH1,
  model: 'H2',
  objectId: '1.3.6.1.4.1.32473.11.2',
  factory: {
    ...tarnhelmT2.factory,
    login: { user: '', password: '' },
    radios: tarnhelmT2.factory.radios.slice(0, 2),
  },
  timing: { start: 60, apply: 10, restart: 60, resetHold: 10 },
  front: 'managed',
  mostPoints: null,
  applies: 'at-once',
}

/** A controller with a command line: it has no radio of its own, and whoever joins it carries all of its networks. */
export const brackwaterB9: StandInSheet = {
  ...brackwaterB7,
  model: 'B9',
  objectId: '1.3.6.1.4.1.32473.7.9',
  lldp: null,
  factory: { ...brackwaterB7.factory, address: '172.31.9.9', radios: [], network: '' },
  powers: {},
  widths: {},
  ignoresPing: false,
  mostPoints: 12,
  pointsCarryAll: true,
}

/** Joins a Brackwater B9, and has no prompt of its own. */
export const brackwaterB3: StandInSheet = {
  ...brackwaterB7,
  model: 'B3',
  objectId: '1.3.6.1.4.1.32473.7.3',
  lldp: null,
  factory: {
    ...tarnhelmT2.factory,
    login: brackwaterB7.factory.login,
    radios: tarnhelmT2.factory.radios.slice(0, 2),
  },
  timing: { start: 70, apply: 5, restart: 70, resetHold: 10 },
  front: 'managed',
  ignoresPing: false,
  saves: 'itself',
}

/** Its sister for outdoors. */
export const tarnhelmT3: StandInSheet = {
  ...tarnhelmT2,
  model: 'T3',
  objectId: '1.3.6.1.4.1.32473.9.3',
  factory: { ...tarnhelmT2.factory, radios: tarnhelmT2.factory.radios.slice(0, 2) },
}

/** Sheets by `maker model`. */
export const sheets: ReadonlyMap<string, StandInSheet> = new Map(
  [
    ostrelO40,
    ostrelO20,
    ostrelO20Us,
    brackwaterB7,
    brackwaterB9,
    brackwaterB3,
    pellworthP6,
    hearthH1,
    hearthH2,
    tarnhelmC1,
    tarnhelmT2,
    tarnhelmT3,
  ].map((sheet) => [`${sheet.maker} ${sheet.model}`, sheet]),
)
