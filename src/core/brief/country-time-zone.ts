/** The time zone that a new job begins with. */

/**
 * Zones of the IANA list in which a country has places, as the runtime's tables have them; none where it is unknown.
 */
function zonesOf(country: string): readonly string[] {
  try {
    const locale = new Intl.Locale(`und-${country}`) as Intl.Locale & {
      timeZones?: string[]
      getTimeZones?: () => string[] | undefined
    }
    // Older runtimes have a property, newer ones a function.
    return locale.getTimeZones?.() ?? locale.timeZones ?? []
  } catch {
    return []
  }
}

/** What the clocks of a zone show against UTC, month by month. */
function clocksOf(timeZone: string, year: number): string {
  const format = new Intl.DateTimeFormat('en', { timeZone, timeZoneName: 'longOffset', year: 'numeric' })
  return Array.from({ length: 12 }, (_, month) => format.format(Date.UTC(year, month, 15))).join()
}

/**
 * @param country  two letters of ISO 3166-1
 * @param here     zone of whoever begins the job
 * @returns        theirs where the country has it, or has several; else the country's own
 */
export function timeZoneFor(country: string, here: string, today: Date): string {
  const zones = zonesOf(country)
  if (zones.includes(here)) return here
  const clocks = new Set(zones.map((zone) => clocksOf(zone, today.getUTCFullYear())))
  return clocks.size === 1 ? (zones[0] ?? here) : here
}
