/**
 * Tells a label scanner from a person: a scanner types with less than a blink between letters, and ends with Enter.
 */

/** Longest time between two letters of a scanner, ms. */
const scannerMs = 35
const shortestLabel = 6

export interface ScanBurst {
  /** Takes note of a key; true where it belongs to a scan, and is nobody's shortcut. */
  heard(event: KeyboardEvent): boolean
  /** Acts, unless another letter follows as fast as only a scanner types. */
  unless(act: () => void): void
}

export function scanBurst(): ScanBurst {
  let text = ''
  let lastAt = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  return {
    heard(event) {
      const fast = event.timeStamp - lastAt < scannerMs
      lastAt = event.timeStamp
      if (fast) clearTimeout(timer)
      if (event.key === 'Enter' && fast && text.length >= shortestLabel) {
        event.preventDefault()
        window.dispatchEvent(new CustomEvent('air-muster-scan', { detail: text }))
        text = ''
        return true
      }
      if (event.key.length !== 1) return false
      text = fast && !event.repeat ? text + event.key : event.key
      // Two keys may be a quick pair of fingers; three are not.
      return text.length > 2
    },
    unless(act) {
      clearTimeout(timer)
      timer = setTimeout(act, scannerMs + 10)
    },
  }
}
