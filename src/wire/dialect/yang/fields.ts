/**
 * Where each setting stands in a unit's data (models/, RFC 7951), and how its value is written there, from the leaf
 * of its descriptor. The data is the unit's: what is not as it should be comes out as undefined, and is judged by the
 * reader.
 */
import { type IdOf, rowsOf, type SettingId } from '../../../core/catalogue/catalogue'
import type { Absent, LeafCodec, Scope, Setting } from '../../../core/catalogue/setting'

export interface Field {
  /** Steps from the network, the radio, or the top of the data. */
  readonly path: readonly string[]
  /** What stands for a leaf that is not there. */
  readonly absent: Absent
  /** Value of the catalogue out of the unit's. */
  from(data: unknown): unknown
  /** The unit's out of the catalogue's; undefined for a leaf that is left out. */
  to(value: unknown): unknown
}
type Codec = Pick<Field, 'from' | 'to'>

type Data = Readonly<Record<string, unknown>>
export const isData = (value: unknown): value is Data =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** A value at the end of a path; undefined where anything on the way is missing. */
export function dig(data: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>(
    (node, step) => (isData(node) && Object.hasOwn(node, step) ? node[step] : undefined),
    data,
  )
}

const plain: Codec = { from: (data) => data, to: (value) => value ?? undefined }

/** Addresses out of a list of servers, as ietf-system (RFC 7317) has them. */
const serversBy = (transport: 'udp' | 'udp-and-tcp'): Codec => ({
  ...plain,
  from: (data) => (Array.isArray(data) ? data.map((server) => dig(server, [transport, 'address'])) : undefined),
})

const codecs: Readonly<Record<LeafCodec, Codec>> = {
  octets: {
    from: (data) => (typeof data === 'string' ? Buffer.from(data, 'base64').toString('utf8') : undefined),
    to: (value) => Buffer.from(String(value), 'utf8').toString('base64'),
  },
  decimal: {
    from: (data) => (typeof data === 'string' && /^-?\d{1,3}(\.\d)?$/.test(data) ? Number(data) : undefined),
    to: (value) => Number(value).toFixed(1),
  },
  hours: {
    from: (data) => isData(data) && { days: data.day, from: data.from, to: data.to },
    to: (value) => (isData(value) ? { day: value.days, from: value.from, to: value.to } : undefined),
  },
  'client-list': {
    from: (data) => isData(data) && { rule: data.rule, macs: data.mac ?? [] },
    to: (value) => (isData(value) && value.rule !== 'none' ? { rule: value.rule, mac: value.macs } : undefined),
  },
  entries: { ...plain, to: (value) => (Array.isArray(value) && value.length > 0 ? value : undefined) },
  'time-servers': serversBy('udp'),
  'name-servers': serversBy('udp-and-tcp'),
}

function absentOf({ leaf, secret, nothing }: Pick<Setting, 'leaf' | 'secret' | 'nothing'>): Absent {
  if (leaf?.absent !== undefined) return leaf.absent
  if (secret) return 'unreadable'
  return nothing === undefined ? 'unsupported' : { value: nothing }
}

/** Those of a scope that stand at a place of their own; the rest is put together in `read`. */
function fieldsOf(scope: Scope): Partial<Record<SettingId, Field>> {
  return Object.fromEntries(
    rowsOf(scope).flatMap(({ id, setting }): [SettingId, Field][] => {
      const { leaf } = setting
      if (!leaf) return []
      const codec = leaf.codec ? codecs[leaf.codec] : plain
      return [[id, { path: leaf.path.split('/'), absent: absentOf(setting), ...codec }]]
    }),
  )
}

export const unitFields: Readonly<Partial<Record<SettingId, Field>>> = fieldsOf('unit')
export const networkFields = fieldsOf('network') as Readonly<Record<IdOf<'network'>, Field>>
export const radioFields = fieldsOf('radio') as Readonly<Record<IdOf<'radio'>, Field>>
