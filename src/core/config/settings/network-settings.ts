/** Settings of a wireless network. A network is known by its id: one name may stand twice. */
import { z } from 'zod'
import { secretName } from '../../brief/brief'
import { vlanWords } from '../../brief/subnet'
import {
  asksRadius,
  bandSchema,
  canRoamFast,
  days,
  type Pmf,
  pmfOf,
  securityModeSchema,
  securityNames,
  steerings,
  takesPassphrase,
  type WirelessNetwork,
} from '../../brief/wireless-network'
import { type KitCard, modelName } from '../../kit/kit-card'
import { bandsOfNetworks } from '../../kit/networks-carried'
import type { Band } from '../../regulatory/blocks'
import { mobilityDomain } from '../mobility-domain'
import { type Asking, ofNetwork, sameSet } from './setting'

const flag = z.boolean()
const count = z.number().nullable()
const server = z.object({ address: z.string(), port: z.number() })
const hours = z.object({ days: z.array(z.enum(days)), from: z.string(), to: z.string() })
const macList = z.object({ rule: z.enum(['none', 'allow', 'deny']), macs: z.array(z.string()) })
export type RadiusServer = z.infer<typeof server>
export type HoursOnAir = z.infer<typeof hours>
export type MacList = z.infer<typeof macList>

const isEnterprise = ({ security }: WirelessNetwork): boolean => asksRadius(security)
const serverWords = (servers: readonly RadiusServer[]): string =>
  servers.map(({ address, port }) => `${address}:${port}`).join(', ') || 'none'

/** Bands of a network that this model has a radio for, or gives its access points, and that the site uses. */
export function bandsOn(
  network: Pick<WirelessNetwork, 'bands'>,
  { card, brief }: Pick<Asking, 'card' | 'brief'>,
): Band[] {
  const own = bandsOfNetworks(card)
  return network.bands.filter((band) => own.includes(band) && brief.radio.bands.some((each) => each.band === band))
}

/** A rate as this model can set it: whole steps, one at the least, never above what is asked unless that is less. */
function roundedRate(kbps: number | null, card: KitCard, id: 'network.rate-per-client' | 'network.rate-shared') {
  const step = card.can[id]?.step
  return kbps === null || step === undefined ? kbps : Math.max(1, Math.floor(kbps / step)) * step
}
const rateWords = (kbps: number | null): string => (kbps === null ? 'no limit' : `${kbps} kbit/s`)

const roamsFast = ({ fastRoaming, security }: WirelessNetwork): boolean => fastRoaming && canRoamFast(security)

export const networkSettings = {
  'network.ssid': ofNetwork<string>({
    step: 'networks',
    words: 'Name on air',
    value: z.string(),
    ask: (_asking, { ssid }) => ssid,
  }),
  'network.enabled': ofNetwork<boolean>({ step: 'networks', words: 'Network', value: flag, ask: () => true }),
  'network.bands': ofNetwork<Band[]>({
    step: 'networks',
    words: 'Bands',
    plural: true,
    value: z.array(bandSchema),
    ask: (asking, network) => bandsOn(network, asking),
    same: sameSet,
    show: (bands) => bands.map((band) => `${band} GHz`).join(', '),
  }),
  'network.security': ofNetwork<WirelessNetwork['security']>({
    step: 'networks',
    words: 'Security',
    value: securityModeSchema,
    ask: (_asking, { security }) => security,
    show: (mode) => securityNames[mode],
  }),
  'network.cipher': ofNetwork<'ccmp' | 'gcmp-256'>({
    step: 'networks',
    words: 'Cipher',
    value: z.enum(['ccmp', 'gcmp-256']),
    ask: (_asking, { security, cipher }) => (security === 'open' ? undefined : cipher),
    show: (cipher) => (cipher === 'ccmp' ? 'AES-CCMP' : 'AES-GCMP-256'),
  }),
  'network.pmf': ofNetwork<Pmf>({
    step: 'networks',
    words: 'Protected management frames',
    plural: true,
    value: z.enum(['off', 'optional', 'required']),
    nothing: 'off',
    ask: (_asking, { security, pmf }) => {
      if (security === 'open') return undefined
      return pmf === 'by-security' ? pmfOf[security][0] : pmf
    },
  }),
  'network.passphrase': ofNetwork<string>({
    step: 'networks',
    words: 'Passphrase',
    value: z.string(),
    secret: true,
    ask: ({ secrets }, network) =>
      takesPassphrase(network.security) ? secrets.get(secretName.passphrase(network)) : undefined,
  }),
  'network.radius-servers': ofNetwork<RadiusServer[]>({
    step: 'networks',
    words: 'RADIUS servers',
    plural: true,
    value: z.array(server),
    needs: ['network.radius-secret'],
    ask: (_asking, network) => (isEnterprise(network) ? network.radius : undefined),
    show: serverWords,
  }),
  'network.radius-accounting': ofNetwork<RadiusServer[]>({
    step: 'networks',
    words: 'RADIUS accounting',
    value: z.array(server),
    nothing: [],
    needs: ['network.radius-servers', 'network.radius-secret'],
    ask: (_asking, network) => (isEnterprise(network) ? network.accounting : undefined),
    show: serverWords,
  }),
  'network.radius-secret': ofNetwork<string>({
    step: 'networks',
    words: 'RADIUS secret',
    value: z.string(),
    secret: true,
    needs: ['network.radius-servers'],
    ask: ({ secrets }, network) => (isEnterprise(network) ? secrets.get(secretName.radius(network)) : undefined),
  }),
  'network.vlan': ofNetwork<number | null>({
    step: 'networks',
    words: 'VLAN',
    value: count,
    nothing: null,
    ask: (_asking, { vlan }) => vlan,
    show: vlanWords,
  }),
  'network.hidden': ofNetwork<boolean>({
    step: 'networks',
    words: 'Hidden',
    value: flag,
    nothing: false,
    ask: (_asking, { hidden }) => hidden,
  }),
  'network.isolation': ofNetwork<boolean>({
    step: 'networks',
    words: 'Client isolation',
    value: flag,
    nothing: false,
    ask: (_asking, { isolation }) => isolation,
  }),
  'network.rate-per-client': ofNetwork<number | null>({
    step: 'networks',
    words: 'Rate for each client',
    value: count,
    nothing: null,
    ask: ({ card }, { limits }) => roundedRate(limits.perClientKbps, card, 'network.rate-per-client'),
    show: rateWords,
  }),
  'network.rate-shared': ofNetwork<number | null>({
    step: 'networks',
    words: 'Rate shared by its clients',
    value: count,
    nothing: null,
    ask: ({ card }, { limits }) => roundedRate(limits.sharedKbps, card, 'network.rate-shared'),
    show: rateWords,
  }),
  'network.most-clients': ofNetwork<number | null>({
    step: 'networks',
    words: 'Most clients',
    plural: true,
    value: count,
    nothing: null,
    ask: (_asking, { limits }) => limits.mostClients,
  }),
  'network.hours': ofNetwork<HoursOnAir | null>({
    step: 'networks',
    words: 'Hours on air',
    plural: true,
    value: hours.nullable(),
    nothing: null,
    ask: (_asking, network) => network.hours,
    same: (a, b) =>
      a === null || b === null ? a === b : a.from === b.from && a.to === b.to && sameSet(a.days, b.days),
    show: (value) => (value ? `${value.days.join(', ')} from ${value.from} to ${value.to}` : 'always'),
  }),
  'network.steering': ofNetwork<WirelessNetwork['steering']>({
    step: 'networks',
    words: 'Steering between bands',
    value: z.enum(steerings),
    nothing: 'client-decides',
    ask: (_asking, { steering }) => steering,
    show: (value) => value.replaceAll('-', ' '),
  }),
  'network.steering-above': ofNetwork<number | null>({
    step: 'networks',
    words: 'Steering above',
    value: count,
    nothing: null,
    needs: ['network.steering'],
    ask: (_asking, { steering, steeringAboveDbm }) => (steering === 'client-decides' ? null : steeringAboveDbm),
    show: (dbm) => (dbm === null ? 'any signal' : `${dbm} dBm`),
  }),
  'network.least-signal': ofNetwork<number | null>({
    step: 'networks',
    words: 'Least signal',
    value: count,
    nothing: null,
    ask: (_asking, { leastDbm }) => leastDbm,
    show: (dbm) => (dbm === null ? 'none' : `${dbm} dBm`),
  }),
  'network.fast-roaming': ofNetwork<boolean>({
    step: 'networks',
    words: 'Fast roaming',
    value: flag,
    nothing: false,
    needs: ['network.mobility-domain'],
    ask: (_asking, network) => roamsFast(network),
  }),
  'network.mobility-domain': ofNetwork<number>({
    step: 'networks',
    words: 'Mobility domain',
    value: z.number(),
    needs: ['network.fast-roaming'],
    ask: ({ brief }, network) => (roamsFast(network) ? mobilityDomain(brief.site, network.id) : undefined),
  }),
  'network.mac-list': ofNetwork<MacList>({
    step: 'networks',
    words: 'MAC list',
    value: macList,
    nothing: { rule: 'none', macs: [] },
    ask: (_asking, network) => (network.macList.rule === 'none' ? { rule: 'none', macs: [] } : network.macList),
    same: (a, b) => a.rule === b.rule && sameSet(a.macs, b.macs),
    show: ({ rule, macs }) => (rule === 'none' ? 'none' : `${rule} ${macs.length}`),
  }),
} as const

/** Why this model cannot carry a network at all; undefined where it can. */
export function securityUnfit({ ssid, security }: WirelessNetwork, card: KitCard): string | undefined {
  return card.limits.security.includes(security)
    ? undefined
    : `${modelName(card)} cannot carry "${ssid}": it does not know ${securityNames[security]}.`
}
