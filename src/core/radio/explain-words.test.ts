import { expect, it } from 'vitest'
import type { ChannelOption } from './channel-problem'
import { reasonSentences } from './explain-words'

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
    { radio: 'a 5', cost: 14, worst: undefined, loudest: undefined, next: undefined, withoutRadar: undefined, ...part },
    36,
    (radio) => radio.toUpperCase(),
  )

it('says whom a radio hears worst on its channel, and over how much of it', () => {
  expect(said({ worst: { radio: 'b 5', dbm: -77.6, overlap: 1 } })).toEqual([
    'It hears B 5 worst: -78 dBm on its own channel 36.',
  ])
  expect(said({ worst: { radio: undefined, dbm: -70, overlap: 0.5 } })).toEqual([
    "It hears a neighbour's network worst: -70 dBm on its own channel 36, over 50 % of the narrower one.",
  ])
})

it('says so where nobody disturbs it, or nobody is heard at all', () => {
  expect(said({ loudest: { radio: 'b 5', dbm: -60, overlap: 0 } })).toEqual([
    'Nobody whom it hears is on its channel 36; the loudest is B 5 at -60 dBm, elsewhere.',
  ])
  expect(said({})).toEqual(['It hears nobody, on channel 36 or another.'])
})

it('says what the next best channel would cost, and what is free of radar at which price', () => {
  expect(
    said({
      next: { option: option(44), cost: 20 },
      withoutRadar: { option: option(149), listens: 600, cost: 17 },
    }).slice(1),
  ).toEqual([
    'Channel 44 at 40 MHz would be next: 20.0 of disturbance there, 14.0 here.',
    'It listens for radar before it is on air, 10 minutes. Channel 149 is free of that, at 3.0 more disturbance.',
  ])
})
