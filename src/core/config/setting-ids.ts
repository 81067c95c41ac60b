/**
 * Ids of all settings, as kit cards, outcomes and exports name them. They never change their meaning. The table
 * itself is in settings/.
 */
export const settingIds = [
  'unit.name',
  'unit.location',
  'unit.country',
  'unit.environment',
  'unit.firmware',
  'clock.time-zone',
  'clock.ntp-servers',
  'clock.time',
  'management.method',
  'management.address',
  'management.prefix',
  'management.gateway',
  'management.dns-servers',
  'management.vlan',
  'admin.user',
  'admin.password',
  'admin.further-users',
  'admin.further-passwords',
  'licence.units',
  'pushed.user',
  'pushed.password',
  'services.https-only',
  'services.ssh',
  'services.telnet',
  'services.snmp-user',
  'services.snmp-authentication',
  'services.snmp-privacy',
  'services.syslog',
  'services.mail',
  'services.lights',
  'services.restart',
  'services.controller',
  'network.ssid',
  'network.enabled',
  'network.bands',
  'network.security',
  'network.cipher',
  'network.pmf',
  'network.passphrase',
  'network.radius-servers',
  'network.radius-accounting',
  'network.radius-secret',
  'network.vlan',
  'network.hidden',
  'network.isolation',
  'network.rate-per-client',
  'network.rate-shared',
  'network.most-clients',
  'network.hours',
  'network.steering',
  'network.steering-above',
  'network.least-signal',
  'network.fast-roaming',
  'network.mobility-domain',
  'network.mac-list',
  'radio.enabled',
  'radio.mode',
  'radio.channel',
  'radio.width',
  'radio.secondary',
  'radio.power',
  'radio.low-rates',
  'radio.beacon-interval',
] as const
export type SettingId = (typeof settingIds)[number]

const known: ReadonlySet<string> = new Set(settingIds)
export function isSettingId(id: string): id is SettingId {
  return known.has(id)
}

/** Settings that are read and never written. */
export const onlyReadIds: ReadonlySet<string> = new Set<SettingId>(['unit.firmware', 'clock.time', 'licence.units'])
/** Settings that are proven by signing in with them, and neither read nor written with the others. */
export const signInIds: ReadonlySet<string> = new Set<SettingId>(['admin.user', 'admin.password'])
