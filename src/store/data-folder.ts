/** Where the data that comes with the program lies. */
import { join } from 'node:path'

export function dataFolder(): string {
  return join(process.env.AIR_MUSTER_ROOT ?? process.cwd(), 'data')
}
