'use client'
import { useMemo } from 'react'
import { type PoeLoad, poeLoads } from '../../core/kit/poe'
import { switchWords } from '../../words/en/parts'
import { useJob } from '../live/job-provider'
import classes from './kit.module.css'
import type { KitSheet } from './use-kit-sheet'

/** PoE load against what feeds it, switch by switch: by class, and by what leaves the ports. */
export function PoeLine({ sheet }: { sheet: KitSheet }) {
  const { cards } = useJob()
  const loads = useMemo(() => poeLoads(sheet.units, cards), [sheet.units, cards])
  return loads.map((load) => (load.poweredUnits === 0 ? null : <PoeBar key={load.switches.join(' ')} load={load} />))
}

function PoeBar({ load: { budgetWatts, byClassWatts, byDrawWatts, switches } }: { load: PoeLoad }) {
  const most = Math.max(budgetWatts ?? 0, byClassWatts, byDrawWatts)
  const share = (watts: number): string => `${(100 * watts) / most}%`
  return (
    <div className={classes.poe}>
      <div
        className={classes.poeBar}
        role="img"
        aria-label={
          `${byDrawWatts} W drawn at the most, ${byClassWatts} W by ` +
          `class${budgetWatts === undefined ? '' : ` of ${budgetWatts} W`}`
        }
      >
        <span className={classes.poeClass} style={{ width: share(byClassWatts) }} />
        <span
          className={classes.poeDrawn}
          data-over={budgetWatts !== undefined && byDrawWatts > budgetWatts}
          style={{ width: share(byDrawWatts) }}
        />
        {budgetWatts !== undefined && <span className={classes.poeBudget} style={{ left: share(budgetWatts) }} />}
      </div>
      <span className="soft">
        <b>{byDrawWatts} W</b> drawn at the most, {byClassWatts} W by class
        {budgetWatts === undefined
          ? '; no switch on the list'
          : `, of ${budgetWatts} W that ${switchWords(switches)} gives`}
      </span>
    </div>
  )
}
