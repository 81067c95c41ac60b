'use client'
/**
 * The plan while it is looked at and changed: floors and places as they are dragged, the channels that follow, and why
 * each radio has its own.
 */
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react'
import { saveSiteAction } from '../../../actions/plan-actions'
import { shutChannels } from '../../../core/muster/shut-channels'
import type { LivePlan } from '../../../core/plan/live-plan'
import type { PlanInput, UnitPlan } from '../../../core/plan/plan'
import type { ShutChannels } from '../../../core/radio/channels/shut-span'
import type { Coverage } from '../../../core/radio/coverage/coverage'
import type { Site } from '../../../core/radio/propagation/floor'
import { useJob } from '../../live/job-provider'
import { type Standing, useAutosave } from '../../live/use-autosave'
import { useHistory } from '../../live/use-history'
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
  readonly standing: Standing
  /** @param part `step` of a drag: undone together with its beginning */
  change(edit: (site: Site) => Site, part?: 'whole' | 'step'): void
  undo(): void
  /** Until what was changed is saved, or cannot be. */
  whenSaved(): Promise<void>
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
  const { job, units, cards, country, before, roll, plans: served, site: savedSite, siteVersion } = useJob()
  const [site, setSite] = useState<Site>(savedSite)
  const [kept, setKept] = useState({ site: savedSite, version: siteVersion })
  const [live, setLive] = useState<LivePlan>()
  const [tookMs, setTookMs] = useState<number>()
  const history = useHistory<Site>()
  const send = usePlanWorker()
  const { brief } = job
  // Whoever heard radar is known by what the roll tells, which comes anew with every event.
  const radar = JSON.stringify([...shutChannels(roll, Date.now())])
  const shut = useMemo(() => new Map(JSON.parse(radar)) as ShutChannels, [radar])
  const input = useMemo(
    (): PlanInput | undefined =>
      country && { brief, units: [...units], cards, country, before, site, effort: 'quick', shut },
    [brief, units, cards, country, before, site, shut],
  )
  const settled = site === kept.site

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

  const { saving, refusal, forgive } = useAutosave({
    pending: settled ? undefined : site,
    restMs,
    save: (pending) => saveSiteAction(job.slug, kept.version, pending),
    onSaved: (version, pending) => setKept({ site: pending, version: version ?? kept.version }),
  })
  const standing: Standing = refusal
    ? { kind: 'refused', words: refusal }
    : saving || !settled
      ? { kind: 'saving', words: 'Saving …' }
      : { kind: 'saved', words: 'Saved' }

  const waiting = useRef<(() => void)[]>([])
  // Whoever asks may have begun long ago, when something else was shown: a file that takes long to read, for example.
  const isSaving = useRef(false)
  isSaving.current = standing.kind === 'saving'
  useEffect(() => {
    if (standing.kind !== 'saving') for (const over of waiting.current.splice(0)) over()
  }, [standing.kind])
  const whenSaved = useCallback(
    () =>
      new Promise<void>((resolve) => {
        if (isSaving.current) waiting.current.push(resolve)
        else resolve()
      }),
    [],
  )

  const latest = useRef(site)
  latest.current = site
  const { push, pop } = history
  const change = useCallback<PlanState['change']>(
    (edit, part = 'whole') => {
      forgive()
      if (part === 'whole') push(latest.current)
      setSite(edit)
    },
    [push, forgive],
  )
  const undo = useCallback(() => {
    const last = pop()
    if (!last) return
    forgive()
    setSite(last)
  }, [pop, forgive])
  const paint = useCallback<PlanState['paint']>(
    (task, take) => send(task, ({ result, ms }) => 'dbm' in result && take(result, ms)),
    [send],
  )

  const plans = useMemo(
    () => (settled || !live ? served : new Map(live.plans.map((plan) => [plan.unit, plan]))),
    [settled, live, served],
  )
  const { undoable } = history
  const value: PlanState = { site, plans, live, tookMs, undoable, standing, change, undo, whenSaved, paint }
  return <PlanContext value={value}>{children}</PlanContext>
}
