/** `muster plan` as a program of its own. */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
// @ts-expect-error the start scripts are plain JavaScript: they run before anything is installed
import { bundleIfStale } from '../../scripts/lib/bundle.mjs'

const root = join(import.meta.dirname, '../..')
const folder = mkdtempSync(join(tmpdir(), 'air-muster-plan-'))
beforeAll(() => bundleIfStale())
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const muster = (problem: unknown, ...more: string[]) => {
  const file = join(folder, 'problem.json')
  writeFileSync(file, typeof problem === 'string' ? problem : JSON.stringify(problem))
  return spawnSync(process.execPath, [join(root, 'bin/muster.mjs'), 'plan', '--problem', file, ...more], {
    cwd: root,
    encoding: 'utf8',
  })
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
  it('prints the plan, its cost and how long it took', () => {
    const { status, stdout } = muster(problem, '--json')
    expect(status).toBe(0)
    expect(JSON.parse(stdout)).toEqual({
      assign: [
        { id: 'a', channel: 52, width: 80 },
        { id: 'b', channel: 36, width: 80 },
        { id: 'c', channel: 52, width: 80 },
      ],
      cost: 0,
      seconds: expect.any(Number),
    })
    expect(muster(problem).stdout).toContain('b  channel 36, 80 MHz')
  })

  it('says what is wrong with a file, and where; exit code 2', () => {
    const wrong = muster({ ...problem, hears: [{ a: 'a', b: 'z', dbm: -70 }] }, '--json')
    expect(wrong.status).toBe(2)
    expect(wrong.stderr).toMatch(/problem\.json: hears\.0: there is no radio "z"/)
    expect(muster('{', '--json').stderr).toMatch(/problem\.json is not JSON/)
    const none = spawnSync(
      process.execPath,
      [join(root, 'bin/muster.mjs'), 'plan', '--problem', join(folder, 'none.json')],
      { cwd: root, encoding: 'utf8' },
    )
    expect([none.status, none.stderr]).toEqual([2, expect.stringContaining('cannot be read')])
  })
})
