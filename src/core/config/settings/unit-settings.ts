/** Settings of a unit as a whole: who and where it is, its clock, its management address, its login. */
import { z } from 'zod'
import { parseCidr } from '../../addressing/ipv4'
import { adminSecretName, managedWithTag, pushedSecretName } from '../../brief/brief'
import { imageFor } from '../../brief/policies'
import { vlanWords } from '../../brief/subnet'
import { adminUser, modelName } from '../../kit/kit-card'
import { isAtLeast } from '../../kit/version'
import { posixTimeZone, sameTimeZone } from '../posix-time-zone'
import { furtherUsers } from './further-users'
import { ofUnit } from './setting'

const text = z.string()
const method = z.enum(['static', 'dhcp'])
const isStatic = (brief: { addressing: 'static' | 'dhcp' }): boolean => brief.addressing === 'static'

export const unitSettings = {
  'unit.name': ofUnit<string>({ step: 'clock', words: 'Name', value: text, ask: ({ unit }) => unit.name }),
  'unit.location': ofUnit<string>({
    step: 'clock',
    words: 'Location',
    value: text,
    nothing: '',
    ask: ({ unit }) => unit.place,
  }),
  'unit.country': ofUnit<string>({
    step: 'country',
    words: 'Country',
    value: text,
    ask: ({ brief }) => brief.country,
  }),
  'unit.environment': ofUnit<'indoor' | 'outdoor'>({
    step: 'country',
    words: 'Environment',
    value: z.enum(['indoor', 'outdoor']),
    whereAsked: true,
    ask: ({ brief, plan }) => plan.radios[0]?.environment ?? brief.radio.environment,
  }),
  'unit.firmware': ofUnit<string>({
    step: 'proof',
    words: 'Firmware',
    value: text,
    onlyRead: true,
    ask: ({ brief: { aftercare }, unit }) =>
      imageFor(aftercare, unit.model)?.version ?? (aftercare.firmware || undefined),
    same: isAtLeast,
    show: (version) => version,
  }),
  'clock.time-zone': ofUnit<string>({
    step: 'clock',
    words: 'Time zone',
    value: text,
    ask: ({ brief, card, today }) =>
      card.can['clock.time-zone']?.as === 'posix'
        ? (posixTimeZone(brief.timeZone, today) ?? brief.timeZone)
        : brief.timeZone,
    unfit: (zone, { card }) =>
      card.can['clock.time-zone']?.as === 'posix' && zone.includes('/') && !zone.includes(',')
        ? `${modelName(card)} takes a rule of POSIX, and ${zone} keeps to none`
        : undefined,
    same: sameTimeZone,
  }),
  'clock.ntp-servers': ofUnit<string[]>({
    step: 'clock',
    words: 'Time servers',
    plural: true,
    value: z.array(text),
    ask: ({ brief }) => brief.ntpServers,
  }),
  /** Of the unit's clock: how far it is from the laptop's, seconds. Asked to be none. */
  'clock.time': ofUnit<number>({
    step: 'proof',
    words: 'Clock',
    value: z.number(),
    onlyRead: true,
    ask: () => 0,
    same: (_desired, seconds) => Math.abs(seconds) <= mostSecondsOff,
    show: (seconds) => offWords(seconds),
  }),
  'management.method': ofUnit<'static' | 'dhcp'>({
    step: 'address',
    words: 'Addressing',
    value: method,
    ask: ({ brief }) => brief.addressing,
  }),
  'management.address': ofUnit<string>({
    step: 'address',
    partOf: 'management.method',
    words: 'Address',
    value: text,
    ask: ({ plan }) => plan.address,
  }),
  'management.prefix': ofUnit<number>({
    step: 'address',
    partOf: 'management.method',
    words: 'Prefix length',
    value: z.number(),
    ask: ({ brief }) => parseCidr(brief.management.cidr)?.prefix,
  }),
  'management.gateway': ofUnit<string | null>({
    step: 'address',
    partOf: 'management.method',
    words: 'Gateway',
    value: text.nullable(),
    ask: ({ brief }) => (isStatic(brief) ? brief.management.gateway : undefined),
  }),
  'management.dns-servers': ofUnit<string[]>({
    step: 'address',
    partOf: 'management.method',
    words: 'DNS servers',
    plural: true,
    value: z.array(text),
    ask: ({ brief }) => (isStatic(brief) ? brief.management.dnsServers : undefined),
  }),
  'management.vlan': ofUnit<number | null>({
    step: 'address',
    words: 'Management VLAN',
    value: z.number().nullable(),
    nothing: null,
    ask: ({ brief }) => managedWithTag(brief)[0] ?? null,
    show: vlanWords,
  }),
  'admin.user': ofUnit<string>({
    step: 'password',
    words: 'Admin',
    value: text,
    bySigningIn: true,
    ask: ({ brief, card }) => adminUser(card, brief.admin.user),
  }),
  'admin.password': ofUnit<string>({
    step: 'password',
    words: 'Admin password',
    value: text,
    secret: true,
    bySigningIn: true,
    ask: ({ brief, unit, secrets }) => secrets.get(adminSecretName(brief.admin, unit.id)),
  }),
  ...furtherUsers,
  /** Access points that a controller's licence lets join: at least as many as it is to manage. */
  'licence.units': ofUnit<number>({
    step: 'proof',
    words: 'Licensed access points',
    plural: true,
    value: z.number(),
    onlyRead: true,
    ask: ({ manages }) => manages || undefined,
    same: (wanted, licensed) => licensed >= wanted,
  }),
  /** The login that a controller gives to the units that join it. */
  'pushed.user': ofUnit<string | null>({
    step: 'services',
    words: 'Login for its units',
    value: text.nullable(),
    nothing: null,
    needs: ['pushed.password'],
    ask: ({ card }) => (card.role === 'controller' ? card.factory.login.user : undefined),
  }),
  'pushed.password': ofUnit<string>({
    step: 'services',
    words: 'Password for its units',
    value: text,
    secret: true,
    needs: ['pushed.user'],
    ask: ({ brief, unit, card, secrets }) =>
      card.role === 'controller' ? secrets.get(pushedSecretName(brief.admin, unit.id)) : undefined,
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
