import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coverage } from '../coverage/coverage'
import { plainFloor } from './floor'
import { hearings, lossBetween, type PlacedRadio } from './levels'
import { crosses, distanceCoefficient, distanceLoss, distanceOfLoss, floorLoss, officeLoss } from './propagation'
import type { SituatedFloor } from './situation'
import { WallIndex } from './wall-index'

const floor = (part: Partial<SituatedFloor> = {}): SituatedFloor => ({
  id: 'g',
  name: 'Ground',
  storey: 0,
  heightM: 3,
  environment: 'indoor',
  widthM: 40,
  depthM: 30,
  drawing: null,
  walls: [],
  ...plainFloor,
  at: { x: 0, y: 0, turn: 0 },
  elevationM: 3 * (part.storey ?? 0),
  ...part,
})
const at = (id: string, x: number, y: number, on: SituatedFloor, powerDbm = 17): PlacedRadio => ({
  id,
  floor: on,
  x,
  y,
  powerDbm,
  gain: 3,
})

describe('losses', () => {
  it('follow ITU-R P.1238 with the office coefficients', () => {
    // 20 log10(2440) - 28 = 39.75 dB at 1 m, and 30 dB more for each tenfold.
    expect(distanceLoss('2.4', 1, 'office')).toBeCloseTo(39.75, 2)
    expect(distanceLoss('2.4', 10, 'office')).toBeCloseTo(69.75, 2)
    expect(distanceLoss('5', 10, 'office')).toBeCloseTo(77.81, 2)
    expect(distanceLoss('5', 100, 'walls-alone')).toBeCloseTo(86.81, 2)
    expect([0, 1, 2].map((count) => floorLoss('5', count))).toEqual([0, 16, 20])
  })

  it('through floors are those of 5.8 GHz from 5725 MHz on, at 5 GHz alone', () => {
    expect([5724, 5725, 5785].map((mhz) => floorLoss('5', 1, mhz))).toEqual([16, 22, 22])
    expect(floorLoss('5', 3, 5785)).toBe(34)
    expect([floorLoss('6', 1, 6405), floorLoss('6', 2, 6405), floorLoss('2.4', 1, 2437)]).toEqual([16, 20, 14])
  })

  it('over a distance and through floors are of one row of the table: that of the frequency of the channel', () => {
    expect([5240, 5724, 5725, 5885].map((mhz) => distanceCoefficient('5', 'office', mhz))).toEqual([31, 31, 24, 24])
    // What an office loses over ten metres beyond an open line.
    expect([5510, 5785].map((mhz) => officeLoss('5', 10, mhz))).toEqual([11, 4])
    expect([2437, 2472].map((mhz) => distanceCoefficient('2.4', 'office', mhz))).toEqual([30, 30])
    expect(distanceCoefficient('6', 'office', 6405)).toBe(31)
    expect(distanceCoefficient('5', 'walls-alone', 5785)).toBe(20)
  })

  it('of a wall count where a way goes through it, also past its very end, not where it only comes up to it', () => {
    const wall = { material: 'brick', x1: 5, y1: 0, x2: 5, y2: 10 } as const
    const through = (ax: number, ay: number, bx: number, by: number) => [
      crosses(ax, ay, bx, by, wall),
      crosses(bx, by, ax, ay, wall),
    ]
    expect(through(0, 5, 10, 5)).toEqual([true, true])
    expect(through(0, 10, 10, 10)).toEqual([true, true])
    expect(through(0, 0, 10, 0)).toEqual([true, true])
    expect(through(0, 5, 5, 5)).toEqual([false, false])
    expect(through(0, 5, 4.9, 5)).toEqual([false, false])
    expect(through(0, 10.1, 10, 10.1)).toEqual([false, false])
    expect(through(5, 2, 5, 8)).toEqual([false, false])
    expect(through(5, 12, 5, 18)).toEqual([false, false])
  })

  it('are nothing less within a metre, and are turned round exactly', () => {
    expect(distanceLoss('5', 0, 'walls-alone')).toBe(distanceLoss('5', 1, 'walls-alone'))
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5000, noNaN: true }),
        (metres) =>
          Math.abs(distanceOfLoss('5', distanceLoss('5', metres, 'walls-alone'), 'walls-alone') / metres - 1) < 1e-9,
      ),
    )
  })

  it('count each wall that is crossed, by its material, and none that is passed by', () => {
    const walls = [
      { material: 'brick' as const, x1: 10, y1: 0, x2: 10, y2: 20 },
      { material: 'glass' as const, x1: 20, y1: 0, x2: 20, y2: 5 },
    ]
    const loss = (ax: number, ay: number, bx: number, by: number): number =>
      new WallIndex(walls).loss('5', ax, ay, bx, by, Number.POSITIVE_INFINITY)
    expect(loss(0, 10, 30, 10)).toBe(13)
    expect(loss(0, 2, 30, 2)).toBe(18)
    expect(loss(0, 10, 9, 10)).toBe(0)
  })

  it(
    'are the same whether walls are looked up in a list or by squares, and at least what was asked where that ' +
      'is enough',
    () => {
      const metre = fc.integer({ min: -300, max: 300 })
      const line = fc.record({ x1: metre, y1: metre, x2: metre, y2: metre })
      fc.assert(
        fc.property(
          fc.array(line, { minLength: 30, maxLength: 60 }),
          fc.array(line, { minLength: 1, maxLength: 10 }),
          fc.integer({ min: 1, max: 60 }),
          (drawn, ways, enough) => {
            const walls = drawn.map((wall) => ({ ...wall, material: 'brick' as const }))
            const index = new WallIndex(walls)
            for (const { x1, y1, x2, y2 } of ways) {
              const each = walls.reduce(
                (sum, wall) => sum + new WallIndex([wall]).loss('5', x1, y1, x2, y2, Number.POSITIVE_INFINITY),
                0,
              )
              expect(index.loss('5', x1, y1, x2, y2, Number.POSITIVE_INFINITY)).toBe(each)
              if (each >= enough) expect(index.loss('5', x1, y1, x2, y2, enough)).toBeGreaterThanOrEqual(enough)
            }
          },
        ),
      )
    },
  )
})

describe('who hears whom', () => {
  it('is quieter through a wall and through a floor', () => {
    const innerWalls = 'all-drawn'
    const open = floor({ innerWalls, walls: [{ material: 'brick', x1: 0, y1: 0, x2: 0, y2: 1 }] })
    const walled = floor({ innerWalls, walls: [{ material: 'brick', x1: 10, y1: 0, x2: 10, y2: 30 }] })
    const loss = (on: SituatedFloor): number => lossBetween('5', { floor: on, x: 5, y: 5 }, { floor: on, x: 15, y: 5 })
    expect(loss(walled) - loss(open)).toBeCloseTo(13, 6)
    expect(
      lossBetween('5', { floor: floor(), x: 5, y: 5 }, { floor: floor({ id: 'u', storey: 1 }), x: 5, y: 5 }),
    ).toBeGreaterThan(distanceLoss('5', 3, 'office') + 15)
  })

  it('is told for the louder direction, and for nobody at or below -92 dBm', () => {
    const on = floor({ widthM: 400 })
    const [pair] = hearings('5', [at('a', 0, 0, on, 8), at('b', 20, 0, on, 17)])
    expect(pair).toMatchObject({ a: 'a', b: 'b' })
    expect(pair?.dbm).toBeCloseTo(17 + 6 - distanceLoss('5', 20, 'office'), 1)
    expect(hearings('5', [at('a', 0, 0, on), at('b', 399, 0, on)])).toEqual([])
  })

  it('finds the same pairs as comparing each with each, wherever the squares end', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ x: fc.integer({ min: -200, max: 400 }), y: fc.integer({ min: -200, max: 400 }), up: fc.nat(2) }),
          { minLength: 2, maxLength: 14 },
        ),
        (places) => {
          const floors = [0, 1, 2].map((storey) => floor({ id: `f${storey}`, storey }))
          const radios = places.map(({ x, y, up }, index) => at(`r${index}`, x, y, floors[up] as SituatedFloor))
          const each = radios.flatMap((a, index) =>
            radios
              .slice(index + 1)
              .flatMap((b) =>
                Math.max(a.powerDbm, b.powerDbm) + 6 - lossBetween('5', a, b) > -92 ? [`${a.id} ${b.id}`] : [],
              ),
          )
          expect(new Set(hearings('5', radios).map(({ a, b }) => `${a} ${b}`))).toEqual(new Set(each))
        },
      ),
    )
  })
})

describe('the received level', () => {
  it('is that of the loudest unit, square by square', () => {
    const on = floor({
      widthM: 20,
      depthM: 10,
      innerWalls: 'all-drawn',
      walls: [{ material: 'metal', x1: 10, y1: 0, x2: 10, y2: 10 }],
    })
    const painted = coverage('5', on, [at('a', 5, 5, on), at('b', 15, 5, on)], 1)
    expect([painted.columns, painted.rows]).toEqual([20, 10])
    const cell = (x: number, y: number): number => y * painted.columns + x
    expect(painted.loudest[cell(2, 5)]).toBe(0)
    expect(painted.loudest[cell(18, 5)]).toBe(1)
    // Behind the wall the other is second, by what the wall takes off.
    expect(painted.second[cell(2, 5)]).toBeCloseTo(
      17 + 3 - distanceLoss('5', Math.hypot(12.5, 0.5, 1.3), 'walls-alone') - 32,
      3,
    )
    // 4.5 m across and 0.5 m along from the unit, which hangs 1.3 m above the phone.
    expect(painted.dbm[cell(9, 5)]).toBeCloseTo(17 + 3 - distanceLoss('5', Math.hypot(4.5, 0.5, 1.3), 'walls-alone'), 3)
  })

  it('comes through the ceiling from another storey', () => {
    const on = floor()
    const above = floor({ id: 'u', storey: 1 })
    const painted = coverage('5', on, [at('up', 20, 15, above)], 1)
    const direct = coverage('5', on, [at('here', 20, 15, on)], 1)
    const middle = 15 * painted.columns + 20
    expect((direct.dbm[middle] ?? 0) - (painted.dbm[middle] ?? 0)).toBeGreaterThan(16)
  })
})
