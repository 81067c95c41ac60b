'use client'
import { useCallback, useState, useTransition } from 'react'
import type { Failure, Outcome } from '../../core/job/outcome'

/** Runs an action; tells whether it is under way, and the sentence where it failed. */
export function useOrder(): {
  order: (act: () => Promise<Outcome>) => void
  pending: boolean
  fault: Failure | undefined
} {
  const [pending, start] = useTransition()
  const [fault, setFault] = useState<Failure>()
  const order = useCallback((act: () => Promise<Outcome>) => {
    start(async () => {
      try {
        const outcome = await act()
        setFault(outcome.ok ? undefined : outcome)
      } catch {
        setFault({ ok: false, sentence: 'Air Muster does not answer. Nothing was changed; try again when it runs.' })
      }
    })
  }, [])
  return { order, pending, fault }
}
