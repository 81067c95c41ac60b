import { expect, it } from 'vitest'
import { timeZoneFor } from './country-time-zone'

it.each([
  ['DE', 'UTC', 'Europe/Berlin'],
  ['GB', 'America/New_York', 'Europe/London'],
  ['US', 'America/Chicago', 'America/Chicago'],
  ['US', 'UTC', 'UTC'],
  ['NZ', 'Pacific/Auckland', 'Pacific/Auckland'],
  ['00', 'Europe/Paris', 'Europe/Paris'],
])('a new job in %s that is begun in %s has the clocks of %s', (country, here, zone) => {
  expect(timeZoneFor(country, here, new Date('2026-11-30'))).toBe(zone)
})
