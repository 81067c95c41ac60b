/**
 * How a site differs from the model of propagation, by what was measured on it, and the model fitted to that.
 *
 * In: radios of one band where they hang, and levels that were measured between them. Out: for each pair what was
 * measured and what the model gives; over all of them the bias and the spread; and two numbers that make the squares of
 * what is left least.
 */
import type { Band } from '../../regulatory/blocks'
import type { Site } from '../propagation/floor'
import { lossBetween, metresBetween, type PlacedRadio } from '../propagation/levels'
import { type Db, decadesOf, type Fit, fittedDb } from '../propagation/propagation'

export interface Residual {
  readonly a: string
  readonly b: string
  readonly metres: number
  readonly measuredDbm: number
  readonly modelDbm: number
}

/** What measuring says of the model in one band. */
export interface Misfit {
  readonly band: Band
  readonly residuals: readonly Residual[]
  /** Mean of measured less model: above nothing where the site is louder than the model. */
  readonly biasDb: Db
  /** Standard deviation about that mean. */
  readonly spreadDb: Db
  /** Undefined where too little was measured. */
  readonly fit: Fit | undefined
  /** What is left of the spread once the model is fitted: the root of the mean square. */
  readonly leftDb: Db | undefined
}

/** So many pairs before the model is moved, and so many before the distance has a say. */
const leastPairs = 3
const leastForDistance = 6
/** Longest to shortest distance from which on a slope can be told, as a share of a tenfold. */
const leastDecades = 0.4
/** A slope beyond these is chance, not walls, dB for each tenfold of distance. */
const slopes = { least: -15, most: 8 } as const

/** @param measured levels of the band between units; `idOf` their radios */
export function misfitOf(
  band: Band,
  radios: readonly PlacedRadio[],
  measured: Site['measured'],
  idOf: (unit: string) => string,
): Misfit | undefined {
  const placed = new Map(radios.map((radio) => [radio.id, radio]))
  const residuals = measured.flatMap((each): Residual[] => {
    const [a, b] = [placed.get(idOf(each.a)), placed.get(idOf(each.b))]
    if (each.band !== band || !a || !b || a === b) return []
    const budget = Math.max(a.powerDbm, b.powerDbm) + a.gain + b.gain
    return [
      {
        a: each.a,
        b: each.b,
        metres: metresBetween(a, b),
        measuredDbm: each.dbm,
        modelDbm: budget - lossBetween(band, a, b),
      },
    ]
  })
  if (residuals.length === 0) return undefined
  const differences = residuals.map(({ measuredDbm, modelDbm }) => measuredDbm - modelDbm)
  const biasDb = mean(differences)
  const fit = fitOf(residuals)
  return {
    band,
    residuals,
    biasDb,
    spreadDb: Math.sqrt(mean(differences.map((each) => (each - biasDb) ** 2))),
    fit,
    leftDb:
      fit && Math.sqrt(mean(residuals.map((each, at) => ((differences[at] ?? 0) - fittedDb(fit, each.metres)) ** 2))),
  }
}

const mean = (values: readonly number[]): number => values.reduce((sum, each) => sum + each, 0) / values.length

/** Least squares; without a slope where the distances do not tell one. */
function fitOf(residuals: readonly Residual[]): Fit | undefined {
  if (residuals.length < leastPairs) return undefined
  const xs = residuals.map(({ metres }) => decadesOf(metres))
  const ys = residuals.map(({ measuredDbm, modelDbm }) => measuredDbm - modelDbm)
  const [x, y] = [mean(xs), mean(ys)]
  const tellsSlope = residuals.length >= leastForDistance && Math.max(...xs) - Math.min(...xs) >= leastDecades
  if (!tellsSlope) return { atTenMetresDb: y, perDecadeDb: 0 }
  const along = xs.reduce((sum, each, at) => sum + (each - x) * ((ys[at] ?? 0) - y), 0)
  const across = xs.reduce((sum, each) => sum + (each - x) ** 2, 0)
  const perDecadeDb = Math.min(slopes.most, Math.max(slopes.least, along / across))
  return { atTenMetresDb: y - perDecadeDb * x, perDecadeDb }
}
