/** What our modules and the standard ones say of the data that we speak of: namespaces, lists, and types of leaves. */

/** Namespaces by module. */
export const namespaces: Readonly<Record<string, string>> = {
  'ietf-system': 'urn:ietf:params:xml:ns:yang:ietf-system',
  'ietf-netconf-acm': 'urn:ietf:params:xml:ns:yang:ietf-netconf-acm',
  'air-muster-firmware': 'urn:uuid:2d8e5a70-9c14-4b3f-8a6e-71f0c35d9b42',
  'ietf-interfaces': 'urn:ietf:params:xml:ns:yang:ietf-interfaces',
  'ietf-ip': 'urn:ietf:params:xml:ns:yang:ietf-ip',
  'ietf-routing': 'urn:ietf:params:xml:ns:yang:ietf-routing',
  'ietf-ipv4-unicast-routing': 'urn:ietf:params:xml:ns:yang:ietf-ipv4-unicast-routing',
  'iana-if-type': 'urn:ietf:params:xml:ns:yang:iana-if-type',
  'air-muster-wireless': 'urn:uuid:6f0d6a2e-9d4b-4c55-8f0e-2b1c7a53e9d4',
  'air-muster-controller': 'urn:uuid:c4b1f0d2-7a35-4f0e-9d61-52a8e4907b3f',
}
export const modules: ReadonlyMap<string, string> = new Map(
  Object.entries(namespaces).map(([module, namespace]) => [namespace, module]),
)

/** Lists and leaf-lists, by the name of what they stand in and their own, with the keys of their entries. */
export const lists: Readonly<Record<string, readonly string[]>> = {
  'ntp/server': ['name'],
  'dns-resolver/server': ['name'],
  'authentication/user': ['name'],
  'groups/group': ['name'],
  'group/user-name': [],
  'nacm/rule-list': ['name'],
  'rule-list/group': [],
  'rule-list/rule': ['name'],
  'interfaces/interface': ['name'],
  'ipv4/address': ['ip'],
  'control-plane-protocols/control-plane-protocol': ['type', 'name'],
  'ipv4/route': ['destination-prefix'],
  'wireless/network': ['id'],
  'wireless/radio': ['band'],
  'radio/on-air': ['network'],
  'network/band': [],
  'access-points/access-point': ['mac'],
  'access-point/network': [],
  'access-point/controller': [],
  'access-point/radio': ['band'],
  'hours/day': [],
  'client-list/mac': [],
  'radius/server': ['address', 'port'],
  'radius/accounting': ['address', 'port'],
}

export const numbers: ReadonlySet<string> = new Set([
  'prefix-length',
  'vlan',
  'management-vlan',
  'rate-per-client',
  'rate-shared',
  'most-clients',
  'steering-above',
  'least-signal',
  'mobility-domain',
  'port',
  'channel',
  'width',
  'beacon-interval',
  'listens-for',
  'left-for-radar',
  'most',
])

export const flags: ReadonlySet<string> = new Set([
  'enabled',
  'hidden',
  'isolation',
  'fast-roaming',
  'open-confirmed',
  'https-only',
  'ssh',
  'telnet',
  'lights',
])

/** Leaves whose values are names of a module. */
export const identities: ReadonlySet<string> = new Set(['type'])
