import type { Sentences } from '../../../core/message/message'
import type { reviewMessages } from '../../../core/message/review'
import { countryName } from '../../../core/regulatory/country'
import { prose } from '../../prose'
import { capital, securityName, shortSecurityName } from '../parts'

export const reviewSentences: Sentences<typeof reviewMessages> = {
  'no-host-this-host': 'it stands for this host itself (RFC 1122, 3.2.1.3)',
  'no-host-loopback': 'it is loopback, and every unit has it for itself (RFC 1122, 3.2.1.3)',
  'no-host-multicast': 'it is a multicast group (RFC 1112)',
  'no-host-later-use': 'it is kept for later use, or broadcast (RFC 1112)',
  'plain-http': 'Units would also be managed over plain HTTP: the admin password could be read on the wire.',
  'mend-https-only': 'HTTPS only',
  'syslog-out-of-reach': ({
    syslog,
  }) => prose`The syslog server ${syslog} is outside every subnet of the site, and management has no gateway: no line
    would arrive.`,
  'mend-no-syslog': 'Leave syslog out',
  'image-too-old': ({ model, version, wanted }) =>
    prose`The image for ${model} brings ${version}, and every unit is to run ${wanted} at least.`,
  'ssh-stays-on': prose`SSH stays on after the visit: whoever has the admin password can sign in from anywhere in the
    management network.`,
  'name-twice-on-a-band': ({ ssid }) =>
    prose`"${ssid}" is there twice on the same band: clients could not tell them apart.`,
  'mend-call-it': ({ other }) => `Call it "${other}"`,
  'guests-together': ({ ssid }) => `Guests on "${ssid}" could reach each other's devices.`,
  'mend-keep-guests-apart': 'Keep them from each other',
  'is-untagged-like-management': 'is untagged like management',
  'is-on-management-vlan': ({ vlan }) => `is on the management VLAN ${vlan}`,
  'clients-on-management': ({ ssid, where }) => `"${ssid}" ${where}: its clients could reach every unit.`,
  'mend-use-vlan-of': ({ other, subnet }) => `Use VLAN ${other}, ${subnet}`,
  'mend-use-vlan': ({ other }) => `Use VLAN ${other}`,
  'vlan-without-subnet': ({ ssid, vlan }) =>
    prose`"${ssid}" is on VLAN ${vlan}, which has no subnet in this brief: somebody else must serve addresses there.`,
  'band-without-radio': ({ ssid, band }) =>
    prose`"${ssid}" is meant for ${band} GHz, where the radio policy has no channel.`,
  'mend-leave-band-out': ({ band }) => `Leave ${band} GHz out`,
  'mend-use-band': ({ band }) => `Use ${band} GHz on this site`,
  'hidden-name': ({
    ssid,
  }) => prose`"${ssid}" is hidden: every device must be told its name, then calls that name wherever it goes. It keeps
    the list short; it keeps nobody out.`,
  'mend-show-name': 'Show its name',
  'clients-let-go': ({
    ssid,
    leastDbm,
  }) => prose`Clients of "${ssid}" below ${leastDbm} dBm are let go. One with nowhere better to go comes back, is let go
    again, and bounces.`,
  'mend-let-nobody-go': 'Let nobody go',
  'steering-without-choice': ({ ssid }) =>
    prose`"${ssid}" is to steer clients between 2.4 and 5 GHz, and is not on both.`,
  'mend-leave-to-client': 'Leave it to the client',
  'things-kept-from-2.4': ({ ssid }) =>
    prose`"${ssid}" insists on 5 GHz, and many things know 2.4 GHz only: they would never get on.`,
  'fast-roaming-for-things': ({ ssid }) =>
    prose`Fast roaming (802.11r) is on for "${ssid}": old scanners and sensors may refuse a network that offers it.`,
  'mend-no-fast-roaming': 'Switch it off',
  'fast-roaming-without-key': ({ ssid }) =>
    prose`Fast roaming (802.11r) is on for "${ssid}", which has no key that one access point could hand to the next.`,
  'low-rates-for-things': ({
    ssid,
  }) => prose`Low data rates are dropped, and "${ssid}" is for things at 2.4 GHz: a far one may fall off, an 802.11b one
    never gets on.`,
  'mend-keep-low-rates': 'Keep low rates',
  'hours-are-none': ({ ssid, from }) =>
    prose`"${ssid}" goes on and off air at the same time, ${from}: it would never be there.`,
  'mend-always-on-air': 'Keep it on air always',
  'allow-list-empty': ({ ssid }) =>
    prose`"${ssid}" lets in only the MACs on its list, and the list is empty: nobody could join.`,
  'mend-let-everybody-in': 'Let everybody in',
  'rates-cross': ({
    ssid,
    perClientKbps,
    sharedKbps,
  }) => prose`One client of "${ssid}" may take ${perClientKbps} kbit/s, more than the ${sharedKbps} that all of them
    share.`,
  'mend-client-rate': ({ rate }) => `Give one client ${rate}`,
  'too-many-networks': ({ count, model, most }) =>
    prose`The brief has ${count} networks; ${model} carries ${most}. Join some into one, or choose another model.`,
  'no-host-address': ({ what, address, why }) => `${what} ${address} cannot be: ${why}.`,
  'server-out-of-reach': ({
    what,
    address,
  }) => prose`${what} ${address} is outside every subnet of the site, and management has no gateway: no unit would reach
    it.`,
  'of-the-subnet': 'The subnet',
  'of-the-gateway': 'The gateway',
  'of-dhcp-pool-end': 'An end of the DHCP pool',
  'of-static-range-end': 'An end of the static range',
  'of-reserved-address': 'The reserved address',
  'of-dns-server': 'The DNS server',
  'of-time-server': 'The time server',
  'of-radius-server': 'The RADIUS server',
  'of-accounting-server': 'The RADIUS accounting server',
  'of-syslog-server': 'The syslog server',
  'country-without-rules': ({ country }) =>
    prose`There are no radio rules for ${country}. Choose the country from the list.`,
  'mend-use-width': ({ width }) => `Use ${width} MHz`,
  'wide-at-24': ({
    width,
  }) => prose`${width} MHz at 2.4 GHz takes two of its three channels: units and neighbours then share what is left. 20
    MHz is the practice.`,
  'open-network': ({ ssid }) =>
    prose`"${ssid}" is open, as you confirmed: anyone nearby can read what its clients send.`,
  'open-network-unconfirmed': ({
    ssid,
  }) => prose`"${ssid}" would be open: anyone nearby could read what its clients send. It is not put on air until its
    name is typed a second time.`,
  'mend-use-wpa2': 'Use WPA2-Personal',
  'enterprise-without-server': ({ ssid }) => `"${ssid}" asks a RADIUS server who may join, and none is named.`,
  'frames-do-not-fit': ({
    ssid,
    security,
    fitting,
    asked,
  }) => prose`"${ssid}" is ${securityName(security)}, which goes with protected management frames ${fitting}, not
    ${asked}.`,
  'mend-frames-by-security': 'As the security wants',
  'wpa3-for-things': ({ ssid }) =>
    prose`"${ssid}" is WPA3 only: old scanners and sensors know WPA2 at the most and could not join.`,
  'mend-use-wpa3-mixed': 'Use WPA3/WPA2 mixed',
  'security-not-carried': ({ ssid, security, models }) =>
    prose`"${ssid}" is ${securityName(security)}, which ${models.join(', ')} cannot do.`,
  'mend-use-security': ({ security }) => `Use ${shortSecurityName(security)}`,
  'mend-make-strong': 'Make a strong one',
  'gateway-outside': ({ gateway, subnet }) =>
    prose`The gateway ${gateway} is outside ${subnet}: nobody there could reach it.`,
  'mend-use-address': ({ address }) => `Use ${address}`,
  'of-the-dhcp-pool': 'DHCP pool',
  'of-the-static-range': 'static range',
  'static-range-in-pool': ({ first, last }) =>
    prose`The static range ${first} to ${last} meets the DHCP pool: two units could get one address.`,
  'mend-use-outside-pool': 'Use what the pool leaves free',
  'reserved-outside': ({ address, subnet }) => `The reserved address ${address} is outside ${subnet}.`,
  'mend-take-address-off': 'Take it off',
  'of-dns-server-there': 'which a DNS server has',
  'of-brief-server-there': 'which a server of the brief has',
  'of-something-else-there': 'which is kept for something else',
  'gateway-in-pool': ({ subnet, address }) =>
    prose`The DHCP pool of ${subnet} would hand out the gateway's own address ${address}.`,
  'kept-address-in-pool': ({ subnet, address, owner }) =>
    prose`The DHCP pool of ${subnet} would hand out ${address}, ${owner}.`,
  'mend-use-range': ({ first, last }) => `Use ${first} to ${last}`,
  'mend-no-pool': 'Have no pool',
  'range-backwards': ({ range, first, last }) => `The ${range} begins at ${first}, above its end ${last}.`,
  'mend-swap-ends': 'Swap the two',
  'range-outside': ({ address, range, subnet }) => `${address} of the ${range} is outside ${subnet}.`,
  'mend-move-subnet': ({ subnet }) => `Move it to ${subnet}`,
  'subnets-overlap': ({ name, subnet, otherName, otherSubnet }) =>
    prose`${name} ${subnet} overlaps ${otherName} ${otherSubnet}: nobody could tell which way an address is.`,
  'are-both-untagged': 'both untagged',
  'are-both-on-vlan': ({ vlan }) => `both on VLAN ${vlan}`,
  'vlan-twice': ({ name, other, where }) => `${name} and ${other} are ${where}: they would be one network.`,
  'factory-address-in-subnet': ({
    model,
    address,
    subnet,
  }) => prose`${model} comes out of its box at ${address}, inside ${subnet}: no unit is given that address, and nothing
    else on the site may have it.`,
  'mend-keep-subnets-apart': 'Keep them apart',
  'talk-to-nobody': 'A rule of who may reach whom names a subnet that is no longer there.',
  'mend-take-rule-off': 'Take the rule off',
  'passphrase-is-its-name': ({ ssid }) =>
    prose`The passphrase of "${ssid}" is its own name: it is the first that anybody tries.`,
  'passphrase-guessable': ({
    ssid,
    bits,
  }) => prose`The passphrase of "${ssid}" can be guessed: about ${bits} bits, and 40 are wanted. It is made of words or
    patterns that guessers try first.`,
  'width-not-legal': ({ country, width, band }) =>
    prose`${countryName(country)} has no legal ${width} MHz channel at ${band} GHz for an access point.`,
  'width-not-legal-outdoors': ({ country, width, band }) =>
    prose`${countryName(country)} has no legal ${width} MHz channel at ${band} GHz outdoors.`,
  '6-ghz-without-wpa3': ({ ssid, security }) =>
    prose`"${ssid}" is meant for 6 GHz with ${securityName(security)}; at 6 GHz only WPA3 and OWE are allowed.`,
  '6-ghz-without-wpa3-roaming': ({
    ssid,
    security,
  }) => prose`"${ssid}" is meant for 6 GHz with ${securityName(security)}; at 6 GHz only WPA3 and OWE are allowed.
    Clients roam between two networks of one name only where both have the same passphrase.`,
  'mend-6-ghz-network': ({ security }) => `Give 6 GHz a network of this name with ${shortSecurityName(security)}`,
  'guests-reach-management': ({ from, to, ssid }) =>
    prose`${from} may reach ${to}: guests on "${ssid}" could open every unit's sign-in.`,
  'things-reach-management': ({ from, to, ssid }) =>
    prose`${from} may reach ${to}: things on "${ssid}" could open every unit's sign-in.`,
  'set-by-hand': ({
    name,
    hands,
    models,
  }) => prose`${capital(`${name === '' ? '' : `"${name}": `}${hands.replace(/^Set /, 'set ').replace(/\.$/, '')}`)} by
    hand on ${models.join(', ')}: a muster cannot.`,
  'not-typed-out': ({ told }) => told,
}
