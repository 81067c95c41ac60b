/** What stands on its pages, by version of its firmware: the later one calls things otherwise, in another order. */

export interface HearthWords {
  readonly country: string
  readonly zone: string
  readonly tongue: string
  readonly user: string
  readonly word: string
  readonly again: string
  readonly firstNet: string
  readonly next: string
  readonly finish: string
  readonly enter: string
  readonly home: string
  readonly radios: string
  readonly nets: string
  readonly cable: string
  readonly box: string
  readonly admin: string
  readonly system: string
  readonly unitName: string
  readonly spot: string
  readonly light: string
  readonly timeServers: string
  readonly on: string
  readonly channel: string
  readonly width: string
  readonly power: string
  readonly netName: string
  readonly netOn: string
  readonly quiet: string
  readonly guard: string
  readonly key: string
  readonly vlan: string
  readonly apart: string
  readonly bands: string
  readonly add: string
  readonly edit: string
  readonly remove: string
  readonly keep: string
  readonly close: string
  readonly yes: string
  readonly no: string
  readonly notSaved: string
  readonly save: string
  readonly discard: string
  readonly sure: string
  readonly wait: string
  readonly saved: string
  readonly before: string
  readonly nextWord: string
  readonly restart: string
  readonly units: string
  readonly clients: string
  readonly looking: string
  readonly nobody: string
  readonly copy: string
  readonly load: string
  readonly takeOver: string
  readonly firmware: string
  readonly install: string
  readonly hardware: string
  readonly standing: string
  readonly takeIn: string
  readonly way: string
  readonly given: string
  readonly fixed: string
  readonly address: string
  readonly mask: string
  readonly router: string
  /** Whether fields and rows stand in the opposite order. */
  readonly turned: boolean
}

const first: HearthWords = {
  country: 'Country',
  zone: 'Time zone',
  tongue: 'Language',
  user: 'Administrator',
  word: 'Password',
  again: 'Password again',
  firstNet: 'Name of your first network',
  next: 'Next',
  finish: 'Finish',
  enter: 'Sign in',
  home: 'Overview',
  radios: 'Radios',
  nets: 'Networks',
  cable: 'Wired',
  box: 'Device',
  admin: 'Administration',
  system: 'System',
  unitName: 'Device name',
  spot: 'Place',
  light: 'Status light',
  timeServers: 'Time servers',
  on: 'Transmit',
  channel: 'Channel',
  width: 'Width',
  power: 'Power',
  netName: 'Name',
  netOn: 'On air',
  quiet: 'Hide its name',
  guard: 'Security',
  key: 'Passphrase',
  vlan: 'VLAN',
  apart: 'Keep clients apart',
  bands: 'Bands',
  add: 'Add a network',
  edit: 'Edit',
  remove: 'Remove',
  keep: 'OK',
  close: 'Cancel',
  yes: 'Yes',
  no: 'No',
  notSaved: 'Not saved yet.',
  save: 'Save all',
  discard: 'Discard',
  sure: 'Are you sure? Clients lose their connection for a moment.',
  wait: 'Please wait. It puts your changes into effect.',
  saved: 'Noted.',
  before: 'Password until now',
  nextWord: 'New password',
  restart: 'Start again',
  units: 'Units',
  clients: 'Clients',
  looking: 'Looking who is there …',
  nobody: 'Nobody has joined.',
  copy: 'Download a copy',
  load: 'A copy of before',
  takeOver: 'Take it over',
  firmware: 'New firmware',
  install: 'Install it',
  hardware: 'Hardware address',
  standing: 'State',
  takeIn: 'Take in',
  way: 'Addressing',
  given: 'From the network',
  fixed: 'Fixed',
  address: 'Address',
  mask: 'Netmask',
  router: 'Router',
  turned: false,
}

const later: HearthWords = {
  ...first,
  country: 'Country or region',
  nets: 'Wireless networks',
  radios: 'Radio settings',
  add: 'New network',
  edit: 'Change',
  keep: 'Apply',
  guard: 'Protection',
  unitName: 'Name of the device',
  turned: true,
}

/** @param firmware  as in `2.1.0` */
export const wordsOf = (firmware: string): HearthWords => (firmware.startsWith('2.1.') ? first : later)
