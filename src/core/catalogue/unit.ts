/** Settings of a unit as a whole: who and where it is, its clock, its management address, its logins. */
import { z } from 'zod'
import { isAtLeast } from '../input/version'
import { sameTimeZone } from './posix-time-zone'
import { ofUnit, sameSet } from './setting'
import { userRoles, vlanWords } from './values'

const text = z.string()
const system = 'ietf-system:system'
const wireless = 'air-muster-wireless:wireless'
const pushed = 'air-muster-controller:access-points/login'
const user = z.object({ name: text, role: z.enum(userRoles) })
const userWords = ({ name, role }: z.infer<typeof user>): string => `${name} (${role})`

export const unitSettings = {
  'unit.name': ofUnit<string>({
    step: 'clock',
    words: 'Name',
    value: text,
    leaf: { path: `${system}/hostname`, absent: { value: '' } },
  }),
  'unit.location': ofUnit<string>({
    step: 'clock',
    words: 'Location',
    value: text,
    nothing: '',
    leaf: { path: `${system}/location` },
  }),
  'unit.country': ofUnit<string>({
    step: 'country',
    words: 'Country',
    value: text,
    leaf: { path: `${wireless}/country` },
  }),
  'unit.environment': ofUnit<'indoor' | 'outdoor'>({
    step: 'country',
    words: 'Environment',
    value: z.enum(['indoor', 'outdoor']),
    whereAsked: true,
    leaf: { path: `${wireless}/environment` },
  }),
  'unit.firmware': ofUnit<string>({
    step: 'proof',
    words: 'Firmware',
    value: text,
    onlyRead: true,
    same: isAtLeast,
    show: (version) => version,
  }),
  'clock.time-zone': ofUnit<string>({
    step: 'clock',
    words: 'Time zone',
    value: text,
    asked: 'timeZone',
    same: sameTimeZone,
  }),
  'clock.ntp-servers': ofUnit<string[]>({
    step: 'clock',
    words: 'Time servers',
    plural: true,
    value: z.array(text),
    asked: 'ntpServers',
    leaf: { path: `${system}/ntp/server`, absent: { value: [] }, codec: 'time-servers' },
  }),
  /** Of the unit's clock: how far it is from the laptop's, seconds. Asked to be none. */
  'clock.time': ofUnit<number>({
    step: 'proof',
    words: 'Clock',
    value: z.number(),
    onlyRead: true,
    same: (_desired, seconds) => Math.abs(seconds) <= mostSecondsOff,
    show: (seconds) => offWords(seconds),
  }),
  'management.method': ofUnit<'static' | 'dhcp'>({
    step: 'address',
    words: 'Addressing',
    value: z.enum(['static', 'dhcp']),
    asked: 'addressing',
  }),
  'management.address': ofUnit<string>({
    step: 'address',
    partOf: 'management.method',
    words: 'Address',
    value: text,
  }),
  'management.prefix': ofUnit<number>({
    step: 'address',
    partOf: 'management.method',
    words: 'Prefix length',
    value: z.number(),
  }),
  'management.gateway': ofUnit<string | null>({
    step: 'address',
    partOf: 'management.method',
    words: 'Gateway',
    value: text.nullable(),
  }),
  'management.dns-servers': ofUnit<string[]>({
    step: 'address',
    partOf: 'management.method',
    words: 'DNS servers',
    plural: true,
    value: z.array(text),
    leaf: { path: `${system}/dns-resolver/server`, absent: { value: [] }, codec: 'name-servers' },
  }),
  'management.vlan': ofUnit<number | null>({
    step: 'address',
    words: 'Management VLAN',
    value: z.number().nullable(),
    nothing: null,
    asked: 'managementTagged',
    show: vlanWords,
  }),
  'admin.user': ofUnit<string>({ step: 'password', words: 'Admin', value: text, bySigningIn: true }),
  'admin.password': ofUnit<string>({
    step: 'password',
    words: 'Admin password',
    value: text,
    secret: true,
    bySigningIn: true,
  }),
  'admin.further-users': ofUnit<z.infer<typeof user>[]>({
    step: 'services',
    words: 'Further users',
    plural: true,
    value: z.array(user),
    nothing: [],
    needs: ['admin.further-passwords'],
    asked: 'admin.furtherUsers',
    same: (desired, observed) => sameSet(desired.map(userWords), observed.map(userWords)),
    show: (users) => users.map(userWords).join(', ') || 'none',
  }),
  /** By user. */
  'admin.further-passwords': ofUnit<Record<string, string>>({
    step: 'services',
    words: 'Passwords of further users',
    plural: true,
    value: z.record(text, text),
    secret: true,
    byAsking: true,
    needs: ['admin.further-users'],
  }),
  /** Access points that a controller's licence lets join: at least as many as it is to manage. */
  'licence.units': ofUnit<number>({
    step: 'proof',
    words: 'Licensed access points',
    plural: true,
    value: z.number(),
    onlyRead: true,
    same: (desired, licensed) => licensed >= desired,
  }),
  /** The login that a controller gives to the units that join it. */
  'pushed.user': ofUnit<string | null>({
    step: 'services',
    words: 'Login for its units',
    value: text.nullable(),
    nothing: null,
    needs: ['pushed.password'],
    leaf: { path: `${pushed}/user` },
  }),
  'pushed.password': ofUnit<string>({
    step: 'services',
    words: 'Password for its units',
    value: text,
    secret: true,
    needs: ['pushed.user'],
    leaf: { path: `${pushed}/password` },
  }),
} as const

/** A clock that is farther off breaks joins, certificates and schedules, seconds. */
export const mostSecondsOff = 2

function offWords(seconds: number): string {
  const off = Math.abs(seconds)
  if (off <= mostSecondsOff) return 'right'
  const [count, unit] =
    off < 120
      ? [off, 'seconds']
      : off < 7200
        ? [off / 60, 'minutes']
        : off < 172_800
          ? [off / 3600, 'hours']
          : [off / 86_400, 'days']
  return `${Math.round(count)} ${unit} ${seconds < 0 ? 'behind' : 'ahead'}`
}
