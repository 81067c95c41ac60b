/** Values of a brief by the path of their field, such as `networks.0.ssid`. */

import type { Brief } from '../../core/brief/brief'
import { applyMend } from '../../core/brief/fault'

export function valueAt(brief: Brief, path: string): unknown {
  return path.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown> | null | undefined)?.[key], brief)
}

export function withValue(brief: Brief, path: string, value: unknown): Brief {
  return applyMend(brief, [{ path, value }])
}
