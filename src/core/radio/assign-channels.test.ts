import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { RadioPolicy } from '../brief/brief'
import { type KitCard, readKitCard } from '../kit/kit-card'
import { readRegulatoryDatabase } from '../regulatory/database'
import { judgeChannel, legalBlocks } from '../regulatory/legal'
import { assignChannels } from './assign-channels'

const data = join(import.meta.dirname, '../../../data')
const reading = readKitCard(readFileSync(join(data, 'kit/ostrel-o-40.yaml'), 'utf8'))
if (!reading.ok) throw new Error('the card is faulty')
const card: KitCard = reading.card
const database = readRegulatoryDatabase(readFileSync(join(data, 'regulatory.db')))
const countryOf = (code: string) => {
  const rules = database.get(code)
  if (!rules) throw new Error(`no ${code}`)
  return rules
}
const units = (count: number) => Array.from({ length: count }, (_, index) => ({ unit: `u${index}`, card, locks: {} }))
const policy: RadioPolicy = {
  place: 'indoor',
  bands: [
    { band: '2.4', width: 20, targetDbm: 11 },
    { band: '5', width: 40, targetDbm: 17 },
  ],
  radar: 'avoid',
}

it('gives neighbours on the list different channels for as long as there are some', () => {
  const { plans, faults } = assignChannels(countryOf('NZ'), policy, units(4))
  expect(faults).toEqual([])
  expect([...plans.values()].map((radios) => radios.map((radio) => radio.channel))).toEqual([
    [1, 36],
    [6, 44],
    [11, 149],
    [1, 157],
  ])
})

it('stays off radar channels where it can, and takes them last where they are welcome', () => {
  const avoiding = [...assignChannels(countryOf('NZ'), policy, units(12)).plans.values()].flat()
  expect(avoiding.some((radio) => radio.radar)).toBe(false)
  const welcoming = [...assignChannels(countryOf('NZ'), { ...policy, radar: 'welcome' }, units(8)).plans.values()].flat().filter((radio) => radio.band === '5')
  expect(welcoming.map((radio) => radio.radar)).toEqual([false, false, false, false, false, true, true, true])
})

it('falls back to what the radio can do when the policy is wider', () => {
  const wide = assignChannels(countryOf('NZ'), { ...policy, bands: [{ band: '5', width: 160, targetDbm: 17 }] }, units(1))
  expect(wide.plans.get('u0')?.[0]).toMatchObject({ width: 80, channel: 36 })
})

it('leaves out a band that the model does not have', () => {
  expect(assignChannels(countryOf('NZ'), { ...policy, bands: [{ band: '6', width: 80, targetDbm: 17 }] }, units(1)).plans.get('u0')).toEqual([])
})

it('never plans a channel or a power that breaks a rule, in any country, indoors or out', () => {
  const codes = [...database.keys()]
  fc.assert(
    fc.property(
      fc.constantFrom(...codes),
      fc.constantFrom('indoor' as const, 'outdoor' as const),
      fc.constantFrom(20 as const, 40 as const, 80 as const),
      fc.integer({ min: 0, max: 30 }),
      (code, place, width, targetDbm) => {
        const country = countryOf(code)
        const { plans, faults } = assignChannels(
          country,
          {
            place,
            radar: 'welcome',
            bands: [
              { band: '2.4', width: 20, targetDbm },
              { band: '5', width, targetDbm },
            ],
          },
          units(9),
        )
        for (const radio of [...plans.values()].flat()) {
          const judgement = judgeChannel(country, radio.band, radio.channel, radio.width)
          expect(judgement.legal).toBe(true)
          if (!judgement.legal) return
          const gain = card.radios.find((each) => each.band === radio.band)?.gain ?? 0
          expect(radio.power.set + gain).toBeLessThanOrEqual(judgement.block.eirpDbm)
          if (place === 'outdoor') expect(judgement.block.indoor).toBe(false)
        }
        // A radio has a plan or a fault, never neither.
        const hasFive = legalBlocks(country).some((block) => block.band === '5' && block.width === width && !(place === 'outdoor' && block.indoor))
        if (!hasFive) expect(faults.length).toBeGreaterThan(0)
      },
    ),
    { numRuns: 400 },
  )
})
