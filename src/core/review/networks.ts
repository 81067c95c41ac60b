/** Checks of wireless networks: names, VLANs, bands, how many a model carries, and what their options do to clients. */

import type { Brief } from '../brief/brief'
import { ssidBytes } from '../brief/ssid'
import type { WirelessNetwork } from '../brief/wireless-network'
import { canRoamFast } from '../catalogue/security-mode'
import { type KitCard, modelName } from '../kit/kit-card'
import { carriesNetworks } from '../kit/networks-carried'
import { message } from '../message/message'
import type { BriefFault } from './fault'

type Check = (network: WirelessNetwork, path: string, brief: Brief, index: number) => BriefFault | undefined

export function reviewNetworks(brief: Brief, models: readonly KitCard[]): BriefFault[] {
  return [
    ...brief.networks.flatMap((network, index) =>
      checks.flatMap((check) => check(network, `networks.${index}`, brief, index) ?? []),
    ),
    ...tooMany(brief, models),
  ]
}

/** Each looks at one network; the order is that in which the sentences stand. */
const checks: readonly Check[] = [
  function twiceOnABand({ ssid, bands }, path, brief, index) {
    const twin = brief.networks
      .slice(0, index)
      .find((other) => other.ssid === ssid && other.bands.some((band) => bands.includes(band)))
    if (!twin) return undefined
    const other = [`${ssid} 2`, `${ssid}-2`, `${[...ssid].slice(0, 10).join('')} 2`].find(
      (name) => ssidBytes(name) <= 32 && !brief.networks.some((each) => each.ssid === name),
    )
    return {
      field: `${path}.ssid`,
      ...message('name-twice-on-a-band', { ssid }),
      weight: 'mend',
      ...(other
        ? { mend: { ...message('mend-call-it', { other }), set: [{ path: `${path}.ssid`, value: other }] } }
        : {}),
    }
  },
  function guestsTogether({ ssid, purpose, isolation }, path) {
    if (purpose !== 'guests' || isolation) return undefined
    return {
      field: `${path}.isolation`,
      ...message('guests-together', { ssid }),
      weight: 'mend',
      mend: { ...message('mend-keep-guests-apart'), set: [{ path: `${path}.isolation`, value: true }] },
    }
  },
  function onManagement({ ssid, purpose, vlan }, path, brief) {
    if (purpose === 'staff' || vlan !== brief.management.vlan) return undefined
    const vlans = new Set([
      brief.management.vlan,
      ...brief.networks.map((network) => network.vlan),
      ...brief.subnets.map((subnet) => subnet.vlan),
    ])
    const site = brief.subnets.find(
      (subnet) =>
        subnet.vlan !== brief.management.vlan &&
        !brief.networks.some((network) => network.purpose === 'staff' && network.vlan === subnet.vlan),
    )
    const free = Array.from({ length: 4094 }, (_, at) => at + 1).find(
      (each) => each > (brief.management.vlan ?? 9) && !vlans.has(each),
    )
    const other = site?.vlan ?? free
    const where = vlan === null ? message('is-untagged-like-management') : message('is-on-management-vlan', { vlan })
    return {
      field: `${path}.vlan`,
      ...message('clients-on-management', { ssid, where }),
      weight: 'mend',
      ...(other === undefined
        ? {}
        : {
            mend: {
              ...(site
                ? message('mend-use-vlan-of', { other, subnet: site.name })
                : message('mend-use-vlan', { other })),
              set: [{ path: `${path}.vlan`, value: other }],
            },
          }),
    }
  },
  function vlanWithoutSubnet({ ssid, vlan }, path, brief) {
    if (
      vlan === null ||
      vlan === brief.management.vlan ||
      brief.subnets.length === 0 ||
      brief.subnets.some((subnet) => subnet.vlan === vlan)
    )
      return undefined
    return {
      field: `${path}.vlan`,
      ...message('vlan-without-subnet', { ssid, vlan }),
      weight: 'know',
    }
  },
  function bandWithoutRadio({ ssid, bands }, path, brief) {
    const missing = bands.find((band) => !brief.radio.bands.some((each) => each.band === band))
    if (missing === undefined) return undefined
    const left = bands.filter((band) => band !== missing)
    return {
      field: `${path}.bands`,
      ...message('band-without-radio', { ssid, band: missing }),
      weight: 'mend',
      mend:
        left.length > 0
          ? { ...message('mend-leave-band-out', { band: missing }), set: [{ path: `${path}.bands`, value: left }] }
          : {
              ...message('mend-use-band', { band: missing }),
              set: [{ path: 'radio.bands', value: [...brief.radio.bands, { band: missing, width: 20 }] }],
            },
    }
  },
  function hiddenExplained({ ssid, hidden }, path) {
    if (!hidden) return undefined
    return {
      field: `${path}.hidden`,
      ...message('hidden-name', { ssid }),
      weight: 'know',
      mend: { ...message('mend-show-name'), set: [{ path: `${path}.hidden`, value: false }] },
    }
  },
  function letGo({ ssid, leastDbm }, path) {
    if (leastDbm === null) return undefined
    return {
      field: `${path}.leastDbm`,
      ...message('clients-let-go', { ssid, leastDbm }),
      weight: 'know',
      mend: { ...message('mend-let-nobody-go'), set: [{ path: `${path}.leastDbm`, value: null }] },
    }
  },
  function steeringWithoutChoice({ ssid, steering, bands }, path) {
    if (steering === 'client-decides' || (bands.includes('2.4') && bands.includes('5'))) return undefined
    return {
      field: `${path}.steering`,
      ...message('steering-without-choice', { ssid }),
      weight: 'mend',
      mend: { ...message('mend-leave-to-client'), set: [{ path: `${path}.steering`, value: 'client-decides' }] },
    }
  },
  function insistOnThings({ ssid, steering, purpose }, path) {
    if (steering !== 'insist-on-5' || purpose !== 'things') return undefined
    return {
      field: `${path}.steering`,
      ...message('things-kept-from-2.4', { ssid }),
      weight: 'mend',
      mend: { ...message('mend-leave-to-client'), set: [{ path: `${path}.steering`, value: 'client-decides' }] },
    }
  },
  function fastRoamingForThings({ ssid, fastRoaming, purpose }, path) {
    if (!fastRoaming || purpose !== 'things') return undefined
    return {
      field: `${path}.fastRoaming`,
      ...message('fast-roaming-for-things', { ssid }),
      weight: 'know',
      mend: { ...message('mend-no-fast-roaming'), set: [{ path: `${path}.fastRoaming`, value: false }] },
    }
  },
  /** IEEE 802.11-2020, table 9-151: fast transition exists for 802.1X, PSK and SAE alone. */
  function fastRoamingWithoutKey({ ssid, fastRoaming, security }, path) {
    if (!fastRoaming || canRoamFast(security)) return undefined
    return {
      field: `${path}.fastRoaming`,
      ...message('fast-roaming-without-key', { ssid }),
      weight: 'mend',
      mend: { ...message('mend-no-fast-roaming'), set: [{ path: `${path}.fastRoaming`, value: false }] },
    }
  },
  function lowRatesForThings({ ssid, purpose, bands }, path, brief) {
    if (brief.radio.lowRates === 'kept' || purpose !== 'things' || !bands.includes('2.4')) return undefined
    return {
      field: `${path}.bands`,
      ...message('low-rates-for-things', { ssid }),
      weight: 'know',
      mend: { ...message('mend-keep-low-rates'), set: [{ path: 'radio.lowRates', value: 'kept' }] },
    }
  },
  function noHours({ ssid, hours }, path) {
    if (!hours || hours.from !== hours.to) return undefined
    return {
      field: `${path}.hours`,
      ...message('hours-are-none', { ssid, from: hours.from }),
      weight: 'mend',
      mend: { ...message('mend-always-on-air'), set: [{ path: `${path}.hours`, value: null }] },
    }
  },
  function emptyAllowList({ ssid, macList }, path) {
    if (macList.rule !== 'allow' || macList.macs.length > 0) return undefined
    return {
      field: `${path}.macList`,
      ...message('allow-list-empty', { ssid }),
      weight: 'mend',
      mend: {
        ...message('mend-let-everybody-in'),
        set: [{ path: `${path}.macList`, value: { rule: 'none', macs: [] } }],
      },
    }
  },
  function limitsCross({ ssid, limits }, path) {
    const { perClientKbps, sharedKbps } = limits
    if (perClientKbps === null || sharedKbps === null || perClientKbps <= sharedKbps) return undefined
    return {
      field: `${path}.limits`,
      ...message('rates-cross', { ssid, perClientKbps, sharedKbps }),
      weight: 'mend',
      mend: {
        ...message('mend-client-rate', { rate: sharedKbps }),
        set: [{ path: `${path}.limits.perClientKbps`, value: sharedKbps }],
      },
    }
  },
]

/** The smallest model on the kit list decides how many networks the site can have. */
function tooMany(brief: Brief, models: readonly KitCard[]): BriefFault[] {
  const carriers = models.filter(carriesNetworks)
  const smallest = carriers.toSorted((a, b) => a.limits.mostNetworks - b.limits.mostNetworks)[0]
  if (!smallest || brief.networks.length <= smallest.limits.mostNetworks) return []
  const most = smallest.limits.mostNetworks
  return [
    {
      field: 'networks',
      ...message('too-many-networks', { count: brief.networks.length, model: modelName(smallest), most }),
      weight: 'mend',
    },
  ]
}
