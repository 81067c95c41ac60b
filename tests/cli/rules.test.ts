/** The rules of countries from the command line. */
import { expect, it } from 'vitest'
import { muster as command } from '../support/command'

const muster = (...words: string[]) => command({}, ...words)

it('prints the blocks of a country as JSON', async () => {
  const { status, out } = await muster('rules', 'nz', '--json')
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

it('prints every country, one object to a line', async () => {
  const { out } = await muster('rules', '--all', '--json')
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
])('answers an unknown country %s with exit code 2 and near matches', async (typed, near) => {
  const { status, out, err } = await muster('rules', typed)
  expect(status).toBe(2)
  expect(out).toBe('')
  expect(err).toContain(`There are no radio rules for "${typed}". Near to it:`)
  expect(err).toContain(near)
})

it('says how to start it where nothing runs', async () => {
  const { status, err } = await muster('export', 'port-ellery')
  expect(status).toBe(2)
  expect(err).toContain('--csv')
})
