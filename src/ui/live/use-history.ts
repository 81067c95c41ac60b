'use client'
import { useCallback, useRef, useState } from 'react'

/** Steps that can be undone. */
const most = 100
/** Changes of one thing within this time are undone together, ms. */
const togetherMs = 1500

export interface History<T> {
  readonly undoable: number
  /**
   * Remembers a value before it changes. @param what changes of the same thing, quickly one after the other, are one
   * step
   */
  push(before: T, what?: string): void
  /** The value before the newest step, which is forgotten by it. */
  pop(): T | undefined
}

/** What was there before, newest last. */
export function useHistory<T>(): History<T> {
  const past = useRef<readonly T[]>([])
  const last = useRef<{ readonly what: string; readonly at: number }>(undefined)
  const [undoable, setUndoable] = useState(0)
  const push = useCallback((before: T, what?: string) => {
    const at = Date.now()
    const goesOn = what !== undefined && last.current?.what === what && at - last.current.at < togetherMs
    last.current = what === undefined ? undefined : { what, at }
    if (goesOn) return
    past.current = [...past.current.slice(1 - most), before]
    setUndoable(past.current.length)
  }, [])
  const pop = useCallback(() => {
    const newest = past.current.at(-1)
    past.current = past.current.slice(0, -1)
    last.current = undefined
    setUndoable(past.current.length)
    return newest
  }, [])
  return { undoable, push, pop }
}
