'use client'
import { useComputedColorScheme } from '@mantine/core'
import { useEffect, useId, useMemo, useState } from 'react'
import { type LivePlan, radiosOnAir } from '../../../core/plan/live-plan'
import { fitInUse } from '../../../core/plan/radio-hearings'
import { type Coverage, wantedDbm } from '../../../core/radio/coverage/coverage'
import type { Floor, Site } from '../../../core/radio/propagation/floor'
import type { Fit } from '../../../core/radio/propagation/propagation'
import { situated } from '../../../core/radio/propagation/situation'
import type { Band } from '../../../core/regulatory/blocks'
import { englishPapers } from '../../../words/en/papers'
import type { PaperWords } from '../../../words/paper-words'
import { usePlan } from '../state/plan-context'
import { contoursOf } from './contours'
import classes from './floor-map.module.css'
import { cssOf, type Picture, type PictureStep, pictureWords, stepAt, stepsOf } from './level-steps'

/** Coarse enough to follow a drag, fine enough to see a wall. */
function stepOf(floor: Floor): number {
  return Math.max(0.5, Math.max(floor.widthM, floor.depthM) / 240)
}

interface Props {
  readonly floor: Floor
  readonly band: Band
  readonly scale: number
  readonly picture: Picture
  /** Where it is for paper, which is light; else as the page is. */
  readonly scheme?: 'light'
  readonly onPainted?: (coverage: Coverage) => void
}

/** What a phone would hear, painted over the floor, with contours; what is too faint is hatched. */
export function CoverageLayer({ floor, band, scale, picture, scheme: forced, onPainted }: Props) {
  const { site, plans, live, paint } = usePlan()
  const ofPage = useComputedColorScheme('light')
  const scheme = forced ?? ofPage
  const hatch = useId()
  const [coverage, setCoverage] = useState<Coverage>()
  // Those of this floor first: the pointer names them by their place.
  const radios = useMemo(() => {
    const all = radiosOnAir(band, site, plans)
    return [
      ...all.filter((radio) => radio.floor.id === floor.id),
      ...all.filter((radio) => radio.floor.id !== floor.id),
    ]
  }, [band, site, plans, floor.id])

  const fit = useFit(site, live, band)

  useEffect(() => {
    const here = situated(site.floors).get(floor.id)
    if (!here) return
    paint({ kind: 'coverage', band, floor: here, radios, stepM: stepOf(floor), fit }, (painted) => {
      setCoverage(painted)
      onPainted?.(painted)
    })
  }, [paint, band, floor, radios, site.floors, onPainted, fit])

  const width = useWidth(band)
  const steps = useMemo(() => stepsOf(picture, scheme, width), [picture, scheme, width])
  const levels = coverage && (picture === 'second' ? coverage.second : coverage.dbm)
  const drawn = useMemo(
    () =>
      coverage &&
      levels && { image: imageOf(coverage, levels, steps), ...contoursOf(coverage, levels, steps, wantedDbm) },
    [coverage, levels, steps],
  )
  if (!coverage || !drawn) return null
  const cell = coverage.stepM * scale
  return (
    <g className={classes.coverage}>
      <image
        href={drawn.image}
        width={coverage.columns * cell}
        height={coverage.rows * cell}
        preserveAspectRatio="none"
      />
      <pattern id={hatch} width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line className={classes.hatch} y2={7} />
      </pattern>
      <path d={drawn.faint} transform={`scale(${cell})`} fill={`url(#${hatch})`} data-faint={drawn.faint !== ''} />
      <path className={classes.contour} d={drawn.lines} transform={`scale(${cell})`} />
      {drawn.labels.map(({ step, x, y }) => (
        <text key={step} className={classes.contourText} x={x * cell} y={y * cell}>
          {Math.round(steps[step]?.from ?? 0)}
        </text>
      ))}
    </g>
  )
}

/** The same object for as long as its numbers are: what is painted need not be painted again. */
function useFit(site: Site, live: LivePlan | undefined, band: Band): Fit {
  const { atTenMetresDb, perDecadeDb } = fitInUse(site, live?.misfits ?? [], band)
  return useMemo(() => ({ atTenMetresDb, perDecadeDb }), [atTenMetresDb, perDecadeDb])
}

/** Width of the channels in a band, MHz, by the first unit that has one. */
function useWidth(band: Band): number {
  const { plans } = usePlan()
  return [...plans.values()].flatMap(({ radios }) => radios.find((each) => each.band === band)?.width ?? [])[0] ?? 20
}

function imageOf({ columns, rows }: Coverage, levels: Float32Array, steps: readonly PictureStep[]): string {
  const canvas = document.createElement('canvas')
  canvas.width = columns
  canvas.height = rows
  const context = canvas.getContext('2d')
  const image = context?.createImageData(columns, rows)
  if (!context || !image) return ''
  levels.forEach((level, cell) => {
    const step = steps[stepAt(steps, level) ?? -1]
    if (step) image.data.set([...step.colour, 255], cell * 4)
  })
  context.putImageData(image, 0, 0)
  return canvas.toDataURL()
}

export function CoverageLegend({
  band,
  picture,
  scheme: forced,
  words: said = englishPapers.pictures,
}: Pick<Props, 'band' | 'picture' | 'scheme'> & { words?: PaperWords['pictures'] }) {
  const ofPage = useComputedColorScheme('light')
  const scheme = forced ?? ofPage
  const width = useWidth(band)
  return (
    <ul className={classes.legend} aria-label={`${pictureWords[picture]} at ${band} GHz`}>
      {stepsOf(picture, scheme, width, said.levels).map(({ from, words, colour }) => (
        <li key={from}>
          <span style={{ background: cssOf(colour) }} /> {words}
        </li>
      ))}
      <li>{said.hatched(wantedDbm)}</li>
    </ul>
  )
}
