// What is made of the compiled models: tables of lists and types, and a schema for data in JSON (RFC 7951).
const bare = (name) => name.split(':').at(-1)
const numeric = /^u?int(8|16|32)$/

/** Tables by which XML becomes JSON: lists with their keys, types of leaves by name, and the rules of the modules. */
export function shapeOf({ namespaces, revisions, tops }) {
  const lists = {}
  const named = { numbers: new Set(), flags: new Set(), identities: new Set() }
  const rules = []
  const walk = (node, parent, path) => {
    const here = `${path}/${node.name}`
    if (node.kind === 'list' || node.kind === 'leaf-list') lists[`${bare(parent)}/${bare(node.name)}`] = node.keys
    const base = node.type?.base ?? ''
    if (numeric.test(base)) named.numbers.add(bare(node.name))
    if (base === 'boolean') named.flags.add(bare(node.name))
    if (base === 'identityref') named.identities.add(bare(node.name))
    if (!node.isState) for (const rule of node.rules) rules.push({ path: here, ...rule })
    for (const child of node.children) walk(child, node.name, here)
  }
  for (const top of tops) walk(top, '', '')
  const sorted = Object.fromEntries(Object.entries(named).map(([kind, names]) => [kind, [...names].sort()]))
  return { namespaces, revisions, lists, ...sorted, rules }
}

const bounds = {
  int8: [-128, 127],
  int16: [-32768, 32767],
  uint8: [0, 255],
  uint16: [0, 65535],
  uint32: [0, 4294967295],
}
const quoted = (value) => JSON.stringify(value)
const within = (ranges, of) => ranges.map(([low, high]) => `(${of} >= ${low} && ${of} <= ${high})`).join(' || ')

function typeText({ base, range, length, fraction, patterns, enums, types }) {
  if (base === 'boolean') return 'z.boolean()'
  if (base === 'enumeration') return `z.enum([${enums.map(quoted).join(', ')}])`
  if (base === 'union') return `z.union([${types.map(typeText).join(', ')}])`
  if (base === 'leafref') return typeText(types[0])
  if (base === 'identityref') return 'z.string()'
  if (base === 'decimal64') {
    const scaled = range.map((pair) => pair.map((each) => each / 10 ** fraction))
    return (
      `z.string().regex(/^-?\\d+(\\.\\d{1,${fraction}})?$/).transform(Number).refine((value) => ` +
      `${within(scaled, 'value')})`
    )
  }
  if (base === 'binary') {
    const octets = "z.base64().transform((text) => Buffer.from(text, 'base64'))"
    return length ? `${octets}.refine((value) => ${within(length, 'value.length')}, 'wrong number of octets')` : octets
  }
  if (numeric.test(base)) {
    const ranges = range ?? [bounds[base]]
    if (ranges.length === 1) return `z.int().min(${ranges[0][0]}).max(${ranges[0][1]})`
    return `z.literal([${ranges.map(([only]) => only).join(', ')}])`
  }
  const [least, most] = length?.[0] ?? []
  const sized = `${least ? `.min(${least})` : ''}${most <= Number.MAX_SAFE_INTEGER ? `.max(${most})` : ''}`
  return `z.string()${sized}${patterns.map((each) => `.regex(${expression(each)})`).join('')}`
}

/** A pattern is of the whole value, and has no anchors of its own (RFC 7950, 9.4.5; XSD, appendix F). */
function expression(pattern) {
  const parts = pattern.match(/\\.|\[(?:\\.|[^\]\\])*\]|[\s\S]/g) ?? []
  const plain = parts.map((part) => (part === '$' || part === '^' || part === '/' ? `\\${part}` : part)).join('')
  return `/^(?:${plain.replaceAll('[-', '[\\-')})$/u`
}

/** Types that stand more than once have a name: that of the first leaf that has them. */
function shared(tops) {
  const counts = new Map()
  const walk = (node) => {
    if (node.type && !node.isState) {
      const text = typeText(node.type)
      if (text.length > 40) counts.set(text, [...(counts.get(text) ?? []), bare(node.name)])
    }
    for (const child of node.children) walk(child)
  }
  for (const top of tops) walk(top)
  const names = new Map()
  for (const [text, [leaf, ...more]] of counts) {
    if (more.length === 0) continue
    const name = leaf.replace(/-(.)/g, (_, letter) => letter.toUpperCase())
    const taken = [...names.values()].filter((each) => each.replace(/\d+$/, '') === name).length
    names.set(text, taken === 0 ? name : `${name}${taken + 1}`)
  }
  return names
}

const isRequired = (node) =>
  node.isMandatory ||
  (node.kind === 'container' && !node.isPresence && node.children.some(isRequired)) ||
  node.least > 0

function nodeText(node, keys, names) {
  if (node.kind === 'leaf' || node.kind === 'leaf-list') {
    const text = typeText(node.type)
    const type = names.get(text) ?? text
    if (node.kind === 'leaf-list') {
      const list = `z.array(${type})`
      return node.least > 0 ? `${list}.min(${node.least})` : `${list}.default([])`
    }
    if (keys.includes(bare(node.name)) || node.isMandatory) return type
    // Where it may not stand, its default does not either.
    if (node.default === undefined || node.rules.some(({ kind }) => kind === 'when')) return `${type}.optional()`
    const value = /^(boolean|u?int)/.test(node.type.base) ? node.default : quoted(node.default)
    return `${type}.default(${value})`
  }
  const fields = node.children
    .filter(({ isState }) => !isState)
    .map((child) => `${quoted(child.name)}: ${nodeText(child, node.keys, names)}`)
  const object = `z.strictObject({ ${fields.join(', ')} })`
  if (node.kind === 'list') {
    const list = `z.array(${object})`
    return node.least > 0 ? `${list}.min(${node.least})` : `${list}.default([])`
  }
  if (node.isPresence || node.rules.some(({ kind }) => kind === 'when')) return `${object}.optional()`
  return isRequired(node) ? object : `${object}.prefault({})`
}

/** A schema of what a unit is to be, in TypeScript. */
export function treeSchemaText({ tops }) {
  const tree = tops.filter(({ isState }) => !isState)
  const names = shared(tree)
  const fields = tree.map((top) => `${quoted(top.name)}: ${nodeText(top, [], names)}`)
  const types = [...names].map(([text, name]) => `const ${name} = ${text}`)
  return `/**
 * The shape of a stand-in's tree: every type, range and pattern of its modules. Written by \`npm run models\` from
 * models/*.yang; a test keeps it true.
 */
import { z } from 'zod'

${types.join('\n')}

export const treeSchema = z.strictObject({ ${fields.join(',\n')} })
export type Tree = z.infer<typeof treeSchema>
`
}
