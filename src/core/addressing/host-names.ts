/** Names of units as DNS takes them (RFC 1123): letters, digits, dashes, at most 63; each another. */
import anyAscii from 'any-ascii'

const longest = 63

/**
 * In: names in any script, in order. Out: a host name for each, in the same order. Names that come out alike are
 * numbered; one of which nothing is left is `unit`.
 */
export function hostNames(names: readonly string[]): string[] {
  const plain = names.map(plainName)
  const counts = new Map<string, number>()
  for (const name of plain) counts.set(name, (counts.get(name) ?? 0) + 1)
  // Whoever has a name to himself keeps it: a numbered one gives way to him.
  const taken = new Set(plain.filter((name) => counts.get(name) === 1))
  return plain.map((name) => {
    if (counts.get(name) === 1) return name
    for (let number = 1; ; number += 1) {
      const tail = number === 1 ? '' : `-${number}`
      const candidate = `${name.slice(0, longest - tail.length)}${tail}`
      if (taken.has(candidate)) continue
      taken.add(candidate)
      return candidate
    }
  })
}

function plainName(name: string): string {
  return (
    anyAscii(name)
      .toLowerCase()
      .replace(/[^a-z0-9-]+/g, '-')
      .replace(/^-+/, '')
      .slice(0, longest)
      .replace(/-+$/, '') || 'unit'
  )
}
