/** What is known of a laptop before it works a wire: facts alone, gathered elsewhere. */
export interface InterfaceFacts {
  readonly name: string
  readonly kind: 'wired' | 'wireless' | 'other'
  /** Whether there is a link: something that is switched on at the other end of the cable. */
  readonly link: 'up' | 'down'
  /** IPv4, CIDR. */
  readonly addresses: readonly string[]
}

export interface FactorySubnet {
  readonly model: string
  readonly address: string
  readonly prefix: number
}

export interface DhcpServerFacts {
  readonly address: string
  readonly offered: string
  /** Null for untagged. */
  readonly vlan: number | null
}

export interface LaptopFacts {
  readonly system: 'linux' | 'other'
  readonly interfaces: readonly InterfaceFacts[]
  /** The interface to the bench; undefined where none was named and there is not just one. */
  readonly chosen: string | undefined
  /** Next hop and interface of each default route. */
  readonly defaultRoutes: readonly { readonly via: string | undefined; readonly dev: string }[]
  /** `root`, sudo that asks no password now, or neither. */
  readonly privilege: 'root' | 'sudo' | 'none'
  readonly missingPrograms: readonly string[]
  /** It is running, and would have a say over the interface. */
  readonly networkManager: 'manages' | 'leaves-alone' | 'absent'
  /** What a packet filter does with what it has no rule for; undefined where nobody may look. */
  readonly firewall: 'drops' | 'accepts' | undefined
  /** Whether its kernel has tagged VLANs (IEEE 802.1Q); undefined where it cannot be told. */
  readonly taggedVlans: 'there' | 'missing' | undefined
  readonly clock: 'right' | 'not-set' | undefined
  /** Who answered a question for DHCP on the interface; undefined where nobody could ask. */
  readonly dhcpServers: readonly DhcpServerFacts[] | undefined
  readonly factorySubnets: readonly FactorySubnet[]
}
