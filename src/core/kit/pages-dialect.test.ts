import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { readKitCard } from './kit-card'

const text = readFileSync(join(import.meta.dirname, '../../../data/kit/pellworth-p6.yaml'), 'utf8')

it('a first question sets no login: whoever signs in would be locked out by the answer', () => {
  const answer = '- { at: "select[name=land]", setting: unit.country }'
  expect(text).toContain(answer)
  expect(readKitCard(text).ok).toBe(true)
  for (const setting of ['admin.password', 'admin.user']) {
    const reading = readKitCard(text.replace(answer, `- { at: "input[name=word]", setting: ${setting} }`))
    expect(reading.ok ? [] : reading.faults.map(({ field }) => field)).toEqual([
      'dialect.signIn.asks.0.fills.0.setting',
    ])
  }
})
