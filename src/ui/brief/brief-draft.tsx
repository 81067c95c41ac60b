'use client'
/**
 * The brief while it is written: every change is kept at once here, can be undone, and is saved by itself as soon as
 * it is whole. What is not whole yet stays in this browser, even over a reload.
 */
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react'
import { saveBriefAction } from '../../app/actions/brief-actions'
import { type Brief, briefSchema } from '../../core/brief/brief'
import { applyMend, type BriefFault } from '../../core/brief/fault'
import { briefMeaning, type Meaning } from '../../core/brief/meaning'
import { reviewBrief } from '../../core/brief/review'
import type { CountryRules } from '../../core/regulatory/database'
import { useJob } from '../live/job-provider'
import { withValue } from './brief-path'

export interface BriefDraft {
  readonly brief: Brief
  /** Counted up whenever fields that hold their own text must begin anew. */
  readonly round: number
  readonly faults: readonly BriefFault[]
  readonly meanings: readonly Meaning[]
  readonly standing: { readonly is: 'saved' | 'saving' | 'unfinished' | 'refused'; readonly words: string }
  readonly undoable: number
  change(path: string, value: unknown): void
  mend(set: readonly { readonly path: string; readonly value: unknown }[]): void
  undo(): void
  /** Throws the draft away for what is saved: after somebody else has changed it. */
  reload(): void
}

const DraftContext = createContext<BriefDraft | undefined>(undefined)

export function useBrief(): BriefDraft {
  const draft = useContext(DraftContext)
  if (!draft) throw new Error('useBrief outside of a BriefDraftProvider')
  return draft
}

const restMs = 600
/** Changes of one field within this time are undone together. */
const togetherMs = 1500

interface History {
  readonly brief: Brief
  readonly path: string
  readonly at: number
}

export function BriefDraftProvider({ rules, children }: { rules: ReadonlyMap<string, CountryRules>; children: ReactNode }) {
  const { job, units, cards, weak } = useJob()
  const [brief, setBrief] = useState<Brief>(job.brief)
  const [past, setPast] = useState<readonly History[]>([])
  const [round, setRound] = useState(0)
  const [refusal, setRefusal] = useState<string>()
  const [saving, setSaving] = useState(false)
  /** What the server has, and its number. */
  const kept = useRef({ brief: JSON.stringify(job.brief), version: job.version })
  const storageKey = `air-muster brief ${job.slug}`

  // What was typed before a reload and was not whole yet.
  useEffect(() => {
    const text = sessionStorage.getItem(storageKey)
    if (!text) return
    const before = JSON.parse(text) as { version: number; brief: Brief }
    if (before.version === kept.current.version) {
      setBrief(before.brief)
      setRound((count) => count + 1)
    } else sessionStorage.removeItem(storageKey)
  }, [storageKey])

  const parsed = useMemo(() => briefSchema.safeParse(brief), [brief])
  const text = useMemo(() => JSON.stringify(brief), [brief])

  useEffect(() => {
    if (text === kept.current.brief) {
      sessionStorage.removeItem(storageKey)
      return
    }
    sessionStorage.setItem(storageKey, JSON.stringify({ version: kept.current.version, brief: JSON.parse(text) }))
    if (!parsed.success || saving || refusal) return
    const timer = setTimeout(async () => {
      setSaving(true)
      try {
        const outcome = await saveBriefAction(job.slug, kept.current.version, parsed.data)
        if (outcome.ok) kept.current = { brief: text, version: outcome.value ?? kept.current.version }
        else setRefusal(outcome.sentence)
      } catch {
        setRefusal('Air Muster does not answer. What you typed is kept here.')
      } finally {
        setSaving(false)
      }
    }, restMs)
    return () => clearTimeout(timer)
  }, [text, parsed, saving, refusal, job.slug, storageKey])

  const push = useCallback((before: Brief, path: string) => {
    setRefusal(undefined)
    setPast((all) => {
      const last = all.at(-1)
      const at = Date.now()
      if (last && last.path === path && at - last.at < togetherMs) return [...all.slice(0, -1), { ...last, at }]
      return [...all.slice(-99), { brief: before, path, at }]
    })
  }, [])
  const change = useCallback(
    (path: string, value: unknown) => {
      push(brief, path)
      setBrief(withValue(brief, path, value))
    },
    [brief, push],
  )
  const mend = useCallback<BriefDraft['mend']>(
    (set) => {
      push(brief, `mend ${Date.now()}`)
      setBrief(applyMend(brief, set))
      setRound((count) => count + 1)
    },
    [brief, push],
  )
  const undo = useCallback(() => {
    const last = past.at(-1)
    if (!last) return
    setPast(past.slice(0, -1))
    setBrief(last.brief)
    setRefusal(undefined)
    setRound((count) => count + 1)
  }, [past])
  const reload = useCallback(() => {
    kept.current = { brief: JSON.stringify(job.brief), version: job.version }
    setBrief(job.brief)
    setPast([])
    setRefusal(undefined)
    setRound((count) => count + 1)
  }, [job])

  const value = useMemo((): BriefDraft => {
    const models = [...new Set(units.map((unit) => unit.model))].flatMap((model) => cards.get(model) ?? [])
    const country = rules.get(brief.country)
    const faults: readonly BriefFault[] = parsed.success
      ? reviewBrief({ brief: parsed.data, country, models, weak })
      : parsed.error.issues.map((issue) => ({ field: issue.path.join('.'), weight: 'mend', sentence: issue.message }))
    const open = faults.length
    const standing: BriefDraft['standing'] = refusal
      ? { is: 'refused', words: refusal }
      : !parsed.success
        ? { is: 'unfinished', words: `Not saved yet: ${open} ${open === 1 ? 'field' : 'fields'} to mend` }
        : saving || text !== kept.current.brief
          ? { is: 'saving', words: 'Saving …' }
          : { is: 'saved', words: 'Saved' }
    return { brief, round, faults, meanings: parsed.success ? briefMeaning(parsed.data, country) : [], standing, undoable: past.length, change, mend, undo, reload }
  }, [brief, round, parsed, past.length, refusal, saving, text, rules, units, cards, weak, change, mend, undo, reload])

  return <DraftContext value={value}>{children}</DraftContext>
}
