/**
 * XML as NETCONF has it (RFC 6241, 3), and host metadata (RFC 6415): elements with their namespaces. What comes is
 * hostile: no document type, no entities but XML's own, bounded in depth, in number and in size, and every element closed.
 */
import { Parser } from 'htmlparser2'
import { WireError } from '../wire-error'
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
  readonly written: string
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
  const fail = (reason: string): never => {
    throw new WireError('garbled', `no XML: ${reason}`)
  }
  const parser = new Parser(
    {
      onattribute() {
        attributesHere += 1
        if (attributesHere > mostAttributes) fail('an element has attributes without end')
      },
      onopentag(written, attributes) {
        count += 1
        attributesHere = 0
        if (count > mostElements) fail('it has elements without end')
        if (path.length >= deepest) fail('it is nested without end')
        if (path.length === 0 && root) fail('it has more than one root')
        const element = opened(written, attributes, path.at(-1)?.prefixes ?? {})
        if (!element) return fail('a prefix has no namespace')
        if (Object.keys(element.prefixes).length > mostPrefixes) fail('it declares namespaces without end')
        path.at(-1)?.children.push(element)
        root ??= element
        path.push(element)
      },
      ontext(chunk) {
        const here = path.at(-1)
        if (here) here.text += chunk
        else if (chunk.trim() !== '') fail('there is text outside of it')
      },
      onclosetag(written, implied) {
        const closed = path.pop()
        // What was never closed, or closed in another order, is closed by the parser on its own.
        if (implied && !selfClosed(text, parser.endIndex)) fail(`<${written}> is not closed`)
        if (closed?.written !== written) fail(`</${written}> closes nothing`)
      },
      onprocessinginstruction(name) {
        if (name.startsWith('!')) fail('a document type is not taken')
      },
    },
    { xmlMode: true, decodeEntities: true },
  )
  await inSlices(text, parser)
  return root ?? fail('there is no element')
}

/** The parser calls the end of `<a/>` implied too. */
const selfClosed = (text: string, end: number): boolean => text[end] === '>' && text[end - 1] === '/'

function opened(
  written: string,
  attributes: Readonly<Record<string, string>>,
  outer: Readonly<Record<string, string>>,
): Growing | undefined {
  const declared = Object.entries(attributes).flatMap(([name, value]): [string, string][] =>
    name === 'xmlns' ? [['', value]] : name.startsWith('xmlns:') ? [[name.slice(6), value]] : [],
  )
  const prefixes = declared.length === 0 ? outer : { ...outer, ...Object.fromEntries(declared) }
  const [prefix, local] = written.includes(':') ? written.split(':') : ['', written]
  const namespace = Object.hasOwn(prefixes, prefix ?? '') ? prefixes[prefix ?? ''] : prefix === '' ? '' : undefined
  if (namespace === undefined || !local) return undefined
  return { name: local, namespace, attributes, children: [], text: '', prefixes, written }
}

const signs: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }

/** Text as it stands in an element or an attribute; signs that no XML can hold are refused. @throws WireError rejected */
export function xmlText(text: string): string {
  // XML 1.0, 2.2.
  if (/[^\t\n\r\x20-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/u.test(text))
    throw new WireError('rejected', 'a value with a control character cannot be written to it')
  return text.replace(/[&<>"]/g, (sign) => signs[sign] ?? '').replaceAll('\r', '&#13;')
}

/** The first child of a name; undefined where there is none. */
export function childOf(element: Element | undefined, name: string, namespace?: string): Element | undefined {
  return element?.children.find(
    (child) => child.name === name && (namespace === undefined || child.namespace === namespace),
  )
}
