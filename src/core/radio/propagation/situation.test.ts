/** Where drawings lie in a site, and what that does to levels: by hand. */

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { english } from '../../../../tests/support/english'
import { sentence } from '../../../words/en/sentence'
import { coverage } from '../coverage/coverage'
import { type Floor, floorSchema } from './floor'
import { hearings, lossBetween, type PlacedRadio } from './levels'
import { distanceLoss, floorLoss } from './propagation'
import { aligned, fromSite, liesOver, type SituatedFloor, situated, toSite } from './situation'

const drawing = (id: string, part: Partial<Floor> = {}): Floor =>
  floorSchema.parse({
    ...{ id, name: id, storey: 0, heightM: 3, environment: 'indoor', widthM: 60, depthM: 30, drawing: null, walls: [] },
    ...part,
  })
const laid = (...floors: Floor[]): SituatedFloor[] => [...situated(floors).values()]
const first = (...floors: Floor[]): SituatedFloor => laid(...floors)[0] as SituatedFloor
const radio = (id: string, floor: SituatedFloor, x: number, y: number): PlacedRadio => ({
  ...{ id, floor, x, y, powerDbm: 17, gain: 3 },
})

describe('one wall that is drawn', () => {
  const wall = { material: 'plasterboard', x1: 0, y1: 0, x2: 0.1, y2: 0 } as const
  const at30 = (floor: SituatedFloor): number => 11 - lossBetween('5', { floor, x: 5, y: 5 }, { floor, x: 35, y: 5 })

  it('does not make the rest of an office go away', () => {
    // 11 dBm, 30 m at 5 GHz: 11 - (46.81 + 31 log10 30) = -81.6; along an open line -65.4.
    expect(at30(first(drawing('g')))).toBeCloseTo(-81.6, 1)
    expect(at30(first(drawing('g', { walls: [wall] })))).toBeCloseTo(-81.6, 1)
    expect(at30(first(drawing('g', { walls: [wall], innerWalls: 'all-drawn' })))).toBeCloseTo(-65.35, 1)
    expect(at30(first(drawing('g', { environment: 'outdoor' })))).toBeCloseTo(-65.35, 1)
  })

  it('counts as far as the drawn walls on the way are more than is usual', () => {
    const across = (material: 'plasterboard' | 'metal') => ({ material, x1: 20, y1: 0, x2: 20, y2: 30 })
    // 11 log10 30 = 16.2 dB are usual: 4 dB of plasterboard are less, 32 dB of metal are 15.8 more.
    expect(at30(first(drawing('g', { walls: [across('plasterboard')] })))).toBeCloseTo(-81.6, 1)
    expect(at30(first(drawing('g', { walls: [across('metal')] })))).toBeCloseTo(-97.35, 1)
  })

  it('is painted as it is worked out', () => {
    const floor = first(drawing('g', { walls: [{ material: 'metal', x1: 20, y1: 0, x2: 20, y2: 30 }] }))
    const painted = coverage('5', floor, [radio('a', floor, 5.5, 5.5)], 1)
    const at = (x: number, y: number): number => painted.dbm[y * painted.columns + x] ?? 0
    // 1.3 m below the unit.
    expect(at(15, 5)).toBeCloseTo(20 - distanceLoss('5', Math.hypot(10, 1.3), 'office'), 3)
    expect(at(35, 5)).toBeCloseTo(20 - distanceLoss('5', Math.hypot(30, 1.3), 'walls-alone') - 32, 3)
  })

  it('never makes anything louder', () => {
    const metre = fc.integer({ min: 0, max: 60 })
    fc.assert(
      fc.property(
        fc.array(fc.record({ x1: metre, y1: metre, x2: metre, y2: metre }), { maxLength: 6 }),
        fc.record({ x: metre, y: metre }),
        fc.record({ x: metre, y: metre }),
        (lines, a, b) => {
          const walls = lines.map((line) => ({ ...line, material: 'brick' as const }))
          const loss = (floor: SituatedFloor): number => lossBetween('5', { floor, ...a }, { floor, ...b })
          expect(loss(first(drawing('g', { walls })))).toBeGreaterThanOrEqual(loss(first(drawing('g'))) - 1e-9)
        },
      ),
    )
  })
})

describe('floors', () => {
  it('lose 16 dB at 5.2 GHz, 22 and 28 at 5.8 GHz', () => {
    expect([0, 1, 2].map((count) => floorLoss('5', count, 5200))).toEqual([0, 16, 20])
    expect([0, 1, 2].map((count) => floorLoss('5', count, 5785))).toEqual([0, 22, 28])
    expect([1, 2].map((count) => floorLoss('2.4', count, 2437))).toEqual([14, 18])
  })

  it('lie as high as the storeys below them together', () => {
    const floors = laid(
      drawing('g', { heightM: 4.5 }),
      drawing('one', { storey: 1, heightM: 3 }),
      drawing('three', { storey: 3, heightM: 3.5 }),
      drawing('cellar', { storey: -1, heightM: 2.5 }),
    )
    // Storey 2 is not drawn: it counts as high as the one that is asked for.
    expect(floors.map(({ elevationM }) => elevationM)).toEqual([0, 4.5, 4.5 + 3 + 3.5, -2.5])
  })
})

describe('two drawings of one storey', () => {
  const hall = drawing('hall')
  const yard = drawing('yard', { environment: 'outdoor', widthM: 50 })

  it('lie side by side until somebody aligns them, and do not hear each other as if they were one place', () => {
    const [inside, outside] = laid(hall, yard) as [SituatedFloor, SituatedFloor]
    expect(outside.at).toEqual({ x: 60, y: 0, turn: 0 })
    const [pair] = hearings('5', [radio('a', inside, 10, 10), radio('b', outside, 10, 10)])
    // 60 m, and a brick wall: 17 + 6 - (46.81 + 31 log10 60) - 13.
    expect(pair?.dbm ?? -200).toBeCloseTo(-91.9, 0)
  })

  it('are heard through the outer wall of what is indoors', () => {
    const next = { ...yard, origin: { x: 60, y: 0, turn: 0 } }
    const [inside, outside] = laid(hall, next) as [SituatedFloor, SituatedFloor]
    const a = { floor: inside, x: 58, y: 10 }
    const b = { floor: outside, x: 8, y: 10 }
    expect(lossBetween('5', a, b)).toBeCloseTo(distanceLoss('5', 10, 'office') + 13, 6)
    const [coated] = laid({ ...hall, outerWalls: 'low-e glass' }, next) as [SituatedFloor]
    expect(lossBetween('5', { ...a, floor: coated }, b)).toBeCloseTo(distanceLoss('5', 10, 'office') + 28, 6)
    // The same from the yard, as a phone in it hears it.
    const painted = coverage('5', outside, [radio('a', inside, 58, 10.5)], 1)
    expect(painted.dbm[10 * painted.columns + 7]).toBeCloseTo(
      20 - distanceLoss('5', Math.hypot(9.5, 1.3), 'office') - 13,
      3,
    )
  })

  it('that are two houses go through both outer walls, and through no floor', () => {
    const house = drawing('house', { storey: 1, origin: { x: 80, y: 0, turn: 0 } })
    const [one, other] = laid(hall, house) as [SituatedFloor, SituatedFloor]
    expect(liesOver(one, other)).toBe(false)
    const loss = lossBetween('5', { floor: one, x: 55, y: 10 }, { floor: other, x: 5, y: 10 })
    expect(loss).toBeCloseTo(distanceLoss('5', Math.hypot(30, 3), 'office') + 26, 6)
    // Over each other, they go through the floor.
    const [, above] = laid(hall, { ...house, origin: null }) as [SituatedFloor, SituatedFloor]
    expect(lossBetween('5', { floor: one, x: 5, y: 5 }, { floor: above, x: 5, y: 5 })).toBeCloseTo(
      distanceLoss('5', 3, 'office') + 16,
      6,
    )
  })

  it('hear the same pairs as each held against each, however they lie', () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 60 }), y: fc.integer({ min: 0, max: 30 }), on: fc.nat(3) })
    const origin = fc.record({
      x: fc.integer({ min: -100, max: 100 }),
      y: fc.integer({ min: -100, max: 100 }),
      turn: fc.constantFrom(0, 90, 33),
    })
    fc.assert(
      fc.property(fc.array(place, { minLength: 2, maxLength: 12 }), origin, origin, (places, one, two) => {
        const floors = laid(
          drawing('a', { origin: one }),
          drawing('b', { environment: 'outdoor', origin: two }),
          drawing('c', { storey: 1 }),
          drawing('d', { storey: 2, innerWalls: 'all-drawn' }),
        )
        const radios = places.map(({ x, y, on }, at) => radio(`r${at}`, floors[on] as SituatedFloor, x, y))
        const each = radios.flatMap((a, at) =>
          radios.slice(at + 1).flatMap((b) => (17 + 6 - lossBetween('5', a, b) > -92 ? [`${a.id} ${b.id}`] : [])),
        )
        expect(new Set(hearings('5', radios).map(({ a, b }) => `${a} ${b}`))).toEqual(new Set(each))
      }),
    )
  })
})

describe('aligning by two common points', () => {
  const [there] = laid(drawing('hall', { origin: { x: 10, y: 5, turn: 0 } })) as [SituatedFloor]

  it('finds where a drawing lies, turned or not', () => {
    const found = aligned(
      {
        here: [
          { x: 0, y: 0 },
          { x: 20, y: 0 },
        ],
        there: [
          { x: 40, y: 10 },
          { x: 40, y: 30 },
        ],
      },
      there,
    )
    // Its x runs down the hall: a quarter turn, with its corner at 50, 15 of the site.
    expect(found).toEqual({ ok: true, origin: { x: 50, y: 15, turn: 90 } })
  })

  it("puts both points where they are, to a hand's width", () => {
    const metre = fc.integer({ min: 0, max: 60 })
    const point = fc.record({ x: metre, y: metre })
    fc.assert(
      fc.property(point, point, fc.constantFrom(0, 90, 180, 270, 33), point, (a, b, turn, corner) => {
        fc.pre(Math.hypot(a.x - b.x, a.y - b.y) > 5)
        const truth = { at: { ...corner, turn } }
        const over = (here: { x: number; y: number }) => fromSite(there, toSite(truth, here))
        const found = aligned({ here: [a, b], there: [over(a), over(b)] }, there)
        if (!found.ok) throw new Error(sentence(found.fault))
        expect(found.origin.turn).toBeCloseTo(turn, 1)
        const again = toSite({ at: found.origin }, a)
        expect(Math.hypot(again.x - toSite(truth, a).x, again.y - toSite(truth, a).y)).toBeLessThan(0.1)
      }),
    )
  })

  it('says what is wrong with points that cannot be the same', () => {
    const far = aligned(
      {
        here: [
          { x: 0, y: 0 },
          { x: 20, y: 0 },
        ],
        there: [
          { x: 0, y: 0 },
          { x: 30, y: 0 },
        ],
      },
      there,
    )
    expect(english(far)).toEqual({
      ok: false,
      fault: 'The two points are 20.0 m apart here and 30.0 m there: set the scale of one of the drawings first.',
    })
    const near = aligned(
      {
        here: [
          { x: 0, y: 0 },
          { x: 0.5, y: 0 },
        ],
        there: [
          { x: 0, y: 0 },
          { x: 0.5, y: 0 },
        ],
      },
      there,
    )
    expect(near).toMatchObject({ ok: false, fault: { code: 'points-too-near' } })
  })
})

describe('places', () => {
  it('come back from the site to the drawing that they were on, however it is turned', () => {
    for (const turn of [0, 30, 90, 200, 270]) {
      const floor = first(drawing('g', { origin: { x: 12, y: -7, turn } }))
      const back = fromSite(floor, toSite(floor, { x: 3, y: 4 }))
      expect([back.x, back.y]).toEqual([expect.closeTo(3, 9), expect.closeTo(4, 9)])
    }
    // A quarter turn clockwise: what runs right on the drawing runs down in the site.
    const turned = first(drawing('g', { origin: { x: 10, y: 20, turn: 90 } }))
    const at = toSite(turned, { x: 5, y: 0 })
    expect([at.x, at.y]).toEqual([expect.closeTo(10, 9), expect.closeTo(25, 9)])
    expect(fromSite(turned, { x: 10, y: 25 }).x).toBeCloseTo(5, 9)
  })

  it('of two drawings lie over each other only where they have an area in common', () => {
    const at = (x: number, y: number) => first(drawing('g', { origin: { x, y, turn: 0 } }))
    const here = at(0, 0)
    expect([at(60, 0), at(-60, 0), at(0, 30), at(0, -30), at(61, 31)].map((each) => liesOver(here, each))).toEqual(
      Array.from({ length: 5 }, () => false),
    )
    expect([at(59, 0), at(-59, 0), at(0, 29), at(0, -29)].map((each) => liesOver(here, each))).toEqual(
      Array.from({ length: 4 }, () => true),
    )
    // Beside it and as high: in one direction alone they meet.
    expect([liesOver(here, at(0, 40)), liesOver(here, at(80, 0)), liesOver(at(80, 0), here)]).toEqual([
      false,
      false,
      false,
    ])
  })
})

describe('aligning', () => {
  const other = first(drawing('g', { origin: { x: 0, y: 0, turn: 0 } }))
  const by = (degrees: number, metres = 20, there = metres) => {
    const angle = (degrees * Math.PI) / 180
    const found = aligned(
      {
        here: [
          { x: 0, y: 0 },
          { x: metres, y: 0 },
        ],
        there: [
          { x: 1, y: 2 },
          { x: 1 + there * Math.cos(angle), y: 2 + there * Math.sin(angle) },
        ],
      },
      other,
    )
    return found.ok ? found.origin.turn : sentence(found.fault)
  }
  it('takes what is nearly straight for straight, and leaves alone what is not', () => {
    expect([1.9, -1.9, 91, 268.5, 0].map((degrees) => by(degrees))).toEqual([0, 0, 90, 270, 0])
    expect([10, 45, 87, 183, 2.5].map((degrees) => by(degrees))).toEqual([10, 45, 87, 183, 2.5])
  })
  it('needs points that are a metre apart on both drawings, and as far on one as on the other', () => {
    expect(by(0, 1)).toBe(0)
    expect(by(0, 0.9)).toContain('too near')
    expect(by(0, 0.9, 20)).toContain('too near')
    expect(by(0, 20, 0.9)).toContain('too near')
    expect(by(0, 20, 20.5)).toBe(0)
    expect(by(0, 20, 21)).toContain('set the scale')
  })
})
