'use client'
import '@xterm/xterm/css/xterm.css'
import { useEffect, useRef, useState } from 'react'
import type { Hand, Told } from '../../core/showing/window-talk'
import type { Prints } from './prints'
import classes from './window.module.css'

/** The prompt of a unit that has no pages: what it prints, and keys that go to it. */
export function Terminal({
  terminal: { columns, rows },
  prints,
  label,
  isAsked,
  act,
}: {
  terminal: Extract<Told, { kind: 'terminal' }>
  prints: Prints
  label: string
  /** A question stands over it, and has the keys. */
  isAsked: boolean
  act: (hand: Hand) => void
}) {
  const place = useRef<HTMLDivElement>(null)
  const [keys, setKeys] = useState<{ focus: () => void }>()
  useEffect(() => {
    let isGone = false
    let end = (): void => {
      isGone = true
    }
    // Loaded when the first is shown: most windows show pages.
    void import('@xterm/xterm').then(({ Terminal: Screen }) => {
      if (isGone || !place.current) return
      const { fontFamily } = getComputedStyle(place.current)
      const screen = new Screen({ cols: columns, rows, fontSize: 13, fontFamily })
      screen.open(place.current)
      screen.textarea?.setAttribute('aria-label', label)
      // Shift and Tab leave it, as everything else on the page is left.
      screen.attachCustomKeyEventHandler((event) => !(event.key === 'Tab' && event.shiftKey))
      const typed = screen.onData((text) => act({ kind: 'text', text }))
      const show = prints.shownBy((text) => screen.write(text))
      setKeys(screen)
      end = () => {
        show()
        typed.dispose()
        screen.dispose()
      }
    })
    return () => end()
  }, [columns, rows, prints, label, act])
  useEffect(() => {
    if (!isAsked) keys?.focus()
  }, [keys, isAsked])
  return <div ref={place} className={`${classes.terminal} mono`} />
}
