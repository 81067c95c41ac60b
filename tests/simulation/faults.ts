/** What can go wrong in a simulation: drawn, each by itself, so that a failing run can be shrunk to what matters. */
import fc from 'fast-check'

/** Everything that a runner asks of the world. */
export const calls = {
  records: ['claim', 'renew', 'end', 'threw', 'place', 'append', 'roll', 'bench', 'job', 'secrets', 'pin', 'copy'],
  host: ['laptop', 'arp', 'neighbours', 'heard', 'keep-off', 'lane', 'ping', 'connect'],
  session: [
    'identify',
    'sign-in',
    'read',
    'write',
    'password',
    'changes',
    'revision',
    'apply',
    'confirm',
    'save',
    'install',
    'air',
    'backup',
    'joining',
  ],
} as const
export type CallName = (typeof calls)[keyof typeof calls][number]
export const portOf = (name: CallName): keyof typeof calls =>
  (Object.keys(calls) as (keyof typeof calls)[]).find((port) => (calls[port] as readonly string[]).includes(name)) ??
  'host'

/** What becomes of one call. */
export type CallFault =
  | { readonly kind: 'late'; readonly seconds: number }
  /** It fails before it had any effect. */
  | { readonly kind: 'fails' }
  /** It takes effect, and the answer is lost. */
  | { readonly kind: 'loses-answer' }
  /** What comes back is not what the protocol allows. */
  | { readonly kind: 'garbled' }
  /** The unit answers as it was before its last change. */
  | { readonly kind: 'older' }

/** What happens in the world. Units are counted from 0; seconds are the wire's. */
export type Happening =
  | { readonly kind: 'power'; readonly unit: number | 'all'; readonly seconds: number }
  | { readonly kind: 'reset'; readonly unit: number }
  /** Its twin stands in its place for a while: same model, another box. */
  | { readonly kind: 'swap'; readonly unit: number; readonly seconds: number }
  | { readonly kind: 'certificate'; readonly unit: number }
  /** Somebody else changes it. */
  | { readonly kind: 'meddle'; readonly unit: number; readonly what: 'name' | 'password' | 'network' | 'radio' }
  /** Somebody else has the address that the plan gives to a unit. */
  | { readonly kind: 'thief'; readonly unit: number; readonly seconds: number }
  /** A lane leads to whoever else has the address. */
  | { readonly kind: 'astray'; readonly seconds: number }
  | { readonly kind: 'dhcp-moves'; readonly unit: number }
  /** The runner ends without goodbye; another is started. */
  | { readonly kind: 'kill' }
  /** The runner stands still; another takes over meanwhile. */
  | { readonly kind: 'freeze'; readonly seconds: number }
  | {
      readonly kind: 'sleep'
      readonly seconds: number
      readonly monotonic: 'runs' | 'stands'
      /** Another laptop may work on with the same database. */
      readonly meanwhile?: 'another-works'
    }
  /** The lid is shut, and meanwhile a unit is carried from one socket to another. */
  | { readonly kind: 'carried'; readonly unit: number; readonly seconds: number }
  | { readonly kind: 'wall-clock'; readonly seconds: number }
  | { readonly kind: 'database-away'; readonly seconds: number }
  | { readonly kind: 'wire-away'; readonly seconds: number }
  | { readonly kind: 'new-password'; readonly how: 'made-anew' | 'other-policy' }
  | { readonly kind: 'brief'; readonly what: 'passphrase' | 'name' | 'network-gone' | 'addressing' }
  | { readonly kind: 'plan'; readonly what: 'addresses' | 'passed-on' | 'trade' | 'subnet' }
  | { readonly kind: 'kit'; readonly unit: number }
  | { readonly kind: 'pause' }
  /** Hands set the unit that is theirs. */
  | { readonly kind: 'hands' }
  | { readonly kind: 'muster-one'; readonly unit: number }
  | { readonly kind: 'delete-job' }

export interface Fault {
  /** The n-th call of a name from now on, or a time of the wire. */
  readonly when: { readonly call: CallName | 'any'; readonly nth: number } | { readonly second: number }
  readonly what: CallFault | Happening
  /** Of a happening at a call: before or after that took effect. */
  readonly moment: 'before' | 'after'
}

const callFaultKinds = ['late', 'fails', 'loses-answer', 'garbled', 'older'] as const
export const isCallFault = (what: Fault['what']): what is CallFault =>
  (callFaultKinds as readonly string[]).includes(what.kind)

export const one = <const T>(...values: readonly T[]) => fc.constantFrom(...values)
export const kind = <const K extends string>(name: K) => fc.constant(name)
export const unit = fc.integer({ min: 0, max: 4 })
export const seconds = one(1, 3, 8, 20, 45, 90, 200)
const briefChange = one('passphrase', 'name', 'network-gone', 'addressing')
const planChange = one('addresses', 'passed-on', 'trade', 'subnet')

export const callFault: fc.Arbitrary<CallFault> = fc.oneof(
  fc.record({ kind: kind('late'), seconds: one(1, 5, 15, 40) }),
  fc.record({ kind: one('fails', 'loses-answer', 'garbled', 'older') }),
)

const happening: fc.Arbitrary<Happening> = fc.oneof(
  { arbitrary: fc.record({ kind: kind('power'), unit: fc.oneof(unit, kind('all')), seconds }), weight: 4 },
  { arbitrary: fc.record({ kind: kind('kill') }), weight: 4 },
  { arbitrary: fc.record({ kind: kind('freeze'), seconds: one(20, 90, 300) }), weight: 3 },
  fc.record({ kind: kind('reset'), unit }),
  fc.record({ kind: kind('swap'), unit, seconds }),
  fc.record({ kind: kind('certificate'), unit }),
  fc.record({ kind: kind('meddle'), unit, what: one('name', 'password', 'network', 'radio') }),
  fc.record({ kind: kind('thief'), unit, seconds }),
  fc.record({ kind: kind('astray'), seconds }),
  { arbitrary: fc.record({ kind: kind('dhcp-moves'), unit }), weight: 2 },
  fc.record({ kind: kind('sleep'), seconds: one(10, 100, 3000), monotonic: one('runs', 'stands') }),
  fc.record({
    kind: kind('sleep'),
    seconds: one(10, 30, 100),
    monotonic: one('runs', 'stands'),
    meanwhile: kind('another-works'),
  }),
  { arbitrary: fc.record({ kind: kind('carried'), unit, seconds: one(30, 100, 300) }), weight: 2 },
  fc.record({ kind: kind('wall-clock'), seconds: one(-3600, -5, 5, 600, 86_400) }),
  fc.record({ kind: kind('database-away'), seconds }),
  fc.record({ kind: kind('wire-away'), seconds }),
  fc.record({ kind: kind('new-password'), how: one('made-anew', 'other-policy') }),
  fc.record({ kind: kind('brief'), what: briefChange }),
  fc.record({ kind: kind('plan'), what: planChange }),
  fc.record({ kind: kind('kit'), unit }),
  { arbitrary: fc.record({ kind: kind('pause') }), weight: 3 },
  fc.record({ kind: kind('muster-one'), unit }),
  { arbitrary: fc.record({ kind: kind('delete-job') }), weight: 1 },
)

/** Calls of which there are few, and that change something: most faults are aimed at them. */
const telling = [
  'write',
  'password',
  'apply',
  'confirm',
  'save',
  'install',
  'append',
  'sign-in',
  'read',
  'changes',
  'copy',
  'air',
  'revision',
  'pin',
  'joining',
  'claim',
  'renew',
  'job',
] as const

export const when: fc.Arbitrary<Fault['when']> = fc.oneof(
  { arbitrary: fc.record({ call: one(...telling), nth: one(1, 1, 1, 2, 2, 3, 4, 5, 6) }), weight: 5 },
  { arbitrary: fc.record({ call: kind('any'), nth: fc.integer({ min: 1, max: 250 }) }), weight: 3 },
  { arbitrary: fc.record({ second: fc.integer({ min: 1, max: 100 }) }), weight: 2 },
)

/** What somebody changes of a job that was mustered, before it is mustered again. */
export type JobChange = Extract<Happening, { kind: 'brief' | 'plan' | 'kit' | 'new-password' }>

const jobChange: fc.Arbitrary<JobChange> = fc.oneof(
  { arbitrary: fc.record({ kind: kind('brief'), what: briefChange }), weight: 3 },
  { arbitrary: fc.record({ kind: kind('plan'), what: planChange }), weight: 3 },
  fc.record({ kind: kind('new-password'), how: one('made-anew', 'other-policy') }),
  fc.record({ kind: kind('kit'), unit }),
)

/** A later muster of the same job: what was changed before it, and what goes wrong meanwhile. */
export interface Later {
  readonly change: JobChange
  readonly faults: readonly Fault[]
}

export const faults: fc.Arbitrary<Fault[]> = fc.array(
  fc.record({
    when,
    what: fc.oneof({ arbitrary: callFault, weight: 2 }, { arbitrary: happening, weight: 5 }),
    moment: one('before', 'after'),
  }),
  { maxLength: 4 },
)

export const later: fc.Arbitrary<Later[]> = fc.oneof(
  { arbitrary: fc.constant<Later[]>([]), weight: 2 },
  { arbitrary: fc.array(fc.record({ change: jobChange, faults }), { minLength: 1, maxLength: 1 }), weight: 1 },
)
