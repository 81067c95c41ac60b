/** Checks of security: what is open, what cannot be at 6 GHz, what shuts old clients out, what can be guessed. */

import { type Brief, secretName } from '../brief/brief'
import type { WirelessNetwork } from '../brief/wireless-network'
import { asksRadius, fits6Ghz, pmfOf, takesPassphrase } from '../catalogue/security-mode'
import { type KitCard, modelName } from '../kit/kit-card'
import { carriesNetworks } from '../kit/networks-carried'
import { message } from '../message/message'
import { type Weakness, weaknessOf } from '../secrets/weakness'
import type { BriefFault } from './fault'

export function reviewSecurity(
  brief: Brief,
  models: readonly KitCard[],
  weak: ReadonlyMap<string, Weakness>,
): BriefFault[] {
  return brief.networks.flatMap((network, index) => {
    const path = `networks.${index}`
    return [
      openNetwork(network, path),
      withoutServer(network, path),
      sixGhz(brief, network, path),
      framesThatDoNotFit(network, path),
      oldClients(network, path),
      notCarried(network, path, models),
      guessable(network, path, weak),
    ].flatMap((fault) => fault ?? [])
  })
}

/** Open only when said twice. */
function openNetwork({ ssid, security, openConfirmation }: WirelessNetwork, path: string): BriefFault | undefined {
  if (security !== 'open') return undefined
  const said = openConfirmation === ssid
  return {
    field: `${path}.security`,
    ...message(said ? 'open-network' : 'open-network-unconfirmed', { ssid }),
    weight: said ? 'know' : 'mend',
    mend: { ...message('mend-use-wpa2'), set: [{ path: `${path}.security`, value: 'wpa2-personal' }] },
  }
}

function withoutServer({ ssid, security, radius }: WirelessNetwork, path: string): BriefFault | undefined {
  if (!asksRadius(security) || radius.length > 0) return undefined
  return {
    field: `${path}.radius`,
    ...message('enterprise-without-server', { ssid }),
    weight: 'mend',
    mend: { ...message('mend-use-wpa2'), set: [{ path: `${path}.security`, value: 'wpa2-personal' }] },
  }
}

/** At 6 GHz neither open networks nor WPA2 nor its transition mode. */
function sixGhz({ networks }: Brief, network: WirelessNetwork, path: string): BriefFault | undefined {
  const { ssid, bands, security } = network
  if (!bands.includes('6') || fits6Ghz(security)) return undefined
  const fitting = security === 'wpa2-enterprise' ? 'wpa3-enterprise' : security === 'open' ? 'owe' : 'wpa3-personal'
  const fault = { field: `${path}.bands`, weight: 'mend' } as const
  const others = bands.filter((band) => band !== '6')
  if (others.length === 0)
    return {
      ...fault,
      ...message('6-ghz-without-wpa3', { ssid, security }),
      mend: {
        ...message('mend-use-security', { security: fitting }),
        set: [{ path: `${path}.security`, value: fitting }],
      },
    }
  // Clients that do not know it keep the other bands.
  const own = { ...network, id: freeId(networks, network.id), bands: ['6'], security: fitting, pmf: 'by-security' }
  const kept = { ...network, bands: others }
  return {
    ...fault,
    ...message(takesPassphrase(security) ? '6-ghz-without-wpa3-roaming' : '6-ghz-without-wpa3', { ssid, security }),
    mend: {
      ...message('mend-6-ghz-network', { security: fitting }),
      set: [{ path: 'networks', value: networks.flatMap((each) => (each === network ? [kept, own] : [each])) }],
    },
  }
}

/** An id for a network beside another, 32 characters at the most. */
function freeId(networks: readonly WirelessNetwork[], id: string): string {
  const taken = new Set(networks.map((network) => network.id))
  const base = `${id.slice(0, 28)}-6`
  if (!taken.has(base)) return base
  for (let number = 2; ; number += 1) if (!taken.has(`${base}${number}`)) return `${base}${number}`
}

/** Protected management frames that the security does not go with. */
function framesThatDoNotFit({ ssid, security, pmf }: WirelessNetwork, path: string): BriefFault | undefined {
  if (security === 'open' || pmf === 'by-security' || pmfOf[security].includes(pmf)) return undefined
  const [fitting = ''] = pmfOf[security]
  return {
    field: `${path}.pmf`,
    ...message('frames-do-not-fit', { ssid, security, fitting, asked: pmf }),
    weight: 'mend',
    mend: { ...message('mend-frames-by-security'), set: [{ path: `${path}.pmf`, value: 'by-security' }] },
  }
}

function oldClients({ ssid, security, purpose, bands }: WirelessNetwork, path: string): BriefFault | undefined {
  if (security !== 'wpa3-personal' || purpose !== 'things' || bands.includes('6')) return undefined
  return {
    field: `${path}.security`,
    ...message('wpa3-for-things', { ssid }),
    weight: 'mend',
    mend: { ...message('mend-use-wpa3-mixed'), set: [{ path: `${path}.security`, value: 'wpa3-wpa2-mixed' }] },
  }
}

function notCarried(
  { ssid, security }: WirelessNetwork,
  path: string,
  models: readonly KitCard[],
): BriefFault | undefined {
  if (security === 'open') return undefined
  const carriers = models.filter(carriesNetworks)
  const unable = carriers.filter((card) => !card.limits.security.includes(security))
  const [first] = unable
  if (!first) return undefined
  const common = first.limits.security.find((mode) => carriers.every((card) => card.limits.security.includes(mode)))
  return {
    field: `${path}.security`,
    ...message('security-not-carried', { ssid, security, models: unable.map(modelName) }),
    weight: 'mend',
    ...(common
      ? {
          mend: {
            ...message('mend-use-security', { security: common }),
            set: [{ path: `${path}.security`, value: common }],
          },
        }
      : {}),
  }
}

function guessable(
  network: WirelessNetwork,
  path: string,
  weak: ReadonlyMap<string, Weakness>,
): BriefFault | undefined {
  const name = secretName.passphrase(network)
  const weakness = weak.get(name)
  if (!weakness || !takesPassphrase(network.security)) return undefined
  return {
    field: `${path}.passphrase`,
    ...weaknessOf(network.ssid, weakness),
    weight: 'mend',
    mend: { ...message('mend-make-strong'), make: name },
  }
}
