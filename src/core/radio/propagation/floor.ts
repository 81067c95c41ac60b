/**
 * Floors of a site: their drawings and walls, where each unit hangs, and what was heard there.
 *
 * Lengths are metres; x runs right and y down from the corner of the drawing.
 */

import { z } from 'zod'
import { bandSchema } from '../../catalogue/values'
import { lineSchema } from '../../input/line'
import { withEnvironment } from '../../input/renamed'
import { unitIdSchema as idSchema } from '../../kit/unit'
import { messageText } from '../../message/message'

export const materials = ['plasterboard', 'glass', 'low-e glass', 'wood', 'brick', 'concrete', 'metal'] as const
export type Material = (typeof materials)[number]

const metres = z.number().min(-10_000).max(10_000)
export const wallSchema = z.object({ material: z.enum(materials), x1: metres, y1: metres, x2: metres, y2: metres })
export type Wall = z.infer<typeof wallSchema>

const originSchema = z.object({
  x: metres,
  y: metres,
  /** Degrees, clockwise. */
  turn: z.number().min(-360).max(360),
})
export type Origin = z.infer<typeof originSchema>

/** What is said of a floor of which nobody has said more. */
export const plainFloor = { innerWalls: 'some-drawn', outerWalls: 'brick', origin: null } as const

const floorFields = z.object({
  id: idSchema,
  name: lineSchema(60).min(1, messageText('floor-without-name')),
  /** Storey: 0 is the ground floor. */
  storey: z.int().min(-10).max(200),
  /** From one floor to the next, m. */
  heightM: z.number().min(2).max(30),
  environment: z.enum(['indoor', 'outdoor']),
  widthM: z.number().min(1, messageText('floor-too-narrow')).max(5000),
  depthM: z.number().min(1, messageText('floor-too-shallow')).max(5000),
  /** Size of the drawing, pixels, and how many metres one of them is; null without a drawing. */
  drawing: z
    .object({ widthPx: z.number().positive(), heightPx: z.number().positive(), metresPerPx: z.number().positive() })
    .nullable(),
  walls: z.array(wallSchema).max(2000),
  /**
   * Whether all inner walls are drawn, and count alone, or some, and what is usual in an office stands for the rest.
   */
  innerWalls: z.enum(['all-drawn', 'some-drawn']).default(plainFloor.innerWalls),
  /** What its outer walls are made of: what is heard of other drawings comes through them. */
  outerWalls: z.enum(materials).default(plainFloor.outerWalls),
  /** Where the corner of the drawing lies in the site, and how it is turned; null where nobody has aligned it. */
  origin: originSchema.nullable().default(null),
})
export const floorSchema = withEnvironment(floorFields)
export type Floor = z.infer<typeof floorFields>

export const placementSchema = z.object({ unit: idSchema, floor: idSchema, x: metres, y: metres })
export type Placement = z.infer<typeof placementSchema>

/** A network of somebody else, as heard on the site; at one unit, or everywhere. */
export const heardNetworkSchema = z.object({
  ssid: z.string().max(32),
  unit: idSchema.nullable(),
  band: bandSchema,
  channel: z.int().min(1).max(233),
  width: z.union([20, 40, 80, 160].map((width) => z.literal(width))),
  /** Side of the second channel of a pair at 2.4 GHz, where it was heard. */
  secondary: z.enum(['above', 'below']).optional(),
  dbm: z.number().min(-120).max(0),
})

/** What one unit hears of another, measured on the site: it stands for what would be worked out. */
export const measuredLevelSchema = z.object({
  a: idSchema,
  b: idSchema,
  band: bandSchema,
  dbm: z.number().min(-120).max(0),
})

/** A radio link: one end gives access, the other is the station that locks to it. */
export const linkSchema = z.object({
  /** Access end, where the network comes from. */
  a: idSchema,
  /** Station end, the far one. */
  b: idSchema,
  distanceM: z.number().min(1, messageText('link-too-short')).max(100_000),
  /** Heights of the antennas above one common ground, m. */
  heightA: z.number().min(0).max(1000),
  heightB: z.number().min(0).max(1000),
  /** The highest thing on the way. */
  obstacle: z.object({ distanceM: z.number().positive(), heightM: z.number().min(0).max(1000) }).nullable(),
  width: z.union([20, 40, 80].map((width) => z.literal(width))),
  /** Chosen by hand; null leaves it to the plan. */
  channel: z.int().nullable(),
})
export type Link = z.infer<typeof linkSchema>

/** What is brought from outside: what is kept already may be wrong, and is said to be where it is shown. */
const newLinkSchema = linkSchema.refine(
  ({ obstacle, distanceM }) => obstacle === null || obstacle.distanceM < distanceM,
  { message: messageText('obstacle-not-between'), path: ['obstacle', 'distanceM'] },
)

export const siteSchema = z.object({
  floors: z.array(floorSchema).max(100),
  placements: z.array(placementSchema).max(20_000),
  heard: z.array(heardNetworkSchema).max(5000),
  measured: z.array(measuredLevelSchema).max(20_000),
  /** Whether levels that nobody measured are worked out by the model as it is, or as it is fitted to those measured. */
  model: z.enum(['as-it-is', 'fitted']).default('as-it-is'),
  links: z.array(linkSchema).max(200).default([]),
})
export type Site = z.infer<typeof siteSchema>

export const newSiteSchema = siteSchema.extend({ links: z.array(newLinkSchema).max(200).default([]) })

export const emptySite: Site = { floors: [], placements: [], heard: [], measured: [], model: 'as-it-is', links: [] }
