/** Names of plain leaves of a network: what a stand-in calls each, where that is not the leaf's own name. */
const otherNames: Readonly<Record<string, string>> = {
  enabled: 'on',
  band: 'bands',
  isolation: 'isolated',
  'rate-per-client': 'clientRate',
  'rate-shared': 'totalRate',
  'most-clients': 'clientLimit',
  steering: 'steer',
  'steering-above': 'steerAbove',
  'least-signal': 'letGoBelow',
  'fast-roaming': 'roaming',
  'mobility-domain': 'roamingDomain',
}
const leaves = new Map(Object.entries(otherNames).map(([leaf, field]) => [field, leaf]))

/** `multicastToUnicast` of `multicast-to-unicast`. */
export const fieldOf = (leaf: string): string =>
  otherNames[leaf] ?? leaf.replace(/-(.)/g, (_all, letter: string) => letter.toUpperCase())
/** And back. */
export const leafOf = (field: string): string =>
  leaves.get(field) ?? field.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)
