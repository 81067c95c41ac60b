/**
 * What our modules and the standard ones say of the data that we speak of, as `npm run models` reads it from models/.
 */
import shape from '../../../../models/shape.json'

/** Namespaces by module. */
export const namespaces: Readonly<Record<string, string>> = shape.namespaces
export const modules: ReadonlyMap<string, string> = new Map(
  Object.entries(namespaces).map(([module, namespace]) => [namespace, module]),
)

/** Lists and leaf-lists, by the name of what they stand in and their own, with the keys of their entries. */
export const lists: Readonly<Record<string, readonly string[]>> = shape.lists

/** Leaves by the type of their values. Those of `identities` are names of a module. */
export const numbers: ReadonlySet<string> = new Set(shape.numbers)
export const flags: ReadonlySet<string> = new Set(shape.flags)
export const identities: ReadonlySet<string> = new Set(shape.identities)
