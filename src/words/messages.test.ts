import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { asText, type Code, fromText, message, messageSchema } from '../core/message/message'
import { table } from '../core/message/table'
import type { Held, HeldCode } from '../core/muster/held'
import { messagesPage } from './messages-page'
import { papersIn } from './papers'
import { typicalHeld, typicalMessage } from './typical'

const codes = Object.keys(table) as Code[]
const heldCodes = Object.keys(typicalHeld) as HeldCode[]
const languages = Object.entries(papersIn)

/** What a sentence never holds: a value that nobody put into words, or a message that was not made into one. */
const unfinished = /undefined|null|NaN|\[object|=>|\$\{|^\s*$| {2}/

test.each(languages)('every code has its sentence, whole: %s', (_language, words) => {
  const said = codes.map((code) => [code, words.sentence(typicalMessage(code))] as const)
  expect(said.filter(([, text]) => unfinished.test(text))).toEqual([])
  expect(said).toHaveLength(codes.length)
})

test.each(languages)('every reason to hold a unit has its sentence, whole: %s', (_language, words) => {
  const said = heldCodes.map((code) => words.whyHeld({ code, params: typicalHeld[code] as Held['params'] }))
  expect(said.filter((text) => unfinished.test(text))).toEqual([])
})

test('no parameter is dropped on the way from one language to the other', () => {
  const named = (text: string): string[] => [...new Set(text.match(/‹\w+›/g))].sort()
  const [english, german] = [papersIn.en, papersIn.de]
  const apart = codes
    .map(typicalMessage)
    .map((each) => ({ code: each.code, en: named(english.sentence(each)), de: named(german.sentence(each)) }))
    .filter(({ en, de }) => en.join() !== de.join())
  expect(apart).toEqual([])
})

test('a value that is a word of English is one of German on German papers', () => {
  const say = (value: string): string => papersIn.de.sentence(message('hands-set', { setting: 'unit.country', value }))
  expect(say('sun at 03:30')).toBe('Land auf Sonntag, 03:30 setzen.')
  expect(say('mon, tue from 07:00 to 18:00')).toBe('Land auf Montag, Dienstag von 07:00 bis 18:00 setzen.')
})

test('a message is read back as it was written, as text and as JSON', () => {
  for (const each of codes.map(typicalMessage)) {
    expect(fromText(asText(each))).toEqual(each)
    expect(messageSchema.parse(JSON.parse(JSON.stringify(each)))).toEqual(each)
  }
})

test.each<[string, { code: string; params?: unknown }]>([
  ['a code that there is not', { code: 'never-heard-of', params: {} }],
  ['a code that every object has', { code: 'constructor', params: {} }],
  ['no parameters', { code: 'changes-applied' }],
  ['a list of parameters', { code: 'changes-applied', params: [] }],
  ['an object among them that is no message', { code: 'back-at', params: { address: { of: '10.0.0.1' } } }],
  [
    'a message of no code within a list',
    { code: 'together', params: { sentences: [{ code: 'nothing', params: {} }] } },
  ],
])('%s makes no message', (_what, value) => {
  expect(messageSchema.safeParse(value).success).toBe(false)
  expect(fromText(`${value.code} ${JSON.stringify(value.params)}`).code).toBe('as-told')
})

test('docs/messages.md is made from the table', () => {
  expect(readFileSync('docs/messages.md', 'utf8')).toBe(messagesPage())
})
