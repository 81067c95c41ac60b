/**
 * What was added to this laptop, on disk before it is added: whatever ends the helper, the next start takes it away.
 * What was added before the laptop was started anew is gone by itself.
 */
import { closeSync, existsSync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs'
import { z } from 'zod'
import { ipv4Schema } from '../../core/address/ipv4'
import { jsonIn } from '../../core/input/json'
import { IpRefused, ipBatch } from './ip-command'

const interfaceName = z.string().regex(/^[A-Za-z0-9_.@-]{1,15}$/)
const table = z.int().min(1000).max(1_000_000)
const priority = z.int().min(1).max(32_000)
const additionSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('link'), dev: interfaceName }),
  z.object({ kind: z.literal('address'), address: ipv4Schema, dev: interfaceName }),
  z.object({ kind: z.literal('neighbour'), address: ipv4Schema, dev: interfaceName }),
  z.object({ kind: z.literal('route'), to: ipv4Schema, table }),
  z.object({ kind: z.literal('rule'), from: ipv4Schema, table, priority }),
])
export type Addition = z.infer<typeof additionSchema>

const ledgerSchema = z.object({ boot: z.string(), additions: z.array(additionSchema) })

/** How each is taken away again. */
function undo(addition: Addition): string {
  switch (addition.kind) {
    case 'link':
      return `link del dev ${addition.dev}`
    case 'address':
      return `addr del ${addition.address}/32 dev ${addition.dev}`
    case 'neighbour':
      // Not `neigh del`: of an entry that is not there it ends the whole batch, and all that was to follow stays.
      return `neigh flush to ${addition.address} dev ${addition.dev} nud permanent`
    case 'route':
      return `route del ${addition.to}/32 table ${addition.table}`
    case 'rule':
      return `rule del from ${addition.from} lookup ${addition.table} priority ${addition.priority}`
  }
}

export class Ledger {
  readonly #file: string
  readonly #boot: string
  #additions: Addition[] = []

  /** @param boot  names this start of the machine */
  constructor(file: string, boot = bootId()) {
    this.#file = file
    this.#boot = boot
  }

  get additions(): readonly Addition[] {
    return this.#additions
  }

  /**
   * Takes away what an earlier helper left.
   * @returns how many things that were; of a ledger that cannot be read, where it was put aside
   */
  async takeBack(): Promise<{ readonly left: number; readonly aside?: string }> {
    const found = this.#read()
    if (typeof found === 'string') return { left: 0, aside: found }
    this.#additions = found
    await this.remove(this.#additions)
    return { left: found.length }
  }

  /** Notes what is about to be added, and is on disk when this returns. */
  add(additions: readonly Addition[]): void {
    this.#additions.push(...additions)
    this.#write()
  }

  /** Takes these away, the newest first; what is gone already is no fault. */
  async remove(additions: readonly Addition[]): Promise<void> {
    await ipBatch(additions.toReversed().map(undo), 'go-on').catch((error: unknown) => {
      if (!(error instanceof IpRefused)) throw error
    })
    const gone = new Set(additions)
    this.#additions = this.#additions.filter((addition) => !gone.has(addition))
    this.#write()
  }

  /** It is written whole and renamed, so we never leave it half there; a disk or a hand may. */
  #read(): Addition[] | string {
    if (!existsSync(this.#file)) return []
    const ledger = ledgerSchema.safeParse(jsonIn(readFileSync(this.#file, 'utf8')))
    if (ledger.success) return ledger.data.boot === this.#boot ? ledger.data.additions : []
    const aside = `${this.#file}.unread`
    renameSync(this.#file, aside)
    return aside
  }

  #write(): void {
    const file = openSync(`${this.#file}.next`, 'w', 0o600)
    writeSync(file, JSON.stringify({ boot: this.#boot, additions: this.#additions }))
    fsyncSync(file)
    closeSync(file)
    renameSync(`${this.#file}.next`, this.#file)
  }
}

/** Another one after each start of the machine. */
function bootId(): string {
  return readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim()
}
