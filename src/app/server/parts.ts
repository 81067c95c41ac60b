/** How the parts stand: what their starter wrote down, and whether the disk has room. */
import 'server-only'
import { readFile, statfs } from 'node:fs/promises'
import { z } from 'zod'
import { type Pulse, partNames } from '../../core/muster/pulse'

const fileSchema = z.object({
  parts: z.array(
    z.object({
      name: z.enum(partNames),
      standing: z.enum(['runs', 'away']),
      since: z.iso.datetime(),
      restarts: z.int(),
    }),
  ),
})

export async function partsNow(now: number): Promise<Pulse['parts']> {
  const file = process.env.AIR_MUSTER_PARTS
  if (!file) return []
  try {
    const { parts } = fileSchema.parse(JSON.parse(await readFile(file, 'utf8')))
    return parts.map(({ since, ...part }) => ({ ...part, forMs: Math.max(0, now - Date.parse(since)) }))
  } catch {
    return []
  }
}

/** Below this the database may not be able to write, bytes. */
const leastRoom = 8 * 1024 * 1024

export async function diskNow(): Promise<Pulse['disk']> {
  const folder = process.env.AIR_MUSTER_FOLDER
  if (!folder) return 'has-room'
  try {
    const { bavail, bsize } = await statfs(folder)
    return bavail * bsize < leastRoom ? 'full' : 'has-room'
  } catch {
    return 'has-room'
  }
}
