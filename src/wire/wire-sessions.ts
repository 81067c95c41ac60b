/** The session port over real protocols. A protocol is loaded when it is spoken for the first time. */
import { managed } from './dialect/managed/managed'
import { dialectOf } from './registry'
import type { Sessions } from './sessions'
import { snmpPort } from './snmp/answer'

export const wireSessions: Sessions = {
  unit: async (lane, card, pin, desired) => (await dialectOf(card.dialect.kind))(lane, card, pin, desired),
  controller: async (lane, card, pin, desired) => {
    if (card.dialect.kind === 'pages') {
      const { controllerPages } = await import('./dialect/pages/pages')
      return controllerPages(lane, card as Parameters<typeof controllerPages>[1], pin, desired)
    }
    if (card.dialect.kind === 'prompt') {
      const { controllerPrompt } = await import('./dialect/prompt/prompt')
      return controllerPrompt(lane, card as Parameters<typeof controllerPrompt>[1], pin)
    }
    const { controllerOver } = await import('./dialect/netconf/netconf')
    return controllerOver(lane, card as Parameters<typeof controllerOver>[1], pin)
  },
  managed,
  discover: async (lane, withinMs) => {
    const { capwapControlPort, discover } = await import('./capwap/discovery')
    return discover(await lane.datagrams(capwapControlPort), withinMs)
  },
  snmpAsUser: async (lane, user, objects) => {
    const { askAsUser } = await import('./snmp/snmp')
    return askAsUser(await lane.datagrams(snmpPort), user, objects)
  },
  snmpInClear: async (lane, community, objects) => {
    const { askCommunity } = await import('./snmp/snmp')
    return askCommunity(await lane.datagrams(snmpPort), community, objects)
  },
  wtpStanding: async (lane, user, mac, how) => {
    const { wtpStanding } = await import('./snmp/capwap-mib')
    return wtpStanding(await lane.datagrams(snmpPort), user, mac, how)
  },
  carriedNetworks: async (lane, user, profile, radios) => {
    const { carriedNetworks } = await import('./snmp/capwap-dot11-mib')
    return carriedNetworks(await lane.datagrams(snmpPort), user, profile, radios)
  },
}
