/** Names of servers, asked of the site's own name servers (RFC 1035): the laptop's own may know others, or none. */
import { Resolver } from 'node:dns/promises'

export interface NamedAddress {
  readonly name: string
  /** IPv4. */
  readonly address: string
}

const patienceMs = 1500

/**
 * @param servers  IPv4 addresses, each with a port where it is not 53
 * @returns        nothing for a name that is not known there, and for all where none of the servers answers
 */
export async function resolveNames(names: readonly string[], servers: readonly string[]): Promise<NamedAddress[]> {
  if (names.length === 0 || servers.length === 0) return []
  const resolver = new Resolver({ timeout: patienceMs, tries: 1 })
  resolver.setServers(servers)
  const asked = names.map(async (name) => {
    const addresses = await resolver.resolve4(name).catch(() => [])
    return addresses.map((address) => ({ name, address }))
  })
  return (await Promise.all(asked)).flat()
}
