/** The rules of the modules that look at several leaves: `must` and `when` (RFC 7950, 7.5.3 and 7.21.5). */
import * as xpath from 'fontoxpath'
import shape from '../../../../models/shape.json'
import { Refusal } from '../../device/refusal'
import { isNode, type Node } from './tree'

/** It is CommonJS: Node by itself gives it whole, as the default; whoever bundles it gives its names. */
const { evaluateXPathToBoolean } = 'default' in xpath ? (xpath.default as typeof xpath) : xpath

/** As XPath sees it: an element for each entry and leaf, with the text of a leaf within. */
interface XmlNode {
  readonly nodeType: 1 | 3 | 9
  readonly nodeName: string
  readonly localName: string
  readonly namespaceURI: null
  readonly prefix: null
  readonly data: string
  readonly parentNode: XmlNode | null
  readonly childNodes: XmlNode[]
}

const bare = (name: string): string => name.slice(name.indexOf(':') + 1)

/** Values by what they are on the wire: octets in base64, numbers in digits. */
const textOf = (value: unknown): string => (Buffer.isBuffer(value) ? value.toString('base64') : String(value))

const made = (node: Pick<XmlNode, 'nodeType' | 'nodeName'> & Partial<XmlNode>): XmlNode => ({
  localName: node.nodeName,
  namespaceURI: null,
  prefix: null,
  data: '',
  parentNode: null,
  childNodes: [],
  ...node,
})

function element(name: string, value: unknown, parentNode: XmlNode): XmlNode {
  const node = made({ nodeType: 1, nodeName: name, parentNode })
  if (isNode(value) && !Buffer.isBuffer(value)) grow(node, value)
  else node.childNodes.push(made({ nodeType: 3, nodeName: '#text', data: textOf(value), parentNode: node }))
  return node
}

function grow(node: XmlNode, value: Node): void {
  for (const [name, each] of Object.entries(value)) {
    if (each === undefined) continue
    for (const entry of Array.isArray(each) ? (each as unknown[]) : [each])
      node.childNodes.push(element(bare(name), entry, node))
  }
}

const beside = (node: XmlNode, step: 1 | -1): XmlNode | null => {
  const all = node.parentNode?.childNodes ?? []
  return all[all.indexOf(node) + step] ?? null
}
const facade = {
  getAllAttributes: () => [],
  getAttribute: () => null,
  getChildNodes: (node: XmlNode) => node.childNodes,
  getData: (node: XmlNode) => node.data,
  getFirstChild: (node: XmlNode) => node.childNodes[0] ?? null,
  getLastChild: (node: XmlNode) => node.childNodes.at(-1) ?? null,
  getNextSibling: (node: XmlNode) => beside(node, 1),
  getParentNode: (node: XmlNode) => node.parentNode,
  getPreviousSibling: (node: XmlNode) => beside(node, -1),
}

const at = (nodes: readonly XmlNode[], name: string): XmlNode[] =>
  nodes.flatMap(({ childNodes }) => childNodes.filter((child) => child.localName === bare(name)))

/**
 * @param tree       with the defaults of its leaves in their places
 * @param isExcused  whether a firmware does not keep to a rule
 * @throws Refusal with the words of the first rule that does not hold
 */
export function checkRules(tree: Node, isExcused: (test: string) => boolean): void {
  const root = made({ nodeType: 9, nodeName: '#document' })
  grow(root, tree)
  for (const { path, test, message, kind } of shape.rules) {
    if (isExcused(test)) continue
    const expression = test.replaceAll('current()', '$current')
    for (const node of path.slice(1).split('/').reduce(at, [root]))
      if (!evaluateXPathToBoolean(expression, node, facade as never, { current: node }))
        throw new Refusal(
          'invalid-value',
          message || `${bare(path.split('/').at(-1) ?? '')} does not go here: ${kind} ${test}`,
          path,
        )
  }
}
