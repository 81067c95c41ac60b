import { describe, expect, it } from 'vitest'
import { lossBetweenDb, maskLossDb } from './spectral-mask'

const span = (lowMhz: number, width: number) => ({ lowMhz, highMhz: lowMhz + width })

describe('what a transmitter lets out beside its channel', () => {
  // By hand, 20 MHz into the 20 MHz beside it: 0.03909 (to 11 MHz) + 0.04112 (to 20) + 0.00537 (to 30), of
  // 18 + 2 x 0.42995 + 2 x 0.04649 = 18.9529 in all: 10 log 0.0045153 = -23.45 dB.
  it('is 23.45 dB less on the next channel of 20 MHz, on either side', () => {
    expect(maskLossDb(span(5170, 20), span(5190, 20))).toBeCloseTo(23.45, 2)
    expect(maskLossDb(span(5190, 20), span(5170, 20))).toBeCloseTo(23.45, 2)
  })

  // By hand, 80 MHz: flat to 39, so 0.39087 - at 40 MHz half way down the edge -: 0.03909 + (to 80)
  // 0.01 (1 - 10^-0.8) / (ln10 / 10 x 8 / 39) = 0.17815 + (to 120) 0.0015849 (1 - 10^-1.2) / (ln10 / 10 x 12 / 40)
  // = 0.02150; all: 78 + 2 (0.42995 + 0.17815 + 0.02150) = 79.2592. 10 log (0.23874 / 79.2592) = -25.21 dB.
  it('is 25.21 dB less on the next channel of 80 MHz', () => {
    expect(maskLossDb(span(5170, 80), span(5250, 80))).toBeCloseTo(25.21, 2)
  })

  // By hand, 80 MHz into the first 20 beside it: 0.03909 (to 41 MHz) + 0.01 (1 - 10^-0.38974) / (ln10 / 10 x 8 / 39)
  // = 0.12545 (to 60), of 79.2592: 10 log (0.16454 / 79.2592) = -26.83 dB.
  it('is 26.83 dB less on 20 MHz beside 80 MHz', () => {
    expect(maskLossDb(span(5170, 80), span(5250, 20))).toBeCloseTo(26.83, 2)
    expect(maskLossDb(span(5170, 80), span(5150, 20))).toBeCloseTo(26.83, 2)
  })

  it('grows with the gap between 1 and 6, and past one and a half widths nothing is counted', () => {
    const losses = [0, 5, 10, 19].map((gap) => maskLossDb(span(2402, 20), span(2422 + gap, 20)))
    expect(losses).toEqual(losses.toSorted((a, b) => a - b))
    expect(losses[1]).toBeGreaterThan(26)
    expect(maskLossDb(span(2402, 20), span(2442, 20))).toBe(Number.POSITIVE_INFINITY)
  })

  it('is taken in the direction in which more comes through', () => {
    const [wide, narrow] = [span(5170, 80), span(5250, 20)]
    // Little of what 80 MHz sends falls into 20 MHz beside it; all of the narrow one's skirt falls into the wide one.
    expect(maskLossDb(wide, narrow)).toBeGreaterThan(maskLossDb(narrow, wide))
    expect(lossBetweenDb(wide, narrow)).toBe(maskLossDb(narrow, wide))
    expect(lossBetweenDb(narrow, wide)).toBe(lossBetweenDb(wide, narrow))
  })
})
