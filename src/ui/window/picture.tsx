'use client'
import type { KeyboardEvent, MouseEvent, RefObject, WheelEvent } from 'react'
import { type Hand, windowSize } from '../../core/showing/window-talk'
import classes from './window.module.css'

const buttons = ['left', 'middle', 'right'] as const
type Modified = Pick<MouseEvent, 'altKey' | 'ctrlKey' | 'metaKey' | 'shiftKey'>
const modifiersOf = (event: Modified): number =>
  (event.altKey ? 1 : 0) | (event.ctrlKey ? 2 : 0) | (event.metaKey ? 4 : 0) | (event.shiftKey ? 8 : 0)
/** Leaves the picture: every other key goes to the unit, and Alt with Tab is the system's. */
const isWayOut = (event: KeyboardEvent): boolean => event.key === 'Escape' && event.shiftKey
/** Its text comes by an event of its own. */
const isPaste = (event: KeyboardEvent): boolean => (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'v'

interface PictureProps {
  readonly canvas: RefObject<HTMLCanvasElement | null>
  readonly label: string
  readonly act: (hand: Hand) => void
}

/** The picture of a unit's page, as large as there is room: pointer, wheel, keys and paste go to the unit. */
export function Picture({ canvas, label, act }: PictureProps) {
  const placeOf = (event: MouseEvent): { x: number; y: number } => {
    const rect = event.currentTarget.getBoundingClientRect()
    const within = (value: number, most: number): number => Math.min(most - 1, Math.max(0, value))
    return {
      x: within(((event.clientX - rect.left) / rect.width) * windowSize.width, windowSize.width),
      y: within(((event.clientY - rect.top) / rect.height) * windowSize.height, windowSize.height),
    }
  }
  const pointer = (phase: 'down' | 'move' | 'up') => (event: MouseEvent) => {
    const button = phase === 'move' && event.buttons === 0 ? 'none' : (buttons[event.button] ?? 'left')
    const presses = Math.min(3, Math.max(1, event.detail))
    act({ kind: 'pointer', phase, ...placeOf(event), button, presses, modifiers: modifiersOf(event) })
  }
  const key = (phase: 'down' | 'up') => (event: KeyboardEvent) => {
    if (isPaste(event)) return
    event.preventDefault()
    event.stopPropagation()
    if (isWayOut(event)) {
      if (event.currentTarget instanceof HTMLElement) event.currentTarget.blur()
      return
    }
    act({ kind: 'key', phase, key: event.key, code: event.code, modifiers: modifiersOf(event) })
  }
  return (
    <div
      className={classes.picture}
      role="application"
      aria-label={label}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it takes the keys of the page that it shows
      tabIndex={0}
      onMouseDown={pointer('down')}
      onMouseUp={pointer('up')}
      onMouseMove={pointer('move')}
      onContextMenu={(event) => event.preventDefault()}
      onWheel={(event: WheelEvent) =>
        act({ kind: 'wheel', ...placeOf(event), dx: event.deltaX, dy: event.deltaY, modifiers: modifiersOf(event) })
      }
      onKeyDown={key('down')}
      onKeyUp={key('up')}
      onPaste={(event) => {
        event.preventDefault()
        act({ kind: 'text', text: event.clipboardData.getData('text/plain').slice(0, 10_000) })
      }}
    >
      <canvas ref={canvas} width={windowSize.width} height={windowSize.height} />
    </div>
  )
}
