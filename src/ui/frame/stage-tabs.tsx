'use client'
import { usePathname } from 'next/navigation'
import { useMemo } from 'react'
import { expectedOfAll } from '../../core/config/asked'
import { asBuilt, gapsIn } from '../../core/handover/as-built'
import { called } from '../../core/muster/called'
import { type Standing, stages, standings } from '../../core/muster/stages'
import { sentence } from '../../words/en/sentence'
import { useJob } from '../live/job-provider'
import { PageLink } from './page-link'
import classes from './stage-tabs.module.css'

export const stageNames = {
  brief: 'Brief',
  kit: 'Kit',
  plan: 'Plan',
  bench: 'Bench',
  muster: 'Muster',
  handover: 'Handover',
} as const

const marks: Readonly<Record<Standing['mark'], { sign: string; words: string }>> = {
  done: { sign: '✓', words: 'done' },
  attention: { sign: '!', words: 'needs you' },
  none: { sign: '', words: '' },
}

/** The six stages in working order, each with where it stands: navigation and progress at once. */
export function StageTabs() {
  const { job, units, cards, plans, briefFaults, rosterFaults, planFaults, roll, asking } = useJob()
  // Worked out once for each state of the job, and only where all answer.
  const incomplete = useMemo(() => {
    let known: boolean | undefined
    return (): boolean => {
      known ??=
        gapsIn(asBuilt({ brief: job.brief, units, cards, plans, roll, expected: expectedOfAll(asking) })).length > 0
      return known
    }
  }, [job.brief, units, cards, plans, roll, asking])
  const path = usePathname()
  const all = standings({
    brief: job.brief,
    units,
    planned: units.filter((unit) => plans.has(unit.id)).length,
    faults: { brief: briefFaults, kit: rosterFaults.length, plan: planFaults.length },
    called: called(units, cards),
    roll,
    incomplete,
  })
  return (
    <nav className={classes.course} aria-label="Stages">
      {stages.map((stage, index) => {
        const { told, mark } = all[stage]
        const here = path.split('/')[3] === stage
        return (
          <PageLink
            key={stage}
            href={`/jobs/${job.slug}/${stage}`}
            className={classes.tab ?? ''}
            aria-current={here ? 'page' : undefined}
            data-stage={stage}
          >
            <b>
              <span className={classes.number}>{index + 1} </span>
              {stageNames[stage]}
            </b>
            <span className={classes.mark} data-mark={mark}>
              <span aria-hidden="true">{marks[mark].sign}</span>
              <span className="visually-hidden">{marks[mark].words}</span>
            </span>
            <span className={classes.words}>{sentence(told)}</span>
          </PageLink>
        )
      })}
    </nav>
  )
}
