import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { askingFor } from '../../../tests/support/config'
import { spokenOf } from '../config/outcomes'
import { readKitCard } from '../kit/kit-card'
import { elementUses } from '../kit/page-element'
import { pressRoles } from './act'
import { type Noted, notedSchema } from './noted'
import { answered, nothingShown, type Showing, type ShownRecord, withNoted } from './record'
import { shownCard } from './shown-card'

const spoken = spokenOf(askingFor('Ostrel O-40'))
const mac = '02:48:31:00:00:01'
const showing: Showing = { mac, spoken, factory: { user: 'setup', password: 'out-of-the-box' }, putIn: [] }
const unit = {
  model: 'Some Box',
  mac,
  address: '192.168.1.1',
  scheme: 'http',
  port: 80,
  factory: showing.factory,
  spoken,
} as const
const secrets = spoken
  .filter(({ id }) => id === 'admin.password' || id === 'network.passphrase')
  .map(({ value }) => String(value))
const made = (record: ShownRecord) => shownCard(record, unit)

describe('a record of what a hostile page tells', () => {
  const own = fc.constantFrom(
    ...spoken.map(({ value }) => String(value)),
    ...[
      '',
      '36 - 5.180 GHz',
      '(?<value>',
      'a'.repeat(200),
      '- { x: [',
      '\\',
      '2.4 GHz',
      'Channel',
      'Password',
      'Yes',
      'Remove',
    ],
  )
  const words = fc.oneof(own, fc.string({ maxLength: 30, unit: 'binary' }))
  const facts = fc.array(
    fc.record({
      ...{ seen: fc.nat(6), use: fc.constantFrom(...elementUses) },
      ...{ name: words, id: words, label: words, text: words, hint: words, role: words, heading: words, row: words },
    }),
    { maxLength: 6 },
  )
  const row = fc.option(fc.record({ each: words, name: words }), { nil: null })
  const puts = fc.oneof(
    fc.record({ kind: fc.constant('typed' as const), seen: fc.nat(6), text: words }),
    fc.record({
      kind: fc.constant('ticked' as const),
      seen: fc.nat(6),
      ticked: fc.boolean(),
      isOneOfSeveral: fc.boolean(),
    }),
    fc.record({
      kind: fc.constant('chosen' as const),
      seen: fc.nat(6),
      value: words,
      offered: fc.array(words, { maxLength: 4 }),
    }),
  )
  const standing = fc.array(puts, { maxLength: 6 })
  const pressed = fc.record({ kind: fc.constant('pressed' as const), seen: fc.nat(6), row, standing })
  const hands = fc.oneof(puts, pressed)
  const told = fc.record({ path: words, facts, hands: fc.option(hands, { nil: undefined }), rows: fc.constant([]) })

  it('becomes a card or faults of one, and never holds a secret', () => {
    fc.assert(
      fc.property(fc.array(told, { maxLength: 14 }), fc.nat(13), fc.constantFrom(...pressRoles), (all, act, role) => {
        const noted = all.flatMap((each): Noted[] => {
          const noted = notedSchema.safeParse(each)
          return noted.success ? [noted.data] : []
        })
        const record = noted.reduce((before, each) => withNoted(before, each, showing), nothingShown)
        const { yaml } = made(answered(record, act, role))
        for (const secret of secrets) expect(yaml).not.toContain(secret)
        readKitCard(yaml)
      }),
      { numRuns: 300 },
    )
  })
})

it('keeps what was chosen from a list of the site out of it', () => {
  const element = {
    seen: 0,
    use: 'choose',
    name: '',
    id: '',
    label: 'Country',
    text: '',
    hint: '',
    role: '',
    heading: '',
    row: '',
  } as const
  const [secret = ''] = secrets
  const noted: Noted = {
    ...{ path: '/', facts: [element], rows: [] },
    hands: { kind: 'chosen', seen: 0, value: secret, offered: [secret] },
  }
  const record = withNoted(nothingShown, noted, showing)
  expect(record.acts[0]?.does).toMatchObject({ value: { kind: 'unknown' } })
  expect(made(record).yaml).not.toContain(secret)
})

it('says all that it lacks where nothing was shown', () => {
  expect(made(nothingShown).missing.map(({ code }) => code)).toEqual(['no-sign-in', 'no-settings'])
})
