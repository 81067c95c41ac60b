import type { briefMessages } from '../../../core/message/brief'
import type { Sentences } from '../../../core/message/message'
import { countryName } from '../../../core/regulatory/country'
import { prose } from '../../prose'
import { listenWords } from '../duration'
import { securityWords } from '../parts'

export const briefSentences: Sentences<typeof briefMessages> = {
  'address-not-ipv4': ({ text }) => `"${text}" is not an IPv4 address such as 10.44.8.1`,
  'subnet-not-ipv4': ({ text }) => `"${text}" is not a subnet such as 10.44.8.0/24`,
  'mac-not-six-pairs': ({ text }) =>
    prose`"${text}" is not a MAC address: it takes six pairs of 0-9 and a-f, such as 02:4f:52:10:6a:2c`,
  'country-two-capitals': 'a country is two capital letters, such as NZ',
  'site-without-name': 'name the site',
  'time-zone-unknown': 'this is not a time zone of the IANA list, such as Pacific/Auckland',
  'no-time-server': 'units need a time server: a wrong clock breaks joins and certificates',
  'radar-without-region': ({
    country,
  }) => prose`${countryName(country)} belongs to no radar region in the database, and has channels where access points
    must listen for radar all the same. Changing the country later resets channels on much equipment.`,
  'radar-none': ({
    country,
  }) => prose`${countryName(country)} has no radar channels in the database. Changing the country later resets channels
    on much equipment.`,
  'radar-rules': ({
    country,
    dfs,
  }) => prose`${countryName(country)} follows the ${dfs} radar rules. Changing the country later resets channels on much
    equipment, so nothing about radios is written before it.`,
  'not-a-subnet': ({ subnet }) => `${subnet} is not a subnet.`,
  'free-addresses': ({ count, subnet }) => `${count} static addresses are free for units in ${subnet}.`,
  'no-network-yet': 'No wireless network yet: units would be silent.',
  'the-management-network': 'the management network',
  'whatever-is-untagged': 'whatever is untagged',
  'vlan-by-number': ({ vlan }) => `VLAN ${vlan}`,
  'network-in-short': ({ ssid, security, bands, where }) =>
    prose`"${ssid}": ${securityWords(security)}, ${bands.join(' and ')} GHz, clients land in ${where}.`,
  'many-beacons': ({
    count,
  }) => prose`${count} networks each send a beacon ten times a second on every radio: airtime goes before the first
    client comes.`,
  'may-reach': ({ from, to }) => `${from} may reach ${to}.`,
  'kept-apart': ({ subnets }) => `${subnets.join(', ')}: out to the internet, and to nobody on the site.`,
  'pool-hands-out': ({ subnet, handed, left }) =>
    prose`${subnet} hands out ${handed} addresses and leaves ${left} for static use.`,
  'one-password': 'One admin password for every unit: one to write down, and one to lose.',
  'password-each': 'An admin password of its own for each unit: one that leaks opens one unit.',
  'keeps-mail': 'mail alerts',
  'keeps-restart': 'a weekly restart',
  'keeps-firmware': ({ firmware }) => `firmware ${firmware} or newer`,
  'keeps-firmware-of': ({ version, model }) => `firmware ${version} for ${model}`,
  'telnet-stays-off': 'Telnet stays off: it sends the admin password for all to read.',
  'kept-where-taken': ({ kept }) =>
    prose`Written where a model takes it, and said where one does not: ${kept.join(', ')}.`,
  'no-band': 'choose a band at least',
  'user-name-unfit': prose`a user is named in small letters, digits and dashes, beginning with a letter, such as
    night-watch`,
  'admin-name-unfit': 'an admin is named in small letters, digits and dashes, such as keeper',
  'too-many-users': 'eight users beside the admin at the most',
  'user-twice': 'two users have one name',
  'server-unfit': 'a server is an address or a name, such as 10.44.8.5 or mail.example',
  'version-unfit': 'a version is letters, digits, dots and dashes, such as 7.3.0',
  'digest-unfit': 'a digest is 64 hexadecimal digits',
  'snmp-user-unfit': 'an SNMP user is 1 to 32 letters, digits, dots or dashes',
  'alert-address-unfit': 'an alert goes to an address such as site@client.example',
  'too-many-images': 'a job keeps 16 images at most',
  'image-twice': 'a model has one image',
  'ssid-missing': 'a network takes a name',
  'ssid-too-long': ({ ssid, bytes, longest }) =>
    prose`"${ssid}" is ${bytes} bytes long; a network name holds ${longest} at the most`,
  'ssid-with-space': ({ ssid }) => `"${ssid}" begins or ends with a space, which people cannot see`,
  'ssid-half-character': ({ ssid }) => `"${ssid}" holds half of a character: type the name anew`,
  'vlan-unfit': 'a VLAN is a whole number from 1 to 4094 (IEEE 802.1Q)',
  'subnet-without-name': 'a subnet takes a name',
  'no-day': 'choose a day at least',
  'rate-unfit': 'a rate is a whole number of kbit/s from 64 to 10000000',
  'signal-unfit': 'a signal is a whole number of dBm from -95 to -40',
  'most-clients-unfit': 'the most clients are a whole number from 1 to 2000',
  'cipher-not-aes': prose`the cipher is AES-CCMP: TKIP is broken, and it holds every client to 54 Mbit/s (IEEE 802.11
    forbids it with high-throughput rates)`,
  'whole-number-unfit': ({ unit, least, most }) => `a whole number of ${unit} from ${least} to ${most}`,
  'time-of-day-unfit': 'a time of day is written 07:30, from 00:00 to 23:59',
  'text-too-large': ({ size, most }) => `it has ${size} kB; ${most} are the most`,
  'text-too-many-lines': ({ count, most }) => `it has ${count} lines; ${most} are the most`,
  'text-indent-too-deep': ({ indent, most }) => `it begins ${indent} spaces in; ${most} are the most`,
  'text-brackets-too-deep': ({ depth }) => `brackets are ${depth} deep at the most, and closed as often as opened`,
  'text-lists-too-deep': ({ depth }) => `lists are ${depth} deep at the most`,
  'text-too-many-marks': ({ most }) => `tags, anchors and aliases: ${most} are the most`,
  'text-too-many-entries': ({ most }) => `it has more than ${most} entries`,
  'text-levels-too-deep': ({ most }) => `it is more than ${most} levels deep`,
  'text-not-json': ({ reason }) => `it is not JSON (${reason})`,
  'unknown-reason': 'unknown reason',
  'not-one-line': 'this stands on one line, without tabs or other control characters',
  'pattern-too-long': ({ most }) => `an expression has ${most} characters at the most`,
  'pattern-unfit': ({ text, reason }) => `"${text}" is not a regular expression: ${reason}`,
  'switch-port-unfit': 'a switch port is a whole number from 1 to 512',
  'unit-without-name': 'a unit takes a name',
  'login-name-too-long': 'a name has 64 signs at the most',
  'login-password-missing': 'a password has one sign at least',
  'login-password-too-long': 'a password has 200 signs at the most',
  'passphrase-is-a-key': prose`These are 64 hexadecimal digits, a key of WPA2: WPA3 takes a passphrase of 8 to 63
    characters.`,
  'passphrase-not-ascii': prose`The passphrase has a character that is not plain ASCII: some clients could not type
    it.`,
  'passphrase-too-short': ({ count }) => `The passphrase has ${count} characters; WPA2 needs 8 at least.`,
  'passphrase-too-long': ({ count }) => `The passphrase has ${count} characters; WPA2 takes 63 at the most.`,
  'password-length-unfit': ({ model, shortest, longest }) =>
    prose`${model} takes an admin password of ${shortest} to ${longest} characters.`,
  'password-characters-unfit': ({ model, allowed }) => `${model} takes an admin password with ${allowed} only.`,
  'keeps-snmp': 'SNMPv3',
  'keeps-syslog': 'syslog',
  'band-without-channel': ({ country, band, width }) =>
    prose`In ${countryName(country)} at ${band} GHz no ${width} MHz channel is legal.`,
  'band-channels': ({ country, band, width, count, listening }) =>
    prose`In ${countryName(country)} at ${band} GHz: ${count} channels of ${width} MHz, ${listening}.`,
  'none-listens': 'none must listen for radar',
  'some-listen': ({ count }) => `${count} must listen for radar first`,
  'some-listen-long': ({ count, long, seconds }) =>
    prose`${count} must listen for radar first, ${long} of them for ${listenWords(seconds)}`,
  'short-range-used': ({
    count,
  }) => prose`${count} of them lie above 5725 MHz, where 25 mW is the most (EN 300 440): far less than elsewhere, and
    many clients do not look there.`,
  'short-range-left-out': ({
    count,
  }) => prose`${count} of them lie above 5725 MHz, where 25 mW is the most (EN 300 440): far less than elsewhere. They
    are left out.`,
  'power-about': ({ dbm }) =>
    prose`Units speak at about ${dbm} dBm, as loud as the weakest device answers; there is room to raise it.`,
  'power-less-at-24': ({ dbm }) => `At 2.4 GHz ${dbm} dBm, so that clients lean to 5 GHz.`,
}
