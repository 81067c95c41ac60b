'use client'
import { useComputedColorScheme } from '@mantine/core'
import { useEffect, useRef } from 'react'
import { allBlocks, bands } from '../../../core/regulatory/blocks'
import type { CountryRules } from '../../../core/regulatory/database'
import { judge, type LegalBlock } from '../../../core/regulatory/legal'
import { loadPlotly } from '../state/as-shipped'
import classes from '../state/plan.module.css'

const kinds = [
  { words: 'free to use', of: (block: LegalBlock) => !block.radar && !block.indoor, role: '--leaf', ground: 'full' },
  { words: 'indoors only', of: (block: LegalBlock) => !block.radar && block.indoor, role: '--leaf', ground: 'hollow' },
  {
    words: 'listens for radar',
    of: (block: LegalBlock) => block.radar && !block.indoor,
    role: '--brass',
    ground: 'full',
  },
  {
    words: 'radar, indoors only',
    of: (block: LegalBlock) => block.radar && block.indoor,
    role: '--brass',
    ground: 'hollow',
  },
] as const

/** Greatest EIRP over frequency, 20 MHz by 20 MHz, one picture a band. */
export function RulesChart({ country, environment }: { country: CountryRules; environment: 'indoor' | 'outdoor' }) {
  const box = useRef<HTMLDivElement>(null)
  const scheme = useComputedColorScheme('light')

  // biome-ignore lint/correctness/useExhaustiveDependencies: another scheme has other colours, read within
  useEffect(() => {
    const element = box.current
    if (!element) return
    let gone = false
    const draw = async (): Promise<void> => {
      const plotly = await loadPlotly()
      if (gone) return
      const narrow = element.clientWidth < 600
      // Roles are read when the scheme is: the picture takes the page's own colours.
      const colour = (role: string): string => getComputedStyle(document.documentElement).getPropertyValue(role).trim()
      const legal = allBlocks
        .filter((block) => block.width === 20 && !(block.band === '2.4' && block.channel === 14))
        .flatMap((block) => {
          const judgement = judge(country, block)
          return judgement.legal && (environment === 'indoor' || !judgement.block.indoor) ? [judgement.block] : []
        })
      const traces = bands.flatMap((band, column) =>
        kinds.map(({ words, of, role, ground }) => {
          const blocks = legal.filter((block) => block.band === band && of(block))
          return {
            type: 'bar' as const,
            name: words,
            legendgroup: words,
            // Once for each kind, in the first band that has it.
            showlegend:
              blocks.length > 0 &&
              bands.findIndex((each) => legal.some((block) => block.band === each && of(block))) === column,
            x: blocks.map((block) => (block.lowMhz + block.highMhz) / 2),
            y: blocks.map((block) => block.limitDbm),
            width: blocks.map(() => (band === '2.4' ? 4.4 : 18)),
            customdata: blocks.map((block) => block.channel),
            hovertemplate: 'channel %{customdata}: %{y:.1f} dBm EIRP<extra></extra>',
            marker: {
              color: ground === 'full' ? colour(role) : colour('--sheet'),
              opacity: 0.85,
              line: { color: colour(role), width: ground === 'full' ? 0 : 2 },
            },
            xaxis: column === 0 ? 'x' : `x${column + 1}`,
            yaxis: 'y',
          }
        }),
      )
      const axis = (title: string, domain: [number, number], range: [number, number]) => ({
        title: { text: title },
        domain,
        range,
        color: colour('--soft'),
        gridcolor: colour('--faint-rule'),
        fixedrange: true,
        ...(narrow ? { nticks: 3, tickangle: 0 } : {}),
      })
      await plotly.react(
        element,
        traces as never,
        {
          barmode: 'overlay',
          height: narrow ? 300 : 250,
          margin: { l: 46, r: 8, t: 8, b: narrow ? 112 : 62 },
          paper_bgcolor: 'transparent',
          plot_bgcolor: 'transparent',
          font: { family: getComputedStyle(document.body).fontFamily, size: 12, color: colour('--ink') },
          xaxis: axis('2.4 GHz, MHz', [0, 0.17], [2395, 2490]),
          xaxis2: axis('5 GHz, MHz', [0.21, 0.6], [5160, 5900]),
          xaxis3: axis('6 GHz, MHz', [0.64, 1], [5935, 7130]),
          yaxis: {
            title: { text: 'EIRP, dBm' },
            rangemode: 'tozero',
            color: colour('--soft'),
            gridcolor: colour('--faint-rule'),
            fixedrange: true,
          },
          legend: { orientation: 'h', y: narrow ? -0.42 : -0.3 },
        } as never,
        { displayModeBar: false, responsive: true },
      )
      element.dataset.drawn = country.country
    }
    void draw()
    return () => {
      gone = true
    }
  }, [country, environment, scheme])

  return (
    <div
      ref={box}
      className={classes.chart}
      role="img"
      aria-label={`Greatest EIRP by frequency in ${country.country}; the tables below hold the same`}
    />
  )
}
