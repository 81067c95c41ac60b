/** Copies of a unit's configuration in its own form. Showing one is recorded first. */

import { z } from 'zod'
import { failed, type Outcome } from '../core/job/outcome'
import { message } from '../core/message/message'
import { fileFromPagesSchema, type PageWhenHeld, pageWhenHeldSchema } from '../core/showing/file-from-pages'
import { appendEvents } from '../store/events'
import type { Job } from '../store/jobs'
import { listUnits } from '../store/kit'
import { inTransaction, type Store } from '../store/open'
import { type Copy, openBackup } from '../store/secrets'
import type { Actor } from './installation'

/** Copies that may hold secrets. */
type SecretCopy = Exclude<Copy, 'page-when-held' | 'showing'>
export const copySchema: z.ZodType<SecretCopy> = z.enum(['as-found', 'as-left', 'from-pages'])

/**
 * A copy as a file: what it is called by the unit, and which kind of text it is; or what its pages gave, in base 64.
 */
export interface CopyFile {
  readonly name: string
  readonly text: string
  readonly base64?: string
}

/**
 * A copy may hold passphrases in clear. The asking is recorded in the same transaction: nothing is shown that was not.
 *
 * @param unitId  of a unit on the kit list, by the box that it is now
 */
export function revealCopy(
  store: Store,
  job: Job,
  unitId: string,
  copy: SecretCopy,
  { name: by }: Actor,
): Promise<Outcome<CopyFile>> {
  return inTransaction(store, async (inner) => {
    const unit = (await listUnits(inner, job.id)).find(({ id }) => id === unitId)
    if (!unit) return failed(message('unit-no-longer-listed'))
    const text = await openBackup(inner, job.id, unit.mac, copy)
    if (text === undefined) return failed(message('copy-missing', { name: unit.name, copy }))
    const event = { kind: 'reveal', secret: `copy/${unit.id}/${copy}`, by } as const
    await appendEvents(inner, job.id, [{ at: new Date(), event }])
    if (copy === 'from-pages') {
      const { name, base64 } = fileFromPagesSchema.parse(JSON.parse(text))
      return { ok: true, value: { name: `${unit.name}-${name}`, text: '', base64 } }
    }
    return { ok: true, value: { name: `${unit.name}-${copy}.${endingOf(text)}`, text } }
  })
}

/** The page that a unit showed when it was held. It holds no secret, so looking at it is not recorded. */
export async function pageWhenHeld(store: Store, job: Pick<Job, 'id'>, unitId: string): Promise<Outcome<PageWhenHeld>> {
  const unit = (await listUnits(store, job.id)).find(({ id }) => id === unitId)
  if (!unit) return failed(message('unit-no-longer-listed'))
  const text = await openBackup(store, job.id, unit.mac, 'page-when-held')
  if (text === undefined) return failed(message('picture-missing', { name: unit.name }))
  return { ok: true, value: pageWhenHeldSchema.parse(JSON.parse(text)) }
}

/** The usual ending for a text of this kind. */
function endingOf(text: string): 'json' | 'xml' | 'txt' {
  const [first = ''] = text.trimStart()
  return first === '{' || first === '[' ? 'json' : first === '<' ? 'xml' : 'txt'
}
