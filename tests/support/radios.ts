/** Radios of access points as they are asked for: a request, a policy, a level that was measured. */
import { type RadioPolicy, radioPolicySchema } from '../../src/core/brief/policies'
import type { RadioRequest } from '../../src/core/radio/channels/radio-request'
import { cardOf } from './data'

export const ask = (unit: string, part: Partial<RadioRequest> = {}): RadioRequest => ({
  ...{ unit, card: cardOf('Ostrel O-40'), locks: {}, set: {} },
  ...part,
})

/** So many, by the names u0, u1 and so on. */
export const units = (count: number, part: Partial<RadioRequest> = {}): RadioRequest[] =>
  Array.from({ length: count }, (_, at) => ask(`u${at}`, part))

/** 80 MHz at 5 GHz, without radar and never narrower, at 17 dBm, where nothing else is said. */
export const policy = (part: object = {}): RadioPolicy =>
  radioPolicySchema.parse({
    environment: 'indoor',
    bands: [{ band: '5', width: 80 }],
    radar: 'avoid',
    narrower: 'never',
    power: { clientDbm: 17, lowerAt24Db: 6 },
    ...part,
  })

export const measured = (a: string, b: string, dbm: number, band: '5' | '2.4' = '5') => ({ a, b, band, dbm })
