/**
 * Servers of DHCP in one and the same network: each answers every client there. One in another VLAN is no
 * rival.
 *
 * @param servers  each with the VLAN in which it was heard, null for untagged
 */
export function rivalServers<T extends { readonly vlan: number | null }>(servers: readonly T[]): T[] {
  return servers.filter((one) => servers.some((other) => other !== one && other.vlan === one.vlan))
}
