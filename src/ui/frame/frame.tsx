'use client'
import { usePathname } from 'next/navigation'
import { type ReactNode, useEffect, useRef } from 'react'
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
  const stage = usePathname().split('/')[3]
  const main = useRef<HTMLElement>(null)
  // How far one stage was read says nothing of the next.
  // biome-ignore lint/correctness/useExhaustiveDependencies: another stage is what it waits for
  useEffect(() => main.current?.scrollTo(0, 0), [stage])
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
      <main ref={main} className={classes.main}>
        {children}
      </main>
      <LaptopStrip />
    </div>
  )
}
