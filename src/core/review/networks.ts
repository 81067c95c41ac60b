/** Checks of wireless networks: names, VLANs, bands, how many a model carries, and what their options do to clients. */

import type { Brief } from '../brief/brief'
import { ssidBytes } from '../brief/ssid'
import type { WirelessNetwork } from '../brief/wireless-network'
import { canRoamFast } from '../catalogue/security-mode'
import { type KitCard, modelName } from '../kit/kit-card'
import { carriesNetworks } from '../kit/networks-carried'
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
      code: 'name-twice-on-a-band',
      weight: 'mend',
      sentence: `"${ssid}" is there twice on the same band: clients could not tell them apart.`,
      ...(other ? { mend: { words: `Call it "${other}"`, set: [{ path: `${path}.ssid`, value: other }] } } : {}),
    }
  },
  function guestsTogether({ ssid, purpose, isolation }, path) {
    if (purpose !== 'guests' || isolation) return undefined
    return {
      field: `${path}.isolation`,
      code: 'guests-together',
      weight: 'mend',
      sentence: `Guests on "${ssid}" could reach each other's devices.`,
      mend: { words: 'Keep them from each other', set: [{ path: `${path}.isolation`, value: true }] },
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
    const where = vlan === null ? 'is untagged like management' : `is on the management VLAN ${vlan}`
    return {
      field: `${path}.vlan`,
      code: 'clients-on-management',
      weight: 'mend',
      sentence: `"${ssid}" ${where}: its clients could reach every unit.`,
      ...(other === undefined
        ? {}
        : {
            mend: {
              words: site ? `Use VLAN ${other}, ${site.name}` : `Use VLAN ${other}`,
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
      code: 'vlan-without-subnet',
      weight: 'know',
      sentence: `"${ssid}" is on VLAN ${vlan}, which has no subnet in this brief: somebody else must serve addresses there.`,
    }
  },
  function bandWithoutRadio({ ssid, bands }, path, brief) {
    const missing = bands.find((band) => !brief.radio.bands.some((each) => each.band === band))
    if (missing === undefined) return undefined
    const left = bands.filter((band) => band !== missing)
    return {
      field: `${path}.bands`,
      code: 'band-without-radio',
      weight: 'mend',
      sentence: `"${ssid}" is meant for ${missing} GHz, where the radio policy has no channel.`,
      mend:
        left.length > 0
          ? { words: `Leave ${missing} GHz out`, set: [{ path: `${path}.bands`, value: left }] }
          : {
              words: `Use ${missing} GHz on this site`,
              set: [{ path: 'radio.bands', value: [...brief.radio.bands, { band: missing, width: 20 }] }],
            },
    }
  },
  function hiddenExplained({ ssid, hidden }, path) {
    if (!hidden) return undefined
    return {
      field: `${path}.hidden`,
      code: 'hidden-name',
      weight: 'know',
      sentence: `"${ssid}" is hidden: every device must be told its name, then calls that name wherever it goes. It keeps the list short; it keeps nobody out.`,
      mend: { words: 'Show its name', set: [{ path: `${path}.hidden`, value: false }] },
    }
  },
  function letGo({ ssid, leastDbm }, path) {
    if (leastDbm === null) return undefined
    return {
      field: `${path}.leastDbm`,
      code: 'clients-let-go',
      weight: 'know',
      sentence: `Clients of "${ssid}" below ${leastDbm} dBm are let go. One with nowhere better to go comes back, is let go again, and bounces.`,
      mend: { words: 'Let nobody go', set: [{ path: `${path}.leastDbm`, value: null }] },
    }
  },
  function steeringWithoutChoice({ ssid, steering, bands }, path) {
    if (steering === 'client-decides' || (bands.includes('2.4') && bands.includes('5'))) return undefined
    return {
      field: `${path}.steering`,
      code: 'steering-without-choice',
      weight: 'mend',
      sentence: `"${ssid}" is to steer clients between 2.4 and 5 GHz, and is not on both.`,
      mend: { words: 'Leave it to the client', set: [{ path: `${path}.steering`, value: 'client-decides' }] },
    }
  },
  function insistOnThings({ ssid, steering, purpose }, path) {
    if (steering !== 'insist-on-5' || purpose !== 'things') return undefined
    return {
      field: `${path}.steering`,
      code: 'things-kept-from-2.4',
      weight: 'mend',
      sentence: `"${ssid}" insists on 5 GHz, and many things know 2.4 GHz only: they would never get on.`,
      mend: { words: 'Leave it to the client', set: [{ path: `${path}.steering`, value: 'client-decides' }] },
    }
  },
  function fastRoamingForThings({ ssid, fastRoaming, purpose }, path) {
    if (!fastRoaming || purpose !== 'things') return undefined
    return {
      field: `${path}.fastRoaming`,
      code: 'fast-roaming-for-things',
      weight: 'know',
      sentence: `Fast roaming (802.11r) is on for "${ssid}": old scanners and sensors may refuse a network that offers it.`,
      mend: { words: 'Switch it off', set: [{ path: `${path}.fastRoaming`, value: false }] },
    }
  },
  /** IEEE 802.11-2020, table 9-151: fast transition exists for 802.1X, PSK and SAE alone. */
  function fastRoamingWithoutKey({ ssid, fastRoaming, security }, path) {
    if (!fastRoaming || canRoamFast(security)) return undefined
    return {
      field: `${path}.fastRoaming`,
      code: 'fast-roaming-without-key',
      weight: 'mend',
      sentence: `Fast roaming (802.11r) is on for "${ssid}", which has no key that one access point could hand to the next.`,
      mend: { words: 'Switch it off', set: [{ path: `${path}.fastRoaming`, value: false }] },
    }
  },
  function lowRatesForThings({ ssid, purpose, bands }, path, brief) {
    if (brief.radio.lowRates === 'kept' || purpose !== 'things' || !bands.includes('2.4')) return undefined
    return {
      field: `${path}.bands`,
      code: 'low-rates-for-things',
      weight: 'know',
      sentence: `Low data rates are dropped, and "${ssid}" is for things at 2.4 GHz: a far one may fall off, an 802.11b one never gets on.`,
      mend: { words: 'Keep low rates', set: [{ path: 'radio.lowRates', value: 'kept' }] },
    }
  },
  function noHours({ ssid, hours }, path) {
    if (!hours || hours.from !== hours.to) return undefined
    return {
      field: `${path}.hours`,
      code: 'hours-are-none',
      weight: 'mend',
      sentence: `"${ssid}" goes on and off air at the same time, ${hours.from}: it would never be there.`,
      mend: { words: 'Keep it on air always', set: [{ path: `${path}.hours`, value: null }] },
    }
  },
  function emptyAllowList({ ssid, macList }, path) {
    if (macList.rule !== 'allow' || macList.macs.length > 0) return undefined
    return {
      field: `${path}.macList`,
      code: 'allow-list-empty',
      weight: 'mend',
      sentence: `"${ssid}" lets in only the MACs on its list, and the list is empty: nobody could join.`,
      mend: { words: 'Let everybody in', set: [{ path: `${path}.macList`, value: { rule: 'none', macs: [] } }] },
    }
  },
  function limitsCross({ ssid, limits }, path) {
    const { perClientKbps, sharedKbps } = limits
    if (perClientKbps === null || sharedKbps === null || perClientKbps <= sharedKbps) return undefined
    return {
      field: `${path}.limits`,
      code: 'rates-cross',
      weight: 'mend',
      sentence: `One client of "${ssid}" may take ${perClientKbps} kbit/s, more than the ${sharedKbps} that all of them share.`,
      mend: {
        words: `Give one client ${sharedKbps}`,
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
      code: 'too-many-networks',
      weight: 'mend',
      sentence: `The brief has ${brief.networks.length} networks; ${modelName(smallest)} carries ${most}. Join some into one, or choose another model.`,
    },
  ]
}
