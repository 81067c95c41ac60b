'use client'
import type { ReactNode } from 'react'
import { useJob } from '../live/job-provider'
import classes from './frame.module.css'
import { Keys } from './keys'
import { LaptopStrip } from './laptop-strip'
import { Mark } from './mark'
import { SchemeSwitch } from './scheme-switch'
import { StageTabs } from './stage-tabs'

/** What surrounds every page of a job: its name, the stages, the laptop. */
export function Frame({ children }: { children: ReactNode }) {
  const { job } = useJob()
  return (
    <div className={classes.frame}>
      <header className={classes.header}>
        <div className={classes.top}>
          <Mark />
          <span className={classes.job}>{job.name}</span>
          <span className={`${classes.site} soft`}>{job.brief.site}</span>
          <span className={classes.tools}>
            <Keys />
            <SchemeSwitch />
          </span>
        </div>
        <StageTabs />
      </header>
      <main className={classes.main}>{children}</main>
      <LaptopStrip />
    </div>
  )
}
