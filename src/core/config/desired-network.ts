/** What is desired of a wireless network, where the brief does not hold it as it is. */

import { secretName } from '../brief/brief'
import type { WirelessNetwork } from '../brief/wireless-network'
import { asksRadius, canRoamFast, pmfOf, takesPassphrase } from '../catalogue/security-mode'
import { type KitCard, modelName } from '../kit/kit-card'
import { bandsOfNetworks } from '../kit/networks-carried'
import { type Message, message } from '../message/message'
import type { Band } from '../regulatory/blocks'
import type { Asking, DesiresOf } from './asking'
import { mobilityDomain } from './mobility-domain'

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

const isEnterprise = ({ security }: WirelessNetwork): boolean => asksRadius(security)
const roamsFast = ({ fastRoaming, security }: WirelessNetwork): boolean => fastRoaming && canRoamFast(security)

export const networkDesires: DesiresOf<'network'> = {
  'network.ssid': { desired: (_asking, { ssid }) => ssid },
  'network.enabled': { desired: () => true },
  'network.bands': { desired: (asking, network) => bandsOn(network, asking) },
  'network.security': { desired: (_asking, { security }) => security },
  'network.cipher': { desired: (_asking, { security, cipher }) => (security === 'open' ? undefined : cipher) },
  'network.pmf': {
    desired: (_asking, { security, pmf }) => {
      if (security === 'open') return undefined
      return pmf === 'by-security' ? pmfOf[security][0] : pmf
    },
  },
  'network.passphrase': {
    desired: ({ secrets }, network) =>
      takesPassphrase(network.security) ? secrets.get(secretName.passphrase(network)) : undefined,
  },
  'network.radius-servers': { desired: (_asking, network) => (isEnterprise(network) ? network.radius : undefined) },
  'network.radius-accounting': {
    desired: (_asking, network) => (isEnterprise(network) ? network.accounting : undefined),
  },
  'network.radius-secret': {
    desired: ({ secrets }, network) => (isEnterprise(network) ? secrets.get(secretName.radius(network)) : undefined),
  },
  'network.vlan': { desired: (_asking, { vlan }) => vlan },
  'network.rate-per-client': {
    desired: ({ card }, { limits }) => roundedRate(limits.perClientKbps, card, 'network.rate-per-client'),
  },
  'network.rate-shared': {
    desired: ({ card }, { limits }) => roundedRate(limits.sharedKbps, card, 'network.rate-shared'),
  },
  'network.most-clients': { desired: (_asking, { limits }) => limits.mostClients },
  'network.hours': { desired: (_asking, { hours }) => hours },
  'network.steering-above': {
    desired: (_asking, { steering, steeringAboveDbm }) => (steering === 'client-decides' ? null : steeringAboveDbm),
  },
  'network.fast-roaming': { desired: (_asking, network) => roamsFast(network) },
  'network.mobility-domain': {
    desired: ({ brief }, network) => (roamsFast(network) ? mobilityDomain(brief.site, network.id) : undefined),
  },
  'network.mac-list': {
    desired: (_asking, { macList }) => (macList.rule === 'none' ? { rule: 'none', macs: [] } : macList),
  },
}

/** Why this model cannot carry a network at all; undefined where it can. */
export function securityUnfit({ ssid, security }: WirelessNetwork, card: KitCard): Message | undefined {
  return card.limits.security.includes(security)
    ? undefined
    : message('security-unknown-to-model', { model: modelName(card), ssid, security })
}
