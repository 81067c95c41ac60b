'use client'
import { Button } from '@mantine/core'
import { z } from 'zod'
import { speakOldAction } from '../../actions/muster-actions'
import { named, type OldCrypto, oldCryptoSchema } from '../../core/kit/old-crypto'
import { oldWords } from '../../words/en/old'
import { offersWords } from '../../words/en/old-crypto'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'

const paramsSchema = z.object({ names: z.array(oldCryptoSchema) })
/** What a unit was held for, by name. */
export const oldNamesIn = (params: unknown): OldCrypto[] => paramsSchema.safeParse(params).data?.names ?? []

/**
 * What is no longer safe and is spoken with this unit alone, or would have to be. @param offered  what it was held for
 */
export function OldNote({ unit, offered = [] }: { unit: string; offered?: readonly OldCrypto[] }) {
  const { job, roll } = useJob()
  const { order, pending, fault } = useOrder()
  const spoken = roll.rows.get(unit)?.old ?? []
  const asked = offered.length > 0
  if (!asked && spoken.length === 0) return null
  return (
    <div>
      {!asked && (
        <p className="soft">
          {oldWords.spoken} It {offersWords(spoken)}.
        </p>
      )}
      <Button
        variant="default"
        disabled={pending || roll.muster !== 'idle'}
        onClick={() =>
          order(() =>
            asked
              ? speakOldAction(job.slug, unit, named(spoken, offered), 'muster')
              : speakOldAction(job.slug, unit, [], 'nothing'),
          )
        }
      >
        {asked ? oldWords.speak : oldWords.noMore}
      </Button>
      {fault && <p className={sheet.fault}>{sentence(fault.told)}</p>}
    </div>
  )
}
