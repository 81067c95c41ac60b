/** What one radio does, by what a unit shows of it: on its pages, or at its prompt. */
import type { RadioOnAir } from './dialect'

type Figure = 'listensFor' | 'channel' | 'width' | 'leftForRadar'

interface Shown extends Pick<RadioOnAir, 'band' | 'networks'> {
  readonly isListening: boolean
  readonly isOnAir: boolean
  /** Undefined where it is not shown. */
  readonly figure: (of: Figure) => number | undefined
}

/** One that listens for radar is not on air yet, whatever else is shown; a radio that is not on air carries nothing. */
export function radioOnAir({ band, isListening, isOnAir, figure, networks }: Shown): RadioOnAir {
  const condition = isListening ? 'listening' : isOnAir ? 'on-air' : 'off'
  return {
    band,
    condition,
    listensFor: figure('listensFor') ?? 0,
    channel: figure('channel'),
    width: figure('width'),
    leftForRadar: figure('leftForRadar'),
    networks: condition === 'on-air' ? networks : [],
  }
}
