/**
 * What a stand-in remembers without power: its configuration in effect, its passwords and its certificate. A lab that
 * is killed and started again finds its units as a power cut leaves real ones.
 */
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { type DeviceSettings, deviceSettingsSchema } from './device-settings'

const memorySchema = z.object({
  settings: deviceSettingsSchema.optional(),
  passwords: z.record(z.string(), z.string()).optional(),
  certificate: z.object({ key: z.string(), cert: z.string() }).optional(),
  /** Private key of its SSH service. */
  hostKey: z.string().optional(),
  /** Version that was installed in place of the one that it came with. */
  firmware: z.string().optional(),
})
export interface Memory {
  readonly settings?: DeviceSettings | undefined
  readonly passwords?: Readonly<Record<string, string>> | undefined
  readonly certificate?: { readonly key: string; readonly cert: string } | undefined
  readonly hostKey?: string | undefined
  readonly firmware?: string | undefined
}

export class Flash {
  readonly #file: string | undefined
  #memory: Memory = {}

  /** @param folder  where memories lie; undefined for a unit that forgets everything with the lab */
  constructor(folder: string | undefined, mac: string) {
    if (folder === undefined) return
    mkdirSync(folder, { recursive: true, mode: 0o700 })
    this.#file = join(folder, `${mac.replaceAll(':', '')}.json`)
    try {
      this.#memory = memorySchema.parse(JSON.parse(readFileSync(this.#file, 'utf8')))
    } catch {
      // Out of its box, or killed while it was being written for the first time.
    }
  }

  get memory(): Memory {
    return this.#memory
  }

  /** Written whole under another name first: a kill leaves the old or the new. */
  remember(more: Memory): void {
    this.#memory = { ...this.#memory, ...more }
    if (this.#file === undefined) return
    const next = `${this.#file}.next`
    try {
      writeFileSync(next, JSON.stringify(this.#memory), { mode: 0o600 })
      renameSync(next, this.#file)
    } catch {
      // The laptop's disk is full: a unit has a memory of its own, and goes on.
    }
  }
}
