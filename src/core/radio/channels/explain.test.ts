import { describe, expect, it } from 'vitest'
import type { ChannelOption, ChannelProblem } from './channel-problem'
import { explainRadios } from './explain'

const option = (channel: number, part: Partial<ChannelOption> = {}): ChannelOption => {
  const lowMhz = 5000 + 5 * channel - 10
  return { channel, width: 20, lowMhz, highMhz: lowMhz + 20, radar: false, price: 0, ...part }
}
const [c36, c44, c52, c60] = [
  option(36),
  option(44),
  option(52, { radar: true, listenSeconds: 60 }),
  option(60, { radar: true, listenSeconds: 600 }),
] as [ChannelOption, ChannelOption, ChannelOption, ChannelOption]
const wide = option(36, { width: 40, highMhz: 5210 })
const radio = (id: string, ...options: ChannelOption[]) => ({
  id,
  band: '5' as const,
  options,
  locked: null,
  set: null,
})
const hears = (a: string, b: string, dbm: number) => ({ a, b, dbm })

/** Why `a` has its channel, among `b`, `c` and `d`. */
function reasonOf(own: ChannelOption, others: Record<string, ChannelOption>, part: Partial<ChannelProblem>) {
  const problem: ChannelProblem = {
    radios: [radio('a', wide, c36, c44, c52, c60), ...Object.keys(others).map((id) => radio(id, c36, c44, c52, c60))],
    hears: [],
    others: [],
    ...part,
  }
  return explainRadios(problem, new Map([['a', own], ...Object.entries(others)])).get('a')
}

describe('why a radio has its channel', () => {
  it('is whom it hears worst there, and how many share it: from -82 dBm on, itself among them', () => {
    const reason = reasonOf(
      c36,
      { b: c36, c: c36, d: c36, e: c44 },
      {
        hears: [hears('a', 'b', -82), hears('c', 'a', -60), hears('a', 'd', -82.1), hears('a', 'e', -40)],
      },
    )
    expect(reason?.worst).toEqual({ radio: 'c', dbm: -60, overlap: 1, lossDb: 0 })
    expect(reason?.sharing).toBe(3)
    expect(reason?.cost).toBeCloseTo(10 + 32 + 9.9, 9)
    expect(reason?.loudest).toMatchObject({ radio: 'e', dbm: -40, overlap: 0 })
  })

  it('counts networks of others, and nobody who is too faint or on no channel', () => {
    const reason = reasonOf(
      c36,
      { b: c36 },
      {
        hears: [hears('a', 'b', -93), hears('a', 'nobody', -50)],
        others: [
          { radio: 'a', lowMhz: 5170, highMhz: 5190, dbm: -70 },
          { radio: 'b', lowMhz: 5170, highMhz: 5190, dbm: -30 },
        ],
      },
    )
    expect(reason).toMatchObject({ cost: 22, sharing: 2, worst: { radio: undefined, dbm: -70 } })
    expect(reason?.loudest).toMatchObject({ radio: undefined, dbm: -70 })
  })

  it('names the best other channel of its own width, the one with less listening among equals', () => {
    const reason = reasonOf(c36, { b: c44 }, { hears: [hears('a', 'b', -60)] })
    expect(reason?.next?.option).toBe(c52)
    expect(reasonOf(c36, {}, {})?.next?.option).toBe(c44)
    expect(reasonOf(wide, {}, {})?.next).toBeUndefined()
    expect(
      reasonOf(c36, { b: c44, c: c52 }, { hears: [hears('a', 'b', -60), hears('a', 'c', -60)] })?.next,
    ).toMatchObject({
      option: c60,
      cost: 0,
      sharing: 1,
      worst: undefined,
    })
  })

  it('asks among equals for the shorter listening, in whatever order the options stand', () => {
    const problem: ChannelProblem = { radios: [radio('a', c60, c52, c36)], hears: [], others: [] }
    expect(explainRadios(problem, new Map([['a', c36]])).get('a')?.next?.option).toBe(c52)
  })

  it('goes after radar to nothing that radar has shut a part of', () => {
    const beside = option(54, { radar: true, listenSeconds: 60 })
    const problem: ChannelProblem = { radios: [radio('a', c52, beside, c60)], hears: [], others: [] }
    expect(explainRadios(problem, new Map([['a', c52]])).get('a')?.afterRadar?.option).toBe(c60)
  })

  it('counts among those who take turns nobody of whom only what comes through from a channel beside is heard', () => {
    const beside = option(40)
    const problem: ChannelProblem = {
      radios: [radio('a', c36), radio('b', beside)],
      hears: [hears('a', 'b', -40)],
      others: [],
      adjacent: 'by-mask',
    }
    const chosen = new Map([
      ['a', c36],
      ['b', beside],
    ])
    const reason = explainRadios(problem, chosen).get('a')
    expect(reason?.sharing).toBe(1)
    expect(reason?.worst).toMatchObject({ radio: 'b', overlap: 0 })
  })

  it('names what is free of radar, and where it goes after radar, only where it listens itself', () => {
    const listening = reasonOf(c52, { b: c36 }, { hears: [hears('a', 'b', -60)] })
    expect(listening?.withoutRadar).toMatchObject({ option: c44, listens: 60, cost: 0 })
    expect(listening?.afterRadar?.option).toBe(c44)
    expect(reasonOf(c60, {}, {})?.withoutRadar?.listens).toBe(600)
    const free = reasonOf(c36, {}, {})
    expect([free?.withoutRadar, free?.afterRadar]).toEqual([undefined, undefined])
  })

  it('says nothing of a radio without a channel, and only that nobody is heard of one that is alone', () => {
    const problem: ChannelProblem = { radios: [radio('a', c36), radio('b', c36)], hears: [], others: [] }
    const reasons = explainRadios(problem, new Map([['a', c36]]))
    expect([...reasons.keys()]).toEqual(['a'])
    expect(reasons.get('a')).toMatchObject({
      cost: 0,
      sharing: 1,
      worst: undefined,
      loudest: undefined,
      next: undefined,
    })
  })
})
