/**
 * What a simulated unit is like: every combination of what a kit card can state, and of what equipment does that no
 * card states. Each is drawn; none is written by hand.
 */
import fc from 'fast-check'

export interface UnitTraits {
  /** Changes wait until they are applied together, or each takes effect at once. */
  readonly applies: 'staged' | 'at-once'
  readonly saves: 'itself' | 'on-command'
  /** A move of its address takes itself back unless it is confirmed from the new one. */
  readonly move: 'confirmed' | 'for-good'
  readonly country: 'resets-radios' | 'leaves-radios'
  /** What it restarts after by itself. */
  readonly restarts: 'never' | 'country' | 'address' | 'apply'
  readonly boxed: 'static' | 'dhcp-first'
  /** What it shows of passphrases: themselves, nothing but that its configuration is another, or nothing at all. */
  readonly secrets: 'shown' | 'revision' | 'hidden'
  readonly sessions: 'many' | 'one' | 'one-lingers'
  /** A session is a connection, or each request signs in by itself. */
  readonly session: 'connection' | 'requests'
  readonly reachedBy: 'ipv4' | 'both'
  /** What it has on air out of its box; a preset is the site's own network with a passphrase of somebody else. */
  readonly networks: 'none' | 'open' | 'secured' | 'preset'
  readonly radios: 'on' | 'off'
  readonly writes: 'whole' | 'piece-by-piece'
  readonly speed: 'quick' | 'slow'
  readonly ping: 'answers' | 'silent'
  /** Whether it counts down how long it listens for radar. */
  readonly listening: 'counted' | 'not-counted'
  readonly firmware: 'as-wanted' | 'older'
  /** Whether its clock is right without a time server. */
  readonly clock: 'right' | 'wrong'
}

/** A unit that is set by itself, or through a controller that is such a unit itself. */
export interface SiteTraits {
  readonly units: readonly UnitTraits[]
  /** Access points that the first unit manages. */
  readonly managed: number
  /** Hands set the last of the units that are set by themselves. */
  readonly byHand?: true
  /** Units ask whoever comes first to make their admin, in the place of a login from the factory. */
  readonly firstAdmin?: true
  /** Out of their box units have no address but the link-local one, and ask DHCP for another. */
  readonly noAddress?: true
  readonly networks: readonly ('wpa2-personal' | 'wpa3-personal' | 'open')[]
  readonly addressing: 'static' | 'dhcp'
  /** Whether the site's DHCP server keeps the planned addresses for the units. */
  readonly leases: 'reserved' | 'from-the-pool' | 'none'
  readonly passwords: 'one-per-job' | 'one-per-unit'
  readonly radar: 'planned' | 'avoided'
  /** How many times faster than life the wire runs. */
  readonly pace: 1 | 10 | 30 | 100
  /** How often the bench is swept by itself, seconds of the wire. */
  readonly sweeps: 10 | 120
}

const either = <const T>(...values: readonly T[]) => fc.constantFrom(...values)

const unitTraits: fc.Arbitrary<UnitTraits> = fc.record({
  applies: either('at-once', 'staged'),
  saves: either('itself', 'on-command'),
  move: either('for-good', 'confirmed'),
  country: either('leaves-radios', 'resets-radios'),
  restarts: either('never', 'country', 'address', 'apply'),
  boxed: either('static', 'dhcp-first'),
  secrets: either('shown', 'revision', 'hidden'),
  sessions: either('many', 'one', 'one-lingers'),
  session: either('connection', 'requests'),
  reachedBy: either('ipv4', 'both'),
  networks: either('none', 'open', 'secured', 'preset'),
  radios: either('off', 'on'),
  writes: either('whole', 'piece-by-piece'),
  speed: either('quick', 'quick', 'quick', 'slow'),
  ping: either('answers', 'silent'),
  listening: either('counted', 'not-counted'),
  firmware: either('as-wanted', 'as-wanted', 'as-wanted', 'older'),
  clock: either('right', 'wrong'),
})

export const siteTraits: fc.Arbitrary<SiteTraits> = fc.record({
  units: fc.oneof(
    { arbitrary: fc.array(unitTraits, { minLength: 1, maxLength: 1 }), weight: 6 },
    { arbitrary: fc.array(unitTraits, { minLength: 2, maxLength: 2 }), weight: 2 },
    { arbitrary: fc.array(unitTraits, { minLength: 3, maxLength: 3 }), weight: 1 },
  ),
  managed: either(0, 0, 0, 1, 2, 2),
  networks: fc.array(either('wpa2-personal', 'wpa3-personal', 'open'), { minLength: 1, maxLength: 2 }),
  addressing: either('static', 'static', 'static', 'dhcp'),
  leases: either('reserved', 'none', 'from-the-pool'),
  passwords: either('one-per-job', 'one-per-unit'),
  radar: either('avoided', 'avoided', 'planned'),
  pace: either(30, 30, 30, 30, 100, 100, 100, 100, 100, 10, 10, 10, 10, 1),
  sweeps: either(120, 120, 120, 10),
})
