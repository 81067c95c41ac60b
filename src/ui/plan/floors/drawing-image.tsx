'use client'
import type { Floor } from '../../../core/radio/propagation/floor'
import { useJob } from '../../live/job-provider'

/**
 * The drawing of a floor, pale under what is put on it; nothing where it has none. @param scale picture units a metre
 */
export function DrawingImage({ floor, scale }: { floor: Floor; scale: number }) {
  const { job } = useJob()
  const { drawing } = floor
  if (!drawing) return null
  return (
    <image
      href={`/api/jobs/${job.slug}/drawing/${floor.id}`}
      width={drawing.widthPx * drawing.metresPerPx * scale}
      height={drawing.heightPx * drawing.metresPerPx * scale}
      opacity={0.75}
      preserveAspectRatio="none"
    />
  )
}
