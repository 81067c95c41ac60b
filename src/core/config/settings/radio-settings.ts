/** Settings of a radio, known by its band. A band that the brief leaves out is switched off. */
import { z } from 'zod'
import { radioModes } from '../../kit/card-parts'
import { modelName } from '../../kit/kit-card'
import type { RadioPlan } from '../../radio/radio-plan'
import { type Side, secondaryOf } from '../../regulatory/blocks'
import type { AskedRadio, Asking } from './setting'
import { ofRadio } from './setting'

export type RadioMode = (typeof radioModes)[number]

const planOf = ({ plan }: Asking, { band }: AskedRadio): RadioPlan | undefined =>
  plan.radios.find((radio) => radio.band === band)
const policyOf = ({ brief }: Asking, { band }: AskedRadio) => brief.radio.bands.find((each) => each.band === band)

export const radioSettings = {
  'radio.enabled': ofRadio<boolean>({
    step: 'radios',
    words: 'Radio',
    value: z.boolean(),
    ask: (asking, subject) => planOf(asking, subject) !== undefined,
  }),
  'radio.mode': ofRadio<RadioMode>({
    step: 'radios',
    words: 'Wireless mode',
    value: z.enum(radioModes),
    ask: (asking, subject) => (planOf(asking, subject) ? policyOf(asking, subject)?.mode : undefined),
    unfit: (mode, { card }, { radio }) =>
      radio && !radio.modes.includes(mode) ? `${modelName(card)} does not know 802.11${mode} there` : undefined,
    show: (mode) => `802.11${mode}`,
  }),
  'radio.channel': ofRadio<number>({
    step: 'radios',
    words: 'Channel',
    value: z.number(),
    ask: (asking, subject) => planOf(asking, subject)?.channel,
  }),
  'radio.width': ofRadio<number>({
    step: 'radios',
    words: 'Width',
    value: z.number(),
    ask: (asking, subject) => planOf(asking, subject)?.width,
    show: (mhz) => `${mhz} MHz`,
  }),
  // Two blocks of 40 MHz at 2.4 GHz have one primary channel: elsewhere channel and width say it all.
  'radio.secondary': ofRadio<Side>({
    step: 'radios',
    words: 'Second channel',
    value: z.enum(['above', 'below']),
    ask: (asking, subject) => {
      const plan = planOf(asking, subject)
      return plan && secondaryOf(plan)
    },
  }),
  'radio.power': ofRadio<number>({
    step: 'radios',
    words: 'Power',
    value: z.number(),
    ask: (asking, subject) => planOf(asking, subject)?.power.set,
    show: (dbm) => `${dbm} dBm`,
  }),
  'radio.low-rates': ofRadio<'kept' | 'dropped'>({
    step: 'radios',
    words: 'Low data rates',
    plural: true,
    value: z.enum(['kept', 'dropped']),
    nothing: 'kept',
    ask: (asking, subject) => (planOf(asking, subject) ? asking.brief.radio.lowRates : undefined),
  }),
  'radio.beacon-interval': ofRadio<number>({
    step: 'radios',
    words: 'Beacon interval',
    value: z.number(),
    ask: (asking, subject) =>
      planOf(asking, subject) ? (asking.brief.radio.beaconIntervalTu ?? undefined) : undefined,
    show: (units) => `${units} TU`,
  }),
} as const
