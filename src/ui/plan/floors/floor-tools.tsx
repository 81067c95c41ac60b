'use client'
import { type Floor, type Material, materials } from '../../../core/radio/propagation/floor'
import type { Point } from '../../../core/radio/propagation/situation'
import { ChooseFile } from '../../frame/choose-file'
import { drawingFiles, endingsOf } from '../../frame/file-kinds'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'
import { type Picture, pictures, pictureWords } from './level-steps'
import type { Drawing } from './use-drawing'

export type Tool =
  | { readonly kind: 'move' }
  | { readonly kind: 'wall' }
  | { readonly kind: 'erase' }
  /** Two points of a known length. */
  | { readonly kind: 'scale' }
  /** Two points that another drawing shows too; `here` once they were clicked on the first. */
  | {
      readonly kind: 'align'
      readonly floor: string
      readonly with: string
      readonly here?: readonly [Point, Point]
    }
  | { readonly kind: 'place'; readonly unit: string }

interface Props {
  readonly floor: Floor
  readonly drawing: Drawing
  readonly tool: Tool
  readonly onTool: (tool: Tool) => void
  readonly material: Material
  readonly onMaterial: (material: Material) => void
  readonly picture: Picture | 'hidden'
  readonly onPicture: (picture: Picture | 'hidden') => void
}

/** What the pointer does on the floor. */
export function FloorTools({ floor, drawing, tool, onTool, material, onMaterial, picture, onPicture }: Props) {
  const { units } = useJob()
  const { site, tookMs } = usePlan()
  const others = site.floors.filter((each) => each.id !== floor.id)
  const placing = tool.kind === 'place' ? units.find((unit) => unit.id === tool.unit) : undefined
  const words: Readonly<Record<Tool['kind'], string>> = {
    move:
      tookMs === undefined
        ? 'drag a unit; channels follow'
        : `drag a unit; channels followed in ${(tookMs / 1000).toFixed(tookMs < 95 ? 2 : 1)} s`,
    wall: 'click where a wall begins and where it ends; Esc lets go',
    erase: 'click a wall to take it away',
    scale: 'click two points whose distance you know',
    align: alignWords(tool, site.floors),
    place: placing ? `click where ${placing.name} hangs` : 'click where it hangs',
  }
  return (
    <div className={classes.tools}>
      {(['move', 'wall', 'erase', 'scale'] as const).map((kind) => (
        <button key={kind} type="button" aria-pressed={tool.kind === kind} onClick={() => onTool({ kind })}>
          {{ move: 'Move', wall: 'Draw walls', erase: 'Erase', scale: 'Set the scale' }[kind]}
        </button>
      ))}
      {others[0] && (
        <button
          type="button"
          aria-pressed={tool.kind === 'align'}
          onClick={() => onTool({ kind: 'align', floor: floor.id, with: others[0]?.id ?? '' })}
        >
          Align
        </button>
      )}
      {tool.kind === 'align' && !tool.here && (
        <label>
          with{' '}
          <select
            aria-label="Drawing to align with"
            value={tool.with}
            onChange={(event) => onTool({ ...tool, with: event.currentTarget.value })}
          >
            {others.map((each) => (
              <option key={each.id} value={each.id}>
                {each.name}
              </option>
            ))}
          </select>
        </label>
      )}
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
      <ChooseFile
        words={drawing.pending ? 'Taking it in …' : floor.drawing ? 'Another drawing' : 'A drawing'}
        label="Drawing of the floor"
        accept={endingsOf(drawingFiles)}
        disabled={drawing.pending}
        className={classes.quiet}
        onFiles={([file]) => file && void drawing.take(file)}
      />
      <label>
        <input
          type="checkbox"
          checked={picture !== 'hidden'}
          onChange={(event) => onPicture(event.currentTarget.checked ? 'level' : 'hidden')}
        />{' '}
        received level
      </label>
      {picture !== 'hidden' && (
        <select
          aria-label="What is painted"
          value={picture}
          onChange={(event) => onPicture(event.currentTarget.value as Picture)}
        >
          {pictures.map((each) => (
            <option key={each} value={each}>
              {pictureWords[each]}
            </option>
          ))}
        </select>
      )}
      <span className="soft" role="status">
        {words[tool.kind]}
      </span>
      {drawing.fault && <span className={sheet.fault}>{drawing.fault}</span>}
    </div>
  )
}

function alignWords(tool: Tool, floors: readonly Floor[]): string {
  if (tool.kind !== 'align') return ''
  const name = (id: string): string => floors.find((each) => each.id === id)?.name ?? 'the other drawing'
  return tool.here
    ? `click the same two points as on ${name(tool.floor)}`
    : `click two points that ${name(tool.with)} shows too`
}
