/** Settings of a wireless network. A network is known by its id: one name may stand twice. */
import { z } from 'zod'
import type { Band } from '../regulatory/blocks'
import { choice, figure, flag } from './plain'
import { type Pmf, type SecurityMode, securityModeSchema, securityNames } from './security-mode'
import { ofNetwork, sameSet } from './setting'
import { bandSchema, days, steerings, vlanWords } from './values'

const onOff = z.boolean()
const count = z.number().nullable()
const server = z.object({ address: z.string(), port: z.number() })
const hours = z.object({ days: z.array(z.enum(days)), from: z.string(), to: z.string() })
const macList = z.object({ rule: z.enum(['none', 'allow', 'deny']), macs: z.array(z.string()) })
export type RadiusServer = z.infer<typeof server>
export type HoursOnAir = z.infer<typeof hours>
export type MacList = z.infer<typeof macList>

const serverWords = (servers: readonly RadiusServer[]): string =>
  servers.map(({ address, port }) => `${address}:${port}`).join(', ') || 'none'
const rateWords = (kbps: number | null): string => (kbps === null ? 'no limit' : `${kbps} kbit/s`)
const signal = { unit: 'dBm', least: -95, most: -40 } as const

export const networkSettings = {
  'network.ssid': ofNetwork<string>({
    words: 'Name on air',
    value: z.string(),
    leaf: { path: 'ssid', codec: 'octets' },
  }),
  'network.enabled': ofNetwork<boolean>({
    words: 'Network',
    value: onOff,
    leaf: { path: 'enabled', absent: { value: false } },
  }),
  'network.bands': ofNetwork<Band[]>({
    words: 'Bands',
    plural: true,
    value: z.array(bandSchema),
    leaf: { path: 'band' },
    same: sameSet,
    show: (bands) => bands.map((band) => `${band} GHz`).join(', '),
  }),
  'network.security': ofNetwork<SecurityMode>({
    words: 'Security',
    value: securityModeSchema,
    leaf: { path: 'security/mode' },
    show: (mode) => securityNames[mode],
  }),
  'network.cipher': ofNetwork<'ccmp' | 'gcmp-256'>({
    words: 'Cipher',
    value: z.enum(['ccmp', 'gcmp-256']),
    leaf: { path: 'security/cipher', absent: { value: 'ccmp' } },
    show: (cipher) => (cipher === 'ccmp' ? 'AES-CCMP' : 'AES-GCMP-256'),
  }),
  'network.pmf': ofNetwork<Pmf>({
    words: 'Protected management frames',
    plural: true,
    value: z.enum(['off', 'optional', 'required']),
    nothing: 'off',
    asked: 'pmf',
    leaf: { path: 'security/pmf' },
  }),
  'network.passphrase': ofNetwork<string>({
    words: 'Passphrase',
    value: z.string(),
    secret: true,
    leaf: { path: 'security/passphrase' },
  }),
  'network.radius-servers': ofNetwork<RadiusServer[]>({
    words: 'RADIUS servers',
    plural: true,
    value: z.array(server),
    needs: ['network.radius-secret'],
    asked: 'radius',
    leaf: { path: 'security/radius/server', absent: { value: [] }, codec: 'entries' },
    show: serverWords,
  }),
  'network.radius-accounting': ofNetwork<RadiusServer[]>({
    words: 'RADIUS accounting',
    value: z.array(server),
    nothing: [],
    needs: ['network.radius-servers', 'network.radius-secret'],
    asked: 'accounting',
    leaf: { path: 'security/radius/accounting', codec: 'entries' },
    show: serverWords,
  }),
  'network.radius-secret': ofNetwork<string>({
    words: 'RADIUS secret',
    value: z.string(),
    secret: true,
    needs: ['network.radius-servers'],
    leaf: { path: 'security/radius/secret' },
  }),
  'network.vlan': ofNetwork<number | null>({
    words: 'VLAN',
    value: count,
    nothing: null,
    asked: 'vlan',
    leaf: { path: 'vlan' },
    show: vlanWords,
  }),
  'network.hidden': flag('network', 'hidden', {
    words: 'Hidden',
    default: false,
    nothing: false,
    leaf: { path: 'hidden' },
  }),
  'network.isolation': flag('network', 'isolation', {
    words: 'Client isolation',
    default: false,
    nothing: false,
    leaf: { path: 'isolation' },
  }),
  'network.multicast-to-unicast': flag('network', 'multicastToUnicast', {
    words: 'Multicast to unicast',
    default: false,
    nothing: false,
    leaf: { path: 'multicast-to-unicast' },
  }),
  'network.rate-per-client': ofNetwork<number | null>({
    words: 'Rate for each client',
    value: count,
    nothing: null,
    asked: 'limits',
    leaf: { path: 'rate-per-client' },
    show: rateWords,
  }),
  'network.rate-shared': ofNetwork<number | null>({
    words: 'Rate shared by its clients',
    value: count,
    nothing: null,
    asked: 'limits',
    leaf: { path: 'rate-shared' },
    show: rateWords,
  }),
  'network.most-clients': ofNetwork<number | null>({
    words: 'Most clients',
    plural: true,
    value: count,
    nothing: null,
    asked: 'limits',
    leaf: { path: 'most-clients' },
  }),
  'network.hours': ofNetwork<HoursOnAir | null>({
    words: 'Hours on air',
    plural: true,
    value: hours.nullable(),
    nothing: null,
    asked: 'hours',
    leaf: { path: 'hours', codec: 'hours' },
    same: (a, b) =>
      a === null || b === null ? a === b : a.from === b.from && a.to === b.to && sameSet(a.days, b.days),
    show: (value) => (value ? `${value.days.join(', ')} from ${value.from} to ${value.to}` : 'always'),
  }),
  'network.steering': choice('network', 'steering', {
    words: 'Steering between bands',
    choices: steerings,
    default: 'client-decides',
    nothing: 'client-decides',
    leaf: { path: 'steering' },
    show: (value) => value.replaceAll('-', ' '),
  }),
  'network.steering-above': ofNetwork<number | null>({
    words: 'Steering above',
    value: count,
    nothing: null,
    needs: ['network.steering'],
    asked: 'steering',
    leaf: { path: 'steering-above' },
    show: (dbm) => (dbm === null ? 'any signal' : `${dbm} dBm`),
  }),
  'network.least-signal': figure('network', 'leastDbm', {
    words: 'Least signal',
    ...signal,
    default: null,
    nothing: null,
    leaf: { path: 'least-signal' },
    show: (dbm) => (dbm === null ? 'none' : `${dbm} dBm`),
  }),
  'network.fast-roaming': ofNetwork<boolean>({
    words: 'Fast roaming',
    value: onOff,
    nothing: false,
    needs: ['network.mobility-domain'],
    asked: 'fastRoaming',
    leaf: { path: 'fast-roaming' },
  }),
  'network.mobility-domain': ofNetwork<number>({
    words: 'Mobility domain',
    value: z.number(),
    needs: ['network.fast-roaming'],
    leaf: { path: 'mobility-domain' },
  }),
  'network.mac-list': ofNetwork<MacList>({
    words: 'MAC list',
    value: macList,
    nothing: { rule: 'none', macs: [] },
    asked: 'macList',
    leaf: { path: 'client-list', codec: 'client-list' },
    same: (a, b) => a.rule === b.rule && sameSet(a.macs, b.macs),
    show: ({ rule, macs }) => (rule === 'none' ? 'none' : `${rule} ${macs.length}`),
  }),
} as const
