/**
 * A fault of a brief: the field that it belongs to, a code, and where there is one a way to mend it by one press.
 */
import type { Brief } from '../brief/brief'
import type { Message } from '../message/message'

/** What can be wrong with a brief: each is a code of the table of messages. */
export const briefFaultCodes = [
  'not-typed-out',
  '6-ghz-without-wpa3',
  '6-ghz-without-wpa3-roaming',
  'frames-do-not-fit',
  'allow-list-empty',
  'band-without-radio',
  'clients-let-go',
  'clients-on-management',
  'country-without-rules',
  'enterprise-without-server',
  'factory-address-in-subnet',
  'fast-roaming-for-things',
  'fast-roaming-without-key',
  'gateway-in-pool',
  'gateway-outside',
  'guests-together',
  'hidden-name',
  'hours-are-none',
  'kept-address-in-pool',
  'image-too-old',
  'low-rates-for-things',
  'name-twice-on-a-band',
  'open-network',
  'open-network-unconfirmed',
  'passphrase-guessable',
  'passphrase-is-its-name',
  'plain-http',
  'range-backwards',
  'range-outside',
  'rates-cross',
  'reserved-outside',
  'security-not-carried',
  'set-by-hand',
  'ssh-stays-on',
  'static-range-in-pool',
  'steering-without-choice',
  'subnets-overlap',
  'syslog-out-of-reach',
  'no-host-address',
  'server-out-of-reach',
  'guests-reach-management',
  'things-reach-management',
  'talk-to-nobody',
  'things-kept-from-2.4',
  'too-many-networks',
  'vlan-twice',
  'vlan-without-subnet',
  'wide-at-24',
  'width-not-legal',
  'width-not-legal-outdoors',
  'wpa3-for-things',
] as const
export type BriefFaultCode = (typeof briefFaultCodes)[number]

export interface BriefFault extends Message<BriefFaultCode> {
  /** Path of the field in the brief, with dots. */
  readonly field: string
  /** `mend` must be dealt with before the muster; `know` is a danger that the installer takes with open eyes. */
  readonly weight: 'mend' | 'know'
  readonly mend?: Mend
}

export type Mend =
  | (Message & { readonly set: readonly { readonly path: string; readonly value: unknown }[] })
  /** Makes a new secret under this name of the vault. */
  | (Message & { readonly make: string })

/** The brief with the values of a mend in their places. Paths lead through what is there. */
export function applyMend(brief: Brief, set: readonly { readonly path: string; readonly value: unknown }[]): Brief {
  const next = structuredClone(brief) as unknown as Record<string, unknown>
  for (const { path, value } of set) {
    const keys = path.split('.')
    const last = keys.pop()
    let at: Record<string, unknown> = next
    for (const key of keys) at = at[key] as Record<string, unknown>
    if (last !== undefined) at[last] = value
  }
  return next as unknown as Brief
}
