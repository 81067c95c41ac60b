/** A stand-in's tree as XML, and XML of a client as edits on it: code of its own, no client's. */
import { type ChildNode, type Element, isTag, isText } from 'domhandler'
import shape from '../../../../models/shape.json'
import { Refusal } from '../../device/refusal'
import { keysOf, type Node, type TreeEdit } from '../yang/tree'

const namespaces: Readonly<Record<string, string>> = shape.namespaces
const modules: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(namespaces).map(([module, namespace]) => [namespace, module]),
)
const namespaceOf = (module: string): string => namespaces[module] ?? `urn:unknown:${module}`
const isList = (parent: string, local: string): boolean => Object.hasOwn(shape.lists, `${parent}/${local}`)

export const tagsIn = (element: Element): Element[] => element.children.filter((child) => isTag(child))
export const localName = (element: Element): string => element.name.split(':').at(-1) ?? ''
export const textIn = (element: Element | undefined): string =>
  (element?.children ?? []).map((child: ChildNode) => (isText(child) ? child.data : '')).join('')

/** The namespace of a prefix, looked for outwards. */
function bound(element: Element, prefix: string): string | undefined {
  for (let at: Element | null = element; at; at = at.parent && isTag(at.parent) ? at.parent : null) {
    const here = at.attribs[prefix === '' ? 'xmlns' : `xmlns:${prefix}`]
    if (here !== undefined) return here
  }
  return undefined
}

const moduleOf = (element: Element): string | undefined => {
  const [prefix] = element.name.includes(':') ? element.name.split(':') : ['']
  return modules[bound(element, prefix ?? '') ?? '']
}

/** As a member of its parent is called. */
function memberName(element: Element, parentModule: string): string {
  const module = moduleOf(element)
  if (module === undefined) throw new Refusal('unknown-element', `${localName(element)} is not known here`)
  return module === parentModule ? localName(element) : `${module}:${localName(element)}`
}

function operationOf(element: Element): TreeEdit['operation'] | undefined {
  const [, value] = Object.entries(element.attribs).find(([name]) => /(^|:)operation$/.test(name)) ?? []
  if (value === undefined) return undefined
  if (!['create', 'delete', 'merge', 'remove', 'replace'].includes(value))
    throw new Refusal('invalid-value', `${value} is no operation`)
  return value as TreeEdit['operation']
}

/** What a `config` element has done, in its order. */
export function editsIn(config: Element): TreeEdit[] {
  return tagsIn(config).flatMap((top) => walk(top, '', '', ''))
}

function walk(element: Element, path: string, parentModule: string, parent: string): TreeEdit[] {
  const name = memberName(element, parentModule)
  const module = moduleOf(element) ?? ''
  const local = localName(element)
  const keys = keysOf(`${parent}/${local}`)
  const keyText = keys.map((key) =>
    encodeURIComponent(String(leafValue(tagsIn(element).find((each) => localName(each) === key)))),
  )
  const target = `${path}/${name}${keys.length === 0 ? '' : `=${keyText.join(',')}`}`
  const operation = operationOf(element)
  if (operation !== undefined || !holdsOperation(element)) {
    const value = valueIn(element)
    const what = operation ?? 'merge'
    if (what === 'remove' || what === 'delete') return [{ operation: what, target }]
    return [{ operation: what, target, value: { [`${module}:${local}`]: keys.length === 0 ? value : [value] } }]
  }
  return tagsIn(element)
    .filter((child) => !keys.includes(localName(child)))
    .flatMap((child) => walk(child, target, module, local))
}

const holdsOperation = (element: Element): boolean =>
  tagsIn(element).some((child) => operationOf(child) !== undefined || holdsOperation(child))

function valueIn(element: Element): unknown {
  const children = tagsIn(element)
  if (children.length === 0) return leafValue(element)
  const node: Node = {}
  const module = moduleOf(element) ?? ''
  const parent = localName(element)
  for (const child of children) {
    const name = memberName(child, module)
    const local = localName(child)
    if (!isList(parent, local)) node[name] = valueIn(child)
    else node[name] = [...((node[name] as unknown[] | undefined) ?? []), valueIn(child)]
  }
  return node
}

function leafValue(element: Element | undefined): unknown {
  if (!element) throw new Refusal('data-missing', 'a key is missing')
  const text = textIn(element)
  const name = localName(element)
  if (shape.numbers.includes(name)) return Number(text.trim())
  if (shape.flags.includes(name)) return text.trim() === 'true'
  if (!shape.identities.includes(name)) return text
  const [prefix, local] = text.trim().includes(':') ? text.trim().split(':') : ['', text.trim()]
  const module = modules[bound(element, prefix ?? '') ?? '']
  return module === undefined ? text.trim() : `${module}:${local}`
}

const escaped = (value: unknown): string =>
  String(value).replace(/[&<>]/g, (sign) => (sign === '&' ? '&amp;' : sign === '<' ? '&lt;' : '&gt;'))

/** A tree as XML. @param module  of the parent */
export function treeXml(node: Node, module = ''): string {
  return Object.entries(node)
    .map(([member, value]) => {
      const [own = '', local = ''] = member.includes(':') ? member.split(':') : [module, member]
      const head = own === module ? local : `${local} xmlns="${namespaceOf(own)}"`
      const all = Array.isArray(value) ? (value as unknown[]) : [value]
      return all
        .map((each) => {
          if (typeof each === 'object' && each !== null) return `<${head}>${treeXml(each as Node, own)}</${local}>`
          const identity = local === 'type' && typeof each === 'string' ? each.split(':') : []
          if (identity.length === 2)
            return `<${head} xmlns:id="${namespaceOf(identity[0] ?? '')}">id:${identity[1]}</${local}>`
          return `<${head}>${escaped(each)}</${local}>`
        })
        .join('')
    })
    .join('')
}

/** What a subtree filter (RFC 6241, 6) lets through. */
export function filtered(node: Node, filter: Element, module = ''): Node {
  const chosen: Node = {}
  for (const child of tagsIn(filter)) {
    const own = moduleOf(child) ?? ''
    const name = own === module ? localName(child) : `${own}:${localName(child)}`
    const value = Object.hasOwn(node, name) ? node[name] : undefined
    if (value === undefined) continue
    if (tagsIn(child).length === 0) chosen[name] = value
    else if (Array.isArray(value)) {
      const entries = (value as Node[]).filter((entry) => matches(entry, child))
      chosen[name] = entries.map((entry) => inner(entry, child, own))
    } else chosen[name] = inner(value as Node, child, own)
  }
  return chosen
}

/** Where only keys are named, the whole entry is meant. */
function inner(entry: Node, filter: Element, module: string): Node {
  const chooses = tagsIn(filter).filter((each) => tagsIn(each).length > 0 || textIn(each).trim() === '')
  return chooses.length === 0 ? entry : filtered(entry, filter, module)
}

const matches = (entry: Node, filter: Element): boolean =>
  tagsIn(filter).every((each) => {
    const text = textIn(each).trim()
    return tagsIn(each).length > 0 || text === '' || String(entry[localName(each)]) === text
  })
