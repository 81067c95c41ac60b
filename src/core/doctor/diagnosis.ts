/**
 * What stands in the way of working a wire from this laptop.
 *
 * In: facts. Out: findings, the gravest first. A finding has a code that never changes its meaning, with parameters;
 * its sentence and its cure are made of it when it is shown (words/).
 */
import { sameSubnet } from '../address/ipv4'
import { rivalServers } from '../muster/rival-servers'
import type { DhcpServerFacts, InterfaceFacts, LaptopFacts } from './laptop-facts'

/** What can be found, with its parameters. `names` are those of wired interfaces. */
export interface Findings {
  'no-such-interface': { name: string; names: readonly string[] }
  'no-wired-interface': object
  'several-interfaces': { names: readonly string[] }
  'is-wireless': { name: string; names: readonly string[] }
  'no-link': { name: string }
  link: { name: string }
  'not-linux': object
  'no-privilege': object
  privilege: object
  'missing-program': { program: string; privilege: 'some' | 'none' }
  'has-a-factory-address': { address: string; cidr: string; name: string; model: string }
  'factory-subnet-elsewhere': { name: string; subnet: string; model: string }
  'router-at-a-factory-address': { dev: string; via: string; model: string }
  'internet-by-wifi': { dev: string }
  'network-manager': { name: string }
  firewall: { name: string }
  'no-tagged-vlans': object
  clock: object
  'no-dhcp': object
  dhcp: { servers: readonly DhcpServerFacts[] }
  'two-dhcp-servers': { servers: readonly DhcpServerFacts[] }
}
export type FindingCode = keyof Findings

/** `stops`: nothing goes until it is cured. `hinders`: something goes wrong or is missing. `good`: nothing to do. */
const weights = ['stops', 'hinders', 'good'] as const
export type Weight = (typeof weights)[number]

export type Finding = {
  [C in FindingCode]: { readonly code: C; readonly weight: Weight; readonly params: Findings[C] }
}[FindingCode]

const found = <C extends FindingCode>(code: C, weight: Weight, params: Findings[C]): Finding =>
  ({ code, weight, params }) as Finding

export function diagnose(facts: LaptopFacts): Finding[] {
  const all = [
    ...ofInterface(facts),
    ...ofPrivilege(facts),
    ...ofAddresses(facts),
    ...ofRoutes(facts),
    ...ofServices(facts),
    ...ofDhcp(facts),
  ]
  return all.toSorted((a, b) => weights.indexOf(a.weight) - weights.indexOf(b.weight))
}

function ofInterface({ interfaces, chosen }: LaptopFacts): Finding[] {
  const names = interfaces.filter(({ kind }) => kind === 'wired').map(({ name }) => name)
  const here: InterfaceFacts | undefined = interfaces.find(({ name }) => name === chosen)
  if (!here && chosen !== undefined) return [found('no-such-interface', 'stops', { name: chosen, names })]
  if (!here && names.length === 0) return [found('no-wired-interface', 'stops', {})]
  if (!here) return [found('several-interfaces', 'stops', { names })]
  const { name } = here
  if (here.kind === 'wireless') return [found('is-wireless', 'stops', { name, names })]
  return [here.link === 'down' ? found('no-link', 'stops', { name }) : found('link', 'good', { name })]
}

function ofPrivilege({ privilege, missingPrograms, system }: LaptopFacts): Finding[] {
  const has = privilege === 'none' ? 'none' : 'some'
  return [
    ...(system === 'other' ? [found('not-linux', 'stops', {})] : []),
    has === 'none' ? found('no-privilege', 'hinders', {}) : found('privilege', 'good', {}),
    ...missingPrograms.map((program) =>
      found('missing-program', has === 'none' ? 'stops' : 'hinders', { program, privilege: has }),
    ),
  ]
}

/** An address of the laptop's own in a factory subnet, above all a unit's very own. */
function ofAddresses({ interfaces, factorySubnets, chosen }: LaptopFacts): Finding[] {
  return interfaces.flatMap(({ name, addresses }) =>
    addresses.flatMap((cidr): Finding[] => {
      const [address = ''] = cidr.split('/')
      const same = factorySubnets.find((each) => each.address === address)
      if (same) return [found('has-a-factory-address', 'stops', { address, cidr, name, model: same.model })]
      const within = factorySubnets.find((each) => name !== chosen && sameSubnet(each.address, address, each.prefix))
      if (!within) return []
      const subnet = `${within.address}/${within.prefix}`
      return [found('factory-subnet-elsewhere', 'hinders', { name, subnet, model: within.model })]
    }),
  )
}

function ofRoutes({ defaultRoutes, factorySubnets, interfaces }: LaptopFacts): Finding[] {
  const kindOf = (dev: string) => interfaces.find(({ name }) => name === dev)?.kind
  return defaultRoutes.flatMap(({ via, dev }): Finding[] => {
    const unit = factorySubnets.find(({ address }) => address === via)
    if (unit) return [found('router-at-a-factory-address', 'hinders', { dev, via: unit.address, model: unit.model })]
    return kindOf(dev) === 'wireless' ? [found('internet-by-wifi', 'good', { dev })] : []
  })
}

function ofServices({ networkManager, firewall, taggedVlans, clock, chosen: name = '' }: LaptopFacts): Finding[] {
  return [
    ...(networkManager === 'manages' ? [found('network-manager', 'hinders', { name })] : []),
    ...(firewall === 'drops' ? [found('firewall', 'hinders', { name })] : []),
    ...(taggedVlans === 'missing' ? [found('no-tagged-vlans', 'hinders', {})] : []),
    ...(clock === 'not-set' ? [found('clock', 'hinders', {})] : []),
  ]
}

function ofDhcp({ dhcpServers }: LaptopFacts): Finding[] {
  if (!dhcpServers) return []
  if (dhcpServers.length === 0) return [found('no-dhcp', 'good', {})]
  const rivals = rivalServers(dhcpServers)
  return rivals.length === 0
    ? [found('dhcp', 'good', { servers: dhcpServers })]
    : [found('two-dhcp-servers', 'hinders', { servers: rivals })]
}
