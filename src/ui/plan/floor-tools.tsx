'use client'
import { useState } from 'react'
import { type Floor, type Material, materials } from '../../core/radio/floor'
import { useJob } from '../live/job-provider'
import { sendFile } from '../live/send-file'
import { useOrder } from '../live/use-order'
import sheet from '../theme/sheet.module.css'
import { readDrawing } from './drawing-file'
import classes from './plan.module.css'
import { usePlan } from './plan-context'

export type Tool =
  | { readonly kind: 'move' }
  | { readonly kind: 'wall' }
  | { readonly kind: 'erase' }
  /** Two points of a known length. */
  | { readonly kind: 'scale' }
  | { readonly kind: 'place'; readonly unit: string }

interface Props {
  readonly floor: Floor
  readonly tool: Tool
  readonly onTool: (tool: Tool) => void
  readonly material: Material
  readonly onMaterial: (material: Material) => void
  readonly picture: 'shown' | 'hidden'
  readonly onPicture: (picture: 'shown' | 'hidden') => void
}

/** What the pointer does on the floor. */
export function FloorTools({ floor, tool, onTool, material, onMaterial, picture, onPicture }: Props) {
  const { job, units } = useJob()
  const { change, tookMs } = usePlan()
  const { order, pending, fault } = useOrder()
  const [refusal, setRefusal] = useState<string>()
  const placing = tool.kind === 'place' ? units.find((unit) => unit.id === tool.unit) : undefined
  const words: Readonly<Record<Tool['kind'], string>> = {
    move:
      tookMs === undefined
        ? 'drag a unit; channels follow'
        : `drag a unit; channels followed in ${(tookMs / 1000).toFixed(tookMs < 95 ? 2 : 1)} s`,
    wall: 'click where a wall begins and where it ends; Esc lets go',
    erase: 'click a wall to take it away',
    scale: 'click two points whose distance you know',
    place: placing ? `click where ${placing.name} hangs` : 'click where it hangs',
  }
  const take = async (file: File): Promise<void> => {
    setRefusal(undefined)
    const reading = await readDrawing(file)
    if (!reading.ok) {
      setRefusal(reading.sentence)
      return
    }
    const { widthPx, heightPx } = reading
    order(async () => {
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
  return (
    <div className={classes.tools}>
      {(['move', 'wall', 'erase', 'scale'] as const).map((kind) => (
        <button key={kind} type="button" aria-pressed={tool.kind === kind} onClick={() => onTool({ kind })}>
          {{ move: 'Move', wall: 'Draw walls', erase: 'Erase', scale: 'Set the scale' }[kind]}
        </button>
      ))}
      {tool.kind === 'wall' && (
        <label>
          of{' '}
          <select
            aria-label="Material"
            value={material}
            onChange={(event) => onMaterial(event.currentTarget.value as Material)}
          >
            {materials.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
        </label>
      )}
      <label className={classes.file}>
        {pending ? 'Taking it in …' : floor.drawing ? 'Another drawing' : 'A drawing'}
        <input
          type="file"
          accept=".svg,.png,.jpg,.jpeg,.pdf"
          aria-label="Drawing of the floor"
          onChange={(event) => {
            const file = event.currentTarget.files?.[0]
            if (file) void take(file)
            event.currentTarget.value = ''
          }}
        />
      </label>
      <label>
        <input
          type="checkbox"
          checked={picture === 'shown'}
          onChange={(event) => onPicture(event.currentTarget.checked ? 'shown' : 'hidden')}
        />{' '}
        received level
      </label>
      <span className="soft" role="status">
        {words[tool.kind]}
      </span>
      {(refusal || fault) && <span className={sheet.fault}>{refusal ?? fault?.sentence}</span>}
    </div>
  )
}
