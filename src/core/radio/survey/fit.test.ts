import { describe, expect, it } from 'vitest'
import { fitInUse } from '../../plan/radio-hearings'
import { coverage } from '../coverage/coverage'
import { emptySite, plainFloor } from '../propagation/floor'
import { hearings, lossBetween, type PlacedRadio } from '../propagation/levels'
import { distanceLoss, distanceOfLoss, type Fit } from '../propagation/propagation'
import type { SituatedFloor } from '../propagation/situation'
import { misfitOf } from './fit'

const floor: SituatedFloor = {
  ...{ id: 'g', name: 'Ground', storey: 0, heightM: 3, environment: 'indoor', widthM: 100, depthM: 30 },
  ...{ drawing: null, walls: [], ...plainFloor, at: { x: 0, y: 0, turn: 0 }, elevationM: 0 },
}
const radio = (id: string, x: number): PlacedRadio => ({ id, floor, x, y: 5, powerDbm: 17, gain: 3 })
const row = [0, 5, 15, 40, 80].map((x, index) => radio(`u${index}`, x))

/** Pairs with the first unit, as loud as the model says and so much more. */
const measuredAs = (more: (metres: number) => number) =>
  row.slice(1).map(({ id, x }) => ({
    a: 'u0',
    b: id,
    band: '5' as const,
    dbm: 23 - distanceLoss('5', x, 'office') + more(x),
  }))
const misfit = (levels: ReturnType<typeof measuredAs>) => misfitOf('5', row, levels, (unit) => unit)

describe('what measuring says of the model', () => {
  it('is the mean and the spread of measured less model, pair by pair', () => {
    const more = new Map([5, 15, 40, 80].map((x, index) => [x, [-2, -4, -6, -8][index] ?? 0]))
    const found = misfit(measuredAs((x) => more.get(x) ?? 0))
    expect(found?.biasDb).toBeCloseTo(-5, 9)
    // Differences of 3, 1, -1, -3 dB about the mean: the root of 20 / 4.
    expect(found?.spreadDb).toBeCloseTo(Math.sqrt(5), 9)
    expect(found?.residuals[2]).toMatchObject({ a: 'u0', b: 'u3', metres: 40 })
    expect((found?.residuals[2]?.measuredDbm ?? 0) - (found?.residuals[2]?.modelDbm ?? 0)).toBeCloseTo(-6, 9)
  })

  it('needs units that hang somewhere, another band says nothing of this one', () => {
    const strangers = measuredAs(() => -5).map((each) => ({ ...each, b: 'nowhere' }))
    expect(misfit(strangers)).toBeUndefined()
    expect(
      misfitOf(
        '2.4',
        row,
        measuredAs(() => -5),
        (unit) => unit,
      ),
    ).toBeUndefined()
  })

  it('moves the model by its bias from three pairs on, and by distance from six whose distances tell', () => {
    expect(misfit(measuredAs(() => -5).slice(0, 2))?.fit).toBeUndefined()
    const few = misfit(measuredAs(() => -5))
    expect(few?.fit).toEqual({ atTenMetresDb: expect.closeTo(-5, 9), perDecadeDb: 0 })
    expect(few?.leftDb).toBeCloseTo(0, 9)
    const pairs = row.flatMap((a, at) =>
      row.slice(at + 1).map((b) => {
        const metres = b.x - a.x
        const model = 23 - distanceLoss('5', metres, 'office')
        return { a: a.id, b: b.id, band: '5' as const, dbm: model - 3 - 4 * (Math.log10(metres) - 1) }
      }),
    )
    const many = misfit(pairs)
    expect(many?.fit?.atTenMetresDb).toBeCloseTo(-3, 9)
    expect(many?.fit?.perDecadeDb).toBeCloseTo(-4, 9)
    expect(many?.leftDb).toBeCloseTo(0, 9)
    expect(many?.spreadDb).toBeGreaterThan(0.5)
  })

  it('takes the louder of two that are not equally loud, and nobody for a pair with itself', () => {
    const [one, other] = [
      { ...radio('a', 0), powerDbm: 20 },
      { ...radio('b', 10), powerDbm: 8 },
    ]
    const level = { a: 'a', b: 'b', band: '5' as const, dbm: -60 }
    const of = (radios: PlacedRadio[], levels: (typeof level)[]) => misfitOf('5', radios, levels, (unit) => unit)
    const model = 20 + 3 + 3 - distanceLoss('5', 10, 'office')
    expect(of([one, other], [level])?.residuals[0]?.modelDbm).toBeCloseTo(model, 9)
    expect(of([other, one], [level])?.residuals[0]?.modelDbm).toBeCloseTo(model, 9)
    expect(of([one, other], [{ ...level, b: 'a' }])).toBeUndefined()
  })

  it('is moved from exactly three pairs on, and not by distance where these are few or alike', () => {
    const sloping = (pairs: readonly (readonly [number, number])[]) => {
      const radios = pairs.flatMap(([from, to], at) => [radio(`a${at}`, from), radio(`b${at}`, to)])
      const levels = pairs.map(([from, to], at) => {
        const metres = to - from
        const dbm = 23 - distanceLoss('5', metres, 'office') - 3 - 4 * (Math.log10(metres) - 1)
        return { a: `a${at}`, b: `b${at}`, band: '5' as const, dbm }
      })
      return misfitOf('5', radios, levels, (unit) => unit)
    }
    const apart = [5, 10, 20, 40, 60, 80].map((metres) => [0, metres] as const)
    expect(sloping(apart.slice(0, 2))?.leftDb).toBeUndefined()
    expect(sloping(apart.slice(0, 3))?.fit?.perDecadeDb).toBe(0)
    expect(sloping(apart.slice(0, 3))?.leftDb).toEqual(expect.closeTo(0.985, 2))
    expect(sloping(apart.slice(0, 5))?.fit?.perDecadeDb).toBe(0)
    expect(sloping(apart)?.fit).toEqual({ atTenMetresDb: expect.closeTo(-3, 9), perDecadeDb: expect.closeTo(-4, 9) })
    // 40 to 80 m is 0.3 of a tenfold; 40 to 101 m is a little more than 0.4 of one.
    const alike = [40, 45, 50, 60, 70, 80].map((metres) => [0, metres] as const)
    expect(sloping(alike)?.fit?.perDecadeDb).toBe(0)
    expect(sloping([...alike.slice(0, 5), [0, 101]])?.fit?.perDecadeDb).toBeCloseTo(-4, 9)
  })

  it('takes no slope for walls that no building has', () => {
    const steep = row.flatMap((a, at) =>
      row.slice(at + 1).map((b) => ({ a: a.id, b: b.id, band: '5' as const, dbm: -30 - 0.9 * (b.x - a.x) })),
    )
    expect(misfit(steep)?.fit?.perDecadeDb).toBe(-15)
  })
})

describe('a fitted model', () => {
  const fit: Fit = { atTenMetresDb: -6, perDecadeDb: -4 }
  it('is used where the site says so, and only there', () => {
    const found = misfit(measuredAs(() => -5))
    expect(fitInUse(emptySite, found ? [found] : [], '5')).toEqual({ atTenMetresDb: 0, perDecadeDb: 0 })
    expect(fitInUse({ ...emptySite, model: 'fitted' }, found ? [found] : [], '5')).toBe(found?.fit)
    expect(fitInUse({ ...emptySite, model: 'fitted' }, [], '5')).toEqual({ atTenMetresDb: 0, perDecadeDb: 0 })
  })

  it('loses so much more at ten metres, and with each tenfold beyond', () => {
    expect(distanceLoss('5', 10, 'office', fit) - distanceLoss('5', 10, 'office')).toBeCloseTo(6, 9)
    expect(distanceLoss('5', 100, 'office', fit) - distanceLoss('5', 100, 'office')).toBeCloseTo(10, 9)
    expect(distanceOfLoss('5', distanceLoss('5', 37, 'office', fit), 'office', fit)).toBeCloseTo(37, 9)
    expect(lossBetween('5', row[0] as PlacedRadio, row[3] as PlacedRadio, Number.POSITIVE_INFINITY, fit)).toBeCloseTo(
      distanceLoss('5', 40, 'office', fit),
      9,
    )
  })

  it('changes who hears whom, and what a phone hears, by the same', () => {
    const pair = (with_: Fit | undefined) => hearings('5', [radio('a', 0), radio('b', 40)], with_)[0]?.dbm ?? 0
    expect(pair(fit) - pair(undefined)).toBeCloseTo(-6 - 4 * Math.log10(4), 1)
    expect(hearings('5', [radio('a', 0), radio('b', 95)], fit)).toEqual([])
    const heard = (with_: Fit | undefined) => coverage('5', floor, [radio('a', 0.5)], 1, with_).dbm[40] ?? 0
    // 40 m along, 0.5 m across and 1.3 m below: the distance is 40.02 m and some centimetres.
    expect(heard(fit) - heard(undefined)).toBeCloseTo(-6 - 4 * Math.log10(4.03), 1)
  })
})
