import { useState } from 'react'
import type { Floor } from '../../../core/radio/propagation/floor'
import { sentence } from '../../../words/en/sentence'
import { useJob } from '../../live/job-provider'
import { sendFile } from '../../live/send-file'
import { useOrder } from '../../live/use-order'
import { usePlan } from '../state/plan-context'
import { readDrawing } from './drawing-file'

export interface Drawing {
  readonly take: (file: File) => Promise<void>
  readonly pending: boolean
  /** Why a file cannot be shown or kept. */
  readonly fault: string | undefined
}

/** Takes a drawing in for a floor: SVG, PNG, JPEG or a page of a PDF. */
export function useDrawing(floor: Floor | undefined): Drawing {
  const { job } = useJob()
  const { change, whenSaved } = usePlan()
  const { order, pending, fault } = useOrder()
  const [refusal, setRefusal] = useState<string>()
  const take = async (file: File): Promise<void> => {
    if (!floor) return
    setRefusal(undefined)
    const reading = await readDrawing(file)
    if (!reading.ok) {
      setRefusal(reading.sentence)
      return
    }
    const { widthPx, heightPx } = reading
    order(async () => {
      // Only a floor that is kept has a drawing.
      await whenSaved()
      const outcome = await sendFile(`jobs/${job.slug}/drawing/${floor.id}`, reading.file, {
        'content-type': reading.file.type,
        'x-file-name': reading.file.name,
      })
      // Until its scale is set, the drawing is as wide as the floor was.
      const metresPerPx = floor.widthM / widthPx
      if (outcome.ok)
        change((before) => ({
          ...before,
          floors: before.floors.map((each) =>
            each.id === floor.id
              ? { ...each, drawing: { widthPx, heightPx, metresPerPx }, depthM: heightPx * metresPerPx }
              : each,
          ),
        }))
      return outcome
    })
  }
  return { take, pending, fault: refusal ?? (fault && sentence(fault.told)) }
}
