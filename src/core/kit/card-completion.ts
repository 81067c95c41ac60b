/**
 * What can be typed next in a kit card, by the schema of cards.
 *
 * In: the text and the place of the cursor. Out: where the word under the cursor begins, and the fields, values or
 * settings that fit there. The text need not be whole: it is read with a mark where the cursor is.
 */
import { isMap, isPair, isScalar, isSeq, type Node, type Pair, parseDocument, visit } from 'yaml'
import { z } from 'zod'
import { settingIds } from '../catalogue/catalogue'
import { kitCardSchema } from './kit-card'

export interface CardWord {
  readonly word: string
  readonly kind: 'field' | 'value' | 'setting'
  /** What stands there, in a few words: `text, needed`. */
  readonly about: string
}

export interface CardCompletion {
  /** Where the word begins that is completed. */
  readonly from: number
  readonly words: readonly CardWord[]
}

/** The part of a JSON schema (draft 2020-12) that is read here. */
interface Shape {
  readonly type?: string | readonly string[]
  readonly properties?: Readonly<Record<string, Shape>>
  readonly additionalProperties?: Shape | boolean
  readonly required?: readonly string[]
  readonly items?: Shape
  readonly enum?: readonly unknown[]
  readonly const?: unknown
  readonly oneOf?: readonly Shape[]
  readonly anyOf?: readonly Shape[]
  readonly allOf?: readonly Shape[]
  readonly $ref?: string
  readonly $defs?: Readonly<Record<string, Shape>>
}

let known: Shape | undefined
/** Made when it is first asked for: only an editor does. */
function cardShape(): Shape {
  known ??= z.toJSONSchema(kitCardSchema, { io: 'input', unrepresentable: 'any' }) as Shape
  return known
}

const mark = 'typed-here'

export function completeCard(text: string, at: number): CardCompletion {
  const from = at - (/[\w.-]*$/.exec(text.slice(0, at))?.[0].length ?? 0)
  const end = at + (/^[\w.-]*/.exec(text.slice(at))?.[0].length ?? 0)
  const document = parseDocument(`${text.slice(0, from)}${mark}${text.slice(end)}`, { strict: false })
  let words: readonly CardWord[] = []
  visit(document, {
    Scalar: (role, node, path) => {
      if (node.value !== mark) return undefined
      const around = path.filter((each): each is Node | Pair => !isDocumentLike(each))
      words = role === 'key' ? fieldsAt(around.slice(0, -1)) : valuesAt(around)
      return visit.BREAK
    },
  })
  return { from, words: words.toSorted((a, b) => a.word.localeCompare(b.word)) }
}

const isDocumentLike = (node: unknown): boolean =>
  typeof node === 'object' && node !== null && 'contents' in node && 'directives' in node

/** Fields that the mapping does not have yet. @param around what stands around it, the mapping last */
function fieldsAt(around: readonly (Node | Pair)[]): CardWord[] {
  const map = around.at(-1)
  const present = new Set(isMap(map) ? map.items.map(({ key }) => (isScalar(key) ? String(key.value) : '')) : [])
  const { keys, shapes } = shapesAt(around)
  if (keys.length === 1 && keys[0] === 'can')
    return settingIds
      .filter((id) => !present.has(id))
      .map((id) => ({ word: id, kind: 'setting', about: 'a setting that the model takes' }))
  const words = new Map<string, CardWord>()
  for (const { properties = {}, required = [] } of shapes)
    for (const [word, shape] of Object.entries(properties))
      if (!present.has(word))
        words.set(word, { word, kind: 'field', about: about(shape, required.includes(word) ? 'needed' : 'optional') })
  return [...words.values()]
}

/** Words that a value may be; where a mapping belongs there, its fields. */
function valuesAt(around: readonly (Node | Pair)[]): CardWord[] {
  const { shapes } = shapesAt(around)
  const values = new Set(
    shapes.flatMap((shape) => shape.enum ?? (shape.const !== undefined ? [shape.const] : [])).map(String),
  )
  // A word that has digits alone is a text only within quotes.
  const typed = (value: string): string => (/^[\d.]+$/.test(value) && shapes.some(isText) ? `"${value}"` : value)
  return [
    ...[...values].map((value): CardWord => ({ word: typed(value), kind: 'value', about: 'one of its values' })),
    ...fieldsAt(around),
  ]
}

const isText = ({ type }: Shape): boolean => type === 'string'

/** Follows what stands around a place down the schema: every shape that may be there, and the names on the way. */
function shapesAt(around: readonly (Node | Pair)[]): { readonly keys: readonly string[]; readonly shapes: Shape[] } {
  let shapes = expanded([cardShape()])
  const keys: string[] = []
  for (const each of around) {
    if (isSeq(each)) {
      shapes = expanded(shapes.flatMap(({ items }) => items ?? []))
      continue
    }
    if (isMap(each)) shapes = fitting(shapes, each)
    if (!isPair(each) || !isScalar(each.key)) continue
    const key = String(each.key.value)
    keys.push(key)
    shapes = expanded(
      shapes.flatMap(({ properties, additionalProperties }) => {
        const rest = typeof additionalProperties === 'object' ? [additionalProperties] : []
        return properties?.[key] ?? rest
      }),
    )
  }
  return { keys, shapes }
}

/** Of several forms those whose constant fields are as the mapping has them: `kind: prompt` rules out all but one. */
function fitting(shapes: readonly Shape[], map: { get: (key: string) => unknown }): Shape[] {
  const fit = shapes.filter(({ properties = {} }) =>
    Object.entries(properties).every(([key, shape]) => {
      const value = map.get(key)
      return shape.const === undefined || value === undefined || value === mark || value === shape.const
    }),
  )
  return fit.length > 0 ? fit : [...shapes]
}

/** Choices and references taken apart. */
function expanded(shapes: readonly Shape[]): Shape[] {
  return shapes.flatMap((shape): Shape[] => {
    const name = shape.$ref?.replace('#/$defs/', '')
    const target = name === undefined ? undefined : cardShape().$defs?.[name]
    const parts = [...(shape.oneOf ?? []), ...(shape.anyOf ?? []), ...(shape.allOf ?? []), ...(target ? [target] : [])]
    return parts.length > 0 ? expanded(parts) : [shape]
  })
}

const typeWords: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'number',
  integer: 'whole number',
  array: 'list',
  object: 'fields',
  boolean: 'true or false',
}

function about(shape: Shape, need: 'needed' | 'optional'): string {
  const words = new Set(
    expanded([shape]).flatMap((each) => {
      if (each.enum || each.const !== undefined) return ['one of its values']
      return [each.type ?? []].flat().flatMap((type) => typeWords[type] ?? [])
    }),
  )
  return [...words, need].join(', ')
}
