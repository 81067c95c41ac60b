/** `muster plan`. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { muster as command } from '../support/command'

const folder = mkdtempSync(join(tmpdir(), 'air-muster-plan-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const muster = (problem: unknown, ...more: string[]) => {
  const file = join(folder, 'problem.json')
  writeFileSync(file, typeof problem === 'string' ? problem : JSON.stringify(problem))
  return command({}, 'plan', '--problem', file, ...more)
}
const options = [
  { channel: 36, width: 80, lowMhz: 5170, highMhz: 5250, radar: false },
  { channel: 52, width: 80, lowMhz: 5250, highMhz: 5330, radar: true },
]
const problem = {
  radios: ['a', 'b', 'c'].map((id) => ({ id, band: '5', options, locked: id === 'c' ? 52 : null })),
  hears: [
    { a: 'a', b: 'b', dbm: -70 },
    { a: 'b', b: 'c', dbm: -80 },
  ],
  others: [{ radio: 'a', lowMhz: 5170, highMhz: 5190, dbm: -75 }],
}

describe('muster plan', () => {
  it('prints the plan, its cost and how long it took', async () => {
    const { status, out } = await muster(problem, '--json')
    expect(status).toBe(0)
    expect(JSON.parse(out)).toEqual({
      assign: [
        { id: 'a', channel: 52, width: 80 },
        { id: 'b', channel: 36, width: 80 },
        { id: 'c', channel: 52, width: 80 },
      ],
      cost: 0,
      seconds: expect.any(Number),
    })
    expect((await muster(problem)).out).toContain('b  channel 36, 80 MHz')
  })

  it('says what is wrong with a file, and where; exit code 2', async () => {
    const wrong = await muster({ ...problem, hears: [{ a: 'a', b: 'z', dbm: -70 }] }, '--json')
    expect(wrong.status).toBe(2)
    expect(wrong.err).toMatch(/problem\.json: hears\.0: there is no radio "z"/)
    expect((await muster('{', '--json')).err).toMatch(/problem\.json is not JSON/)
    const none = await command({}, 'plan', '--problem', join(folder, 'none.json'))
    expect([none.status, none.err]).toEqual([2, expect.stringContaining('cannot be read')])
  })
})
