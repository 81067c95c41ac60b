/** Radios of a card, with what the lists of its pages have offered. */
import type { SettingId } from '../catalogue/catalogue'
import { findAll } from '../input/pattern'
import type { Act } from './act'

export interface CardRadio {
  readonly band: string
  readonly widths: readonly number[]
  readonly steps: readonly number[]
}
const knownWidths = new Set([20, 40, 80, 160, 320])

/** Widths and powers that its lists offer. */
export function withOffered(radios: readonly CardRadio[], acts: readonly Act[]): CardRadio[] {
  const offered = (id: SettingId, band: string): number[] =>
    acts.flatMap(({ does }) => {
      if (does.kind !== 'puts' || does.value.kind !== 'setting') return []
      if (does.value.id !== id || does.value.of !== band) return []
      const { shows } = does.value.how
      return does.offered.flatMap((text) => {
        const number = Number(shows === undefined ? text : findAll(shows, text)[0]?.groups.value)
        return Number.isFinite(number) && text !== '' ? [number] : []
      })
    })
  const sorted = (numbers: readonly number[]): number[] => [...new Set(numbers)].toSorted((a, b) => a - b)
  return radios.map((radio) => {
    const widths = sorted(offered('radio.width', radio.band).filter((each) => knownWidths.has(each)))
    const steps = sorted(offered('radio.power', radio.band))
    return {
      ...radio,
      ...(widths.length > 0 ? { widths } : {}),
      ...(steps.length > 0 ? { steps } : {}),
    }
  })
}
