'use client'
/**
 * The plan while it is looked at and changed: floors and places as they are dragged, the channels that follow, and why
 * each radio has its own.
 */
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react'
import { saveSiteAction } from '../../app/actions/plan-actions'
import type { LivePlan } from '../../core/config/live-plan'
import type { PlanInput, UnitPlan } from '../../core/config/plan'
import type { Coverage } from '../../core/radio/coverage'
import type { Site } from '../../core/radio/floor'
import { useJob } from '../live/job-provider'
import type { PlanAnswer, PlanTask } from './plan-worker'
import { usePlanWorker } from './use-plan-worker'

export interface PlanState {
  readonly site: Site
  /** Plans by unit: those of the server, or while something is dragged those that follow it. */
  readonly plans: ReadonlyMap<string, UnitPlan>
  readonly live: LivePlan | undefined
  /** How long the newest planning here took, ms. */
  readonly tookMs: number | undefined
  readonly undoable: number
  readonly fault: string | undefined
  /** @param part `step` of a drag: undone together with its beginning */
  change(edit: (site: Site) => Site, part?: 'whole' | 'step'): void
  undo(): void
  paint(task: Extract<PlanTask, { kind: 'coverage' }>, take: (coverage: Coverage, ms: number) => void): void
}

const PlanContext = createContext<PlanState | undefined>(undefined)

export function usePlan(): PlanState {
  const plan = useContext(PlanContext)
  if (!plan) throw new Error('usePlan outside of a PlanProvider')
  return plan
}

const restMs = 350

export function PlanProvider({ children }: { children: ReactNode }) {
  const job = useJob()
  const [site, setSite] = useState<Site>(job.site)
  const [past, setPast] = useState<readonly Site[]>([])
  const [live, setLive] = useState<LivePlan>()
  const [tookMs, setTookMs] = useState<number>()
  const [fault, setFault] = useState<string>()
  const [saving, setSaving] = useState(false)
  const kept = useRef({ site: job.site, version: job.siteVersion })
  const send = usePlanWorker()

  const { units, cards, country, before, plans: served } = job
  const { brief } = job.job
  const input = useMemo(
    (): PlanInput | undefined => country && { brief, units: [...units], cards, country, before, site, effort: 'brief' },
    [brief, units, cards, country, before, site],
  )
  const settled = site === kept.current.site

  // While something differs from what is saved, the plan follows here; else what the server planned is explained.
  useEffect(() => {
    if (!input) return
    const task: PlanTask = settled ? { kind: 'explain', input, plans: [...served.values()] } : { kind: 'plan', input }
    send(task, ({ result, ms }: PlanAnswer) => {
      if (!('reasons' in result)) return
      setLive(result)
      if (task.kind === 'plan') setTookMs(ms)
    })
  }, [input, settled, served, send])

  useEffect(() => {
    if (site === kept.current.site || saving || fault) return
    const timer = setTimeout(async () => {
      setSaving(true)
      try {
        const outcome = await saveSiteAction(job.job.slug, kept.current.version, site)
        if (outcome.ok) kept.current = { site, version: outcome.value ?? kept.current.version }
        else setFault(outcome.sentence)
      } catch {
        setFault('Air Muster does not answer. What you drew is kept here.')
      } finally {
        setSaving(false)
      }
    }, restMs)
    return () => clearTimeout(timer)
  }, [site, saving, fault, job.job.slug])

  const change = useCallback<PlanState['change']>(
    (edit, part = 'whole') => {
      setFault(undefined)
      if (part === 'whole') setPast((all) => [...all.slice(-99), site])
      setSite(edit)
    },
    [site],
  )
  const undo = useCallback(() => {
    const last = past.at(-1)
    if (!last) return
    setFault(undefined)
    setPast(past.slice(0, -1))
    setSite(last)
  }, [past])
  const paint = useCallback<PlanState['paint']>((task, take) => send(task, ({ result, ms }) => 'dbm' in result && take(result, ms)), [send])

  const plans = useMemo(() => (settled || !live ? served : new Map(live.plans.map((plan) => [plan.unit, plan]))), [settled, live, served])
  const value = useMemo(
    (): PlanState => ({ site, plans, live, tookMs, undoable: past.length, fault, change, undo, paint }),
    [site, plans, live, tookMs, past.length, fault, change, undo, paint],
  )
  return <PlanContext value={value}>{children}</PlanContext>
}
