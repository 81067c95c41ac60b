/** Old SSH, spoken where it is named (RFC 9142 says what is no longer safe, 2022), and told apart from what fails. */
import type { Algorithms, ConnectConfig } from 'ssh2'
import type { OldCrypto } from '../../core/kit/old-crypto'

/** What each name adds. */
const added = {
  'ssh-1024-bit-key-exchange': { kex: ['diffie-hellman-group1-sha1'] },
  'ssh-sha-1-key-exchange': { kex: ['diffie-hellman-group14-sha1', 'diffie-hellman-group-exchange-sha1'] },
  'ssh-sha-1-host-key': { serverHostKey: ['ssh-rsa'] },
  'ssh-dss-host-key': { serverHostKey: ['ssh-dss'] },
  'ssh-cbc-cipher': { cipher: ['aes256-cbc', 'aes192-cbc', 'aes128-cbc', '3des-cbc'] },
} as const satisfies Partial<Record<OldCrypto, { readonly [K in keyof Algorithms]?: readonly string[] }>>
type OldSsh = keyof typeof added

const isOfSsh = (name: OldCrypto): name is OldSsh => name in added
export const everyOldSsh = Object.keys(added) as OldSsh[]

/** What is offered to a unit: what is safe today, and beside it what is named. */
export function algorithmsFor(named: readonly OldCrypto[] = []): NonNullable<ConnectConfig['algorithms']> {
  const parts: { kex?: readonly string[]; serverHostKey?: readonly string[]; cipher?: readonly string[] }[] = named
    .filter(isOfSsh)
    .map((name) => added[name])
  const more = (kind: 'kex' | 'serverHostKey' | 'cipher'): string[] => parts.flatMap((part) => part[kind] ?? [])
  // The client's own list of host keys has one that signs with SHA-1.
  const isRsaNamed = more('serverHostKey').includes('ssh-rsa')
  return {
    kex: { append: more('kex'), prepend: [], remove: [] },
    serverHostKey: {
      append: more('serverHostKey').filter((each) => each !== 'ssh-rsa'),
      prepend: [],
      remove: isRsaNamed ? [] : ['ssh-rsa'],
    },
    cipher: { append: more('cipher'), prepend: [], remove: [] },
  } as unknown as NonNullable<ConnectConfig['algorithms']>
}

/** What was agreed upon, as the client tells it. */
export interface Agreed {
  readonly kex: string
  readonly serverHostKey: string
  readonly cs: { readonly cipher: string }
}

export function oldInSsh({ kex, serverHostKey, cs }: Agreed): OldSsh[] {
  const all = new Set<string>([kex, serverHostKey, cs.cipher])
  return everyOldSsh.filter((name) =>
    Object.values<readonly string[]>(added[name]).some((names) => names.some((each) => all.has(each))),
  )
}

/** Whether nothing was found that both take. */
export const isDisagreement = (error: Error): boolean =>
  /no matching (key exchange|host key|C->S cipher)/i.test(error.message)
