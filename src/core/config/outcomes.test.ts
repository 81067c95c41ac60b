import { describe, expect, it } from 'vitest'
import { asTold } from '../message/message'
import { type SettingOutcome, standing } from './outcomes'

const key = { id: 'unit.name', of: '' } as const
const outcome = (kind: SettingOutcome['outcome'], more: Partial<SettingOutcome> = {}): SettingOutcome =>
  ({ ...key, asked: '"quay"', mark: 'm', outcome: kind, ...more }) as SettingOutcome
const proven = { kind: 'proven', value: '"quay"' } as const
const open = { kind: 'open' } as const
const byHand = { kind: 'by-hand', why: asTold('Set it.'), hands: asTold('Set it.') } as const

describe('an outcome that was kept', () => {
  const now = (expected: SettingOutcome, ...kept: SettingOutcome[]) => standing([expected], kept)[0]?.outcome.kind

  it('holds as long as the same is asked', () => {
    expect(now(outcome(open), outcome(proven))).toBe('proven')
    expect(now(outcome(open), outcome(proven, { mark: 'other' }))).toBe('open')
    expect(now(outcome(open), outcome(proven, { asked: '"other"' }))).toBe('open')
    expect(now(outcome(open))).toBe('open')
  })

  it('holds for what is left to hands only where it was seen from outside', () => {
    expect(now(outcome(byHand), outcome(proven))).toBe('proven')
    expect(now(outcome(byHand), outcome({ kind: 'written', mark: 'm' }))).toBe('by-hand')
    expect(now(outcome(byHand))).toBe('by-hand')
  })

  it('takes the place of nothing that is known by the asking alone', () => {
    const never = outcome({ kind: 'not-for-it', why: asTold('no') })
    expect(now(never, outcome(proven))).toBe('not-for-it')
  })
})
