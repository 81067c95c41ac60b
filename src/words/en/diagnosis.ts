/** What was found on this laptop, and how each is cured. */
import type { Finding, FindingCode, Findings } from '../../core/doctor/diagnosis'
import type { DhcpServerFacts } from '../../core/doctor/laptop-facts'
import { prose } from '../prose'

export interface FindingWords {
  readonly sentence: string
  /** Undefined where there is nothing to cure. */
  readonly cure?: string
}

const offers = (servers: readonly DhcpServerFacts[]): string =>
  servers.map(({ address, offered }) => `${address} (offers ${offered})`).join(', ')

const words: { readonly [C in FindingCode]: (params: Findings[C]) => FindingWords } = {
  'no-such-interface': ({ name, names }) => ({
    sentence: `There is no interface ${name}.`,
    cure: names.length === 0 ? 'Plug in the network adapter.' : `Name one of these: --interface ${names.join(', ')}.`,
  }),
  'no-wired-interface': () => ({
    sentence: 'This laptop has no wired interface.',
    cure: 'Plug in a network adapter, then look again.',
  }),
  'several-interfaces': ({ names }) => ({
    sentence: `There are several wired interfaces: ${names.join(', ')}.`,
    cure: 'Name the one to the bench: --interface NAME.',
  }),
  'is-wireless': ({ name, names }) => ({
    sentence: `${name} is a Wi-Fi card: the bench is reached over a cable.`,
    cure: names.length === 0 ? 'Plug in a network adapter.' : `Use one of these: --interface ${names.join(', ')}.`,
  }),
  'no-link': ({ name }) => ({
    sentence: `${name} has no link: nothing that is switched on is at the other end of its cable.`,
    cure: `Check the cable and the switch; if the interface was switched off: ip link set ${name} up.`,
  }),
  link: ({ name }) => ({ sentence: `${name} has a link.` }),
  'not-linux': () => ({
    sentence: 'Only Linux works a real wire in this release.',
    cure: 'Use a Linux laptop; the demo works here.',
  }),
  'no-privilege': () => ({
    sentence:
      'There is neither root nor sudo without a password here. Units that listen on IPv6 are reached all the same, ' +
      'others one at a time.',
    cure: 'Run "sudo -v" first, then start: that gives lanes to any number of boxes at one address.',
  }),
  privilege: () => ({ sentence: 'The wire helper can be started.' }),
  'missing-program': ({ program, privilege }) => ({
    sentence: `The program ${program} is missing.`,
    cure:
      privilege === 'none' ? `Have somebody install it (Debian: ${program}).` : 'npm start installs it at its start.',
  }),
  'has-a-factory-address': ({ address, cidr, name, model }) => ({
    sentence: `This laptop has ${address} itself (${name}): that is where ${model} answers out of its box.`,
    cure: `Take it away: sudo ip addr del ${cidr} dev ${name}.`,
  }),
  'factory-subnet-elsewhere': ({ name, subnet, model }) => ({
    sentence:
      `${name} is in ${subnet} too, the subnet in which ${model} answers out of its box. ` +
      'Lanes lead to the right one; a browser of your own may not.',
    cure: `Use muster lane, or switch ${name} off while you work.`,
  }),
  'router-at-a-factory-address': ({ dev, via, model }) => ({
    sentence:
      `The router of ${dev} is at ${via}, the factory address of ${model}: the internet stays reached, ` +
      'and lanes lead to the units; without them you would reach the router.',
    cure: `Work by lanes, or switch ${dev} off while you work.`,
  }),
  'internet-by-wifi': ({ dev }) => ({ sentence: `The internet goes by ${dev}; it is left as it is.` }),
  'network-manager': ({ name }) => ({
    sentence: prose`NetworkManager manages ${name}: it may take away addresses that are added, each time the cable is
      plugged in.`,
    cure: `Have it let go while you work: nmcli device set ${name} managed no.`,
  }),
  firewall: ({ name }) => ({
    sentence:
      'A packet filter drops what it has no rule for. What this laptop asks is answered; ' +
      'what units send by themselves, such as a syslog line, is not heard.',
    cure: `Let in what comes by ${name} while you work.`,
  }),
  'no-tagged-vlans': () => ({
    sentence:
      "This laptop's kernel has no tagged VLANs: a unit that is to be managed in one is held before it is sent there.",
    cure: 'Install the modules of the kernel that runs (8021q is among them), or work without a tag.',
  }),
  clock: () => ({
    sentence: "This laptop's clock is not set by a time server, and units are compared with it.",
    cure: 'Have it set: sudo timedatectl set-ntp true, with a way to the internet.',
  }),
  'no-dhcp': () => ({ sentence: 'Nobody serves DHCP on this wire.' }),
  dhcp: ({ servers }) => ({
    sentence: prose`One server${servers.length > 1 ? ' in each VLAN' : ''} gives addresses on this wire:
      ${offers(servers)}.`,
  }),
  'two-dhcp-servers': ({ servers }) => ({
    sentence:
      `${servers.length} servers give addresses on this wire: ${offers(servers)}. ` +
      'A unit that asks may be given an address by either.',
    cure: 'Find the one that should not be there, by its MAC on the switch, and unplug it.',
  }),
}

export function findingWords({ code, params }: Finding): FindingWords {
  return (words[code] as (params: unknown) => FindingWords)(params)
}
