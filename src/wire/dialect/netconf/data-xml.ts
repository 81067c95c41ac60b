/** Data as JSON has it (RFC 7951), as XML and back; and edits of single places as one edit-config (RFC 6241, 7.2). */

import { message, messageText } from '../../../core/message/message'
import { type Element, xmlText } from '../../codec/xml'
import { WireError } from '../../errors/wire-error'
import { base } from '../../netconf/session'
import type { Edit } from '../yang/edits'
import { flags, identities, lists, modules, namespaces, numbers } from './schema'

type Data = Readonly<Record<string, unknown>>

/** An element with what stands in it; `module` is that of its parent. */
export function dataXml(name: string, value: unknown, module: string, attributes = ''): string {
  const [own, local] = name.includes(':') ? name.split(':') : [module, name]
  if (own === undefined || local === undefined) throw new TypeError(messageText('xml-name-unfit', { name }))
  const opening = `${local}${own === module ? '' : ` xmlns="${namespaceOf(own)}"`}${attributes}`
  if (Array.isArray(value))
    return value.length === 0 ? '' : value.map((each) => dataXml(name, each, module, attributes)).join('')
  if (typeof value === 'object' && value !== null) return `<${opening}>${membersXml(value as Data, own)}</${local}>`
  if (value === null || value === undefined) return `<${opening}/>`
  const text = String(value)
  if (identities.has(local) && text.includes(':')) {
    const [of = '', identity = ''] = text.split(':')
    return `<${opening} xmlns:of="${namespaceOf(of)}">of:${xmlText(identity)}</${local}>`
  }
  return `<${opening}>${xmlText(text)}</${local}>`
}

const membersXml = (data: Data, module: string): string =>
  Object.entries(data)
    .map(([name, value]) => dataXml(name, value, module))
    .join('')

function namespaceOf(module: string): string {
  const namespace = namespaces[module]
  if (namespace === undefined) throw new TypeError(messageText('yang-module-unknown', { module }))
  return namespace
}

/** A place on the way down: what is written there, and what lies below, each place once. */
interface Way {
  readonly opening: string
  readonly closing: string
  readonly below: Map<string, Way>
  readonly edits: string[]
}

/** One edit-config for all edits: whatever they have in common stands in it once. */
export function editsXml(edits: readonly Edit[]): string {
  const root: Way = { opening: '', closing: '', below: new Map(), edits: [] }
  for (const edit of edits) lay(root, edit)
  return written(root)
}

const written = ({ opening, closing, below, edits }: Way): string =>
  `${opening}${edits.join('')}${[...below.values()].map(written).join('')}${closing}`

/** Lays the way down to a place, and what is done there. */
function lay(root: Way, { operation, target, value }: Edit): void {
  const steps = target.split('/').slice(1)
  const attributes = ` xmlns:nc="${base}" nc:operation="${operation}"`
  let way = root
  let module = ''
  let parent = ''
  for (const [index, step] of steps.entries()) {
    const [name = '', keyText] = step.split('=')
    const [own, local] = name.includes(':') ? (name.split(':') as [string, string]) : [module, name]
    const keys = (keyText ?? '').split(',').filter(Boolean).map(decodeURIComponent)
    const names = lists[`${parent}/${local}`] ?? []
    if (index === steps.length - 1) {
      const content = value === undefined ? undefined : Object.values(value)[0]
      const whole = Array.isArray(content) && names.length > 0 ? (content[0] as unknown) : content
      // What is taken away is named by its keys alone.
      const here = whole ?? (names.length > 0 ? Object.fromEntries(names.map((key, at) => [key, keys[at]])) : null)
      way.edits.push(dataXml(own === module ? local : `${own}:${local}`, here, module, attributes))
      return
    }
    const known = way.below.get(step)
    const keyXml = names.map((key, at) => dataXml(key, keys[at], own)).join('')
    const next: Way = known ?? {
      opening: `<${local}${own === module ? '' : ` xmlns="${namespaceOf(own)}"`}>${keyXml}`,
      closing: `</${local}>`,
      below: new Map(),
      edits: [],
    }
    way.below.set(step, next)
    way = next
    module = own
    parent = local
  }
}

/** What stands in an element, by the names that JSON has. What is of no module that we know is left out. */
export function dataOf(element: Element, depth = 0): Record<string, unknown> {
  if (depth > 40) throw new WireError('garbled', message('data-nested-without-end'))
  const data: Record<string, unknown> = {}
  const here = modules.get(element.namespace)
  for (const child of element.children) {
    const module = modules.get(child.namespace)
    if (module === undefined) continue
    const name = module === here ? child.name : `${module}:${child.name}`
    const value = valueIn(child, depth)
    if (lists[`${element.name}/${child.name}`] === undefined) data[name] = value
    else {
      const known = data[name]
      if (Array.isArray(known)) known.push(value)
      else data[name] = [value]
    }
  }
  return data
}

function valueIn(element: Element, depth: number): unknown {
  if (element.children.length > 0) return dataOf(element, depth + 1)
  const text = element.text
  if (numbers.has(element.name)) return Number(text.trim())
  if (flags.has(element.name)) return text.trim() === 'true'
  if (!identities.has(element.name)) return text
  const [prefix, local] = text.trim().includes(':') ? text.trim().split(':') : ['', text.trim()]
  const module = modules.get(element.prefixes[prefix ?? ''] ?? '')
  return module === undefined ? text.trim() : `${module}:${local}`
}
