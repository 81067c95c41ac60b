import { describe, expect, it } from 'vitest'
import { sentence } from '../../words/en/sentence'
import { type PartName, type Pulse, pulseMessages } from './pulse'

const part = (name: PartName, more: Partial<Pulse['parts'][number]> = {}): Pulse['parts'][number] => ({
  name,
  standing: 'runs',
  forMs: 60_000,
  restarts: 0,
  ...more,
})
const well: Pulse = {
  now: 0,
  database: 'answers',
  runnerSilentMs: 800,
  wire: 'works',
  sweptMsAgo: 100,
  disk: 'has-room',
  parts: [part('database'), part('lab'), part('runner'), part('pages')],
  failed: {},
}

describe('what a page says of the parts', () => {
  it('is nothing where all is well', () => {
    expect(pulseMessages(well)).toEqual([])
    expect(pulseMessages({ ...well, parts: [] })).toEqual([])
  })

  it.each([
    [
      'the disk is full',
      { disk: 'full' },
      ['The disk of this laptop is full: nothing is lost, and all goes on when there is room again.'],
    ],
    [
      'the database does not answer',
      { database: 'away', runnerSilentMs: null },
      ['The database is away: it is started again, and all goes on from where it was.'],
    ],
    [
      'the runner has died',
      { parts: [part('runner', { standing: 'away', forMs: 10 })] },
      ['Nobody works on the wire: the runner is started again.'],
    ],
    [
      'the runner is silent, and nobody starts it again',
      { runnerSilentMs: 9000, parts: [] },
      ['Nobody works on the wire: start the runner.'],
    ],
    ['there never was a runner', { runnerSilentMs: null, parts: [] }, ['Nobody works on the wire: start the runner.']],
    ['the laptop does not reach the wire', { wire: 'away', parts: [] }, ['This laptop does not reach the wire.']],
    [
      'the lab has died',
      { parts: [part('lab', { standing: 'away', forMs: 10 })] },
      ['The lab is away: it is started again, its units as after a power cut.'],
    ],
    [
      'the runner came back',
      { parts: [part('runner', { restarts: 1, forMs: 3000 })] },
      ['The runner was away and is back.'],
    ],
    [
      'three came back',
      {
        parts: [
          part('database', { restarts: 1, forMs: 10 }),
          part('lab', { restarts: 2, forMs: 10 }),
          part('pages', { restarts: 1, forMs: 10 }),
        ],
      },
      ['The database, the lab and the pages were away and are back.'],
    ],
    ['the pages came back long ago', { parts: [part('pages', { restarts: 1, forMs: 30_000 })] }, []],
  ] satisfies [string, Partial<Pulse>, string[]][])('when %s', (_what, change, sentences) => {
    expect(pulseMessages({ ...well, ...change }).map(sentence)).toEqual(sentences)
  })
})
