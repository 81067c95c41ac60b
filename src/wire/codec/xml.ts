/**
 * XML as NETCONF has it (RFC 6241, 3), and host metadata (RFC 6415): elements with their namespaces. What comes is
 * hostile: no document type, no entities but XML's own, bounded in depth, in number and in size, and every element
 * closed.
 */

import { SaxesParser, type SaxesTagNS } from 'saxes'
import { asTold, type Message, message } from '../../core/message/message'
import { WireError } from '../errors/wire-error'
import { inSlices } from './in-slices'

export interface Element {
  readonly name: string
  readonly namespace: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: readonly Element[]
  readonly text: string
  /** Namespaces by the prefixes that are known here, for values that are names themselves. */
  readonly prefixes: Readonly<Record<string, string>>
}

interface Growing extends Element {
  readonly children: Growing[]
  text: string
}

const deepest = 64
const mostElements = 100_000
/** Prefixes that are known in one place: each element that declares one has a copy of all of them. */
const mostPrefixes = 64
/** Attributes of one element. */
const mostAttributes = 256

/** @throws WireError garbled */
export async function parseXml(text: string): Promise<Element> {
  const path: Growing[] = []
  let root: Growing | undefined
  let count = 0
  let attributesHere = 0
  const fail = (why: Message): never => {
    throw new WireError('garbled', message('no-xml', { why }))
  }
  const parser = new SaxesParser({ xmlns: true, position: false })
  parser.on('error', (error) => fail(asTold(error.message)))
  parser.on('doctype', () => fail(message('xml-document-type')))
  parser.on('attribute', () => {
    attributesHere += 1
    if (attributesHere > mostAttributes) fail(message('xml-attributes-without-end'))
  })
  parser.on('opentag', ({ local, uri, ns, attributes }) => {
    count += 1
    attributesHere = 0
    if (count > mostElements) fail(message('xml-elements-without-end'))
    if (path.length >= deepest) fail(message('xml-nested-without-end'))
    const parent = path.at(-1)
    const element = opened({ local, uri, ns, attributes }, parent?.prefixes ?? noPrefixes)
    if (element.prefixes !== parent?.prefixes && Object.keys(element.prefixes).length > mostPrefixes)
      fail(message('xml-namespaces-without-end'))
    parent?.children.push(element)
    root ??= element
    path.push(element)
  })
  const add = (chunk: string): void => {
    const here = path.at(-1)
    if (here) here.text += chunk
  }
  parser.on('text', add)
  parser.on('cdata', add)
  parser.on('closetag', () => path.pop())
  await inSlices(text, { write: (slice) => parser.write(slice), end: () => parser.close() })
  return root ?? fail(message('xml-no-element'))
}

const noPrefixes: Readonly<Record<string, string>> = {}

/** An element as it is opened, without what stands in it. */
function opened(
  { local, uri, ns, attributes }: Pick<SaxesTagNS, 'local' | 'uri' | 'ns' | 'attributes'>,
  outer: Readonly<Record<string, string>>,
): Growing {
  const declared = Object.keys(ns).length > 0
  return {
    name: local,
    namespace: uri,
    attributes: Object.fromEntries(Object.values(attributes).map(({ name, value }) => [name, value])),
    children: [],
    text: '',
    prefixes: declared ? { ...outer, ...ns } : outer,
  }
}

const signs: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }

/**
 * Text as it stands in an element or an attribute; signs that no XML can hold are refused. @throws WireError rejected
 */
export function xmlText(text: string): string {
  // XML 1.0, 2.2.
  if (/[^\t\n\r\x20-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/u.test(text))
    throw new WireError('rejected', message('xml-control-character'))
  return text.replace(/[&<>"]/g, (sign) => signs[sign] ?? '').replaceAll('\r', '&#13;')
}

/** The first child of a name; undefined where there is none. */
export function childOf(element: Element | undefined, name: string, namespace?: string): Element | undefined {
  return element?.children.find(
    (child) => child.name === name && (namespace === undefined || child.namespace === namespace),
  )
}
