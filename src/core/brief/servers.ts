/** The servers that a brief names: units ask them, and no unit is given an address of theirs. */
import { parseIpv4 } from '../address/ipv4'
import type { Brief } from './brief'

const isAddress = (server: string): boolean => parseIpv4(server) !== undefined

/** Every server of the brief, as it stands there: an address, or a name that somebody has to resolve. */
function serversOf({ ntpServers, networks, aftercare }: Brief): string[] {
  const asked = [
    ...ntpServers,
    ...networks.flatMap(({ radius, accounting }) => [...radius, ...accounting].map(({ address }) => address)),
    ...(aftercare.syslog === null ? [] : [aftercare.syslog]),
    ...(aftercare.mail === null ? [] : [aftercare.mail.server]),
  ]
  return [...new Set(asked)]
}

/** Those that stand there as IPv4 addresses, in order and each once. */
export const serverAddresses = (brief: Brief): string[] => serversOf(brief).filter(isAddress)

/** Those that stand there as names: the site's own name servers know whose they are. */
export const serverNames = (brief: Brief): string[] => serversOf(brief).filter((server) => !isAddress(server))

/** Addresses of time servers, as DHCP gives them: option 42 takes no names (RFC 2132, 8.3). */
export const timeServerAddresses = ({ ntpServers }: Brief): string[] => ntpServers.filter(isAddress)
