/** The command as a user runs it. */
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { expect, it } from 'vitest'

const root = join(import.meta.dirname, '../..')
function muster(...args: string[]): { status: number | null; out: string; err: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(root, 'bin/muster.mjs'), ...args], {
    encoding: 'utf8',
    cwd: root,
    maxBuffer: 64 * 1024 * 1024,
  })
  return { status, out: stdout, err: stderr }
}

it('prints the blocks of a country as JSON', () => {
  const { status, out } = muster('rules', 'nz', '--json')
  expect(status).toBe(0)
  const answer = JSON.parse(out)
  expect(answer).toMatchObject({ country: 'NZ', dfs: 'ETSI' })
  expect(answer.blocks).toContainEqual({
    band: '5',
    channel: 36,
    width: 20,
    lowMhz: 5170,
    highMhz: 5190,
    eirpDbm: 30,
    radar: false,
    indoor: false,
  })
})

it('prints every country, one object to a line', () => {
  const { out } = muster('rules', '--all', '--json')
  const lines = out
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line))
  expect(lines).toHaveLength(182)
  expect(lines[0]).toMatchObject({ country: '00', dfs: null })
})

it.each([
  ['UK', 'GB (United Kingdom)'],
  ['New Zealand', 'NZ (New Zealand)'],
  ['Germny', 'DE (Germany)'],
])('answers an unknown country %s with exit code 2 and near matches', (typed, near) => {
  const { status, out, err } = muster('rules', typed)
  expect(status).toBe(2)
  expect(out).toBe('')
  expect(err).toContain(`There are no radio rules for "${typed}". Near to it:`)
  expect(err).toContain(near)
})

it('says how to start it where nothing runs', () => {
  const { status, err } = muster('export', 'port-ellery')
  expect(status).toBe(2)
  expect(err).toContain('--csv')
})
