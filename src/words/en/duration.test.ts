import { expect, it } from 'vitest'
import { cardOf } from '../../../tests/support/data'
import { shownSteps } from '../../ui/muster/shown-steps'
import { duration, secondsUntil } from './duration'

it.each([
  [0, '0 s'],
  [48.4, '48 s'],
  [60, '1 min'],
  [190, '3 min 10 s'],
  [-5, '0 s'],
])('says %d seconds as %s', (seconds, words) => {
  expect(duration(seconds)).toBe(words)
})

it('counts a wait in the seconds of the wire, and not below nothing', () => {
  expect(secondsUntil(2500, 1000, 60)).toBe(90)
  expect(secondsUntil(500, 1000, 60)).toBe(0)
  // Before the browser knows the time there is nothing to count.
  expect(secondsUntil(2500, 0, 60)).toBe(0)
})

it('has a column for joining only where the kit has what joins', () => {
  const own = cardOf('Ostrel O-40')
  expect(shownSteps([own, undefined])).not.toContain('joined')
  expect(shownSteps([own, cardOf('Tarnhelm T2')])).toContain('joined')
  expect(shownSteps([own])).not.toContain('save')
  expect(shownSteps([own, cardOf('Brackwater B7')])).toContain('save')
})
