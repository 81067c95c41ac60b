import { expect, it } from 'vitest'
import { boxAround, freeSpot } from './free-spot'

const from = { x: 0, y: 0 }
const to = { x: 100, y: 50 }

it('is the middle of the line where nothing stands there', () => {
  expect(freeSpot(from, to, 20, 10, [])).toEqual({ x: 50, y: 25 })
  expect(freeSpot(from, to, 20, 10, [boxAround({ x: 50, y: 45 }, 20, 20)])).toEqual({ x: 50, y: 25 })
})

it('moves along the line past what is in its way', () => {
  expect(freeSpot(from, to, 20, 10, [boxAround({ x: 52, y: 26 }, 20, 10)])).toEqual({ x: 30, y: 15 })
  expect(freeSpot(from, to, 20, 10, [boxAround({ x: 40, y: 20 }, 50, 30)])).toEqual({ x: 80, y: 40 })
})

it('stays in the middle where the whole line is covered', () => {
  expect(freeSpot(from, to, 20, 10, [boxAround({ x: 50, y: 25 }, 300, 300)])).toEqual({ x: 50, y: 25 })
})
