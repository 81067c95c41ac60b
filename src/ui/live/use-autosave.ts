'use client'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Outcome } from '../../core/job/outcome'
import { sentence } from '../../words/en/sentence'

/** How what is on the page stands to what is saved. */
export interface Standing {
  readonly kind: 'saved' | 'saving' | 'unfinished' | 'refused'
  readonly words: string
}

export interface Autosave {
  readonly saving: boolean
  /** Why the newest save was refused; nothing more is saved until `forgive`. */
  readonly refusal: string | undefined
  /** A new change: what was refused may be tried again. */
  forgive(): void
}

interface AutosaveOptions<P, R> {
  /** What is to be saved now; undefined while there is nothing. */
  readonly pending: P | undefined
  /** How long the hands must rest first, ms. */
  readonly restMs: number
  readonly save: (pending: P) => Promise<Outcome<R>>
  readonly onSaved: (result: R | undefined, saved: P) => void
}

/** Saves what is pending by itself, one save at a time, a moment after the last change, or when its page is left. */
export function useAutosave<P, R>({ pending, restMs, save, onSaved }: AutosaveOptions<P, R>): Autosave {
  const [saving, setSaving] = useState(false)
  const [refusal, setRefusal] = useState<string>()
  const acts = useRef({ save, onSaved })
  acts.current = { save, onSaved }

  useEffect(() => {
    if (pending === undefined || saving || refusal) return
    const timer = setTimeout(async () => {
      setSaving(true)
      try {
        const outcome = await acts.current.save(pending)
        if (outcome.ok) acts.current.onSaved(outcome.value, pending)
        else setRefusal(sentence(outcome.told))
      } catch {
        setRefusal('Air Muster does not answer. What you did is kept here; change anything to try again.')
      } finally {
        setSaving(false)
      }
    }, restMs)
    return () => clearTimeout(timer)
  }, [pending, saving, refusal, restMs])

  // Whoever turns to another stage before the hands have rested has made the change all the same.
  const waiting = useRef<P>(undefined)
  waiting.current = saving || refusal ? undefined : pending
  useEffect(
    () => () => {
      // What does not arrive stays a draft in this browser, and is saved when its page is opened again.
      if (waiting.current !== undefined) acts.current.save(waiting.current).catch(() => undefined)
    },
    [],
  )

  const forgive = useCallback(() => setRefusal(undefined), [])
  return { saving, refusal, forgive }
}
