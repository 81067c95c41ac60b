import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The folder of the project. */
export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..')
