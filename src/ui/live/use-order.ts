'use client'
import { useCallback, useState, useTransition } from 'react'
import { type Failure, failed, type Outcome } from '../../core/job/outcome'
import { message } from '../../core/message/message'

/** Runs an action; tells whether it is under way, and what is told where it failed. */
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
        setFault(failed(message('pages-do-not-answer')))
      }
    })
  }, [])
  return { order, pending, fault }
}
