/** What an SNMP agent is asked for, and what it answers. */
import { fromText, type Message, message } from '../../core/message/message'

export const snmpPort = 161

export interface SnmpUser {
  readonly user: string
  readonly authentication: string
  readonly privacy: string
}

/** SNMPv2-MIB (RFC 3418), the instance of each. */
export const systemGroup = {
  description: '1.3.6.1.2.1.1.1.0',
  objectId: '1.3.6.1.2.1.1.2.0',
  name: '1.3.6.1.2.1.1.5.0',
} as const

/** A number, an object identifier as text, or octets. */
export type SnmpValue = number | string | Uint8Array

export type SnmpAnswer =
  /** Of each object asked for, in order; undefined where the agent does not have it. */
  { readonly kind: 'told'; readonly values: readonly (SnmpValue | undefined)[] } | NotTold

export type NotTold = { readonly kind: 'refused'; readonly why: string } | { readonly kind: 'silent' }

export const notTold = (answer: NotTold): Message =>
  answer.kind === 'refused' ? message('snmp-refused', { why: fromText(answer.why) }) : message('seen-no-answer')

/** Signs and octets of one value that are kept. */
export const longestValue = 500

/** A value as one line of text, whatever it is. */
export function textOf(value: SnmpValue): string {
  return value instanceof Uint8Array ? plainText(Buffer.from(value).toString('utf8')) : String(value)
}

export const plainText = (text: string): string =>
  text
    .replace(/[^\x20-\x7e\u00a0-\uffff]+/g, ' ')
    .trim()
    .slice(0, longestValue)
