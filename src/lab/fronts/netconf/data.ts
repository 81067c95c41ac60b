/** A stand-in's tree as XML, and XML of a client as edits on it: code of its own, no client's. */
import { type ChildNode, type Element, isTag, isText } from 'domhandler'
import { Refusal } from '../../device/refusal'
import { listKeys, type Node, type TreeEdit } from '../yang/tree'

const modules: Readonly<Record<string, string>> = {
  'urn:ietf:params:xml:ns:yang:ietf-system': 'ietf-system',
  'urn:ietf:params:xml:ns:yang:ietf-netconf-acm': 'ietf-netconf-acm',
  'urn:ietf:params:xml:ns:yang:ietf-interfaces': 'ietf-interfaces',
  'urn:ietf:params:xml:ns:yang:ietf-ip': 'ietf-ip',
  'urn:ietf:params:xml:ns:yang:ietf-routing': 'ietf-routing',
  'urn:ietf:params:xml:ns:yang:ietf-ipv4-unicast-routing': 'ietf-ipv4-unicast-routing',
  'urn:ietf:params:xml:ns:yang:iana-if-type': 'iana-if-type',
  'urn:uuid:6f0d6a2e-9d4b-4c55-8f0e-2b1c7a53e9d4': 'air-muster-wireless',
  'urn:uuid:c4b1f0d2-7a35-4f0e-9d61-52a8e4907b3f': 'air-muster-controller',
}
const namespaceOf = (module: string): string =>
  Object.entries(modules).find(([, name]) => name === module)?.[0] ?? `urn:unknown:${module}`

/** Entries that have no keys, by the name of what they stand in. */
const leafLists = new Set([
  'group/user-name',
  'rule-list/group',
  'access-point/network',
  'access-point/controller',
  'network/band',
  'hours/day',
  'client-list/mac',
])
const integers =
  /^(prefix-length|vlan|management-vlan|rate-.*|most-clients|steering-above|least-signal|mobility-domain|port|channel|width|beacon-interval)$/
const truths = new Set([
  'enabled',
  'hidden',
  'isolation',
  'fast-roaming',
  'open-confirmed',
  'https-only',
  'ssh',
  'telnet',
  'lights',
])

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
  const keys = leafLists.has(`${parent}/${local}`) ? [] : (listKeys[local] ?? []).filter(() => isList(parent, local))
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

/** Some names are lists in one place and leaves in others. */
const onlyWithin: Readonly<Record<string, readonly string[]>> = {
  server: ['ntp', 'dns-resolver'],
  address: ['ipv4'],
  user: ['authentication'],
  network: ['wireless'],
}
const isList = (parent: string, local: string): boolean => onlyWithin[local]?.includes(parent) ?? true

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
    const repeats = leafLists.has(`${parent}/${local}`) || (parent === 'radius' && local !== 'secret')
    const many = repeats || (listKeys[local] !== undefined && isList(parent, local))
    if (!many) node[name] = valueIn(child)
    else node[name] = [...((node[name] as unknown[] | undefined) ?? []), valueIn(child)]
  }
  return node
}

function leafValue(element: Element | undefined): unknown {
  if (!element) throw new Refusal('data-missing', 'a key is missing')
  const text = textIn(element)
  const name = localName(element)
  if (integers.test(name)) return Number(text.trim())
  if (truths.has(name)) return text.trim() === 'true'
  if (name !== 'type') return text
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
