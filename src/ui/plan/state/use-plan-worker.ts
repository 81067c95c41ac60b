'use client'
import { useCallback, useEffect, useRef } from 'react'
import type { PlanAnswer, PlanTask } from './plan-worker'

/** Tasks of one key follow each other: a plan after a plan, a picture after one of the same floor and band. */
function keyOf(task: PlanTask): string {
  return task.kind === 'coverage' ? `coverage ${task.floor.id} ${task.band}` : task.kind
}

/**
 * One worker for the page. A task that comes while another of its key is under way waits, and only the newest waits:
 * what a drag has passed by is not worth planning.
 */
export function usePlanWorker(): (task: PlanTask, take: (answer: PlanAnswer) => void) => void {
  const worker = useRef<Worker>(undefined)
  const busy = useRef(new Map<string, { id: number; take: (answer: PlanAnswer) => void }>())
  const waiting = useRef(new Map<string, { task: PlanTask; take: (answer: PlanAnswer) => void }>())
  const number = useRef(0)

  const send = useCallback((task: PlanTask, take: (answer: PlanAnswer) => void) => {
    const key = keyOf(task)
    if (!worker.current || busy.current.has(key)) {
      waiting.current.set(key, { task, take })
      return
    }
    number.current += 1
    busy.current.set(key, { id: number.current, take })
    worker.current.postMessage({ id: number.current, task })
  }, [])

  useEffect(() => {
    const started = new Worker(new URL('./plan-worker.ts', import.meta.url), { type: 'module' })
    worker.current = started
    const next = (): void => {
      for (const [key, { task, take }] of waiting.current) {
        if (busy.current.has(key)) continue
        waiting.current.delete(key)
        send(task, take)
      }
    }
    started.addEventListener('message', ({ data }: MessageEvent<PlanAnswer>) => {
      for (const [key, { id, take }] of busy.current) {
        if (id !== data.id) continue
        busy.current.delete(key)
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
