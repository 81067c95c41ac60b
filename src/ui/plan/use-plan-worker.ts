'use client'
import { useCallback, useEffect, useRef } from 'react'
import type { PlanAnswer, PlanTask } from './plan-worker'

/**
 * One worker for the page. A task that comes while another of its kind is under way waits, and only the newest waits:
 * what a drag has passed by is not worth planning.
 */
export function usePlanWorker(): (task: PlanTask, take: (answer: PlanAnswer) => void) => void {
  const worker = useRef<Worker>(undefined)
  const busy = useRef(new Map<PlanTask['kind'], { id: number; take: (answer: PlanAnswer) => void }>())
  const waiting = useRef(new Map<PlanTask['kind'], { task: PlanTask; take: (answer: PlanAnswer) => void }>())
  const number = useRef(0)

  const send = useCallback((task: PlanTask, take: (answer: PlanAnswer) => void) => {
    if (!worker.current || busy.current.has(task.kind)) {
      waiting.current.set(task.kind, { task, take })
      return
    }
    number.current += 1
    busy.current.set(task.kind, { id: number.current, take })
    worker.current.postMessage({ id: number.current, task })
  }, [])

  useEffect(() => {
    const started = new Worker(new URL('./plan-worker.ts', import.meta.url), { type: 'module' })
    worker.current = started
    const next = (): void => {
      for (const [kind, { task, take }] of waiting.current) {
        if (busy.current.has(kind)) continue
        waiting.current.delete(kind)
        send(task, take)
      }
    }
    started.addEventListener('message', ({ data }: MessageEvent<PlanAnswer>) => {
      for (const [kind, { id, take }] of busy.current) {
        if (id !== data.id) continue
        busy.current.delete(kind)
        take(data)
      }
      next()
    })
    next()
    return () => {
      started.terminate()
      worker.current = undefined
      busy.current.clear()
    }
  }, [send])

  return send
}
