/** Hands as Chromium's protocol takes them: pointer, wheel, keys, text. */
import type { CDPSession } from 'puppeteer-core'
import type { Hand } from '../../core/showing/window-talk'

export type InputHand = Extract<Hand, { kind: 'pointer' | 'wheel' | 'key' | 'text' }>

const pointerTypes = { down: 'mousePressed', move: 'mouseMoved', up: 'mouseReleased' } as const

/** Sends a hand to the page; the answer comes when the page has taken it, which may be after a dialog is answered. */
export function sendInput(session: CDPSession, hand: InputHand): Promise<unknown> {
  switch (hand.kind) {
    case 'pointer': {
      const { x, y, button, modifiers, phase, presses } = hand
      const clickCount = phase === 'move' ? 0 : presses
      return session.send('Input.dispatchMouseEvent', {
        type: pointerTypes[phase],
        x,
        y,
        button,
        modifiers,
        clickCount,
      })
    }
    case 'wheel': {
      const { x, y, dx: deltaX, dy: deltaY, modifiers } = hand
      return session.send('Input.dispatchMouseEvent', { type: 'mouseWheel', x, y, deltaX, deltaY, modifiers })
    }
    case 'key': {
      const { text, ...stroke } = keyStroke(hand.key, hand.code, hand.modifiers)
      const type = hand.phase === 'up' ? 'keyUp' : text === undefined ? 'rawKeyDown' : 'keyDown'
      const typed = text === undefined || hand.phase === 'up' ? {} : { text }
      return session.send('Input.dispatchKeyEvent', { type, modifiers: hand.modifiers, ...stroke, ...typed })
    }
    case 'text':
      return session.send('Input.insertText', { text: hand.text })
  }
}

/** Chromium's own numbers of keys, beside the names of UI Events (W3C, key and code values). */
const numbers: Readonly<Record<string, number>> = {
  Backspace: 8,
  Tab: 9,
  Enter: 13,
  Shift: 16,
  Control: 17,
  Alt: 18,
  Escape: 27,
  ' ': 32,
  PageUp: 33,
  PageDown: 34,
  End: 35,
  Home: 36,
  ArrowLeft: 37,
  ArrowUp: 38,
  ArrowRight: 39,
  ArrowDown: 40,
  Delete: 46,
}
const controlOrMeta = 2 | 4

interface KeyStroke {
  readonly key: string
  readonly code: string
  readonly windowsVirtualKeyCode: number
  /** What it types; undefined for a key that types nothing. */
  readonly text: string | undefined
}

/** @param modifiers  Alt 1, Ctrl 2, Meta 4, Shift 8 */
function keyStroke(key: string, code: string, modifiers: number): KeyStroke {
  const isSign = [...key].length === 1
  const typed = key === 'Enter' ? '\r' : isSign && (modifiers & controlOrMeta) === 0 ? key : undefined
  const ofSign = /^[a-z0-9]$/i.test(key) ? key.toUpperCase().charCodeAt(0) : 0
  return { key, code, windowsVirtualKeyCode: numbers[key] ?? ofSign, text: typed }
}
