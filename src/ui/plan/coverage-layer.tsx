'use client'
import { useComputedColorScheme } from '@mantine/core'
import { useEffect, useMemo, useState } from 'react'
import { radiosOnAir } from '../../core/plan/live-plan'
import type { Coverage } from '../../core/radio/coverage'
import type { Floor } from '../../core/radio/floor'
import { situated } from '../../core/radio/situation'
import type { Band } from '../../core/regulatory/blocks'
import classes from './floor-map.module.css'
import { usePlan } from './plan-context'

/** Steps of the picture: from which level on, dBm, and what a phone makes of it. */
const steps: readonly {
  readonly from: number
  readonly words: string
  readonly light: string
  readonly dark: string
}[] = [
  { from: -45, words: 'very loud', light: '#b98aae', dark: '#7d4f70' },
  { from: -55, words: 'loud', light: '#cba6c2', dark: '#6a4560' },
  { from: -65, words: 'fast', light: '#d9bfd3', dark: '#573b50' },
  { from: -70, words: 'voice', light: '#e5d3e0', dark: '#483343' },
  { from: -75, words: 'works', light: '#efe4ec', dark: '#3b2c38' },
  { from: -82, words: 'weak', light: '#f7f1f5', dark: '#2f2630' },
]

/** The colour of a step as three bytes. */
function bytesOf(colour: string): [number, number, number] {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16))
  return [red, green, blue]
}

/** Coarse enough to follow a drag, fine enough to see a wall. */
function stepOf(floor: Floor): number {
  return Math.max(0.5, Math.max(floor.widthM, floor.depthM) / 240)
}

/** The received level of the loudest unit, painted over the floor. */
export function CoverageLayer({
  floor,
  band,
  scale,
  onPainted,
}: {
  floor: Floor
  band: Band
  scale: number
  onPainted: (coverage: Coverage) => void
}) {
  const { site, plans, paint } = usePlan()
  const scheme = useComputedColorScheme('light')
  const [coverage, setCoverage] = useState<Coverage>()
  // Those of this floor first: the pointer names them by their place.
  const radios = useMemo(() => {
    const all = radiosOnAir(band, site, plans)
    return [
      ...all.filter((radio) => radio.floor.id === floor.id),
      ...all.filter((radio) => radio.floor.id !== floor.id),
    ]
  }, [band, site, plans, floor.id])

  useEffect(() => {
    const here = situated(site.floors).get(floor.id)
    if (!here) return
    paint({ kind: 'coverage', band, floor: here, radios, stepM: stepOf(floor) }, (painted) => {
      setCoverage(painted)
      onPainted(painted)
    })
  }, [paint, band, floor, radios, site.floors, onPainted])

  const picture = useMemo(() => coverage && drawn(coverage, scheme), [coverage, scheme])
  if (!coverage || !picture) return null
  return (
    <image
      className={classes.coverage}
      href={picture}
      width={coverage.columns * coverage.stepM * scale}
      height={coverage.rows * coverage.stepM * scale}
      preserveAspectRatio="none"
    />
  )
}

function drawn({ columns, rows, dbm }: Coverage, scheme: 'light' | 'dark'): string {
  const canvas = document.createElement('canvas')
  canvas.width = columns
  canvas.height = rows
  const context = canvas.getContext('2d')
  const image = context?.createImageData(columns, rows)
  if (!context || !image) return ''
  dbm.forEach((level, cell) => {
    const step = steps.find((each) => level >= each.from)
    if (!step) return
    image.data.set([...bytesOf(step[scheme]), 255], cell * 4)
  })
  context.putImageData(image, 0, 0)
  return canvas.toDataURL()
}

export function CoverageLegend({ band }: { band: Band }) {
  const scheme = useComputedColorScheme('light')
  return (
    <ul className={classes.legend} aria-label={`Received level at ${band} GHz, dBm`}>
      {steps.map(({ from, words, [scheme]: colour }) => (
        <li key={from}>
          <span style={{ background: colour }} /> {from} {words}
        </li>
      ))}
    </ul>
  )
}
