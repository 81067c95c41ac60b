/** What the models on the kit list will not do of what the brief wants: better said here than found out by a guest. */
import type { NetworkFeature } from '../kit/card-parts'
import { carriesNetworks, type KitCard, modelName } from '../kit/kit-card'
import type { Brief } from './brief'
import type { BriefFault } from './fault'
import type { WirelessNetwork } from './wireless-network'

/** Each feature: how it reads, and whether a network asks for it. */
const features: Readonly<
  Record<NetworkFeature, { words: string; field: string; wanted: (network: WirelessNetwork) => boolean }>
> = {
  'rate-limits': {
    words: 'limits of rate',
    field: 'limits',
    wanted: ({ limits }) => limits.perClientKbps !== null || limits.sharedKbps !== null,
  },
  'most-clients': {
    words: 'a most number of clients',
    field: 'limits',
    wanted: ({ limits }) => limits.mostClients !== null,
  },
  hours: { words: 'hours on air', field: 'hours', wanted: ({ hours }) => hours !== null },
  steering: {
    words: 'steering between bands',
    field: 'steering',
    wanted: ({ steering }) => steering !== 'client-decides',
  },
  'least-signal': { words: 'a least signal', field: 'leastDbm', wanted: ({ leastDbm }) => leastDbm !== null },
  'fast-roaming': { words: 'fast roaming', field: 'fastRoaming', wanted: ({ fastRoaming }) => fastRoaming },
  'mac-list': { words: 'a list of MACs', field: 'macList', wanted: ({ macList }) => macList.rule !== 'none' },
}

export function reviewFeatures(brief: Brief, models: readonly KitCard[]): BriefFault[] {
  const carriers = models.filter(carriesNetworks)
  return brief.networks.flatMap((network, index) =>
    (Object.entries(features) as [NetworkFeature, (typeof features)[NetworkFeature]][]).flatMap(
      ([feature, { words, field, wanted }]): BriefFault[] => {
        const without = wanted(network) ? carriers.filter((card) => !card.limits.features.includes(feature)) : []
        if (without.length === 0) return []
        return [
          {
            field: `networks.${index}.${field}`,
            weight: 'know',
            sentence: `"${network.ssid}" is to have ${words}; a muster does not set that on ${without.map(modelName).join(', ')}.`,
          },
        ]
      },
    ),
  )
}
