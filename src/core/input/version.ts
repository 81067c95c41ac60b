/** Is a version of firmware this one or a later one? They are compared number by number: 2.10 comes after 2.9. */
export function isAtLeast(least: string, observed: string): boolean {
  const parts = (version: string): number[] =>
    version
      .split(/[^0-9]+/)
      .filter(Boolean)
      .map(Number)
  const [wanted, found] = [parts(least), parts(observed)]
  for (let at = 0; at < Math.max(wanted.length, found.length); at += 1) {
    const step = (found[at] ?? 0) - (wanted[at] ?? 0)
    if (step !== 0) return step > 0
  }
  return true
}
