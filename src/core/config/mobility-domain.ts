/**
 * The mobility domain of a network (IEEE 802.11-2020, 9.4.2.46): the same on all units of a site, and most likely
 * another on the next site. Made of the names alone, so that nobody has to keep it.
 *
 * @returns 1 to 65535
 */
export function mobilityDomain(site: string, network: string): number {
  // FNV-1a, 32 bit, folded to 16.
  let hash = 0x811c9dc5
  for (const byte of new TextEncoder().encode(`${site}\n${network}`)) hash = Math.imul(hash ^ byte, 0x01000193) >>> 0
  return (hash >>> 16) ^ (hash & 0xffff) || 1
}
