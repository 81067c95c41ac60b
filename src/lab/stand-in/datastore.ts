/**
 * A stand-in's configuration: a YANG datastore that takes YANG Patches whole or not at all.
 *
 * In: a configuration and a patch. Out: the configuration after it, or the error that a device gives.
 */
import { type PathSegment, parseResourcePath } from '../../wire/codec/resource-path'
import { type YangConfig, yangConfigSchema } from '../../wire/codec/yang-data'
import type { YangEdit, YangError } from '../../wire/codec/yang-patch'

type Node = Record<string, unknown>

/** The device says no; carried to the client as an RFC 8040 error. */
export class DatastoreError extends Error {
  override readonly name = 'DatastoreError'
  constructor(
    readonly tag: 'invalid-value' | 'data-missing' | 'data-exists' | 'malformed-message' | 'unknown-element' | 'in-use',
    message: string,
    readonly path?: string,
  ) {
    super(message)
  }
  toError(): YangError {
    return {
      'error-type': 'application',
      'error-tag': this.tag,
      ...(this.path === undefined ? {} : { 'error-path': this.path }),
      'error-message': this.message,
    }
  }
}

/** Key leaf of each list in the modules that are served. */
const listKeys: Readonly<Record<string, string>> = {
  user: 'name',
  server: 'name',
  interface: 'name',
  address: 'ip',
  network: 'ssid',
  radio: 'band',
}

/** @throws DatastoreError */
export function applyEdit(config: YangConfig, edit: YangEdit): YangConfig {
  const root = structuredClone(config) as Node
  let path: PathSegment[]
  try {
    path = parseResourcePath(edit.target)
  } catch (error) {
    throw new DatastoreError('malformed-message', error instanceof Error ? error.message : 'not a path', edit.target)
  }
  const last = path.pop()
  if (!last) throw new DatastoreError('malformed-message', 'the datastore cannot be replaced whole', edit.target)
  const parent = path.reduce((node, step) => descend(node, step, edit.target), root)
  const value = edit.value === undefined ? undefined : unwrapped(edit.value, last, edit.target)
  put(parent, last, edit.operation, value, edit.target)
  return checked(root)
}

/** @throws DatastoreError naming the first place where the data does not keep to the model */
export function checked(data: unknown): YangConfig {
  const parsed = yangConfigSchema.safeParse(data)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  throw new DatastoreError('invalid-value', issue?.message ?? 'not valid', `/${issue?.path.join('/') ?? ''}`)
}

function descend(node: Node, step: PathSegment, target: string): Node {
  const name = nameIn(node, step.name)
  if (step.keys.length === 0) {
    node[name] ??= {}
    return node[name] as Node
  }
  const found = entries(node, name).find((each) => each[keyOf(name)] === step.keys[0])
  if (!found) throw new DatastoreError('data-missing', `there is no ${bare(name)} "${step.keys[0]}"`, target)
  return found
}

function put(
  parent: Node,
  step: PathSegment,
  operation: YangEdit['operation'],
  value: Node | undefined,
  target: string,
): void {
  const name = nameIn(parent, step.name)
  const isEntry = step.keys.length > 0
  const list = isEntry ? entries(parent, name) : []
  const index = list.findIndex((each) => each[keyOf(name)] === step.keys[0])
  const exists = isEntry ? index >= 0 : parent[name] !== undefined
  if (operation === 'delete' && !exists) throw new DatastoreError('data-missing', 'there is nothing to delete', target)
  if (operation === 'create' && exists) throw new DatastoreError('data-exists', 'it is there already', target)
  if (operation === 'delete' || operation === 'remove') {
    if (isEntry) parent[name] = list.filter((_, at) => at !== index)
    else delete parent[name]
    return
  }
  if (value === undefined) throw new DatastoreError('malformed-message', `${operation} takes a value`, target)
  const before = isEntry ? list[index] : (parent[name] as Node | undefined)
  const after = operation === 'merge' && before ? merge(before, value) : value
  if (!isEntry) parent[name] = after
  else parent[name] = index < 0 ? [...list, after] : list.map((each, at) => (at === index ? after : each))
}

function merge(before: Node, after: Node): Node {
  const merged: Node = { ...before }
  for (const [name, value] of Object.entries(after)) {
    const old = merged[name]
    merged[name] = isNode(old) && isNode(value) ? merge(old, value) : value
  }
  return merged
}

/** RFC 8072: the value is wrapped in the name of the target, and a list entry in an array of one. */
function unwrapped(value: Node, step: PathSegment, target: string): Node {
  const [wrapped] = Object.entries(value).flatMap(([name, inner]) => (bare(name) === bare(step.name) ? [inner] : []))
  const inner = Array.isArray(wrapped) && wrapped.length === 1 ? wrapped[0] : wrapped
  if (!isNode(inner)) throw new DatastoreError('malformed-message', `the value is not a ${bare(step.name)}`, target)
  if (step.keys.length > 0 && inner[keyOf(step.name)] !== step.keys[0])
    throw new DatastoreError('invalid-value', 'the key in the value is not that of the target', target)
  return inner
}

/** Members of another module carry its name, members of the same one do not (RFC 7951, 4). */
function nameIn(node: Node, name: string): string {
  return name in node
    ? name
    : (Object.keys(node).find((each) => bare(each) === bare(name)) ??
        (topLevel.has(name) || name.startsWith('ietf-ip:') ? name : bare(name)))
}
const topLevel = new Set(['ietf-system:system', 'ietf-interfaces:interfaces', 'air-muster-wireless:wireless'])

function entries(node: Node, name: string): Node[] {
  node[name] ??= []
  return node[name] as Node[]
}

function keyOf(name: string): string {
  return listKeys[bare(name)] ?? 'name'
}

function bare(name: string): string {
  return name.slice(name.indexOf(':') + 1)
}

function isNode(value: unknown): value is Node {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
