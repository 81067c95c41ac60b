/**
 * What stands in the way of working a wire from this laptop, in sentences, each with its cure.
 *
 * In: facts. Out: findings, the gravest first. A finding has a code that never changes its meaning.
 */
import { sameSubnet } from '../address/ipv4'
import { rivalServers } from '../muster/rival-servers'
import type { InterfaceFacts, LaptopFacts } from './laptop-facts'

export interface Finding {
  readonly code: string
  /** `stops`: nothing goes until it is cured. `hinders`: something goes wrong or is missing. `good`: nothing to do. */
  readonly weight: 'stops' | 'hinders' | 'good'
  readonly sentence: string
  readonly cure?: string
}

const order = ['stops', 'hinders', 'good'] as const

export function diagnose(facts: LaptopFacts): Finding[] {
  const all = [
    ...ofInterface(facts),
    ...ofPrivilege(facts),
    ...ofAddresses(facts),
    ...ofRoutes(facts),
    ...ofServices(facts),
    ...ofDhcp(facts),
  ]
  return all.toSorted((a, b) => order.indexOf(a.weight) - order.indexOf(b.weight))
}

const chosenOf = ({ interfaces, chosen }: LaptopFacts): InterfaceFacts | undefined =>
  interfaces.find(({ name }) => name === chosen)

function ofInterface(facts: LaptopFacts): Finding[] {
  const wired = facts.interfaces.filter(({ kind }) => kind === 'wired')
  const names = wired.map(({ name }) => name).join(', ')
  const here = chosenOf(facts)
  if (!here && facts.chosen !== undefined)
    return [
      {
        code: 'no-such-interface',
        weight: 'stops',
        sentence: `There is no interface ${facts.chosen}.`,
        cure: names === '' ? 'Plug in the network adapter.' : `Name one of these: --interface ${names}.`,
      },
    ]
  if (!here && wired.length === 0)
    return [
      {
        code: 'no-wired-interface',
        weight: 'stops',
        sentence: 'This laptop has no wired interface.',
        cure: 'Plug in a network adapter, then look again.',
      },
    ]
  if (!here)
    return [
      {
        code: 'several-interfaces',
        weight: 'stops',
        sentence: `There are several wired interfaces: ${names}.`,
        cure: 'Name the one to the bench: --interface NAME.',
      },
    ]
  if (here.kind === 'wireless')
    return [
      {
        code: 'is-wireless',
        weight: 'stops',
        sentence: `${here.name} is a Wi-Fi card: the bench is reached over a cable.`,
        cure: names === '' ? 'Plug in a network adapter.' : `Use one of these: --interface ${names}.`,
      },
    ]
  if (here.link === 'down')
    return [
      {
        code: 'no-link',
        weight: 'stops',
        sentence: `${here.name} has no link: nothing that is switched on is at the other end of its cable.`,
        cure: `Check the cable and the switch; if the interface was switched off: ip link set ${here.name} up.`,
      },
    ]
  return [{ code: 'link', weight: 'good', sentence: `${here.name} has a link.` }]
}

function ofPrivilege({ privilege, missingPrograms, system }: LaptopFacts): Finding[] {
  const found: Finding[] = []
  if (system === 'other')
    found.push({
      code: 'not-linux',
      weight: 'stops',
      sentence: 'Only Linux works a real wire in this release.',
      cure: 'Use a Linux laptop; the demo works here.',
    })
  if (privilege === 'none')
    found.push({
      code: 'no-privilege',
      weight: 'hinders',
      sentence:
        'There is neither root nor sudo without a password here. Units that listen on IPv6 are reached all the same, others one at a time.',
      cure: 'Run "sudo -v" first, then start: that gives lanes to any number of boxes at one address.',
    })
  else found.push({ code: 'privilege', weight: 'good', sentence: 'The wire helper can be started.' })
  for (const program of missingPrograms)
    found.push({
      code: 'missing-program',
      weight: privilege === 'none' ? 'stops' : 'hinders',
      sentence: `The program ${program} is missing.`,
      cure:
        privilege === 'none' ? `Have somebody install it (Debian: ${program}).` : 'npm start installs it at its start.',
    })
  return found
}

/** An address of the laptop's own in a factory subnet, above all a unit's very own. */
function ofAddresses({ interfaces, factorySubnets, chosen }: LaptopFacts): Finding[] {
  return interfaces.flatMap(({ name, addresses }) =>
    addresses.flatMap((cidr): Finding[] => {
      const [address = ''] = cidr.split('/')
      const same = factorySubnets.find((each) => each.address === address)
      if (same)
        return [
          {
            code: 'has-a-factory-address',
            weight: 'stops',
            sentence: `This laptop has ${address} itself (${name}): that is where ${same.model} answers out of its box.`,
            cure: `Take it away: sudo ip addr del ${cidr} dev ${name}.`,
          },
        ]
      const within = factorySubnets.find((each) => name !== chosen && sameSubnet(each.address, address, each.prefix))
      return within
        ? [
            {
              code: 'factory-subnet-elsewhere',
              weight: 'hinders',
              sentence: `${name} is in ${within.address}/${within.prefix} too, the subnet in which ${within.model} answers out of its box. Lanes lead to the right one; a browser of your own may not.`,
              cure: `Use muster lane, or switch ${name} off while you work.`,
            },
          ]
        : []
    }),
  )
}

function ofRoutes({ defaultRoutes, factorySubnets, interfaces }: LaptopFacts): Finding[] {
  const kindOf = (dev: string) => interfaces.find(({ name }) => name === dev)?.kind
  return defaultRoutes.flatMap(({ via, dev }): Finding[] => {
    const unit = factorySubnets.find(({ address }) => address === via)
    if (unit)
      return [
        {
          code: 'router-at-a-factory-address',
          weight: 'hinders',
          sentence: `The router of ${dev} is at ${via}, the factory address of ${unit.model}: the internet stays reached, and lanes lead to the units; without them you would reach the router.`,
          cure: `Work by lanes, or switch ${dev} off while you work.`,
        },
      ]
    return kindOf(dev) === 'wireless'
      ? [{ code: 'internet-by-wifi', weight: 'good', sentence: `The internet goes by ${dev}; it is left as it is.` }]
      : []
  })
}

function ofServices({ networkManager, firewall, taggedVlans, clock, chosen }: LaptopFacts): Finding[] {
  const found: Finding[] = []
  if (networkManager === 'manages')
    found.push({
      code: 'network-manager',
      weight: 'hinders',
      sentence: `NetworkManager has ${chosen} in its hands: it may take away addresses that are added, each time the cable is plugged in.`,
      cure: `Have it let go while you work: nmcli device set ${chosen} managed no.`,
    })
  if (firewall === 'drops')
    found.push({
      code: 'firewall',
      weight: 'hinders',
      sentence:
        'A packet filter drops what it has no rule for. What this laptop asks is answered; what units send by themselves, such as a syslog line, is not heard.',
      cure: `Let in what comes by ${chosen} while you work.`,
    })
  if (taggedVlans === 'missing')
    found.push({
      code: 'no-tagged-vlans',
      weight: 'hinders',
      sentence:
        "This laptop's kernel has no tagged VLANs: a unit that is to be managed in one is held before it is sent there.",
      cure: 'Install the modules of the kernel that runs (8021q is among them), or work without a tag.',
    })
  if (clock === 'not-set')
    found.push({
      code: 'clock',
      weight: 'hinders',
      sentence: "This laptop's clock is not set by a time server, and units are compared with it.",
      cure: 'Have it set: sudo timedatectl set-ntp true, with a way to the internet.',
    })
  return found
}

function ofDhcp({ dhcpServers }: LaptopFacts): Finding[] {
  if (!dhcpServers) return []
  const rivals = rivalServers(dhcpServers)
  const told = rivals.length > 0 ? rivals : dhcpServers
  const offers = told.map(({ address, offered }) => `${address} (offers ${offered})`).join(', ')
  if (dhcpServers.length === 0)
    return [{ code: 'no-dhcp', weight: 'good', sentence: 'Nobody serves DHCP on this wire.' }]
  if (rivals.length === 0)
    return [
      {
        code: 'dhcp',
        weight: 'good',
        sentence: `One server${told.length > 1 ? ' in each VLAN' : ''} gives addresses on this wire: ${offers}.`,
      },
    ]
  return [
    {
      code: 'two-dhcp-servers',
      weight: 'hinders',
      sentence: `${rivals.length} servers give addresses on this wire: ${offers}. A unit that asks may be given either's.`,
      cure: 'Find the one that should not be there, by its MAC on the switch, and unplug it.',
    },
  ]
}
