import { expect, it } from 'vitest'
import { holdersOfOtherEnd } from './peer'

const shown = [
  'u_str ESTAB 0      0                /run/helper.sock 410 * 411 users:(("node",pid=70,fd=21))      ',
  'u_str ESTAB 0      0           * 411 * 410 users:(("node",pid=81,fd=19),("sh",pid=82,fd=0))   ',
  'u_str ESTAB 0      0           * 500 * 501 ',
  'u_str ESTAB 0      0           * 501 * 500 ',
  'u_dgr UNCONN 0     0      /run/log 12 * 0 users:(("journal",pid=3,fd=4))',
].join('\n')

it('finds all processes that hold the other end of a socket', () => {
  expect(holdersOfOtherEnd(shown, '410')).toEqual([81, 82])
  expect(holdersOfOtherEnd(shown, '411')).toEqual([70])
})

it('finds nobody where the kernel tells of none, or does not know the socket', () => {
  expect(holdersOfOtherEnd(shown, '500')).toEqual([])
  expect(holdersOfOtherEnd(shown, '9')).toEqual([])
  expect(holdersOfOtherEnd('', '410')).toEqual([])
})

it('is not led astray by the name of a process: the true holder is among those found', () => {
  const named = shown.replace('"node",pid=81', '"x",pid=1,fd=3)",pid=81')
  expect(holdersOfOtherEnd(named, '410')).toContain(81)
  // A name with a line of its own makes the holder unknown, never another.
  expect(holdersOfOtherEnd(shown.replace('"node",pid=81', '"\n 411 * 1 ",pid=81'), '410')).toEqual([])
})
