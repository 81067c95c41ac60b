/**
 * What the regulatory database cannot say, laid over its rules: limits that are conducted power, power densities,
 * indoors only, who may start where, what counts outdoors or without power control. Each line has its source.
 */

import { z } from 'zod'
import { messageText } from '../message/message'
import type { RegulatoryDatabase, RegulatoryRule } from './database'

export const overlaySchema = z.array(
  z.strictObject({
    /** ISO 3166-1 alpha-2. */
    countries: z.array(z.string().regex(/^[A-Z]{2}$/)).min(1),
    fromMhz: z.number().positive(),
    toMhz: z.number().positive(),
    says: z.discriminatedUnion('kind', [
      z.strictObject({
        kind: z.literal('conducted'),
        /** Antennas up to this gain take nothing off, dBi. */
        upToDbi: z.number().min(0),
        /** What a fixed point-to-point link loses for each dB above it: as much, a third of it, or nothing. */
        pointToPoint: z.enum(['same', 'third', 'free']),
        /** Antennas of such a link take nothing off up to this gain, dBi; as above where it is left out. */
        pointToPointUpToDbi: z.number().min(0).optional(),
      }),
      /** Greatest EIRP outdoors above 30 degrees of elevation. */
      z.strictObject({ kind: z.literal('skyward'), dbm: z.number() }),
      /** By how much the limit is lower for what has no transmit power control. */
      z.strictObject({ kind: z.literal('withoutTpc'), db: z.number().positive() }),
      /** An access point may start there, indoors, although the database marks it as not to be started in. */
      z.strictObject({ kind: z.literal('startsIndoors') }),
      z.strictObject({ kind: z.literal('density'), dbmPerMhz: z.number(), mostDbm: z.number() }),
      z.strictObject({ kind: z.literal('indoor') }),
    ]),
    source: z.string().min(10, messageText('line-without-source')),
  }),
)
export type Overlay = z.infer<typeof overlaySchema>
type Says = Overlay[number]['says']

/** The rules with what the lines say of them: a line speaks of the rules that lie within its range. */
export function withOverlay(database: RegulatoryDatabase, overlay: Overlay): RegulatoryDatabase {
  const changed = new Map(database)
  for (const { countries, fromMhz, toMhz, says, source } of overlay)
    for (const code of countries) {
      const country = changed.get(code)
      if (!country) continue
      const rules = country.rules.map((rule) =>
        rule.startKhz >= fromMhz * 1000 && rule.endKhz <= toMhz * 1000 ? laidOver(rule, says, source) : rule,
      )
      changed.set(code, { ...country, rules })
    }
  return changed
}

function laidOver(rule: RegulatoryRule, says: Says, source: string): RegulatoryRule {
  const sources = [...(rule.sources ?? []), source]
  switch (says.kind) {
    case 'indoor':
      return { ...rule, noOutdoor: true, sources }
    case 'startsIndoors':
      return { ...rule, noIr: false, noOutdoor: true, sources }
    case 'skyward':
      return { ...rule, skywardDbm: says.dbm, sources }
    case 'withoutTpc':
      return { ...rule, withoutTpcDb: says.db, sources }
    case 'density':
      return { ...rule, density: { dbmPerMhz: says.dbmPerMhz, mostDbm: says.mostDbm }, sources }
    case 'conducted': {
      const { kind: _kind, ...conducted } = says
      return { ...rule, conducted, sources }
    }
  }
}
