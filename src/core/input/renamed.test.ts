import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { parse } from 'yaml'
import { radioPlansSchema } from '../../store/plan-columns'
import { jobDocumentSchema } from '../job/job-document'
import { readKitCard } from '../kit/kit-card'
import { renamed } from './renamed'

const data = (file: string): string => readFileSync(join(import.meta.dirname, '../../../data', file), 'utf8')
/** As a former release wrote it. */
const former = (text: string): string => text.replace(/^(\s*)(environment|location): /gm, '$1place: ')

describe('what a former release wrote', () => {
  it('is read under its name of today, and never over what stands there already', () => {
    expect(renamed({ place: 'indoor', a: 1 }, 'place', 'environment')).toEqual({ environment: 'indoor', a: 1 })
    expect(renamed({ place: 'hall', environment: 'indoor' }, 'place', 'environment')).toEqual({
      place: 'hall',
      environment: 'indoor',
    })
    for (const other of [null, undefined, 3, ['place'], {}]) expect(renamed(other, 'place', 'environment')).toBe(other)
  })

  it('as a job file is the same job', () => {
    const text = data('demo/port-ellery-whole.yaml')
    expect(former(text)).not.toBe(text)
    expect(jobDocumentSchema.parse(parse(former(text)))).toEqual(jobDocumentSchema.parse(parse(text)))
  })

  it('as a kit card is the same card', () => {
    const text = data('kit/windrow-w5.yaml')
    expect(former(text)).not.toBe(text)
    expect(readKitCard(former(text))).toEqual(readKitCard(text))
  })

  it('as a card that runs commands is the same card', () => {
    const text = data('kit/brackwater-b7.yaml')
    const written = text.replace(/^ {2}kind: prompt$/m, '  kind: cli')
    expect(written).not.toBe(text)
    expect(readKitCard(written)).toEqual(readKitCard(text))
  })

  it('as a plan keeps where its radios are', () => {
    const power = { limit: 20, gain: 3, most: 20, target: 17, set: 17 }
    const radio = { band: '5', channel: 36, width: 20, lowMhz: 5170, radar: false, power, locked: false }
    expect(radioPlansSchema.parse([{ ...radio, place: 'outdoor' }])).toMatchObject([{ environment: 'outdoor' }])
  })
})
