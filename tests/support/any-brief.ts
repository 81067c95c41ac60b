/** Briefs at random, over every setting there is. */
import fc from 'fast-check'
import { type Brief, briefSchema } from '../../src/core/brief/brief'
import { securityModes } from '../../src/core/catalogue/security-mode'
import { days, steerings } from '../../src/core/catalogue/values'
import { demoBrief } from './data'

/** Values of every option, at random; what no brief may have is left to the review of briefs. */
const option = {
  flag: fc.boolean(),
  vlan: fc.option(fc.integer({ min: 1, max: 4094 }), { nil: null }),
  rate: fc.option(fc.integer({ min: 64, max: 100_000 }), { nil: null }),
  signal: fc.option(fc.integer({ min: -95, max: -40 }), { nil: null }),
  time: fc
    .tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 }))
    .map((parts) => parts.map((part) => String(part).padStart(2, '0')).join(':')),
}
const ssid = fc
  .string({ minLength: 1, maxLength: 5, unit: 'grapheme-composite' })
  .map((text) => `n${text}`.trim())
  .filter((text) => new TextEncoder().encode(text).length <= 31)
const network = fc.record({
  ssid,
  purpose: fc.constantFrom('staff', 'guests', 'voice', 'things'),
  bands: fc.subarray(['2.4', '5', '6'], { minLength: 1 }),
  security: fc.constantFrom(...securityModes),
  radius: fc.constant([{ address: '10.44.8.6' }]),
  accounting: fc.constantFrom([], [{ address: '10.44.8.6' }]),
  vlan: option.vlan,
  hidden: option.flag,
  isolation: option.flag,
  limits: fc.record({
    perClientKbps: option.rate,
    sharedKbps: option.rate,
    mostClients: fc.option(fc.integer({ min: 1, max: 2000 }), { nil: null }),
  }),
  hours: fc.option(fc.record({ days: fc.subarray([...days], { minLength: 1 }), from: option.time, to: option.time }), {
    nil: null,
  }),
  steering: fc.constantFrom(...steerings),
  steeringAboveDbm: option.signal,
  leastDbm: option.signal,
  fastRoaming: option.flag,
  macList: fc.constantFrom(
    { rule: 'none', macs: [] },
    { rule: 'allow', macs: ['02:00:00:00:00:01', '02:00:00:00:00:02'] },
    { rule: 'deny', macs: ['02:00:00:00:00:03'] },
  ),
})
export const anyBrief = fc
  .record({
    networks: fc.array(network, { maxLength: 4 }),
    bands: fc.subarray(['2.4', '5'], { minLength: 1 }),
    mode: fc.constantFrom(undefined, 'n', 'ac', 'ax', 'be'),
    lowRates: fc.constantFrom('kept', 'dropped'),
    beaconIntervalTu: fc.option(fc.integer({ min: 50, max: 1000 }), { nil: null }),
    snmp: fc.option(fc.constant({ user: 'watch' }), { nil: null }),
    syslog: fc.option(fc.constant('10.44.8.5'), { nil: null }),
    mail: fc.option(fc.constant({ server: 'mail.example', to: 'a@b.example' }), { nil: null }),
    restart: fc.option(fc.record({ day: fc.constantFrom(...days), at: option.time }), { nil: null }),
    firmware: fc.constantFrom('', '1.0', '9.9'),
    httpsOnly: option.flag,
    ssh: fc.constantFrom('on', 'off'),
    lights: fc.constantFrom('on', 'off'),
    furtherUsers: fc.subarray([
      { name: 'night-watch', role: 'reads' },
      { name: 'depot', role: 'administers' },
    ]),
    addressing: fc.constantFrom('static', 'dhcp'),
    managementTagged: option.flag,
    timeZone: fc.constantFrom('Pacific/Auckland', 'Europe/Berlin', 'Africa/Casablanca', 'Asia/Kolkata'),
  })
  .map(
    ({ networks, bands, mode, lowRates, beaconIntervalTu, httpsOnly, ssh, lights, furtherUsers, ...rest }): Brief => {
      const { snmp, syslog, mail, restart, firmware, addressing, managementTagged, timeZone } = rest
      return briefSchema.parse({
        ...demoBrief,
        addressing,
        managementTagged,
        timeZone,
        admin: { passwords: 'one-per-job', lights, furtherUsers },
        aftercare: { snmp, syslog, mail, restart, firmware, httpsOnly, ssh },
        radio: {
          ...demoBrief.radio,
          bands: bands.map((band) => ({ band, width: 20, ...(mode ? { mode } : {}) })),
          lowRates,
          beaconIntervalTu,
        },
        // One name stands once on a band.
        networks: networks.map((each, index) => ({
          ...each,
          id: `n${index}`,
          ssid: `${index}${each.ssid}`,
          openConfirmation: each.security === 'open' ? `${index}${each.ssid}` : '',
          pmf: 'by-security',
        })),
      })
    },
  )
