/** A controller with a command line and the access points that join it, out of their boxes, with cards for both. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { JobDocument } from '../../src/core/job/job-document'
import { wholeBrief } from './whole-brief'

const cardText = (name: string): string => readFileSync(join(import.meta.dirname, 'cards', name), 'utf8')
export const brackwaterNineCard = cardText('brackwater-b9.yaml')
export const brackwaterThreeCard = cardText('brackwater-b3.yaml')

export const brackwaterMac = '02:b7:09:10:6a:01'
export const brackwaterPointMac = (index: number): string => `02:b7:03:10:6a:0${index}`

/** The demo's job becomes a Brackwater B9 with so many B3; the controller stands last. */
export const brackwaterWithUnits =
  (count: number) =>
  (job: JobDocument): void => {
    const [first] = job.units
    if (!first) return
    const points = Array.from({ length: count }, (_, index) => ({
      ...first,
      ...{ id: `barn-${index}`, name: `barn-${index}`, model: 'Brackwater B3' },
      ...{ mac: brackwaterPointMac(index), serial: `B3-${index}`, port: index + 2, locks: {} },
    }))
    const rack = { id: 'rack', name: 'rack', model: 'Brackwater B9', mac: brackwaterMac, serial: 'B9-1', locks: {} }
    job.units = [...points, { ...first, ...rack }]
    job.cards = [brackwaterNineCard, brackwaterThreeCard]
    job.brief = { ...wholeBrief, networks: wholeBrief.networks.map((each) => ({ ...each, security: 'wpa2-personal' })) }
  }
