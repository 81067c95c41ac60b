'use client'
import type { CSSProperties } from 'react'
import type { Floor } from '../../core/radio/propagation/floor'
import type { Band } from '../../core/regulatory/blocks'
import type { PaperWords } from '../../words/paper-words'
import { useJob } from '../live/job-provider'
import { CoverageLayer, CoverageLegend } from '../plan/floors/coverage-layer'
import { DrawingImage } from '../plan/floors/drawing-image'
import floorClasses from '../plan/floors/floor-map.module.css'
import { PlanProvider, usePlan } from '../plan/state/plan-context'
import classes from './handover.module.css'
import { placeLabels } from './place-labels'

/** Every floor with units on it as a phone hears it, band by band; nothing where no floor is drawn. */
export function FloorPictures({ words }: { words: PaperWords }) {
  const { site } = useJob()
  const used = site.floors.filter(({ id }) => site.placements.some(({ floor }) => floor === id))
  if (used.length === 0) return null
  return (
    <PlanProvider>
      <section className={classes.floors} aria-label={words.pictures.title}>
        <h3>{words.pictures.title}</h3>
        <p>{words.pictures.about(site.model === 'fitted')}</p>
        {used.map((floor) => (
          <FloorBands key={floor.id} floor={floor} words={words.pictures} />
        ))}
      </section>
    </PlanProvider>
  )
}

type Words = PaperWords['pictures']

function FloorBands({ floor, words }: { floor: Floor; words: Words }) {
  const { plans, site } = usePlan()
  const here = new Set(site.placements.filter((each) => each.floor === floor.id).map(({ unit }) => unit))
  const bands = (['2.4', '5', '6'] as const).filter((band) =>
    [...plans.values()].some(({ unit, radios }) => here.has(unit) && radios.some((radio) => radio.band === band)),
  )
  return bands.map((band) => <FloorPicture key={band} floor={floor} band={band} words={words} />)
}

/** Picture units for each metre: what text and lines are drawn by, whatever the paper. */
const scale = 16

function FloorPicture({ floor, band, words }: { floor: Floor; band: Band; words: Words }) {
  const { units } = useJob()
  const { site, plans } = usePlan()
  const here = site.placements.filter((placement) => placement.floor === floor.id)
  const [width, depth] = [floor.widthM * scale, floor.depthM * scale]
  const textSize = Math.max(14, width / 60)
  const labels = placeLabels(
    here.map(({ unit, x, y }) => {
      const name = units.find((each) => each.id === unit)?.name ?? unit
      const channel = plans.get(unit)?.radios.find((radio) => radio.band === band)?.channel
      return { key: unit, text: channel === undefined ? name : `${name}: ${channel}`, x: x * scale, y: y * scale }
    }),
    textSize,
  )
  return (
    <figure className={classes.floor} data-picture={`${floor.id} ${band}`}>
      <figcaption>
        <b>
          {floor.name}, {band} GHz
        </b>
        <CoverageLegend band={band} picture="level" scheme="light" words={words} />
      </figcaption>
      <svg
        viewBox={`0 0 ${width} ${depth}`}
        style={{ '--text-size': `${textSize}px` } as CSSProperties}
        role="img"
        aria-label={words.of(floor.name, band)}
      >
        <title>{`${floor.name}, ${band} GHz`}</title>
        <DrawingImage floor={floor} scale={scale} />
        <CoverageLayer floor={floor} band={band} scale={scale} picture="level" scheme="light" />
        {floor.walls.map((wall, index) => (
          <line
            // biome-ignore lint/suspicious/noArrayIndexKey: a wall has no name but its place in the list
            key={index}
            className={floorClasses.wall}
            data-material={wall.material}
            x1={wall.x1 * scale}
            y1={wall.y1 * scale}
            x2={wall.x2 * scale}
            y2={wall.y2 * scale}
          />
        ))}
        {here.map(({ unit, x, y }) => (
          <circle key={unit} cx={x * scale} cy={y * scale} r={textSize / 3} />
        ))}
        {labels.map(({ key, text, x, y }) => (
          <text key={key} x={x} y={y} textAnchor="middle">
            {text}
          </text>
        ))}
      </svg>
    </figure>
  )
}
