const compared = new WeakMap<object, WeakMap<object, boolean>>()
/** Settings are replaced, never changed: two that were compared once need not be again. */
export function same(a: object, b: object): boolean {
  if (a === b) return true
  const known = compared.get(a)?.get(b)
  if (known !== undefined) return known
  const equal = JSON.stringify(a) === JSON.stringify(b)
  const of = compared.get(a) ?? new WeakMap<object, boolean>()
  compared.set(a, of.set(b, equal))
  return equal
}
