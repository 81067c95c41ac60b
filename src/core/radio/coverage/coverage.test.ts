/** The received level over a floor, held against the plain sum of what stands in its definition. */
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { materials, plainFloor, type Wall } from '../propagation/floor'
import { between, hearings, type PlacedRadio } from '../propagation/levels'
import { crosses, floorLoss, officeLoss, openLoss, wallDb } from '../propagation/propagation'
import type { SituatedFloor } from '../propagation/situation'
import { coverage } from './coverage'

const floor = (part: Partial<SituatedFloor> = {}): SituatedFloor => ({
  ...{ id: 'g', name: 'Ground', storey: 0, heightM: 3, environment: 'indoor', widthM: 31, depthM: 14 },
  ...{ drawing: null, walls: [], ...plainFloor, at: { x: 0, y: 0, turn: 0 }, elevationM: 0, ...part },
})
const radio = (id: string, on: SituatedFloor, x: number, y: number, powerDbm = 17): PlacedRadio => ({
  ...{ id, floor: on, x, y, powerDbm, gain: 3 },
})

/** What a phone, 1.2 m above this floor, hears of a unit 2.5 m above its own. */
function levelAt(here: SituatedFloor, from: PlacedRadio, x: number, y: number): number {
  const rise = from.floor.elevationM + 2.5 - (here.elevationM + 1.2)
  const metres = Math.max(1, Math.hypot(x - from.x, y - from.y, rise))
  const same = from.floor.id === here.id
  const isOffice = same ? here.innerWalls === 'some-drawn' : between('5', from.floor, here).clutter === 'office'
  const { centreMhz } = from
  const usual = isOffice ? officeLoss('5', metres, centreMhz) : 0
  const drawn = same
    ? here.walls
        .filter((wall) => crosses(from.x, from.y, x, y, wall))
        .reduce((sum, { material }) => sum + wallDb[material]['5'], 0)
    : 0
  const { floors, outerDb } = same ? { floors: 0, outerDb: 0 } : between('5', from.floor, here)
  const atOpen = from.powerDbm + from.gain - openLoss('5', metres)
  return atOpen - Math.max(usual, drawn) - floorLoss('5', floors, centreMhz) - outerDb
}

const wall = fc.record({
  material: fc.constantFrom(...materials),
  x1: fc.integer({ min: 0, max: 31 }),
  y1: fc.integer({ min: 0, max: 14 }),
  x2: fc.integer({ min: 0, max: 31 }),
  y2: fc.integer({ min: 0, max: 14 }),
}) satisfies fc.Arbitrary<Wall>
const place = fc.tuple(fc.double({ min: 0.1, max: 30.9, noNaN: true }), fc.double({ min: 0.1, max: 13.9, noNaN: true }))

describe('the received level', () => {
  it('is that of the loudest unit, and of the second loudest, in the middle of each square', () => {
    fc.assert(
      fc.property(
        fc.array(wall, { maxLength: 30 }),
        fc.array(place, { minLength: 1, maxLength: 4 }),
        fc.constantFrom('some-drawn' as const, 'all-drawn' as const),
        (walls, places, innerWalls) => {
          const here = floor({ walls, innerWalls })
          const above = floor({ id: 'u', storey: 1, elevationM: 3, innerWalls })
          // The first has no channel yet; the second and the fourth take the row of 5.8 GHz.
          const radios = places.map(([x, y], at) => ({
            ...radio(`r${at}`, at === 3 ? above : here, x, y, 11 + 3 * at),
            centreMhz: [undefined, 5785, 5510, 5845][at],
          }))
          const found = coverage('5', here, radios, 3)
          expect([found.columns, found.rows]).toEqual([11, 5])
          for (const cell of [0, 4, 17, 23, 38, 54]) {
            const [x, y] = [((cell % 11) + 0.5) * 3, (Math.floor(cell / 11) + 0.5) * 3]
            // Nothing is told below -200 dBm.
            const levels = radios.map((each) => Math.max(-200, levelAt(here, each, x, y)))
            const [best = -200, second = -200] = levels.toSorted((a, b) => b - a)
            expect(found.dbm[cell]).toBeCloseTo(best, 3)
            expect(found.second[cell]).toBeCloseTo(second, 3)
            if (best > -200) expect(levels[found.loudest[cell] ?? -1]).toBeCloseTo(best, 6)
          }
        },
      ),
      { numRuns: 100 },
    )
  })

  it('is of nobody where there is no unit', () => {
    const { dbm, second, loudest, columns, rows } = coverage('2.4', floor(), [], 2)
    expect([columns, rows, dbm.length]).toEqual([16, 7, 112])
    expect(new Set(dbm)).toEqual(new Set([-200]))
    expect(new Set(second)).toEqual(new Set([-200]))
    expect(new Set(loudest)).toEqual(new Set([-1]))
    expect(coverage('2.4', floor({ widthM: 0.5, depthM: 0.5 }), [], 2)).toMatchObject({ columns: 1, rows: 1 })
  })
})

describe('what is between two drawings', () => {
  const hall = floor({ id: 'hall', outerWalls: 'brick' })
  const upstairs = floor({ id: 'up', storey: 1, elevationM: 3 })
  const attic = floor({ id: 'attic', storey: 2, elevationM: 6 })
  const roof = floor({ id: 'roof', storey: 3, elevationM: 9, environment: 'outdoor' })
  const yard = floor({ id: 'yard', environment: 'outdoor', at: { x: 31, y: 0, turn: 0 } })

  it('is the floors in between, where both are indoors and lie over each other', () => {
    expect(between('5', hall, attic)).toEqual({ floors: 2, outerDb: 0, clutter: 'office' })
    expect(between('5', attic, upstairs).floors).toBe(1)
  })

  it('is the outer wall of each that is indoors else: nothing at all where both are outdoors', () => {
    expect(between('5', hall, yard)).toEqual({ floors: 0, outerDb: wallDb.brick['5'], clutter: 'office' })
    expect(between('5', roof, hall)).toEqual({ floors: 0, outerDb: wallDb.brick['5'], clutter: 'office' })
    expect(between('5', roof, yard)).toEqual({ floors: 0, outerDb: 0, clutter: 'walls-alone' })
  })

  it('leaves nobody out who is far on an open floor, with an office beside it', () => {
    const wide = floor({ id: 'wide', widthM: 900, innerWalls: 'all-drawn' })
    const office = floor({ id: 'office', at: { x: 2000, y: 0, turn: 0 } })
    const pairs = hearings('5', [radio('a', wide, 10, 5), radio('b', wide, 700, 5), radio('c', office, 5, 5)])
    // 17 dBm and two antennas of 3 dBi over 690 m in the open: -80.6 dBm.
    expect(pairs.map(({ a, b }) => `${a} ${b}`)).toEqual(['a b'])
    expect(pairs[0]?.dbm).toBeCloseTo(23 - openLoss('5', 690), 1)
  })
})
