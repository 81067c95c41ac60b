import { expect, it } from 'vitest'
import { contoursOf } from './contours'
import { stepsOf } from './level-steps'

const steps = stepsOf('level', 'light', 20)
const drawn = (columns: number, ...levels: number[]) =>
  contoursOf({ columns, rows: levels.length / columns }, Float32Array.from(levels), steps, -67)

it('draws a line where a step ends, and labels it once', () => {
  // Two squares of -50 above two of -60: one line between the rows, the lower bound of the louder.
  const { lines, labels } = drawn(2, -50, -50, -60, -60)
  expect(lines).toBe('M0 1h1M1 1h1')
  expect(labels).toEqual([{ step: 1, x: 0.5, y: 1 }])
  expect(drawn(2, -50, -51, -52, -53)).toMatchObject({ lines: '', labels: [] })
})

it('puts what is below the wanted level into runs of a row', () => {
  expect(drawn(3, -60, -68, -80, -67, -67.1, -90).faint).toBe('M1 0h2v1h-2zM1 1h2v1h-2z')
  expect(drawn(3, -60, -61, -62).faint).toBe('')
})

it('draws the end of what is heard at all', () => {
  expect(drawn(2, -80, -90)).toMatchObject({ lines: 'M1 0v1', labels: [{ step: 5, x: 1, y: 0.5 }] })
})
