/** Steps of the picture of a floor: what is painted, from which value on, in which colour. */
import { mcsFrom, rateOf } from '../../../core/radio/propagation/data-rate'
import { englishPapers } from '../../../words/en/papers'

export const pictures = ['level', 'rate', 'second'] as const
export type Picture = (typeof pictures)[number]
export const pictureWords: Readonly<Record<Picture, string>> = {
  level: 'received level',
  rate: 'data rate',
  second: 'second loudest',
}

export interface PictureStep {
  /** dBm. */
  readonly from: number
  readonly words: string
  readonly colour: Colour
}
/** Red, green, blue, 0 to 255. */
export type Colour = readonly [number, number, number]
type Scheme = 'light' | 'dark'

const levels = [-45, -55, -61, -67, -75, -82]
/** The MCS from which on a step is painted. */
const mcsSteps = [11, 9, 7, 4, 2, 0]

/**
 * @param width  MHz, by which the rates are told
 * @param names  of the levels, the loudest first
 */
export function stepsOf(
  picture: Picture,
  scheme: Scheme,
  width: number,
  names: readonly string[] = englishPapers.pictures.levels,
): readonly PictureStep[] {
  const steps =
    picture === 'rate'
      ? mcsSteps.map((mcs) => [mcsFrom(mcs, width), `MCS ${mcs}, ${rateOf(mcs, width)} Mbit/s a stream`] as const)
      : levels.map((from, at) => [from, `${from} ${names[at]}`] as const)
  return steps.map(([from, words], at) => ({ from, words, colour: ramp(scheme, at / (steps.length - 1)) }))
}

/** The step of a level; undefined where nothing is heard any more. */
export function stepAt(steps: readonly PictureStep[], dbm: number): number | undefined {
  const found = steps.findIndex(({ from }) => dbm >= from)
  return found === -1 ? undefined : found
}

/**
 * One hue from deep to pale, even to the eye: equal steps of OKLab lightness (B. Ottosson, 2020). They are told apart
 * by lightness alone, so by whoever sees no colours too. The louder, the farther from the ground of the page.
 *
 * @param share  0 the loudest, 1 the faintest
 */
export function ramp(scheme: Scheme, share: number): Colour {
  const [loud, faint] = scheme === 'light' ? [0.42, 0.93] : [0.8, 0.32]
  const lightness = loud + (faint - loud) * share
  // Bright fields on a dark page glare where they are strongly coloured.
  const chroma = (scheme === 'light' ? 0.105 : 0.055) * (1 - 0.75 * share)
  const hue = ((340 - 60 * share) * Math.PI) / 180
  return fromOklab(lightness, chroma * Math.cos(hue), chroma * Math.sin(hue))
}

function fromOklab(lightness: number, a: number, b: number): Colour {
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3
  const byte = (linear: number): number => {
    const bounded = Math.min(1, Math.max(0, linear))
    const coded = bounded <= 0.0031308 ? 12.92 * bounded : 1.055 * bounded ** (1 / 2.4) - 0.055
    return Math.round(255 * coded)
  }
  return [
    byte(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
    byte(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
    byte(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s),
  ]
}

export const cssOf = ([red, green, blue]: Colour): string => `rgb(${red} ${green} ${blue})`
