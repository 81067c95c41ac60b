/**
 * Where each setting stands in a unit's data (models/, RFC 7951), and how its value is written there: one line a
 * setting. The data is the unit's: what is not as it should be comes out as undefined, and is judged by the reader.
 */
import type { SettingId } from '../../../core/config/setting-ids'
import type { IdOf } from '../../../core/config/settings/settings'

/** What stands for a leaf that is not there: the value that its default gives, or why there is none. */
type Absent = { readonly value: unknown } | 'unreadable' | 'unsupported'

export interface Field {
  /** Steps from the network, the radio, or the top of the data. */
  readonly path: readonly string[]
  readonly absent: Absent
  /** Value of the table out of the unit's. */
  from(data: unknown): unknown
  /** The unit's out of the table's; undefined for a leaf that is left out. */
  to(value: unknown): unknown
}

const same = (value: unknown): unknown => value
const orNothing = (value: unknown): unknown => value ?? undefined

function leaf(path: string, absent: Absent = 'unsupported', codec: Partial<Pick<Field, 'from' | 'to'>> = {}): Field {
  return { path: path.split('/'), absent, from: codec.from ?? same, to: codec.to ?? orNothing }
}
const by = (value: unknown): Absent => ({ value })

type Data = Readonly<Record<string, unknown>>
export const isData = (value: unknown): value is Data =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** A value at the end of a path; undefined where anything on the way is missing. */
export function dig(data: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>(
    (node, step) => (isData(node) && Object.hasOwn(node, step) ? node[step] : undefined),
    data,
  )
}

const binary = {
  from: (data: unknown) => (typeof data === 'string' ? Buffer.from(data, 'base64').toString('utf8') : undefined),
  to: (value: unknown) => Buffer.from(String(value), 'utf8').toString('base64'),
}
const decimal = {
  from: (data: unknown) => (typeof data === 'string' && /^-?\d{1,3}(\.\d)?$/.test(data) ? Number(data) : undefined),
  to: (value: unknown) => Number(value).toFixed(1),
}
const hours = {
  from: (data: unknown) => isData(data) && { days: data.day, from: data.from, to: data.to },
  to: (value: unknown) => (isData(value) ? { day: value.days, from: value.from, to: value.to } : undefined),
}
const clientList = {
  from: (data: unknown) => isData(data) && { rule: data.rule, macs: data.mac ?? [] },
  to: (value: unknown) => (isData(value) && value.rule !== 'none' ? { rule: value.rule, mac: value.macs } : undefined),
}
const listed = { to: (value: unknown) => (Array.isArray(value) && value.length > 0 ? value : undefined) }

export const networkFields: Readonly<Record<IdOf<'network'>, Field>> = {
  'network.ssid': leaf('ssid', 'unsupported', binary),
  'network.enabled': leaf('enabled', by(false)),
  'network.bands': leaf('band'),
  'network.security': leaf('security/mode'),
  'network.cipher': leaf('security/cipher', by('ccmp')),
  'network.pmf': leaf('security/pmf', by('off')),
  'network.passphrase': leaf('security/passphrase', 'unreadable'),
  'network.radius-servers': leaf('security/radius/server', by([]), listed),
  'network.radius-accounting': leaf('security/radius/accounting', by([]), listed),
  'network.radius-secret': leaf('security/radius/secret', 'unreadable'),
  'network.vlan': leaf('vlan', by(null)),
  'network.hidden': leaf('hidden', by(false)),
  'network.isolation': leaf('isolation', by(false)),
  'network.rate-per-client': leaf('rate-per-client', by(null)),
  'network.rate-shared': leaf('rate-shared', by(null)),
  'network.most-clients': leaf('most-clients', by(null)),
  'network.hours': leaf('hours', by(null), hours),
  'network.steering': leaf('steering', by('client-decides')),
  'network.steering-above': leaf('steering-above', by(null)),
  'network.least-signal': leaf('least-signal', by(null)),
  'network.fast-roaming': leaf('fast-roaming', by(false)),
  'network.mobility-domain': leaf('mobility-domain'),
  'network.mac-list': leaf('client-list', by({ rule: 'none', macs: [] }), clientList),
}

export const radioFields: Readonly<Record<IdOf<'radio'>, Field>> = {
  'radio.enabled': leaf('enabled', by(false)),
  'radio.mode': leaf('mode'),
  'radio.channel': leaf('channel'),
  'radio.width': leaf('width'),
  'radio.secondary': leaf('secondary'),
  'radio.power': leaf('power', 'unsupported', decimal),
  'radio.low-rates': leaf('low-rates', by('kept')),
  'radio.beacon-interval': leaf('beacon-interval', by(100)),
}

const system = 'ietf-system:system'
const wireless = 'air-muster-wireless:wireless'
const services = 'air-muster-wireless:services'
const pushed = 'air-muster-controller:access-points/login'

/** Addresses out of a list of servers, as ietf-system (RFC 7317) has them. */
export const serverAddresses = (transport: 'udp' | 'udp-and-tcp') => (data: unknown) =>
  Array.isArray(data) ? data.map((server) => dig(server, [transport, 'address'])) : undefined

/** Those that stand at a fixed place; the rest of a unit's settings is put together in `read`. */
export const unitFields: Readonly<Partial<Record<SettingId, Field>>> = {
  'unit.name': leaf(`${system}/hostname`, by('')),
  'unit.location': leaf(`${system}/location`, by('')),
  'unit.country': leaf(`${wireless}/country`),
  'unit.environment': leaf(`${wireless}/environment`),
  'clock.ntp-servers': leaf(`${system}/ntp/server`, by([]), { from: serverAddresses('udp') }),
  'management.dns-servers': leaf(`${system}/dns-resolver/server`, by([]), { from: serverAddresses('udp-and-tcp') }),
  'pushed.user': leaf(`${pushed}/user`, by(null)),
  'pushed.password': leaf(`${pushed}/password`, 'unreadable'),
  'services.https-only': leaf(`${services}/https-only`),
  'services.ssh': leaf(`${services}/ssh`),
  'services.telnet': leaf(`${services}/telnet`),
  'services.lights': leaf(`${services}/lights`),
  'services.syslog': leaf(`${services}/syslog`, by(null)),
  'services.mail': leaf(`${services}/mail`, by(null)),
  'services.restart': leaf(`${services}/restart`, by(null)),
  'services.snmp-user': leaf(`${services}/snmp/user`, by(null)),
  'services.snmp-authentication': leaf(`${services}/snmp/authentication-key`, 'unreadable'),
  'services.snmp-privacy': leaf(`${services}/snmp/privacy-key`, 'unreadable'),
}
