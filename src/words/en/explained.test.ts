import { expect, it } from 'vitest'
import type { ChannelOption } from '../../core/radio/channels/channel-problem'
import { reasonSentences } from './explained'

const option = (channel: number): ChannelOption => ({
  channel,
  width: 40,
  lowMhz: 0,
  highMhz: 40,
  radar: false,
  price: 0,
})
const said = (part: Partial<Parameters<typeof reasonSentences>[0]>) =>
  reasonSentences(
    {
      ...{ radio: 'a 5', cost: 14, sharing: 1, worst: undefined, loudest: undefined },
      ...{ next: undefined, withoutRadar: undefined, afterRadar: undefined },
      ...part,
    },
    36,
    (radio) => radio.toUpperCase(),
  )

it('says whom a radio hears worst on its channel, and over how much of it', () => {
  expect(said({ worst: { radio: 'b 5', dbm: -77.6, overlap: 1, lossDb: 0 } })).toEqual([
    'It hears B 5 worst: -78 dBm on its own channel 36.',
  ])
  expect(said({ worst: { radio: undefined, dbm: -70, overlap: 0.5, lossDb: 0 } })).toEqual([
    "It hears a neighbour's network worst: -70 dBm on its own channel 36, over 50 % of the narrower one.",
  ])
})

it('says so where nobody disturbs it, or nobody is heard at all', () => {
  expect(said({ loudest: { radio: 'b 5', dbm: -60, overlap: 0, lossDb: 30 } })).toEqual([
    'Nobody whom it hears is on its channel 36; the loudest is B 5 at -60 dBm, elsewhere.',
  ])
  expect(said({})).toEqual(['It hears nobody, on channel 36 or another.'])
})

it('says how much comes through from a channel beside, here and where it could be', () => {
  const beside = { radio: 'b 5', dbm: -52, overlap: 0, lossDb: 24.6 }
  expect(said({ worst: beside })).toEqual([
    'Nobody is on its channel 36; of B 5, at -52 dBm on a channel beside it, -77 dBm come through.',
  ])
  expect(said({ next: { option: option(44), cost: 15, sharing: 1, worst: beside } })[1]).toBe(
    'Next would be channel 44 at 40 MHz: of B 5 beside it -77 dBm come through.',
  )
})

it('says how many share the air, and what of it is left', () => {
  expect(said({ worst: { radio: 'b 5', dbm: -70, overlap: 1, lossDb: 0 }, sharing: 3 })[1]).toBe(
    '3 share the air here: when all of them talk, 33 % of the airtime is its own.',
  )
})

it('says what the next best channel is like, what is free of radar, and where it goes when radar is heard', () => {
  const at = (channel: number, dbm: number | undefined, sharing = 1) => ({
    option: option(channel),
    cost: 20,
    sharing,
    worst: dbm === undefined ? undefined : { radio: 'b 5', dbm, overlap: 1, lossDb: 0 },
  })
  expect(
    said({
      next: at(44, -71.2, 2),
      withoutRadar: { ...at(149, -88.4), listens: 600 },
      afterRadar: at(100, undefined),
    }).slice(1),
  ).toEqual([
    'Next would be channel 44 at 40 MHz: B 5 is heard there at -71 dBm, 50 % of the airtime would be its own.',
    'It listens for radar before it is on air, 10 minutes. Channel 149 is free of that: B 5 is heard there ' +
      'at -88 dBm, too faint to wait for.',
    'Should radar be heard on it, channel 100 at 40 MHz is the second choice: nobody is heard there.',
  ])
})
