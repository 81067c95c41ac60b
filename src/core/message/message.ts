/**
 * Everything that the product tells a person is a code with parameters until it is shown. A code never changes its
 * meaning. The sentence is made last, in words/, in the reader's language; no program finds anything by a sentence.
 */
import { z } from 'zod'
import { table } from './table'

/** What a parameter can be: how a table of codes names it, and the type of its value. */
interface Values {
  readonly text: string
  readonly texts: readonly string[]
  readonly number: number
  readonly numbers: readonly number[]
  readonly 'text-or-none': string | null
  readonly 'number-or-none': number | null
  readonly flag: boolean
  readonly message: Message
  readonly messages: readonly Message[]
}
export type Kind = keyof Values

/** Codes with the kinds of their parameters. */
export type CodeTable = Readonly<Record<string, Readonly<Record<string, Kind>>>>

type ParamsIn<T extends CodeTable, C extends keyof T> = { readonly [P in keyof T[C]]: Values[T[C][P]] }

export type Code = keyof typeof table
export type Params<C extends Code> = ParamsIn<typeof table, C>

export interface Message<C extends Code = Code> {
  readonly code: C
  readonly params: { readonly [name: string]: ParamValue }
}
type ParamValue = string | number | boolean | null | Message | readonly ParamValue[]

/** A message: its parameters are those that the table names for its code. */
export function message<C extends Code>(
  code: C,
  ...[params]: keyof Params<C> extends never ? [] : [Params<C>]
): Message<C> {
  return { code, params: (params ?? {}) as Message['params'] }
}

/** The same as text, for what can carry nothing else: an `Error`, an issue of Zod. The code comes first. */
export function messageText<C extends Code>(
  code: C,
  ...rest: keyof Params<C> extends never ? [] : [Params<C>]
): string {
  return asText(message(code, ...rest))
}

export function asText({ code, params }: Message): string {
  return Object.keys(params).length === 0 ? code : `${code} ${JSON.stringify(params)}`
}

/** What `asText` has made; other text, such as the words of a device or of a library, stands as it was told. */
export function fromText(text: string): Message {
  const [, code = '', params] = /^([a-z0-9.-]+)(?: (\{.*\}))?$/s.exec(text) ?? []
  if (!(code in table)) return asTold(text)
  try {
    const parsed = messageSchema.safeParse({ code, params: params === undefined ? {} : JSON.parse(params) })
    return parsed.success ? parsed.data : asTold(text)
  } catch {
    return asTold(text)
  }
}

/** The message alone, of what carries other fields beside it: a fault, a difference. */
export const messageOf = ({ code, params }: Message): Message => ({ code, params })

/** Sentences one after another. */
export function together(sentences: readonly Message[]): Message<'together'> {
  return message('together', { sentences })
}

/** Words that somebody else has made: a device, a library, a release of before messages had codes. */
export function asTold(text: string): Message<'as-told'> {
  return message('as-told', { text })
}

/** Is it a message, as it was kept? Checked by hand: a log holds tens of thousands, and a schema of unions is slow. */
function isMessage(value: unknown): value is Message {
  return (
    isRecord(value) && typeof value.code === 'string' && Object.hasOwn(table, value.code) && areParams(value.params)
  )
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

const areParams = (value: unknown): value is Message['params'] =>
  isRecord(value) && Object.values(value).every(isParamValue)

function isParamValue(value: unknown): boolean {
  if (value === null || ['string', 'number', 'boolean'].includes(typeof value)) return true
  return Array.isArray(value) ? value.every(isParamValue) : isMessage(value)
}

export const messageParamsSchema = z.custom<Message['params']>(areParams)
export const messageSchema = z.custom<Message>(isMessage)

/** Parameters as a sentence takes them: messages among them are words already. */
type Worded<V> = V extends Message ? string : V extends readonly Message[] ? readonly string[] : V

/** The sentences of a table of codes, in one language. */
export type Sentences<T extends CodeTable> = {
  readonly [C in keyof T]: keyof T[C] extends never
    ? string
    : (params: { readonly [P in keyof T[C]]: Worded<Values[T[C][P]]> }) => string
}
