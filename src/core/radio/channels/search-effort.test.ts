import { expect, it } from 'vitest'
import { type Effort, workFor } from './search-effort'

it.each<[Effort, [radios: number, cells: number][]]>([
  [
    'thorough',
    [
      [1, 2_500_000],
      [68, 36_000_000],
      [320, 36_000_000],
      [321, 22_470_000],
      [2000, 140_000_000],
      [20_000, 1_000_000_000],
    ],
  ],
  [
    'quick',
    [
      [1, 125_000],
      [156, 4_000_000],
      [320, 4_000_000],
      [321, 12_000_000],
      [10_000, 12_000_000],
    ],
  ],
  [
    'greedy',
    [
      [1, 0],
      [321, 0],
    ],
  ],
])('%s looks at so many cells', (effort, table) => {
  expect(table.map(([radios]) => workFor(radios, effort))).toEqual(table.map(([, cells]) => cells))
})
