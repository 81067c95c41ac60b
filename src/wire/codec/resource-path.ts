/**
 * Paths of data resources (RFC 8040, 3.5.3): `/module:container/list=key/leaf`, keys percent-encoded.
 */

export interface PathSegment {
  /** With its module where it was given. */
  readonly name: string
  /** Keys of a list entry. */
  readonly keys: readonly string[]
}

/** @throws RangeError where the path is not one */
export function parseResourcePath(path: string): PathSegment[] {
  const trimmed = path.replace(/^\//, '')
  if (trimmed === '') return []
  return trimmed.split('/').map((part) => {
    const match = /^((?:[A-Za-z_][\w.-]*:)?[A-Za-z_][\w.-]*)(?:=(.*))?$/.exec(part)
    if (!match) throw new RangeError(`"${part}" is not a step of a path`)
    const [, name = '', keys] = match
    try {
      return { name, keys: keys === undefined ? [] : keys.split(',').map(decodeURIComponent) }
    } catch {
      throw new RangeError(`"${part}" has a key that is not percent-encoded`)
    }
  })
}

/** One step with its keys; commas and slashes within a key are encoded. */
export function entry(list: string, ...keys: string[]): string {
  return `${list}=${keys.map(encodeURIComponent).join(',')}`
}
