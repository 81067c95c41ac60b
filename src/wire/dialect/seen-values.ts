/** Networks of units that keep them by radio: one of ours may stand on several. */
import type { SettingId } from '../../core/catalogue/catalogue'
import { settingOf } from '../../core/catalogue/catalogue'
import type { Observed } from '../../core/config/unit-config'
import type { DirectCard } from '../../core/kit/kit-card'

export type SeenValues = Record<string, Observed<unknown>>

/** A network that is seen on two radios has both bands; where it differs between them it is as nobody asked. */
export function mergedNetwork(before: SeenValues | undefined, now: SeenValues): SeenValues {
  if (!before) return now
  const both: SeenValues = { ...now }
  for (const [id, value] of Object.entries(before)) {
    const other = now[id]
    if (id === 'network.bands' && value.kind === 'value' && other?.kind === 'value')
      both[id] = { kind: 'value', value: [...(value.value as string[]), ...(other.value as string[])] }
    else if (JSON.stringify(value) !== JSON.stringify(other)) both[id] = { kind: 'unsupported' }
  }
  return both
}

/** What the model takes and never shows. */
export function neverShown({ can }: Pick<DirectCard, 'can'>, scope: 'unit' | 'network' | 'radio'): SeenValues {
  return Object.fromEntries(
    Object.entries(can).flatMap(([id, detail]) =>
      detail?.readable === 'no' && settingOf(id as SettingId).scope === scope ? [[id, { kind: 'unreadable' }]] : [],
    ),
  )
}
