'use client'
/**
 * What was typed and cannot be saved yet, kept in this browser over a reload. What lies there was written by this or an
 * older program, or by hand: it is parsed, and whatever does not fit is let go.
 */
import { useEffect, useRef } from 'react'

export interface SessionDraft<T> {
  /** What is kept from now on; undefined for nothing. */
  readonly value: T | undefined
  /** Takes what was kept before a reload; undefined where it does not fit. */
  readonly read: (value: unknown) => T | undefined
  /** Told once, of what was kept before a reload. */
  readonly onFound: (value: T) => void
}

export function useSessionDraft<T>(key: string, { value, read, onFound }: SessionDraft<T>): { forget: () => void } {
  const acts = useRef({ read, onFound })
  acts.current = { read, onFound }
  useEffect(() => {
    const found = readDraft(key, acts.current.read)
    if (found !== undefined) acts.current.onFound(found)
  }, [key])
  const firstLook = useRef(true)
  const text = value === undefined ? undefined : JSON.stringify(value)
  useEffect(() => {
    // The first look comes before the draft of an earlier visit is back.
    if (firstLook.current) firstLook.current = false
    else if (text === undefined) sessionStorage.removeItem(key)
    else sessionStorage.setItem(key, text)
  }, [key, text])
  return { forget: () => sessionStorage.removeItem(key) }
}

function readDraft<T>(key: string, read: (value: unknown) => T | undefined): T | undefined {
  const text = sessionStorage.getItem(key)
  if (text === null) return undefined
  let value: T | undefined
  try {
    value = read(JSON.parse(text))
  } catch {
    value = undefined
  }
  if (value === undefined) sessionStorage.removeItem(key)
  return value
}
