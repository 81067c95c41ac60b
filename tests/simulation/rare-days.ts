/**
 * Days of which freely drawn scenarios have too few: each draws its site and its faults from what makes it. Six
 * seeds of twenty are of such a day.
 */
import fc from 'fast-check'
import { callFault, type Fault, type Happening, kind, one, seconds, unit, when } from './faults'
import type { Scenario } from './scene'
import { type SiteTraits, siteTraits } from './traits'

const moment = one('before', 'after')
const drawn = (at: typeof when, what: fc.Arbitrary<Fault['what']>): fc.Arbitrary<Fault[]> =>
  fc.array(fc.record({ when: at, what, moment }), { maxLength: 3 })
const siteWith = (site: Partial<{ [K in keyof SiteTraits]: fc.Arbitrary<SiteTraits[K]> }>): typeof siteTraits =>
  fc.tuple(siteTraits, fc.record(site)).map(([common, own]) => ({ ...common, ...own }))

const power: fc.Arbitrary<Happening> = fc.record({ kind: kind('power'), unit: fc.oneof(unit, kind('all')), seconds })
const kill: fc.Arbitrary<Happening> = fc.record({ kind: kind('kill') })
const addressing = fc.record({ kind: kind('brief'), what: kind('addressing') })
const otherPlan = fc.record({ kind: kind('plan'), what: one('subnet', 'subnet', 'passed-on') })

/** Units ask DHCP, whose server sends them elsewhere, while the plan moves to another subnet. */
const movedAbout: fc.Arbitrary<Scenario> = (() => {
  const moved = fc.record({ kind: kind('dhcp-moves'), unit: one(0, 0, 1) })
  const what = fc.oneof(
    { arbitrary: moved, weight: 4 },
    { arbitrary: otherPlan, weight: 3 },
    addressing,
    power,
    kill,
    callFault,
  )
  const faults = drawn(when, what)
  return fc.record({
    seed: fc.integer(),
    site: siteWith({
      addressing: one('dhcp', 'dhcp', 'static'),
      leases: one('from-the-pool', 'from-the-pool', 'reserved', 'none'),
    }),
    faults,
    later: fc.array(fc.record({ change: fc.oneof(otherPlan, addressing), faults }), { minLength: 1, maxLength: 1 }),
  })
})()

/** Access points wait for turns with a controller that lets one in, and the laptop or the controller stands still. */
const heldUpAtController: fc.Arbitrary<Scenario> = (() => {
  const at = fc.record({
    call: one('sign-in', 'save', 'changes', 'write', 'read', 'joining'),
    nth: fc.oneof(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 30 })),
  })
  const freeze: fc.Arbitrary<Happening> = fc.record({ kind: kind('freeze'), seconds: one(90, 300) })
  const pause: fc.Arbitrary<Happening> = fc.record({ kind: kind('pause') })
  const what = fc.oneof({ arbitrary: callFault, weight: 4 }, { arbitrary: freeze, weight: 3 }, power, kill, pause)
  const site = siteWith({ managed: one(2, 3), addressing: one('static') })
  return fc.record({
    seed: fc.integer(),
    site: fc.tuple(site, one('one', 'many'), one('on-command', 'itself')).map(([each, sessions, saves]) => ({
      ...each,
      units: each.units.slice(0, 1).map((controller) => ({ ...controller, sessions, saves })),
    })),
    faults: drawn(at, what),
    later: fc.constant([]),
  })
})()

/** Addresses are passed on from unit to unit, and whoever asks who has one hears it late. */
const passedOn: fc.Arbitrary<Scenario> = (() => {
  const late = fc.record({ kind: kind('late'), seconds: one(5, 15, 40) })
  const asked = fc.record({
    when: fc.record({ call: kind('arp'), nth: fc.integer({ min: 1, max: 12 }) }),
    what: late,
    moment,
  })
  const change = fc.record({ kind: kind('plan'), what: one('passed-on', 'passed-on', 'trade') })
  return fc.record({
    seed: fc.integer(),
    site: siteWith({ addressing: one('static'), managed: one(0) }),
    faults: fc.constant([]),
    later: fc.array(fc.record({ change, faults: fc.array(asked, { minLength: 1, maxLength: 4 }) }), {
      minLength: 1,
      maxLength: 1,
    }),
  })
})()

/** Hands set one of the units, at any moment, while everything around it goes wrong. */
const byHands: fc.Arbitrary<Scenario> = (() => {
  const hands: fc.Arbitrary<Happening> = fc.record({ kind: kind('hands') })
  const at = fc.record({
    call: one('arp', 'lane', 'ping', 'connect', 'append', 'job', 'bench', 'roll'),
    nth: fc.oneof(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 40 })),
  })
  const around = one<Happening>(
    { kind: 'freeze', seconds: 90 },
    { kind: 'thief', unit: 0, seconds: 20 },
    { kind: 'wire-away', seconds: 20 },
    { kind: 'database-away', seconds: 20 },
    { kind: 'pause' },
  )
  const what = fc.oneof({ arbitrary: hands, weight: 4 }, { arbitrary: callFault, weight: 3 }, power, kill, around)
  const faults = drawn(fc.oneof(at, when), what)
  const change = fc.oneof(otherPlan, addressing, fc.record({ kind: kind('brief'), what: kind('name') }))
  return fc.record({
    seed: fc.integer(),
    site: fc
      .tuple(siteWith({ addressing: one('static'), managed: one(0) }), fc.constant(true as const))
      .map(([site, byHand]) => ({ ...site, byHand })),
    faults,
    later: fc.array(fc.record({ change, faults }), { maxLength: 1 }),
  })
})()

/** Units ask whoever comes first to make their admin, and that is lost, or its answer, or whoever asked. */
const firstAdmins: fc.Arbitrary<Scenario> = (() => {
  const at = fc.record({
    call: one('sign-in', 'sign-in', 'identify', 'append', 'read', 'save', 'apply', 'changes'),
    nth: fc.oneof(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 30 })),
  })
  const around = one<Happening>(
    { kind: 'freeze', seconds: 90 },
    { kind: 'thief', unit: 0, seconds: 20 },
    { kind: 'reset', unit: 0 },
    { kind: 'pause' },
  )
  const what = fc.oneof(
    { arbitrary: callFault, weight: 4 },
    { arbitrary: power, weight: 2 },
    { arbitrary: kill, weight: 3 },
    around,
  )
  const faults = drawn(fc.oneof(at, when), what)
  const change = fc.oneof(otherPlan, addressing, fc.record({ kind: kind('brief'), what: kind('name') }))
  return fc.record({
    seed: fc.integer(),
    site: fc
      .tuple(siteWith({ managed: one(0) }), fc.constant(true as const))
      .map(([site, firstAdmin]) => ({ ...site, firstAdmin })),
    faults,
    later: fc.array(fc.record({ change, faults }), { maxLength: 1 }),
  })
})()

/** Units have no address out of their box, and nobody may give them one; power, laptop and runner come and go. */
const withoutAddresses: fc.Arbitrary<Scenario> = (() => {
  const what = fc.oneof({ arbitrary: callFault, weight: 4 }, { arbitrary: power, weight: 3 }, kill, otherPlan)
  const faults = drawn(when, what)
  return fc.record({
    seed: fc.integer(),
    site: fc
      .tuple(
        siteWith({
          managed: one(0),
          addressing: one('static', 'static', 'dhcp'),
          leases: one('none', 'from-the-pool'),
        }),
        fc.constant(true as const),
      )
      .map(([site, noAddress]) => ({
        ...site,
        noAddress,
        units: site.units.map((each) => ({ ...each, boxed: 'dhcp-first' as const, reachedBy: 'both' as const })),
      })),
    faults,
    later: fc.array(fc.record({ change: fc.oneof(otherPlan, addressing), faults }), { maxLength: 1 }),
  })
})()

export const rareDays = [movedAbout, heldUpAtController, passedOn, byHands, firstAdmins, withoutAddresses] as const
