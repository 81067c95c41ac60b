/**
 * Data of a stand-in as a tree (JSON encoding of RFC 7951), and edits on it (YANG Patch, RFC 8072). It knows which
 * lists have which keys, and nothing of what the leaves mean.
 */
import shape from '../../../../models/shape.json'
import { Refusal } from '../../device/refusal'

export type Node = Record<string, unknown>

export interface TreeEdit {
  readonly operation: 'create' | 'delete' | 'merge' | 'remove' | 'replace'
  readonly target: string
  readonly value?: Readonly<Record<string, unknown>> | undefined
}

interface Step {
  /** As a member of its parent is called: with its module only where that is another one. */
  readonly name: string
  /** Its parent and itself, without modules. */
  readonly list: string
  readonly keys: readonly string[]
}

/** Key leaves of a list in the modules that are served. @param list  its name after that of its parent, with a slash */
export const keysOf = (list: string): readonly string[] =>
  (shape.lists as Readonly<Record<string, readonly string[]>>)[list] ?? []

/** @throws Refusal where the path is none */
export function parsePath(path: string): Step[] {
  const parts = path.split('/').slice(path.startsWith('/') ? 1 : 0)
  let module = ''
  let parent = ''
  return parts.map((part) => {
    const equals = part.indexOf('=')
    const whole = equals < 0 ? part : part.slice(0, equals)
    const [first = '', second] = whole.split(':')
    const here = second === undefined ? module : first
    const bare = second ?? first
    if (!/^[A-Za-z_][\w.-]*$/.test(bare) || here === '')
      throw new Refusal('malformed-message', `"${part}" is not a step of a path`, path)
    const name = here === module ? bare : `${here}:${bare}`
    const list = `${parent}/${bare}`
    module = here
    parent = bare
    try {
      return {
        name,
        list,
        keys:
          equals < 0
            ? []
            : part
                .slice(equals + 1)
                .split(',')
                .map(decodeURIComponent),
      }
    } catch {
      throw new Refusal('malformed-message', `"${part}" has a key that is not percent-encoded`, path)
    }
  })
}

/** Carries edits out on a copy, one after the other. @throws Refusal */
export function applyEdits(root: Node, edits: readonly TreeEdit[]): Node {
  const after = structuredClone(root)
  for (const edit of edits) applyEdit(after, edit)
  return after
}

function applyEdit(after: Node, { operation, target, value }: TreeEdit): void {
  const path = parsePath(target)
  const last = path.pop()
  if (!last) throw new Refusal('malformed-message', 'the datastore cannot be replaced whole', target)
  const parent = path.reduce((node, step) => descend(node, step, target), after)
  put(parent, last, operation, value === undefined ? undefined : unwrapped(value, last, target), target)
}

/** What stands at a path; undefined where nothing does. */
export function lookUp(root: Node, path: string): unknown {
  return parsePath(path).reduce<unknown>((node, { name, list, keys }) => {
    const found = isNode(node) && Object.hasOwn(node, name) ? node[name] : undefined
    return keys.length === 0
      ? found
      : Array.isArray(found)
        ? found.find((each) => hasKeys(each, list, keys))
        : undefined
  }, root)
}

function descend(node: Node, { name, list, keys }: Step, target: string): Node {
  if (keys.length === 0) {
    node[name] ??= {}
    if (!isNode(node[name])) throw new Refusal('malformed-message', `${name} holds nothing`, target)
    return node[name]
  }
  const found = entries(node, name).find((each) => hasKeys(each, list, keys))
  if (!found) throw new Refusal('data-missing', `there is no ${bare(name)} "${keys.join(' ')}"`, target)
  return found
}

function put(parent: Node, step: Step, operation: TreeEdit['operation'], value: unknown, target: string): void {
  const { name, keys } = step
  const isEntry = keys.length > 0
  const all = isEntry ? entries(parent, name) : []
  const index = all.findIndex((each) => hasKeys(each, step.list, keys))
  const exists = isEntry ? index >= 0 : parent[name] !== undefined
  if (operation === 'delete' && !exists) throw new Refusal('data-missing', 'there is nothing to delete', target)
  if (operation === 'create' && exists) throw new Refusal('data-exists', 'it is there already', target)
  if (operation === 'delete' || operation === 'remove') {
    if (!isEntry) delete parent[name]
    else parent[name] = all.filter((_, at) => at !== index)
    return
  }
  if (value === undefined) throw new Refusal('malformed-message', `${operation} takes a value`, target)
  const before = isEntry ? all[index] : parent[name]
  const after = operation === 'merge' && before !== undefined ? merge(before, value, step.list) : value
  if (!isEntry) parent[name] = after
  else parent[name] = index < 0 ? [...all, after] : all.map((each, at) => (at === index ? after : each))
}

/** RFC 7950, 7.5.8 and following: containers leaf by leaf, lists entry by entry, leaf-lists as a union. */
function merge(before: unknown, after: unknown, list: string): unknown {
  if (isNode(before) && isNode(after)) {
    const merged: Node = { ...before }
    for (const [each, value] of Object.entries(after))
      merged[each] =
        merged[each] === undefined
          ? value
          : merge(merged[each], value, `${list.slice(list.indexOf('/') + 1)}/${bare(each)}`)
    return merged
  }
  if (!Array.isArray(before) || !Array.isArray(after)) return after
  const keys = keysOf(list)
  const merged: unknown[] = [...before]
  for (const entry of after) {
    const at = merged.findIndex((each) =>
      keys.length > 0 && isNode(each) && isNode(entry) ? keys.every((key) => each[key] === entry[key]) : each === entry,
    )
    if (at < 0) merged.push(entry)
    else merged[at] = merge(merged[at], entry, list)
  }
  return merged
}

/** RFC 8072: the value is wrapped in the name of the target, and a list entry in an array of one. */
function unwrapped(value: Readonly<Record<string, unknown>>, { name, list, keys }: Step, target: string): unknown {
  const [wrapped] = Object.entries(value).flatMap(([each, inner]) => (bare(each) === bare(name) ? [inner] : []))
  if (wrapped === undefined) throw new Refusal('malformed-message', `the value is not a ${bare(name)}`, target)
  if (keys.length === 0) return wrapped
  const [inner, ...more] = Array.isArray(wrapped) ? (wrapped as unknown[]) : []
  if (!isNode(inner) || more.length > 0)
    throw new Refusal('malformed-message', `the value is not one ${bare(name)}`, target)
  if (!hasKeys(inner, list, keys))
    throw new Refusal('invalid-value', 'the key in the value is not that of the target', target)
  return inner
}

function hasKeys(entry: unknown, list: string, keys: readonly string[]): boolean {
  const leaves = keysOf(list)
  return isNode(entry) && leaves.length === keys.length && leaves.every((leaf, at) => String(entry[leaf]) === keys[at])
}

function entries(node: Node, name: string): Node[] {
  node[name] ??= []
  return node[name] as Node[]
}

function bare(name: string): string {
  return name.slice(name.indexOf(':') + 1)
}

export function isNode(value: unknown): value is Node {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
