import { describe, expect, it } from 'vitest'
import { type Colour, stepAt, stepsOf } from './level-steps'

/** CIE lightness of a colour, 0 to 100 (CIE 15). */
function lightness([red, green, blue]: Colour): number {
  const linear = (byte: number): number =>
    byte / 255 <= 0.04045 ? byte / 255 / 12.92 : ((byte / 255 + 0.055) / 1.055) ** 2.4
  const y = 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue)
  return y > 0.008856 ? 116 * Math.cbrt(y) - 16 : 903.3 * y
}

describe.each(['light', 'dark'] as const)('in the %s scheme', (scheme) => {
  it.each(['level', 'rate', 'second'] as const)(
    'steps of the %s are even, and told apart without colour',
    (picture) => {
      const shades = stepsOf(picture, scheme, 40).map(({ colour }) => lightness(colour))
      const gaps = shades.slice(1).map((each, at) => each - (shades[at] ?? 0))
      // All one way, each as wide as the others, none under what an eye tells apart in a picture.
      for (const gap of gaps) expect(Math.sign(gap)).toBe(scheme === 'light' ? 1 : -1)
      const sizes = gaps.map(Math.abs)
      expect(Math.min(...sizes)).toBeGreaterThan(7)
      expect(Math.max(...sizes) / Math.min(...sizes)).toBeLessThan(1.5)
    },
  )
})

it('finds the step of a level', () => {
  const steps = stepsOf('level', 'light', 20)
  expect([-40, -45, -45.1, -66, -67.1, -82, -82.1].map((dbm) => stepAt(steps, dbm))).toEqual([
    0,
    0,
    1,
    3,
    4,
    5,
    undefined,
  ])
})

it('moves the steps of the rate with the width', () => {
  expect(stepsOf('rate', 'light', 20).map(({ from }) => from)).toEqual([-52, -57, -64, -70, -77, -82])
  expect(stepsOf('rate', 'light', 80)[0]).toMatchObject({ from: -46, words: expect.stringMatching(/^MCS 11, 600/) })
})
