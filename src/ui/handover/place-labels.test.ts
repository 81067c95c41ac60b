import { expect, it } from 'vitest'
import { placeLabels } from './place-labels'

const at = (key: string, x: number, y = 100) => ({ key, text: `${key}: 36`, x, y })

it('writes a name above its point, and where another is there, below it or farther off', () => {
  const labels = placeLabels([at('a', 0), at('b', 30), at('c', 60), at('d', 80), at('e', 85), at('far', 500)], 10)
  expect(labels.map(({ key, x, y }) => [key, x, y])).toEqual([
    ['a', 0, 94],
    ['b', 30, 113],
    ['c', 60, 94],
    ['d', 80, 113],
    ['e', 85, 83],
    ['far', 500, 94],
  ])
})

it('writes every name, also where there is no room left', () => {
  const crowd = Array.from({ length: 9 }, (_, index) => at(`u${index}`, 0))
  expect(placeLabels(crowd, 10)).toHaveLength(9)
})
