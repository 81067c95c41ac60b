'use client'
import { Button } from '@mantine/core'
import { useState } from 'react'
import { type Floor, type Material, plainFloor } from '../../../core/radio/propagation/floor'
import type { Band } from '../../../core/regulatory/blocks'
import { DropPlace } from '../../frame/drop-place'
import { drawingFiles } from '../../frame/file-kinds'
import { useJob } from '../../live/job-provider'
import sheet from '../../theme/sheet.module.css'
import { PlanList } from '../slip/plan-list'
import { PlanSlip } from '../slip/plan-slip'
import classes from '../state/plan.module.css'
import { usePlan } from '../state/plan-context'
import { FloorFields } from './floor-fields'
import { FloorMap } from './floor-map'
import { FloorTools, type Tool } from './floor-tools'
import type { Picture } from './level-steps'
import { useDrawing } from './use-drawing'

/** The floor: units where they hang, walls, who hears whom on one channel. */
export function FloorView() {
  const { job, units, selected } = useJob()
  const { site, change } = usePlan()
  const bands = job.brief.radio.bands.map(({ band }) => band)
  const [floorId, setFloorId] = useState(site.floors[0]?.id)
  const [band, setBand] = useState<Band>(bands.includes('5') ? '5' : (bands[0] ?? '5'))
  const [tool, setTool] = useState<Tool>({ kind: 'move' })
  const [material, setMaterial] = useState<Material>('brick')
  const [picture, setPicture] = useState<Picture | 'hidden'>('hidden')
  const unit = units.find((each) => each.id === selected)
  const placed = site.placements.find((placement) => placement.unit === selected)
  const floor = site.floors.find((each) => each.id === (floorId ?? placed?.floor)) ?? site.floors[0]

  const drawing = useDrawing(floor)

  const addFloor = () => {
    let number = site.floors.length
    while (site.floors.some((each) => each.id === `floor-${number}`)) number += 1
    const fresh: Floor = {
      id: `floor-${number}`,
      name: number === 0 ? 'Ground floor' : `Floor ${number}`,
      storey: number,
      heightM: 3.2,
      environment: job.brief.radio.environment,
      widthM: 40,
      depthM: 25,
      drawing: null,
      walls: [],
      ...plainFloor,
    }
    change((before) => ({ ...before, floors: [...before.floors, fresh] }))
    setFloorId(fresh.id)
  }

  if (!floor)
    return (
      <div className={sheet.columns}>
        <div className={sheet.sheet}>
          <div className={`${sheet.pad} ${classes.empty}`}>
            <p>
              No floor yet. With one, the plan knows who hears whom, and channels are reused only where nobody is
              disturbed. Without one, whom a unit hears is taken from the order of the list.
            </p>
            <Button onClick={addFloor}>Add the first floor</Button>
          </div>
          <PlanList />
        </div>
        {unit ? (
          <PlanSlip key={unit.id} unit={unit} />
        ) : (
          <aside className={`${sheet.sheet} ${sheet.pad}`}>
            <p className="soft">Select a unit to see why it has its channels, and how its power is worked out.</p>
          </aside>
        )}
      </div>
    )
  return (
    <div className={sheet.columns}>
      <DropPlace
        what="a drawing as SVG, PNG, JPEG or PDF"
        accept={drawingFiles}
        className={`${sheet.sheet} ${classes.floor}`}
        onFiles={([file]) => file && void drawing.take(file)}
      >
        <div className={classes.floorHead}>
          {site.floors.map((each) => (
            <button key={each.id} type="button" aria-pressed={each.id === floor.id} onClick={() => setFloorId(each.id)}>
              {each.name}
            </button>
          ))}
          <button type="button" className={classes.quiet} onClick={addFloor}>
            Add a floor
          </button>
          <span className={classes.bands}>
            {bands.map((each) => (
              <button key={each} type="button" aria-pressed={each === band} onClick={() => setBand(each)}>
                {each} GHz
              </button>
            ))}
          </span>
        </div>
        <FloorTools
          floor={floor}
          drawing={drawing}
          tool={tool}
          onTool={setTool}
          material={material}
          onMaterial={setMaterial}
          picture={picture}
          onPicture={setPicture}
        />
        <FloorMap
          key={floor.id}
          floor={floor}
          band={band}
          tool={tool}
          onTool={setTool}
          onFloor={setFloorId}
          material={material}
          picture={picture}
        />
      </DropPlace>
      {unit ? (
        <PlanSlip key={unit.id} unit={unit} />
      ) : (
        <FloorFields key={floor.id} floor={floor} onPlace={(id) => setTool({ kind: 'place', unit: id })} />
      )}
    </div>
  )
}
