/** Keys as Chromium takes them: its own numbers beside the names of UI Events (W3C, key and code values). */

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

export interface KeyStroke {
  readonly key: string
  readonly code: string
  readonly windowsVirtualKeyCode: number
  /** What it types; undefined for a key that types nothing. */
  readonly text: string | undefined
}

/** @param modifiers  Alt 1, Ctrl 2, Meta 4, Shift 8 */
export function keyStroke(key: string, code: string, modifiers: number): KeyStroke {
  const isSign = [...key].length === 1
  const typed = key === 'Enter' ? '\r' : isSign && (modifiers & controlOrMeta) === 0 ? key : undefined
  const ofSign = /^[a-z0-9]$/i.test(key) ? key.toUpperCase().charCodeAt(0) : 0
  return { key, code, windowsVirtualKeyCode: numbers[key] ?? ofSign, text: typed }
}
