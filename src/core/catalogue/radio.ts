/** Settings of a radio, known by its band. A band that the brief leaves out is switched off. */
import { z } from 'zod'
import type { Side } from '../regulatory/blocks'
import { choice, figure } from './plain'
import { ofRadio } from './setting'
import { radioModes } from './values'

export type RadioMode = (typeof radioModes)[number]

export const radioSettings = {
  'radio.enabled': ofRadio<boolean>({
    words: 'Radio',
    value: z.boolean(),
    leaf: { path: 'enabled', absent: { value: false } },
  }),
  'radio.mode': ofRadio<RadioMode>({
    words: 'Wireless mode',
    value: z.enum(radioModes),
    leaf: { path: 'mode' },
    show: (mode) => `802.11${mode}`,
  }),
  'radio.channel': ofRadio<number>({ words: 'Channel', value: z.number(), leaf: { path: 'channel' } }),
  'radio.width': ofRadio<number>({
    words: 'Width',
    value: z.number(),
    leaf: { path: 'width' },
    show: (mhz) => `${mhz} MHz`,
  }),
  // Two blocks of 40 MHz at 2.4 GHz have one primary channel: elsewhere channel and width say it all.
  'radio.secondary': ofRadio<Side>({
    words: 'Second channel',
    value: z.enum(['above', 'below']),
    leaf: { path: 'secondary' },
  }),
  'radio.power': ofRadio<number>({
    words: 'Power',
    value: z.number(),
    leaf: { path: 'power', codec: 'decimal' },
    show: (dbm) => `${dbm} dBm`,
  }),
  'radio.low-rates': choice('radio', 'lowRates', {
    words: 'Low data rates',
    plural: true,
    choices: ['kept', 'dropped'],
    default: 'dropped',
    nothing: 'kept',
    leaf: { path: 'low-rates' },
  }),
  'radio.beacon-interval': figure('radio', 'beaconIntervalTu', {
    words: 'Beacon interval',
    unit: 'TU',
    least: 50,
    most: 1000,
    default: null,
    leaf: { path: 'beacon-interval', absent: { value: 100 } },
    show: (units) => `${units} TU`,
  }),
} as const
