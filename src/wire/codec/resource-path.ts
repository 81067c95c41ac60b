/** Paths of data resources (RFC 8040, 3.5.3): `/module:container/list=key/leaf`. */

/** One step with its keys; commas and slashes within a key are encoded. */
export function entry(list: string, ...keys: string[]): string {
  return `${list}=${keys.map(encodeURIComponent).join(',')}`
}
