/**
 * The table of settings against the restconf dialect and its stand-ins, without sockets: each setting arrives, reads
 * back, and is missed when the dialect forgets it.
 */

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { settingIds, settingOf } from '../../src/core/catalogue/catalogue'
import type { Asking } from '../../src/core/config/asking'
import { compare, stepOf } from '../../src/core/config/compare'
import { desiredOf } from '../../src/core/config/compile'
import { expectedOf, find, settled, spokenOf } from '../../src/core/config/outcomes'
import { type Clear, type Config, keyText, type ObservedConfig } from '../../src/core/config/unit-config'
import { type KitCard, modelName } from '../../src/core/kit/kit-card'
import { LabClock } from '../../src/lab/device/clock'
import { Device } from '../../src/lab/device/device'
import { sheets } from '../../src/lab/device/sheet'
import { carryOut } from '../../src/lab/fronts/yang/carry-out'
import { encode } from '../../src/lab/fronts/yang/encode'
import { editsFor, writes } from '../../src/wire/dialect/yang/edits'
import { networkFields, radioFields, unitFields } from '../../src/wire/dialect/yang/fields'
import { composed, toObserved } from '../../src/wire/dialect/yang/read'
import { sentence } from '../../src/words/en/sentence'
import { anyBrief } from '../support/any-brief'
import { askingFor, testMac } from '../support/config'
import { regulatory } from '../support/data'
import { wholeBrief } from '../support/whole-brief'

const models = ['Ostrel O-40', 'Ostrel O-20'] as const
type Model = (typeof models)[number]
const boxed = (model: string): Device => {
  const sheet = sheets.get(model)
  if (!sheet) throw new Error(`no ${model}`)
  return new Device(sheet, { mac: testMac, serial: 'S-1' }, new LabClock(1000), regulatory)
}
const read = (unit: Device): ObservedConfig => {
  const shown = encode(unit.configured, unit.sheet, 'as-shown')
  const state = { 'os-version': unit.sheet.firmware }
  return toObserved({
    configured: shown,
    operational: { ...shown, 'ietf-system:system-state': { platform: state } },
    asked: 'configured',
    managementInterface: 'uplink',
    admin: 'setup',
    at: 0,
  })
}

/** Writes as a muster does, step by step, without a unit that restarts in between. */
function muster(unit: Device, desired: Config<Clear>): void {
  for (const step of ['country', 'clock', 'networks', 'radios', 'services', 'address'] as const) {
    const differences = compare(desired, read(unit)).filter((each) => stepOf(each) === step)
    const place = {
      managementInterface: 'uplink',
      admin: 'setup',
      present: encode(unit.configured, unit.sheet, 'as-shown'),
    }
    carryOut(unit, editsFor(differences, desired, place))
  }
}

/** What is still not as asked, of what the unit shows. */
const left = (unit: Device, desired: Config<Clear>): string[] =>
  compare(desired, read(unit)).flatMap((each) => {
    if (each.kind !== 'value') return [sentence(each)]
    return settingOf(each.id).onlyRead || find(read(unit), each).kind === 'unreadable' ? [] : [keyText(each)]
  })

describe.each(models)('the restconf dialect with an %s', (model) => {
  const asking = askingFor(model, wholeBrief)
  const desired = desiredOf(asking)

  it('writes every setting that its card lists, and reads back what the unit shows', () => {
    const unit = boxed(model)
    muster(unit, desired)
    expect(left(unit, desired)).toEqual([])
  })

  /** Settings that this brief has the dialect write to this model. */
  const written = [
    ...new Set(spokenOf(asking).flatMap(({ id, outcome }) => (outcome.kind === 'open' ? [id] : []))),
  ].filter((id) => !settingOf(id).onlyRead && !settingOf(id).bySigningIn)

  it.each(written)('would be caught forgetting %s', (id) => {
    const tables: Record<string, unknown>[] = [networkFields, radioFields, unitFields, writes, composed] as never
    const before = tables.map((table) => [table, table[id]] as const)
    for (const table of tables) delete table[id]
    try {
      const unit = boxed(model)
      let refused = false
      try {
        muster(unit, desired)
      } catch {
        // A network without its name, or its passphrase, is refused outright.
        refused = true
      }
      // What is put together elsewhere is read there; what is hidden is told by what the unit has.
      const forgot = compare(desired, read(unit)).some((each) => each.kind !== 'value' || each.id === id)
      expect(refused || forgot).toBe(true)
    } finally {
      for (const [table, value] of before) if (value !== undefined) table[id] = value
    }
  })
})

/** A card that can do less than the model, at random: what it does not list must not be touched. */
const lesserCard = (asking: Asking<never>, lacking: ReadonlySet<string>): Asking<never> => {
  const can = Object.fromEntries(Object.entries(asking.card.can).filter(([id]) => !lacking.has(id))) as KitCard['can']
  return { ...asking, card: { ...asking.card, can } }
}
/** Without these there is no network, no address and no login to begin with. */
const needed = new Set([
  'network.ssid',
  'network.enabled',
  'network.bands',
  'network.security',
  'network.passphrase',
  'network.radius-servers',
  'network.radius-secret',
  'unit.country',
  'admin.user',
  'admin.password',
  ...settingIds.filter((id) => id.startsWith('management.') || id.startsWith('radio.')),
])
const spare = settingIds.filter((id) => !needed.has(id))

it('whatever the brief and the card: one outcome a setting, and what is proven the unit has', () => {
  fc.assert(
    fc.property(anyBrief, fc.constantFrom<Model>(...models), fc.subarray(spare), (brief, model, lacking) => {
      const full = askingFor(model, brief)
      const carried = brief.networks.filter(({ security }) => full.card.limits.security.includes(security))
      const asking = lesserCard({ ...full, brief: { ...brief, networks: carried } }, new Set(lacking))
      const desired = desiredOf(asking)
      const unit = boxed(model)
      const untouched = structuredClone(unit.configured)
      muster(unit, desired)

      const expected = expectedOf(asking)
      const keys = expected.map(keyText)
      expect(new Set(keys).size).toBe(keys.length)
      const observed = read(unit)
      const marks = new Map(
        expected.filter((each) => find(observed, each).kind === 'unreadable').map((each) => [keyText(each), each.mark]),
      )
      const value = (each: { id: string; of: string }): unknown => {
        const { scope } = settingOf(each.id as never)
        const values =
          scope === 'unit' ? desired.unit : scope === 'network' ? desired.networks[each.of] : desired.radios[each.of]
        return (values as Record<string, unknown> | undefined)?.[each.id]
      }
      for (const { id, of, outcome } of settled(expected, value, observed, marks)) {
        const words = `${id} ${of} is ${outcome.kind}`
        if (lacking.includes(id as never)) expect(['by-hand', 'not-for-it'], words).toContain(outcome.kind)
        if (outcome.kind !== 'proven' || settingOf(id).bySigningIn) continue
        // Proven by what the unit says; and what it says is what it has.
        expect(has(unit, id, of), words).toEqual(value({ id, of }))
      }
      // Under a static address nothing of this is left to chance but the clock, which no time server has set here.
      if (brief.addressing === 'static')
        expect(
          settled(expected, value, observed, marks)
            .filter(({ outcome }) => outcome.kind === 'open')
            .map(({ id }) => id)
            .filter((id) => id !== 'clock.time'),
          modelName(asking.card),
        ).toEqual([])
      if (lacking.includes('services.lights')) expect(unit.configured.lights).toBe(untouched.lights)
      expect(unit.configured.networks.every(({ mode, meantOpen }) => mode !== 'open' || meantOpen)).toBe(true)
    }),
    { numRuns: 100 },
  )
})

/** What the stand-in really has of a setting, by its own words. */
function has(unit: Device, id: string, of: string): unknown {
  const { configured } = unit
  const crew = configured.networks.find((each) => each.id === of)
  const radio = configured.radios.find((each) => each.band === of)
  const further = configured.users.filter((name) => name !== 'setup')
  const passwordOf = (name: string): string => `Secret of user/${name}/password`
  const known: Record<string, unknown> = {
    'unit.name': configured.name,
    'unit.location': configured.location,
    'unit.country': configured.country,
    'unit.environment': configured.environment,
    'unit.firmware': undefined,
    'clock.time-zone': configured.zoneName ?? configured.zoneRule,
    'clock.ntp-servers': configured.timeServers,
    'management.method': configured.wired.method,
    'management.address': configured.wired.address,
    'management.prefix': configured.wired.prefix,
    'management.gateway': configured.gateway,
    'management.dns-servers': configured.nameServers,
    'management.vlan': configured.wired.vlan,
    'admin.further-users': further.map((name) => ({ name, role: unit.mayChange(name) ? 'administers' : 'reads' })),
    'admin.further-passwords': Object.fromEntries(
      further.flatMap((name) => (unit.accepts(name, passwordOf(name)) ? [[name, passwordOf(name)]] : [])),
    ),
    'services.https-only': configured.httpsOnly,
    'services.ssh': configured.ssh,
    'services.telnet': configured.telnet,
    'services.snmp-user': configured.snmp?.user ?? null,
    'services.snmp-authentication': configured.snmp?.authentication,
    'services.snmp-privacy': configured.snmp?.privacy,
    'services.syslog': configured.syslog,
    'services.mail': configured.mail,
    'services.lights': configured.lights,
    'services.restart': configured.restart,
    'network.ssid': crew?.name,
    'network.enabled': crew?.on,
    'network.bands': crew?.bands,
    'network.security': crew?.mode,
    'network.cipher': crew?.cipher,
    'network.pmf': crew?.frames,
    'network.passphrase': crew?.passphrase,
    'network.radius-servers': crew?.radius?.servers.map(({ host, port }) => ({ address: host, port })),
    'network.radius-accounting': crew?.radius?.accounting.map(({ host, port }) => ({ address: host, port })),
    'network.vlan': crew?.vlan,
    'network.hidden': crew?.hidden,
    'network.isolation': crew?.isolated,
    'network.multicast-to-unicast': crew?.multicastToUnicast,
    'network.rate-per-client': crew?.clientRate,
    'network.rate-shared': crew?.totalRate,
    'network.most-clients': crew?.clientLimit,
    'network.hours': crew?.hours,
    'network.steering': crew?.steer,
    'network.steering-above': crew?.steerAbove,
    'network.least-signal': crew?.letGoBelow,
    'network.fast-roaming': crew?.roaming,
    'network.mobility-domain': crew?.roamingDomain,
    'network.mac-list': crew?.clients ?? { rule: 'none', macs: [] },
    'radio.enabled': radio?.on,
    'radio.mode': radio?.generation,
    'radio.channel': radio?.channel,
    'radio.width': radio?.width,
    'radio.power': radio?.power,
    'radio.low-rates': radio?.lowRates,
    'radio.beacon-interval': radio?.beacon,
  }
  // A firmware at least as new is not the same.
  if (id === 'unit.firmware') return settingValue(unit)
  return known[id]
}
const settingValue = (unit: Device): string => (unit.sheet.firmware >= '1.0' ? '1.0' : '')
