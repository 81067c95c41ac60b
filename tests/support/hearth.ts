/** Four units with pages as bad as they come, out of their boxes at one address, and a card for them. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { JobDocument } from '../../src/core/job/job-document'
import { wholeBrief } from './whole-brief'

export const hearthCard = readFileSync(join(import.meta.dirname, 'cards/hearth-h1.yaml'), 'utf8')

export const hearthTwoCard = readFileSync(join(import.meta.dirname, 'cards/hearth-h2.yaml'), 'utf8')

/** The first units of the demo's job become of this model. */
export const hearths =
  (count: number, cards: readonly string[]) =>
  (job: JobDocument): void => {
    job.units = job.units.slice(0, count).map((unit, index) => ({
      ...unit,
      model: 'Hearth H1',
      mac: `02:48:31:10:6a:2${index}`,
      serial: `H1-${index}`,
    }))
    job.cards = [...cards]
    job.brief = { ...wholeBrief, networks: wholeBrief.networks.map((each) => ({ ...each, security: 'wpa2-personal' })) }
  }

/** The first unit of the demo's job becomes a Hearth H1, and so many that join it stand beside it. */
export const hearthWithUnits =
  (count: number) =>
  (job: JobDocument): void => {
    hearths(1, [hearthCard, hearthTwoCard])(job)
    const [first] = job.units
    if (!first) return
    const more = Array.from({ length: count }, (_, index) => ({
      ...first,
      ...{ id: `lodge-${index}`, name: `lodge-${index}`, model: 'Hearth H2' },
      ...{ mac: `02:48:32:10:6a:3${index}`, serial: `H2-${index}`, port: index + 10, locks: {} },
    }))
    // Its controller need not stand first.
    job.units = [...more, first]
  }
