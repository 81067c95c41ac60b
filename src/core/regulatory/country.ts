/**
 * Names of countries, and the nearest codes to one that is not in the database.
 *
 * In: what somebody typed and the codes that there are. Out: codes with names, best match first.
 */

export interface CountryName {
  readonly code: string
  readonly name: string
}

const names = new Intl.DisplayNames(['en'], { type: 'region', fallback: 'none' })

/** English name of a country code; the world default has a name of its own, an unknown code names itself. */
export function countryName(code: string): string {
  if (code === '00') return 'World default'
  return names.of(code) ?? code
}

/** Countries with their names, in the order of the names. */
export function countriesByName(codes: Iterable<string>): CountryName[] {
  return [...codes].map((code) => ({ code, name: countryName(code) })).sort((a, b) => a.name.localeCompare(b.name))
}

/** Names that people type and that no list of official names holds. */
const commonNames: Readonly<Record<string, string>> = {
  UK: 'GB',
  EN: 'GB',
  ENGLAND: 'GB',
  SCOTLAND: 'GB',
  WALES: 'GB',
  USA: 'US',
  AMERICA: 'US',
  HOLLAND: 'NL',
  WORLD: '00',
}

/**
 * The codes nearest to what was typed: by the name's beginning, by a letter in common at the same place.
 *
 * @param typed  what the user wrote, a code or a name
 * @param codes  the codes in the database
 * @returns      at most five, best first; empty when nothing is near
 */
export function nearCountries(typed: string, codes: readonly string[]): CountryName[] {
  const wanted = typed.trim().toUpperCase()
  if (wanted === '') return []
  const score = (code: string): number => {
    const name = countryName(code).toUpperCase()
    if (commonNames[wanted] === code || name === wanted) return 10
    if (wanted.length > 2)
      return name.startsWith(wanted) ? 8 : name.includes(wanted) ? 6 : editDistance(name, wanted) <= 2 ? 5 : 0
    const [first, second] = wanted
    if (code === `${second}${first}`) return 4
    return (code[0] === first ? 2 : 0) + (code[1] === second ? 1 : 0)
  }
  return codes
    .map((code) => ({ code, name: countryName(code), score: score(code) }))
    .filter((each) => each.score > 0)
    .sort((a, b) => b.score - a.score || a.name.localeCompare(b.name))
    .slice(0, 5)
    .map(({ code, name }) => ({ code, name }))
}

/** Levenshtein distance, letters. */
function editDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, index) => index)
  for (let i = 1; i <= a.length; i += 1) {
    const next = [i]
    for (let j = 1; j <= b.length; j += 1) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1
      next.push(Math.min((next[j - 1] ?? 0) + 1, (row[j] ?? 0) + 1, (row[j - 1] ?? 0) + same))
    }
    row = next
  }
  return row[b.length] ?? 0
}
